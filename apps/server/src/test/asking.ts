/** The API asked as the browser asks it: each answer must fit the rule that its docs are made from. */
import { type AnswerOf, type AnyCall, type BodyOf, type ParamsOf, typesOf, urlOf } from '@kite/api/call';
import { CALLS } from '@kite/api/calls';
import type { Code } from '@kite/api/errors';
import type { Save } from '@kite/api/projects';
import { checkProject } from '@kite/core/check/project';
import type { Rule } from '@kite/core/check/rules';
import { demoProject } from '@kite/demo/project';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openSite, type Site } from './site';

type Group = keyof typeof CALLS;

/** Which file tries which calls; every group of calls is in one. */
export const TRIED = {
  projects: ['Projects'],
  history: ['History', 'Open projects'],
  renders: ['Renders'],
  library: ['Starters', 'Files', 'Sizes', 'Server'],
} as const satisfies Readonly<Record<string, readonly Group[]>>;

/** A site of its own for a file of tests, which is to ask each of its calls. */
export const asking = (file: keyof typeof TRIED) => {
  let site: Site;
  const asked = new Set<AnyCall>();
  beforeAll(async () => {
    site = await openSite(file);
    await site.queue.start();
  });
  afterAll(async () => {
    await site.queue.stop();
    await site.close();
  });
  const send = (call: AnyCall, params: unknown, body?: unknown, headers: Record<string, string> = {}) => {
    asked.add(call);
    const bytes = body instanceof Uint8Array;
    return site.app.inject({
      method: call.method,
      url: urlOf(call, params as ParamsOf<AnyCall>),
      headers: { host: site.host, ...(bytes && { 'content-type': typesOf(call.body as Rule)?.[0] }), ...headers },
      ...(body !== undefined && { payload: (bytes ? Buffer.from(body) : body) as Buffer | object }),
    });
  };
  return {
    site: () => site,
    asked,
    send,
    /** The answer, which must fit the call's rule. */
    ask: async <C extends AnyCall>(call: C, params: ParamsOf<C>, body?: BodyOf<C>): Promise<AnswerOf<C>> => {
      const answer = await send(call, params, body);
      const wanted = call.makes ? 201 : call.answer ? 200 : 204;
      expect([answer.statusCode, answer.statusCode < 300 ? '' : answer.body]).toEqual([wanted, '']);
      if (!call.answer) return undefined as unknown as AnswerOf<C>;
      const value: unknown = answer.json();
      (call.answer as Rule).validateSync(value, { strict: true });
      const { document } = value as { document?: unknown };
      if (document !== undefined) expect(checkProject(document)).toBe(document);
      return value as AnswerOf<C>;
    },
    refusal: async (call: AnyCall, params: unknown, body?: unknown): Promise<Code> => {
      const answer = await send(call, params, body);
      return answer.json<{ error: { code: Code } }>().error.code;
    },
    demo: (): Promise<string> => site.projects.create(demoProject()),
    /** The last test of a file. */
    everyCallWasAsked: () =>
      it('every call was asked', () => {
        const all = TRIED[file].flatMap((group) => Object.values(CALLS[group]) as AnyCall[]);
        expect(all.filter((call) => !asked.has(call)).map((call) => `${call.method} ${call.path as string}`)).toEqual(
          [],
        );
      }),
  };
};

export const renamed = (id: string, value: string): Save => ({
  id,
  label: 'Rename',
  patches: [{ op: 'replace', path: ['name'], value }],
});

export const SIZE = { width: 320, height: 240, rate: { num: 25, den: 1 }, length: 50, background: '#123456' };
