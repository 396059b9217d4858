import { basename, dirname } from 'node:path';
import type { FastifyReply } from 'fastify';

/**
 * Sends a file of the store, or the part of it that was asked for: players seek by ranges (RFC 9110, section 14). What it
 * is and how long it may be kept, the headers say already.
 */
export const sendFile = (reply: FastifyReply, path: string): FastifyReply =>
  reply.sendFile(basename(path), dirname(path), { contentType: false, cacheControl: false, dotfiles: 'deny' });
