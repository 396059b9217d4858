/** A real server on a throw-away data folder. */
import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { appRoot } from '@kite/render/root';

const ROOT = appRoot();

export interface Output {
  readonly code: number | null;
  readonly text: string;
}

/** Runs one of the built programs to its end. */
export const runProgram = async (name: 'server' | 'kite', args: readonly string[]): Promise<Output> => {
  const child = spawn(process.execPath, [join(ROOT, 'dist', `${name}.mjs`), ...args], { cwd: ROOT });
  let text = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (text += chunk.toString()));
  const [code] = (await once(child, 'close')) as [number | null];
  return { code, text };
};

export class Server {
  private child: ChildProcess | null = null;
  url = '';
  /** All it printed. */
  output = '';

  constructor(readonly data = mkdtempSync(join(tmpdir(), 'kite-e2e-'))) {}

  /** Starts on a free port, or on the one it had, and answers once what is stored is open. */
  async start(): Promise<void> {
    await this.appear();
    await fetch(`${this.url}/api/health`);
  }

  /** The same as soon as pages are given. */
  async appear(): Promise<void> {
    const port = this.url ? new URL(this.url).port : String(20_000 + Math.floor(Math.random() * 20_000));
    const child = spawn(process.execPath, [join(ROOT, 'dist/server.mjs'), '--data', this.data, '--port', port], {
      cwd: ROOT,
    });
    this.child = child;
    const from = this.output.length;
    await new Promise<void>((ready, fail) => {
      const read = (chunk: Buffer) => {
        this.output += chunk.toString();
        const match = /is at (http:\S+)/.exec(this.output.slice(from));
        if (match?.[1]) {
          this.url = match[1];
          ready();
        }
      };
      child.stdout.on('data', read);
      child.stderr.on('data', read);
      child.on('exit', () => fail(new Error(`the server ended: ${this.output.slice(from)}`)));
    });
  }

  /** As a power cut would. */
  async kill(): Promise<void> {
    await this.end('SIGKILL');
  }

  get pid(): number | undefined {
    return this.child?.pid;
  }

  async end(signal: NodeJS.Signals): Promise<void> {
    const child = this.child;
    this.child = null;
    if (!child || child.exitCode !== null) return;
    child.removeAllListeners('exit');
    const closed = once(child, 'exit');
    child.kill(signal);
    await closed;
  }

  async stop(): Promise<void> {
    await this.end('SIGTERM');
    rmSync(this.data, { recursive: true, force: true });
  }

  async api<T>(method: string, path: string, body?: unknown): Promise<{ status: number; body: T }> {
    const binary = body instanceof Uint8Array;
    const response = await fetch(`${this.url}/api${path}`, {
      method,
      ...(body !== undefined && {
        body: binary ? Buffer.from(body) : JSON.stringify(body),
        headers: { 'content-type': binary ? 'application/zip' : 'application/json' },
      }),
    });
    const text = await response.text();
    return { status: response.status, body: (text ? JSON.parse(text) : undefined) as T };
  }

  async bytes(path: string): Promise<Uint8Array> {
    const response = await fetch(`${this.url}/api${path}`);
    if (!response.ok) throw new Error(`${path}: ${response.status}`);
    return new Uint8Array(await response.arrayBuffer());
  }
}
