/** A server of our own to be tried, on a folder of its own. */
import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { appRoot } from '@kite/render/root';

export class TriedServer {
  private child: ChildProcess | null = null;
  private readonly data = mkdtempSync(join(tmpdir(), 'kite-soak-'));
  url = '';
  /** What it printed of errors. */
  errors = '';

  async start(): Promise<void> {
    const port = this.url ? new URL(this.url).port : String(20_000 + Math.floor(Math.random() * 20_000));
    const child = spawn(process.execPath, [join(appRoot(), 'dist/server.mjs'), '--data', this.data, '--port', port]);
    this.child = child;
    child.stderr.on('data', (chunk: Buffer) => (this.errors += chunk.toString()));
    this.url = await new Promise<string>((ready, fail) => {
      let text = '';
      child.stdout.on('data', (chunk: Buffer) => {
        text += chunk.toString();
        const match = /is at (http:\S+)/.exec(text);
        if (match?.[1]) ready(match[1]);
      });
      child.on('exit', () => fail(new Error(`the server ended: ${text} ${this.errors}`)));
    });
  }

  get pid(): number {
    return this.child?.pid ?? 0;
  }

  async end(signal: NodeJS.Signals): Promise<void> {
    const { child } = this;
    this.child = null;
    if (!child || child.exitCode !== null) return;
    child.removeAllListeners('exit');
    const gone = once(child, 'exit');
    child.kill(signal);
    await gone;
  }

  async stop(): Promise<void> {
    await this.end('SIGTERM');
    rmSync(this.data, { recursive: true, force: true });
  }

  /** Status 0 stands for no answer. */
  async ask(method: string, path: string, body?: unknown): Promise<{ status: number; body: Record<string, unknown> }> {
    const binary = body instanceof Uint8Array;
    try {
      const response = await fetch(`${this.url}/api${path}`, {
        method,
        ...(body !== undefined && {
          body: binary ? Buffer.from(body) : JSON.stringify(body),
          headers: { 'content-type': binary ? 'application/octet-stream' : 'application/json' },
        }),
      });
      const text = await response.text();
      return { status: response.status, body: text ? (JSON.parse(text) as Record<string, unknown>) : {} };
    } catch {
      return { status: 0, body: {} };
    }
  }
}
