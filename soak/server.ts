/** A server of our own to be tried, on a folder of its own. */
import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { Server } from '../e2e/support/server';

export interface Answer {
  readonly status: number;
  readonly body: Record<string, unknown>;
}

export class TriedServer extends Server {
  /** What a call answers; status 0 stands for no answer. */
  async ask(method: string, path: string, body?: unknown): Promise<Answer> {
    try {
      const answer = await this.api<Record<string, unknown> | undefined>(method, path, body);
      return { status: answer.status, body: answer.body ?? {} };
    } catch {
      return { status: 0, body: {} };
    }
  }

  /** Bytes of its data on the disk. */
  size(): number {
    return readdirSync(this.data, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .reduce((sum, entry) => sum + statSync(join(entry.parentPath, entry.name)).size, 0);
  }
}
