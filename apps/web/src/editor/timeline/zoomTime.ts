import type { Editor } from '../store/editor';
import { timeScale, zoomed } from './scale';

/** Zooms the timeline about the playhead. What it shows then does not depend on how wide it is. */
export const zoomTime = (editor: Editor, factor: number): void => {
  const { timeReach, frame } = editor.state;
  editor.set({ timeReach: zoomed(timeScale(editor.scene.length, 900, timeReach), factor, frame) });
};
