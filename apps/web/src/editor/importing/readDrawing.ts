/** An SVG file as a drawing, read in a worker of its own. */
import { SVG_LIMITS } from '@kite/core/interchange/svg/parse';
import type { SvgDrawing } from '@kite/core/interchange/svg/nodes';
import type { SvgReply } from './svgWorker';

/** Rejects with what is wrong with the file; gives null where the signal came first. */
export const readDrawing = async (file: File, signal: AbortSignal): Promise<SvgDrawing | null> => {
  if (file.size > SVG_LIMITS.bytes) {
    const size = Math.round(file.size / 2 ** 20);
    throw new Error(`it is ${size} MB, and drawings of up to ${SVG_LIMITS.bytes / 2 ** 20} MB can be imported`);
  }
  const text = await file.text();
  if (signal.aborted) return null;
  const worker = new Worker(new URL('./svgWorker.ts', import.meta.url), { type: 'module' });
  try {
    const reply = await new Promise<SvgReply | null>((resolve, reject) => {
      signal.addEventListener('abort', () => resolve(null));
      worker.addEventListener('message', ({ data }: MessageEvent<SvgReply>) => resolve(data));
      worker.addEventListener('error', () => reject(new Error('it is too large to be read')));
      worker.postMessage(text);
    });
    if (reply && 'reason' in reply) throw new Error(reply.reason);
    return reply?.drawing ?? null;
  } finally {
    worker.terminate();
  }
};
