/** The server, asked by the calls of its API. Errors carry the server's own sentence. */
import { type AnswerOf, type AnyCall, type BodyOf, type ParamsOf, typesOf, urlOf } from '@kite/api/call';
import type { Code } from '@kite/api/errors';
import { type Render, RENDERS } from '@kite/api/renders';
import { formatOf } from '@kite/core/delivery/formats/table';

export class ApiError extends Error {
  constructor(
    message: string,
    readonly code: Code,
    readonly status: number,
  ) {
    super(message);
    this.name = 'ApiError';
  }
}
/** The server did not answer at all. */
export class Away extends Error {
  constructor() {
    super('The server cannot be reached.');
    this.name = 'Away';
  }
}

/** Bytes are sent as a blob. */
type Sent<C extends AnyCall> = BodyOf<C> extends Uint8Array ? Blob : BodyOf<C>;
type Asked<C extends AnyCall> = [
  ...(keyof ParamsOf<C> extends never ? [] : [params: ParamsOf<C>]),
  ...(BodyOf<C> extends undefined ? [] : [body: Sent<C>]),
];

/** How a body goes, by its rule. */
const sent = (call: AnyCall, body: unknown): { body?: Blob | string; headers?: Record<string, string> } => {
  const types = call.body && typesOf(call.body);
  if (types) return { body: body as Blob, headers: { 'content-type': types[0] as string } };
  return body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } };
};

/** Asks the server: the parts of the address first, where it has any, then the body, where there is one. */
export const ask = async <C extends AnyCall>(call: C, ...asked: Asked<C>): Promise<AnswerOf<C>> => {
  const rest: unknown[] = [...asked];
  const params = (/:/.test(call.path) || call.query ? rest.shift() : {}) as ParamsOf<C>;
  let response: Response;
  try {
    response = await fetch(urlOf(call, params), { method: call.method, ...sent(call, rest[0]) });
  } catch {
    throw new Away();
  }
  if (response.status === 204) return undefined as AnswerOf<C>;
  const text = await response.text();
  if (response.ok) return JSON.parse(text) as AnswerOf<C>;
  let error: { message?: string; code?: Code } = {};
  try {
    error = (JSON.parse(text) as { error?: typeof error }).error ?? {};
  } catch {
    // Not ours. A proxy in front of a server that is away answers for it; else the status says all there is.
    if (response.status === 502 || response.status === 503 || response.status === 504) throw new Away();
  }
  throw new ApiError(
    error.message ?? `The server answered ${response.status}.`,
    error.code ?? 'internal',
    response.status,
  );
};

/** Where a banner of a render plays by itself. */
export const bannerUrl = (id: string): string => urlOf(RENDERS.banner, { id, name: 'index.html' });
/** Where a render plays by itself, as it is delivered. */
export const deliveredUrl = ({ id, settings }: Render): string =>
  formatOf(settings.format).shownAs === 'page' ? bannerUrl(id) : urlOf(RENDERS.file, { id });
