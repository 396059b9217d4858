/** The line to a project that is open. */
import fastifyWebsocket from '@fastify/websocket';
import { type Here, hereRule, LIVE } from '@kite/api/live';
import { fits } from '@kite/core/check/fits';
import type { Rule } from '@kite/core/check/rules';
import type { FastifyInstance } from 'fastify';
import secureJson from 'secure-json-parse';
import type { Rooms } from '../live/rooms';
import type { Projects } from '../store/projectsApart';

/** Of a message of where somebody is, in bytes. */
const MOST_MESSAGE = 16_384;
/** A line that does not answer for so long is taken for gone. */
const PING_MS = 30_000;
/** RFC 6455, 7.4.1: what was sent is not as it was agreed. */
const POLICY = 1008;

export const liveRoutes = (app: FastifyInstance, { projects, rooms }: { projects: Projects; rooms: Rooms }): void => {
  void app.register(fastifyWebsocket, { options: { maxPayload: MOST_MESSAGE } });
  void app.register((own, _options, done) => {
    own.get<{ Params: { id: string } }>(
      `/api${LIVE.line.path}`,
      { websocket: true, preHandler: async ({ params }) => void (await projects.revision(params.id)) },
      (socket, { params: { id } }) => {
        const leave = rooms.enter(id, socket);
        let answered = true;
        const ping = setInterval(() => {
          if (!answered) return socket.terminate();
          answered = false;
          socket.ping();
        }, PING_MS);
        socket.on('pong', () => (answered = true));
        socket.on('message', (text: Buffer) => {
          try {
            const here: unknown = secureJson.parse(text.toString());
            fits(hereRule as Rule, here);
            rooms.place(id, socket, here as Here);
          } catch (error) {
            socket.close(POLICY, (error as Error).message.slice(0, 100));
          }
        });
        socket.on('close', () => {
          clearInterval(ping);
          leave();
        });
        // Asked once it is in the room: whatever is saved from here on is told.
        projects.revision(id).then(
          (revision) => socket.send(JSON.stringify({ revision })),
          () => socket.terminate(),
        );
      },
    );
    done();
  });
};
