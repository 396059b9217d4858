/** A value against a schema, and what is said of the first thing that does not fit. */
import { type Schema, ValidationError } from 'yup';
import { Invalid } from './problem';

/** Throws Invalid with the first thing that does not fit. */
export const fits = (schema: Schema, value: unknown, path = ''): void => {
  try {
    schema.validateSync(value, { strict: true, abortEarly: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const at = error.path ?? '';
    const field = [path, at].filter(Boolean).join('.');
    // Messages start with the path within this schema.
    const rest = error.message.startsWith(`${at || 'this'}: `)
      ? error.message.slice((at || 'this').length + 2)
      : error.message;
    throw new Invalid(`${field || 'the document'}: ${rest}`, field);
  }
};
