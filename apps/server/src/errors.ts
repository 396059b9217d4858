/** The catalogue of what the server refuses: a code, a status, and a sentence for people. */
export const CODES = {
  invalid: 400,
  not_found: 404,
  stale: 409,
  not_ready: 409,
  too_large: 413,
  foreign: 403,
  locked: 401,
  too_often: 429,
  no_room: 507,
  broken: 503,
} as const;

export class Refused extends Error {
  constructor(
    readonly code: keyof typeof CODES,
    message: string,
    readonly details: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
    this.name = 'Refused';
  }
}
