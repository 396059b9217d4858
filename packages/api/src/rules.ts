/** Rules of what is said about things, beside those of the document. */
import { isId, isText } from '@kite/core/document/is';
import { type Rule, rule } from '@kite/core/check/rules';
import type { RuleOf } from './call';

export const idRule = rule('an id', isId);
export const countRule = rule('a whole number', (v) => Number.isSafeInteger(v) && (v as number) >= 0);
export const timeRule = rule('a time (ISO 8601)', (v) => !Number.isNaN(Date.parse(String(v))));
export const textRule = (most: number): RuleOf<string> =>
  rule(
    `a text of 1 to ${most} whole characters`,
    (v) => isText(v) && v.length > 0 && v.length <= most,
  ) as RuleOf<string>;
/** What may be left out. */
export const maybe = (inner: Rule, wanted: string): Rule =>
  rule(`${wanted}, or nothing`, (v) => v === undefined || inner.isValidSync(v)).optional();
export const orNull = (inner: Rule, wanted: string): Rule =>
  rule(`${wanted}, or null`, (v) => v === null || inner.isValidSync(v));
