/** The time that entries of a zip carry: fixed, so that the same project gives the same bytes. */
export const EPOCH = new Date(1980, 0, 1);
