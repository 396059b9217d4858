import type { Code } from '@kite/api/errors';

/** What the server refuses, with a sentence for people. */
export class Refused extends Error {
  constructor(
    readonly code: Code,
    message: string,
    readonly details: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
    this.name = 'Refused';
  }
}
