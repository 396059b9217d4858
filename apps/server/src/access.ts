/** Who may come in from beyond this machine: whoever has the key. Only what the key hashes to is kept. */
import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';

const FILE = 'access-key.sha256';

const hashOf = (key: string): Buffer => createHash('sha256').update(key).digest();

/** Whether only this machine reaches what listens there. */
export const isLoopback = (host: string): boolean => /^(localhost|127(\.\d{1,3}){3}|::1|\[::1\])$/i.test(host);

/** Whether it listens on every address of the machine. */
export const isEverywhere = (host: string): boolean => host === '0.0.0.0' || host === '::' || host === '[::]';

/** The addresses by which others reach this machine. */
export const ownAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ internal, address }) => !internal && !address.startsWith('fe80:'))
    .map(({ family, address }) => (family === 'IPv6' ? `[${address}]` : address));

export class AccessKey {
  private constructor(private readonly hash: Buffer) {}

  /** The key of a data folder; null where none was made. */
  static of(folder: string): AccessKey | null {
    try {
      const hash = Buffer.from(readFileSync(join(folder, FILE), 'utf8').trim(), 'hex');
      return hash.length === 32 ? new AccessKey(hash) : null;
    } catch {
      return null;
    }
  }

  /** A new key in the place of any before; nobody can be told it again. */
  static make(folder: string): { readonly key: AccessKey; readonly secret: string } {
    const secret = randomBytes(24).toString('base64url');
    const hash = hashOf(secret);
    writeFileSync(join(folder, FILE), `${hash.toString('hex')}\n`, { mode: 0o600 });
    return { key: new AccessKey(hash), secret };
  }

  fits(secret: unknown): boolean {
    return typeof secret === 'string' && timingSafeEqual(hashOf(secret), this.hash);
  }
}
