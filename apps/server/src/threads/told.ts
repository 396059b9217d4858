/** Errors as they go from thread to thread, where only plain data goes: those that are known keep their kind. */
import { Invalid } from '@kite/core/check/problem';
import { Refused } from '../errors';
import { DbFailure, SqlError } from '../store/db';

export type Told =
  | { readonly kind: 'invalid'; readonly message: string; readonly field: string }
  | { readonly kind: 'refused'; readonly code: Refused['code']; readonly message: string; readonly details: object }
  | { readonly kind: 'db'; readonly failure: DbFailure['kind']; readonly message: string }
  | { readonly kind: 'sql'; readonly code: string; readonly message: string }
  | { readonly kind: 'other'; readonly message: string; readonly stack: string | undefined };

export const told = (error: unknown): Told => {
  if (!(error instanceof Error)) return { kind: 'other', message: String(error), stack: undefined };
  const { message } = error;
  if (error instanceof Invalid) return { kind: 'invalid', message, field: error.field };
  if (error instanceof Refused) return { kind: 'refused', code: error.code, message, details: error.details };
  if (error instanceof DbFailure) return { kind: 'db', failure: error.kind, message };
  // PGlite's own errors have an SQLSTATE as well.
  const { code } = error as { code?: unknown };
  if (typeof code === 'string') return { kind: 'sql', code, message };
  return { kind: 'other', message, stack: error.stack };
};

export const heard = (error: Told): Error => {
  switch (error.kind) {
    case 'invalid':
      return new Invalid(error.message, error.field);
    case 'refused':
      return new Refused(error.code, error.message, error.details as Refused['details']);
    case 'db':
      return new DbFailure(error.failure, error.message);
    case 'sql':
      return new SqlError(error.message, error.code);
    case 'other':
      return Object.assign(new Error(error.message), error.stack && { stack: error.stack });
  }
};
