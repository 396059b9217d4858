/** The process that one render runs in: the server goes on whatever happens here. */
import type { RenderSettings } from '@kite/core/delivery/settings';
import type { Scene } from '@kite/core/document/types';
import { reasonOf } from '@kite/render/failure';
import type { Stock } from '@kite/render/materials';
import { renderScene, type RenderProgress, type RenderResult } from '@kite/render/render';

export interface RenderJob {
  readonly scene: Scene;
  readonly stock: Stock;
  readonly settings: RenderSettings;
  readonly out: string;
}
export type JobMessage =
  | { readonly kind: 'progress'; readonly progress: RenderProgress }
  | { readonly kind: 'done'; readonly result: RenderResult }
  | { readonly kind: 'failed'; readonly reason: string };

const say = (message: JobMessage) =>
  new Promise<void>((resolve) => (process.send ? process.send(message, () => resolve()) : resolve()));

const stop = new AbortController();
process.on('SIGTERM', () => stop.abort());
// Without its server a render has nobody to render for.
process.on('disconnect', () => process.exit(1));

process.once('message', (job: RenderJob) => {
  renderScene({
    ...job,
    signal: stop.signal,
    onProgress: (progress) => void say({ kind: 'progress', progress }),
  })
    .then(
      (result) => say({ kind: 'done', result }),
      (error: unknown) => say({ kind: 'failed', reason: reasonOf(error) }),
    )
    .finally(() => process.exit(0));
});
