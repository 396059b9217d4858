/** Answers only to its own names and origin, and tells browsers what its pages may do. */
import type { FastifyInstance } from 'fastify';
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

const nameOf = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

/** `host` is the name that the server was told to listen on. */
export const guard = (app: FastifyInstance, host: string): void => {
  const names = new Set([...LOCAL, host.includes(':') ? `[${host}]` : host.toLowerCase()]);
  app.addHook('onRequest', async (request, reply) => {
    const { host: asked = '', origin } = request.headers;
    reply.headers({
      'content-security-policy': PAGE_POLICY,
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'no-referrer',
      'cross-origin-resource-policy': 'same-origin',
    });
    // A name that somebody pointed at this machine is not ours (DNS rebinding).
    if (!names.has(nameOf(asked))) throw new Refused('foreign', 'This server does not answer to that host name.');
    if (origin !== undefined && origin !== `http://${asked}` && !ownBanner(request.method, origin)) {
      throw new Refused('foreign', 'This server answers only its own pages.');
    }
  });
};

/** A banner plays in a sandbox, whose origin is called null; it may read its own files and change nothing. */
const ownBanner = (method: string, origin: string): boolean => origin === 'null' && method === 'GET';
