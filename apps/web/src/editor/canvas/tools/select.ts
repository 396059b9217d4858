import type { Point } from '@kite/core/document/types';
import { layerAt, layersIn } from '../hit';
import { shapedVertices } from '../handles/vertices';
import { moveSelection } from '../handles/transforms';
import { type Press, sweep } from './press';

/** While a path is open an empty place sweeps over its vertices; a click there closes it. */
const sweepVertices = (press: Press, vertices: readonly Point[]): void => {
  const { editor, start } = press;
  const between = (a: number, b: number, v: number) => v >= Math.min(a, b) && v <= Math.max(a, b);
  sweep(press, {
    move: (to) => {
      const inside = vertices.flatMap(([x, y], i) =>
        between(start[0], to[0], x) && between(start[1], to[1], y) ? [i] : [],
      );
      editor.set({ vertices: inside });
    },
    end: (_to, moved) => {
      if (!moved) editor.select({});
    },
  });
};

/** Takes hold of a layer and drags all that are selected; an empty place sweeps over layers. */
export const pressToSelect = (press: Press): void => {
  const { editor, event, stage, start } = press;
  const { layers } = editor.state.selection;
  const hit = layerAt(editor, start, 4 / stage.view.zoom);
  if (hit !== null) {
    if (event.shiftKey) editor.toggleLayer(hit);
    else if (!layers.includes(hit)) editor.select({ layers: [hit] });
    moveSelection(editor, event, stage.view.zoom, stage.pointOf);
    return;
  }
  const vertices = shapedVertices(editor, stage.view);
  if (vertices) {
    sweepVertices(press, vertices);
    return;
  }
  const before = event.shiftKey ? layers : [];
  if (!event.shiftKey) editor.select({});
  sweep(press, {
    move: (to) => editor.select({ layers: [...new Set([...before, ...layersIn(editor, start, to)])] }),
    end: () => undefined,
  });
};
