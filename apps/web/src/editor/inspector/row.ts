/** A name and its value beside it: all names of the inspector are equally wide. */
export const NAME_AND_VALUE = 'grid grid-cols-[92px_1fr] gap-1';
