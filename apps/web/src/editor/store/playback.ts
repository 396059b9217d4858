/** The clock of the open scene while it plays. */
import type { Id } from '@kite/core/document/types';
import { framesPerSecond } from '@kite/core/time/rate';
import type { Editor } from './editor';
import { rangeOf } from './state';

export class Playback {
  private request = 0;

  constructor(private readonly editor: Editor) {}

  stop(): void {
    cancelAnimationFrame(this.request);
  }

  start(): void {
    const { editor } = this;
    const [from, to] = rangeOf(editor.state);
    const { how, frame } = editor.state;
    const first = frame < from || frame >= to - 1 ? from : frame;
    editor.set({ playing: true, frame: first });
    const start = performance.now();
    const offset = first - from;
    const tick = (now: number) => {
      const { speed, playing } = editor.state;
      if (!playing) return;
      const length = to - from;
      const elapsed =
        offset + Math.max(0, Math.floor(((now - start) / 1000) * framesPerSecond(editor.scene.rate) * speed));
      if (how === 'once' && elapsed >= length) {
        editor.seek(to - 1);
        return;
      }
      if (how === 'through' && elapsed >= length) {
        const { doc, sceneId } = editor.state;
        editor.showScene(doc.order[(doc.order.indexOf(sceneId) + 1) % doc.order.length] as Id);
        editor.setFrame(0);
        this.start();
        return;
      }
      const turn = how === 'swing' && length > 1 ? elapsed % (2 * length - 2) : elapsed % length;
      const next = from + (turn < length ? turn : 2 * length - 2 - turn);
      // Frames that were too late to draw are dropped; the clock is never slowed.
      if (next !== editor.state.frame) editor.set({ frame: next });
      this.request = requestAnimationFrame(tick);
    };
    this.request = requestAnimationFrame(tick);
  }
}
