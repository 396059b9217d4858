/** Reads drawings beside the page, which a large one would stop for seconds. */
import type { SvgDrawing } from '@kite/core/interchange/svg/nodes';
import { readSvg } from '@kite/core/interchange/svg/read';

export type SvgReply = { readonly drawing: SvgDrawing } | { readonly reason: string };

self.addEventListener('message', ({ data }: MessageEvent<string>) => {
  let reply: SvgReply;
  try {
    reply = { drawing: readSvg(data) };
  } catch (error) {
    reply = { reason: error instanceof Error ? error.message : String(error) };
  }
  self.postMessage(reply);
});
