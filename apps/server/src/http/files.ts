import { createReadStream } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import { basename, dirname } from 'node:path';
import type { FastifyReply } from 'fastify';

/**
 * Sends a file of the store, or the part of it that was asked for: players seek by ranges (RFC 9110, section 14). What it
 * is and how long it may be kept, the headers say already.
 */
export const sendFile = (reply: FastifyReply, path: string): FastifyReply =>
  reply.sendFile(basename(path), dirname(path), { contentType: false, cacheControl: false, dotfiles: 'deny' });

/** The header by which a file is kept under its name, in letters that every program reads and as it is (RFC 6266). */
export const fileName = (name: string, extension: string): string => {
  const plain = name.replace(/[^\w .-]+/g, '').trim() || 'project';
  return `attachment; filename="${plain}.${extension}"; filename*=UTF-8''${encodeURIComponent(`${name}.${extension}`)}`;
};

/** Sends a zip that was made for this answer alone, and takes it away. */
export const sendZip = async (
  reply: FastifyReply,
  path: string,
  name: string,
  extension: string,
): Promise<FastifyReply> => {
  const { size } = await stat(path);
  const stream = createReadStream(path);
  // Once it is open its name is not needed any more.
  stream.once('open', () => void rm(path, { force: true }));
  return reply
    .headers({
      'content-type': 'application/zip',
      'content-length': size,
      'content-disposition': fileName(name, extension),
    })
    .send(stream);
};
