/** A new id of 20 hexadecimal digits. Pages that come over plain HTTP from another machine have no `randomUUID`. */
export const newId = (): string =>
  [...crypto.getRandomValues(new Uint8Array(10))].map((byte) => byte.toString(16).padStart(2, '0')).join('');
