/** The page's side of the preview worker: one drawing under way, and only the latest wish after it. */
import type { Patch } from '@kite/core/document/patches';
import type { Id, Point, Project } from '@kite/core/document/types';
import type { Finding } from '@kite/core/proof/types';
import type { FrameRange } from './frameCache';
import type { ProofWish } from './proofing';
import type {
  CacheReply,
  DrawWish,
  FailureReply,
  Pictured,
  PictureReply,
  PreviewReply,
  PreviewRequest,
  ProofReply,
  SampleReply,
} from './messages';

export class Preview {
  private worker: Worker;
  private readonly sampled: ((color: string | null) => void)[] = [];
  private readonly pictured: ((picture: ImageBitmap | null) => void)[] = [];
  private next = 0;
  private busy = false;
  private wish: DrawWish | null = null;
  /** The last one that was asked for. */
  private last = '';
  private latest: DrawWish | null = null;
  private receive: (reply: PreviewReply) => void = (reply) => reply.bitmap?.close();

  /** Is told which frames need not be drawn again. */
  onCached: (frames: readonly FrameRange[]) => void = () => undefined;

  /** Is told what checks found. */
  onFound: (found: readonly Finding[]) => void = () => undefined;

  /** Is told what went wrong, and gives the document for the worker that is started instead. */
  onFailure: (message: string) => Project | null = () => null;
  /** What was wished for when a worker failed: it is not tried again by itself. */
  private failedAt = '';

  constructor() {
    this.worker = this.start();
  }

  private start(): Worker {
    const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
    worker.onerror = (event) => {
      event.preventDefault();
      this.startAnew(event.message);
    };
    worker.onmessage = ({
      data,
    }: MessageEvent<PreviewReply | SampleReply | PictureReply | CacheReply | ProofReply | FailureReply>) => {
      if ('failed' in data) {
        this.startAnew(data.failed);
        return;
      }
      if ('sampled' in data) {
        this.sampled.shift()?.(data.sampled);
        return;
      }
      if ('picture' in data) {
        this.pictured.shift()?.(data.picture);
        return;
      }
      if ('found' in data) {
        this.onFound(data.found);
        return;
      }
      if ('cached' in data) {
        this.onCached(data.cached);
        return;
      }
      this.busy = false;
      this.failedAt = '';
      this.receive(data);
      this.pump();
    };
    return worker;
  }

  /** A worker that failed is given up for a new one, which draws what was wished for, unless that is where the last one failed. */
  private startAnew(message: string): void {
    this.worker.terminate();
    this.worker = this.start();
    this.busy = false;
    for (const tell of [...this.sampled.splice(0), ...this.pictured.splice(0)]) tell(null);
    const again = this.failedAt !== this.last;
    this.failedAt = this.last;
    const doc = this.onFailure(message);
    if (doc) this.say({ kind: 'open', doc: JSON.stringify(doc) });
    this.wish = again ? this.latest : null;
    this.pump();
  }

  /** Gives each finished picture to a receiver, which owns its bitmap, until the returned function is called. */
  listen(receive: (reply: PreviewReply) => void): () => void {
    this.receive = receive;
    return () => {
      this.receive = (reply) => reply.bitmap?.close();
    };
  }

  private say(request: PreviewRequest): void {
    this.worker.postMessage(request);
  }

  open(doc: Project): void {
    this.change({ kind: 'open', doc: JSON.stringify(doc) });
  }
  /** Says which frame will be asked for, before it is known how large. */
  expect(scene: Id, frame: number): void {
    this.say({ kind: 'expect', scene, frame });
  }
  commit(patches: readonly Patch[]): void {
    this.change({ kind: 'commit', patches });
  }
  attempt(patches: readonly Patch[]): void {
    this.change({ kind: 'try', patches });
  }

  /** The picture follows at once, before the page itself has taken the change in. */
  private change(request: PreviewRequest): void {
    this.say(request);
    this.wish = this.latest;
    this.pump();
  }

  /** A wish for what is drawn already, or being drawn, is passed over. */
  draw(wish: DrawWish): void {
    const key = JSON.stringify(wish);
    if (key === this.last) return;
    this.last = key;
    this.latest = wish;
    this.wish = wish;
    this.pump();
  }

  /** The colour of the picture at a point of the scene; null where the worker failed meanwhile. */
  sample(scene: Id, frame: number, point: Point): Promise<string | null> {
    return new Promise((resolve) => {
      this.sampled.push(resolve);
      this.say({ kind: 'sample', scene, frame, point });
    });
  }

  /** A picture of a scene as it is kept; null where that is gone, or the worker failed meanwhile. */
  picture(scene: Id, of: Pictured, width: number, height: number): Promise<ImageBitmap | null> {
    return new Promise((resolve) => {
      this.pictured.push(resolve);
      this.say({ kind: 'picture', scene, of, width, height });
    });
  }

  /** Checks the document as it is kept, or stops doing so. */
  prove(wish: ProofWish | null): void {
    this.say({ kind: 'proof', wish });
  }

  private pump(): void {
    if (this.busy || !this.wish) return;
    const wish = this.wish;
    this.wish = null;
    this.busy = true;
    this.say({ kind: 'draw', id: this.next++, ...wish });
  }

  close(): void {
    this.worker.terminate();
  }
}
