/** Routes from the calls of the API: what comes is checked by the call's own rules, and what goes has its type. */
import { type AnyCall, type AnswerOf, type BodyOf, type ParamsOf, typesOf } from '@kite/api/call';
import { fits } from '@kite/core/check/fits';
import type { Rule } from '@kite/core/check/rules';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';

export interface Asked<C extends AnyCall> {
  /** The parts of the address, and what is asked behind it. */
  readonly params: ParamsOf<C>;
  readonly body: BodyOf<C>;
  readonly request: FastifyRequest;
  readonly reply: FastifyReply;
}
/** An answer that another thread has written as JSON. */
export class Json {
  constructor(readonly text: Uint8Array) {}
}
/** Bytes are sent by the reply itself; where nothing is answered, what a handler gives does not matter. */
type Given<C extends AnyCall> =
  AnswerOf<C> extends Uint8Array ? FastifyReply : AnswerOf<C> extends undefined ? unknown : AnswerOf<C> | Json;
type Answering<C extends AnyCall, A = Asked<C>> = (asked: A) => Promise<Given<C>> | Given<C>;

const NOTHING = new Uint8Array();

const statusOf = ({ makes, answer }: AnyCall): number => (makes ? 201 : answer ? 200 : 204);

const route = <C extends AnyCall>(
  app: FastifyInstance,
  call: C,
  bodyOf: (sent: unknown) => unknown,
  answer: Answering<C, Asked<AnyCall>>,
): void => {
  const givesBytes = call.answer && typesOf(call.answer as Rule) !== null;
  app.route({
    method: call.method as C['method'],
    url: `/api${call.path}`,
    handler: async (request, reply) => {
      const body = bodyOf(request.body) as never;
      const params = { ...(request.query as object), ...(request.params as object) };
      reply.code(statusOf(call));
      const given = await answer({ params, body, request, reply });
      if (given instanceof Json) return reply.type('application/json').send(given.text);
      return givesBytes ? given : reply.send(given);
    },
  });
};

export const serve = <C extends AnyCall>(app: FastifyInstance, call: C, answer: Answering<C>): void => {
  const takesBytes = call.body && typesOf(call.body as Rule) !== null;
  const bodyOf = (sent: unknown) => {
    if (takesBytes) return sent instanceof Uint8Array ? sent : NOTHING;
    if (call.body) fits(call.body as Rule, sent);
    return sent;
  };
  route(app, call, bodyOf, answer as Answering<C, Asked<AnyCall>>);
};

/** A call whose JSON is as long as a document: whoever answers reads and checks it, in another thread. */
export const serveUnread = <C extends AnyCall>(
  app: FastifyInstance,
  call: C,
  answer: Answering<C, Omit<Asked<C>, 'body'> & { readonly body: Uint8Array }>,
): void => {
  // What is registered has readers of its own.
  void app.register((own, _options, done) => {
    own.removeAllContentTypeParsers();
    own.addContentTypeParser('application/json', { parseAs: 'buffer' }, (_request, body, read) => read(null, body));
    route(own, call, (sent) => (sent instanceof Uint8Array ? sent : NOTHING), answer as Answering<C, Asked<AnyCall>>);
    done();
  });
};
