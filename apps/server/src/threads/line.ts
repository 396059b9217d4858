/** Calls between two threads, either way: each names one of the other's methods, and gets what came of it. */
import type { MessagePort, Transferable, Worker } from 'node:worker_threads';
import { heard, told, type Told } from './told';

/** What a thread lets the other ask. What is awaited is sent, so it must be plain data. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each method has arguments of its own
export type Methods = Readonly<Record<string, (...args: any[]) => unknown>>;
/** The same methods as they are asked from the other side. */
export type Asked<M extends Methods> = {
  readonly [K in keyof M]: (...args: Parameters<M[K]>) => Promise<Awaited<ReturnType<M[K]>>>;
};

type Message =
  | { readonly ask: number; readonly method: string; readonly args: readonly unknown[] }
  | { readonly done: number; readonly result: unknown }
  | { readonly failed: number; readonly error: Told };

/** Bytes go over to the other side and are gone from this one: whoever gives them keeps nothing of them. */
const bytesIn = (values: readonly unknown[]): Transferable[] =>
  values.flatMap((value) =>
    value instanceof Uint8Array && value.byteLength === value.buffer.byteLength ? [value.buffer as ArrayBuffer] : [],
  );

export class Line<Theirs extends Methods> {
  /** Their methods. Each rejects with the error that was thrown over there, or with what ended the line. */
  readonly ask: Asked<Theirs>;
  private readonly waiting = new Map<number, { resolve: (result: never) => void; reject: (error: Error) => void }>();
  private next = 0;

  constructor(
    private readonly port: Worker | MessagePort,
    private readonly ours: Methods = {},
  ) {
    this.ask = new Proxy({} as Asked<Theirs>, {
      get:
        (_target, method) =>
        (...args: unknown[]) =>
          this.call(String(method), args),
    });
    port.on('message', (message: Message) => {
      if ('ask' in message) void this.answer(message.ask, message.method, message.args);
      else if ('done' in message) this.taken(message.done)?.resolve(message.result as never);
      else this.taken(message.failed)?.reject(heard(message.error));
    });
    (port as Worker).on('error', (error) => this.end(error));
    (port as Worker).on('exit', () => this.end(new Error('the thread ended')));
  }

  /** Nobody is there any more: all that is under way fails with this. */
  end(error: Error): void {
    for (const { reject } of this.waiting.values()) reject(error);
    this.waiting.clear();
  }

  private call(method: string, args: readonly unknown[]): Promise<unknown> {
    const id = this.next++;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      this.port.postMessage({ ask: id, method, args } satisfies Message, bytesIn(args));
    });
  }

  private taken(id: number) {
    const waiter = this.waiting.get(id);
    this.waiting.delete(id);
    return waiter;
  }

  private async answer(id: number, method: string, args: readonly unknown[]): Promise<void> {
    try {
      const result: unknown = await this.ours[method]?.(...args);
      this.port.postMessage({ done: id, result } satisfies Message, bytesIn([result]));
    } catch (error) {
      this.port.postMessage({ failed: id, error: told(error) } satisfies Message);
    }
  }
}
