/** docs/http.md, made from the calls and the rules that they are checked by. */
import type { Rule } from '@kite/core/check/rules';
import { settingRules } from '@kite/core/check/settings';
import type { SchemaDescription } from 'yup';
import { type AnyCall, typesOf } from './call';
import { CALLS } from './calls';
import { CODES } from './errors';

interface Described extends SchemaDescription {
  readonly fields?: Readonly<Record<string, Described>>;
  readonly innerType?: Described;
  readonly meta?: { readonly wanted?: string; readonly each?: Rule };
}
const described = (rule: Rule): Described => rule.describe() as Described;

/** The fields of an object, a line each, those of what is in them indented. */
const fieldLines = (what: Described, depth = 0): string[] =>
  Object.entries(what.fields ?? {}).flatMap(([name, field]) => [
    `${'  '.repeat(depth)}- \`${name}\`: ${wantedOf(field)}`,
    ...innerLines(field, depth + 1),
  ]);

const innerLines = (field: Described, depth: number): string[] => {
  const each = field.meta?.each ? described(field.meta.each) : field.innerType;
  return fieldLines(each ?? field, depth);
};

const wantedOf = ({ meta, innerType, fields }: Described): string => {
  if (meta?.wanted) return meta.wanted;
  if (innerType) return innerType.fields ? 'a list, each' : `a list, each ${wantedOf(innerType)}`;
  return fields ? 'an object' : 'anything';
};

const bodyLines = (title: string, body: Rule | undefined): string[] => {
  if (!body) return [];
  const types = typesOf(body);
  if (types) return ['', `${title}: bytes (${types.join(', ')}).`];
  const what = described(body);
  const lines = innerLines(what, 0);
  if (lines.length === 0) return ['', `${title}: ${wantedOf(what)}.`];
  return ['', `${title}${what.innerType ? ', a list, each' : ''}:`, '', ...lines];
};

const callLines = ({ method, path, does, query, body, line, answer, makes, refuses }: AnyCall): string[] => [
  '',
  `### ${method} /api${path}`,
  '',
  does,
  ...Object.entries(query ?? {}).flatMap(([name, meaning]) => ['', `\`?${name}\`: ${String(meaning)}.`]),
  ...bodyLines('Takes', body),
  ...bodyLines(`Answers${makes ? ' (201)' : ''}`, answer),
  ...(line ? [...bodyLines('Takes, each message', line.takes), ...bodyLines('Gives, each message', line.gives)] : []),
  ...(answer || line ? [] : ['', 'Answers nothing (204).']),
  ...(refuses?.length ? ['', `Refuses: ${refuses.map((code: string) => `\`${code}\``).join(', ')}.`] : []),
];

export const httpMarkdown = (): string =>
  [
    '# The API',
    '',
    'Made from `packages/api` by its test (`npx vitest run --project api -u`): what is written here is what requests are checked by.',
    '',
    'Bodies are JSON in UTF-8 where nothing else is said; fields that are not named here are refused. A refusal is',
    '`{"error": {"code", "message", "field"?}}`, with a sentence for people in `message`.',
    ...Object.entries(CALLS).flatMap(([title, calls]) => [
      '',
      `## ${title}`,
      ...Object.values(calls as Readonly<Record<string, AnyCall>>).flatMap(callLines),
    ]),
    '',
    '## Settings of a render',
    '',
    'By `format`; formulas and colours are those of docs/file-format.md.',
    ...[...settingRules()].flatMap(([format, rule]) => ['', `### ${format}`, '', ...innerLines(described(rule), 0)]),
    '',
    '## What is refused',
    '',
    '| code | status | when |',
    '| --- | --- | --- |',
    ...Object.entries(CODES).map(([code, { status, when }]) => `| \`${code}\` | ${status} | ${when} |`),
    '',
  ].join('\n');
