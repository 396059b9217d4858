/** A name and its value beside it: all names of the inspector are equally wide. */
export const NAME_AND_VALUE = 'grid grid-cols-[92px_1fr] gap-1';
/** The same, where the value is one line high. */
export const NAME_AND_FIELD = `${NAME_AND_VALUE} items-center`;
