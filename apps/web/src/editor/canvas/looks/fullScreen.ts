import { SELECTING } from '../../store/workspace';
import type { Editor } from '../../store/editor';

/** The picture over the whole screen, or over the whole window where the browser does not grant the screen. */
export const showFullScreen = (editor: Editor): void => {
  editor.select({});
  editor.set({ fullScreen: true, view: null, mode: SELECTING });
  document.documentElement.requestFullscreen().catch(() => undefined);
};

export const leaveFullScreen = (editor: Editor): void => {
  editor.set({ fullScreen: false, view: null });
  if (document.fullscreenElement) void document.exitFullscreen();
};
