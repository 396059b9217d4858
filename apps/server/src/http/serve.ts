/** Routes from the calls of the API: what comes is checked by the call's own rules, and what goes has its type. */
import { type AnyCall, type AnswerOf, type BodyOf, type ParamsOf, typesOf } from '@kite/api/call';
import { fits } from '@kite/core/check/project';
import type { Rule } from '@kite/core/check/rules';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';

export interface Asked<C extends AnyCall> {
  /** The parts of the address, and what is asked behind it. */
  readonly params: ParamsOf<C>;
  readonly body: BodyOf<C>;
  readonly request: FastifyRequest;
  readonly reply: FastifyReply;
}
/** Bytes are sent by the reply itself; where nothing is answered, what a handler gives does not matter. */
type Given<C extends AnyCall> =
  AnswerOf<C> extends Uint8Array ? FastifyReply : AnswerOf<C> extends undefined ? unknown : AnswerOf<C>;

const NOTHING = new Uint8Array();

const statusOf = ({ makes, answer }: AnyCall): number => (makes ? 201 : answer ? 200 : 204);

export const serve = <C extends AnyCall>(
  app: FastifyInstance,
  call: C,
  answer: (asked: Asked<C>) => Promise<Given<C>> | Given<C>,
): void => {
  const takesBytes = call.body && typesOf(call.body as Rule) !== null;
  const givesBytes = call.answer && typesOf(call.answer as Rule) !== null;
  app.route({
    method: call.method as C['method'],
    url: `/api${call.path}`,
    handler: async (request, reply) => {
      if (call.body && !takesBytes) fits(call.body as Rule, request.body);
      const body = takesBytes && !(request.body instanceof Uint8Array) ? NOTHING : request.body;
      const params = { ...(request.query as object), ...(request.params as object) } as ParamsOf<C>;
      reply.code(statusOf(call));
      const given = await answer({ params, body: body as Asked<C>['body'], request, reply });
      return givesBytes ? given : reply.send(given);
    },
  });
};
