/** Answers only to its own names and origin, to who has the key, and tells browsers what its pages may do. */
import fastifyCookie from '@fastify/cookie';
import fastifyRateLimit from '@fastify/rate-limit';
import { isSound } from '@kite/core/document/text';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { type AccessKey, isEverywhere, ownAddresses } from '../access';
import { Refused } from '../errors';

export const PAGE_POLICY = [
  "default-src 'self'",
  // HarfBuzz, which lays text out, is WebAssembly.
  "script-src 'self' 'wasm-unsafe-eval'",
  // The interface sets positions and sizes in style attributes.
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "media-src 'self' blob:",
  "worker-src 'self'",
  "connect-src 'self'",
  "font-src 'self'",
  "frame-src 'self'",
  "frame-ancestors 'none'",
  "object-src 'none'",
  "base-uri 'none'",
  "form-action 'self'",
].join('; ');

const LOCAL = ['localhost', '127.0.0.1', '[::1]'];

export interface Doors {
  /** The name or address that the server listens on. */
  readonly host: string;
  /** Other names that it answers to. */
  readonly names: readonly string[];
  /** What opens it; null where it listens on this machine alone. */
  readonly key: AccessKey | null;
}

const nameOf = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

/** A banner plays in a sandbox, whose origin is called null; it may read its own files and change nothing. */
const isBanner = ({ method, url }: FastifyRequest): boolean =>
  method === 'GET' && /^\/api\/renders\/[^/]+\/banner\//.test(url);

/** Requests that a page of another site made (Fetch Metadata, W3C): all but somebody's following a link to a page. */
const isForeign = (request: FastifyRequest): boolean => {
  const { origin, host, 'sec-fetch-site': site, 'sec-fetch-mode': mode } = request.headers;
  if (isBanner(request)) return false;
  if (origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`) return true;
  if (site === undefined || site === 'same-origin' || site === 'none') return false;
  const followed = mode === 'navigate' && request.method === 'GET' && !request.url.startsWith('/api/');
  return !followed;
};

export const guard = (app: FastifyInstance, { host, names, key }: Doors): void => {
  const known = new Set([...LOCAL, host.includes(':') ? `[${host}]` : host, ...names].map((n) => n.toLowerCase()));
  const answersTo = (asked: string) => known.has(asked) || (isEverywhere(host) && ownAddresses().includes(asked));
  app.addHook('onRequest', async (request, reply) => {
    reply.headers({
      'content-security-policy': PAGE_POLICY,
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'no-referrer',
      'cross-origin-resource-policy': 'same-origin',
    });
    // A name that somebody pointed at this machine is not ours (DNS rebinding).
    if (!answersTo(nameOf(request.headers.host ?? ''))) {
      throw new Refused('foreign', 'This server does not answer to that host name. Allow it with --allow-host.');
    }
    if (isForeign(request)) throw new Refused('foreign', 'This server answers only its own pages.');
  });
  // What no name, id or number has is not looked for.
  app.addHook('preValidation', async (request) => {
    const given = [...Object.values(request.params ?? {}), ...Object.values(request.query ?? {})] as unknown[];
    if (given.every((text) => typeof text === 'string' && isSound(text) && text.length <= MOST_IN_ADDRESS)) return;
    throw new Refused('invalid', 'The address has something in it that is no text, or has it twice.');
  });
  if (key) lock(app, key);
};

const MOST_IN_ADDRESS = 1_000;

const COOKIE = 'kite_key';
const ENTRY = '/enter';
/** Wrong keys a minute from one address. */
const MOST_TRIES = 10;
const A_YEAR = 365 * 24 * 3600;

const page = (body: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Agile Kite</title>${body}</html>`;
const COME_IN = page(
  '<meta http-equiv="refresh" content="0;url=/"></head><body><a href="/">Go to Agile Kite</a></body>',
);
const askFor = (message: string): string =>
  page(`</head><body style="font:16px system-ui;max-width:26em;margin:15vh auto;padding:0 1em">
<h1 style="font-size:1.3em">Agile Kite</h1><p>${message}</p>
<form method="post" action="${ENTRY}"><label>Access key <input name="key" autofocus required></label> <button>Come in</button></form></body>`);

/** Nobody gets past without the key; the files of a banner are found by names that cannot be guessed. */
const lock = (app: FastifyInstance, key: AccessKey): void => {
  void app.register(fastifyCookie);
  void app.register(fastifyRateLimit, { global: false });
  app.addContentTypeParser(
    'application/x-www-form-urlencoded',
    { parseAs: 'string', bodyLimit: 2_000 },
    (_request, body, done) => {
      const fields = new URLSearchParams(String(body));
      done(null, { key: fields.get('key') ?? '' });
    },
  );
  let tooOften: (request: FastifyRequest) => Promise<boolean> = async () => false;
  app.after(() => {
    const limit = app.createRateLimit({ max: MOST_TRIES, timeWindow: '1 minute' });
    tooOften = async (request) => {
      const found = await limit(request);
      return !found.isAllowed && found.isExceeded;
    };
  });
  const refuse = async (request: FastifyRequest, reply: FastifyReply, message: string) => {
    if (await tooOften(request)) throw new Refused('too_often', 'Too many wrong keys. Wait a minute.');
    if (request.url.startsWith('/api/')) throw new Refused('locked', message);
    return reply.code(401).type('text/html; charset=utf-8').send(askFor(message));
  };
  app.addHook('onRequest', async (request, reply) => {
    if (request.url.split('?')[0] === ENTRY || isBanner(request)) return undefined;
    const secret = fastifyCookie.parse(request.headers.cookie ?? '')[COOKIE];
    if (key.fits(secret)) return undefined;
    if (secret !== undefined) return refuse(request, reply, 'The access key was changed. Ask for the new one.');
    if (request.url.startsWith('/api/')) throw new Refused('locked', 'This server needs its access key.');
    return reply.code(401).type('text/html; charset=utf-8').send(askFor('This server needs its access key.'));
  });
  const enter = async (secret: unknown, request: FastifyRequest, reply: FastifyReply) => {
    if (!key.fits(secret)) return refuse(request, reply, 'That is not the key.');
    // The page goes on by itself: after a redirect from another site's link the cookie would not be sent.
    return reply
      .setCookie(COOKIE, secret as string, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: A_YEAR })
      .type('text/html; charset=utf-8')
      .send(COME_IN);
  };
  app.get<{ Querystring: { key?: string } }>(ENTRY, (request, reply) => enter(request.query.key, request, reply));
  app.post<{ Body: { key?: string } | null }>(ENTRY, (request, reply) => enter(request.body?.key, request, reply));
};

/** The link that carries a key. */
export const entryLink = (address: string, secret: string): string => `${address}${ENTRY}?key=${secret}`;
