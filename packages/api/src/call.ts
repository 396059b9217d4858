/**
 * What the server can be asked, as both sides of the wire know it: the server checks what comes by the same rules that
 * docs/http.md is made from, and the browser's calls have their types.
 */
import { object, type Rule } from '@kite/core/check/rules';
import * as yup from 'yup';
import type { Code } from './errors';

/** A rule for values of one type. */
export type RuleOf<T> = yup.Schema<T>;

/** The rule of an object: one rule for each of its fields, no others. */
export const shape = <T>(fields: { readonly [K in keyof T]-?: Rule }): RuleOf<T> =>
  object(fields as Record<string, Rule>) as unknown as RuleOf<T>;

export const listOf = <T>(inner: RuleOf<T>): RuleOf<readonly T[]> =>
  yup.array().strict().required().of(inner) as unknown as RuleOf<readonly T[]>;

/** What is sent as it is, not as JSON. */
export const bytes = (...types: string[]): RuleOf<Uint8Array> =>
  yup.mixed().meta({ bytes: types }) as unknown as RuleOf<Uint8Array>;
/** The media types of what is sent as it is; null for JSON. */
export const typesOf = (rule: Rule): readonly string[] | null =>
  (rule.meta() as { bytes?: readonly string[] } | undefined)?.bytes ?? null;

/** The names of an address's parts that stand for something: `id` in `/projects/:id/rename`. */
type Parts<Path extends string> = Path extends `${infer Head}/${infer Rest}`
  ? Parts<Head> | Parts<Rest>
  : Path extends `:${infer Name}`
    ? Name
    : never;

export interface Call<Path extends string = string, Query extends string = string, Body = unknown, Answer = unknown> {
  readonly method: 'GET' | 'POST' | 'PATCH' | 'DELETE';
  /** Under `/api`; `:name` stands for a part. */
  readonly path: Path;
  readonly does: string;
  /** What may be asked behind the path, and what it means. */
  readonly query?: { readonly [K in Query]: string };
  readonly body?: RuleOf<Body>;
  /** Nothing is answered (204) where this is missing. */
  readonly answer?: RuleOf<Answer>;
  /** Of a call that opens a line (WebSocket, RFC 6455): what each message either way is. */
  readonly line?: { readonly takes: Rule; readonly gives: Rule };
  /** Whether something new is there afterwards (201). */
  readonly makes?: boolean;
  /** Beside `invalid` for what does not fit the rules. */
  readonly refuses?: readonly Code[];
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- any call, whatever it takes and gives
export type AnyCall = Call<any, any, any, any>;

type RuleFor<R> = R extends RuleOf<infer T> ? T : undefined;
export type ParamsOf<C extends AnyCall> = { readonly [K in Parts<C['path']>]: string } & {
  readonly [K in keyof NonNullable<C['query']>]?: string;
};
export type BodyOf<C extends AnyCall> = RuleFor<NonNullable<C['body']>>;
export type AnswerOf<C extends AnyCall> = RuleFor<NonNullable<C['answer']>>;

export const call = <const Path extends string, Query extends string = never, Body = undefined, Answer = undefined>(
  asked: Call<Path, Query, Body, Answer>,
): Call<Path, Query, Body, Answer> => asked;

/** The address of a call, from the root of the server. */
export const urlOf = <C extends AnyCall>({ path, query }: C, params: ParamsOf<C>): string => {
  const given = params as Readonly<Record<string, string | undefined>>;
  const filled = String(path).replace(/:(\w+)/g, (_whole, name: string) => encodeURIComponent(given[name] ?? ''));
  const asked = Object.keys(query ?? {}).flatMap((name) =>
    given[name] === undefined ? [] : [`${name}=${encodeURIComponent(given[name])}`],
  );
  return `/api${filled}${asked.length > 0 ? `?${asked.join('&')}` : ''}`;
};
