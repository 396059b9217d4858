/** The picture of the canvas: drawn by the preview worker for whatever is shown, and put straight on the screen. */
import type { Scene } from '@kite/core/document/types';
import type { Size } from '@kite/core/geometry/size';
import { layersCutBy } from '@kite/core/scene/follows';
import { isCut, isLain, type LookedAt } from '@kite/core/scene/otherwise';
import { framesPerSecond } from '@kite/core/time/rate';
import { type RefObject, useEffect } from 'react';
import type { Editor } from '../store/editor';
import { type EditorState, sceneOf } from '../store/state';
import { toolOf } from '../store/workspace';
import { onionOf } from './looks/onion';
import { surroundingsOf } from '../store/inPlace';
import { shownPart, viewOn } from './view';

/** Gives the canvas the size of a picture, and stands it where the picture was drawn for. */
const place = (
  canvas: HTMLCanvasElement,
  [x, y]: readonly [number, number],
  { width, height }: Size,
  shrink: number,
): void => {
  if (canvas.width !== width) canvas.width = width;
  if (canvas.height !== height) canvas.height = height;
  const ratio = window.devicePixelRatio;
  const css = { left: x, top: y, width: width * shrink, height: height * shrink };
  for (const [side, length] of Object.entries(css)) canvas.style.setProperty(side, `${length / ratio}px`);
};

/** How many pictures come in a second, told every five of them; null for too few to tell. */
const rateMeter = () => {
  let times: number[] = [];
  let lastFrame = -1;
  return {
    rest: () => {
      times = [];
    },
    /** A picture of a frame has come. */
    came: (frame: number): number | null => {
      if (frame === lastFrame) return null;
      lastFrame = frame;
      const now = performance.now();
      times = [...times.filter((t) => now - t < 1000), now];
      const first = times[0] as number;
      const due = times.length > 4 && (times.length % 5 === 0 || now - first > 950);
      return due ? ((times.length - 1) * 1000) / (now - first) : null;
    },
  };
};

/** Pictures that took longer than they show, one after another, before those that follow are drawn at half size. */
const MOST_LATE = 3;

/** Whether the scene plays too slowly as it is drawn. */
const slowness = () => {
  let late = 0;
  return {
    rest: () => {
      late = 0;
    },
    took: (ms: number, { scene, state }: Editor): boolean => {
      late = ms > 1_000 / (framesPerSecond(scene.rate) * state.speed) ? late + 1 : 0;
      return late >= MOST_LATE;
    },
  };
};

/** What is looked at otherwise than it comes out. */
const lookedAtOf = (scene: Scene, s: EditorState): LookedAt | null => {
  // The caret stands in words that are laid straight.
  if (s.mode.kind === 'writing' && isLain(scene.layers[s.mode.layer])) {
    return { layers: [s.mode.layer], how: 'straight' };
  }
  const painting = toolOf(s.mode) === 'brush';
  // What is painted on by a matte is to be seen while that is painted.
  const painted = painting ? s.selection.layers.flatMap((id) => layersCutBy(scene, id).map((layer) => layer.id)) : [];
  const cut = s.playing ? [] : [...s.selection.layers, ...painted].filter((id) => isCut(scene.layers[id]));
  // Where roots are to be pressed, what has not grown yet is to be seen.
  const seen = s.mode.kind === 'sowing' || painted.length > 0;
  const how = s.cutPart === 'gone' && seen ? 'faint' : s.cutPart;
  return cut.length > 0 && how !== 'gone' ? { layers: cut, how } : null;
};

/** Asks for the picture of what is shown now, on an area of a size in CSS pixels. What is drawn already is passed over. */
const askFor = (editor: Editor, size: Size, s: EditorState): void => {
  const scene = sceneOf(s);
  const around = surroundingsOf(editor);
  const shown = shownPart(scene, size, viewOn(s, size), window.devicePixelRatio, around !== null);
  if (!shown) return;
  const onion = s.onion && !s.playing ? onionOf(scene, s.frame, s.onion, s.selection.layers) : null;
  editor.preview.draw({
    scene: scene.id,
    frame: s.frame,
    solo: s.solo,
    onion,
    compare: s.compare,
    lookedAt: lookedAtOf(scene, s),
    around,
    shrink: s.playing && s.coarse ? 2 : 1,
    ...shown,
  });
};

export const usePicture = (editor: Editor, canvas: RefObject<HTMLCanvasElement | null>, size: Size): void => {
  useEffect(() => {
    const context = canvas.current?.getContext('bitmaprenderer');
    const meter = rateMeter();
    const slow = slowness();
    return editor.preview.listen(({ bitmap, problems, frame, at, id, shrink, ms }) => {
      if (bitmap && canvas.current && context) {
        place(canvas.current, at, bitmap, shrink);
        context.transferFromImageBitmap(bitmap);
        canvas.current.dataset.frame = String(frame);
        canvas.current.dataset.drawn = String(id);
      }
      editor.catchUp();
      if (problems.length > 0 || editor.state.problems.length > 0) editor.set({ problems });
      if (!editor.state.playing) {
        meter.rest();
        slow.rest();
      } else {
        if (slow.took(ms, editor) && !editor.state.coarse) editor.set({ coarse: true });
        const drawnRate = meter.came(frame);
        if (drawnRate !== null) editor.set({ drawnRate });
      }
    });
  }, [editor, canvas]);

  const { width, height } = size;
  useEffect(() => {
    if (width < 1 || height < 1) return;
    const ask = (state: EditorState) => askFor(editor, { width, height }, state);
    ask(editor.state);
    return editor.store.subscribe(ask);
  }, [editor, width, height]);
};
