/** What becomes of a new text when it is left. */
import { removeLayers } from '@kite/core/edits/layers';
import { setValue } from '@kite/core/edits/properties';
import { type Edit, together } from '@kite/core/document/patches';
import type { Id, Point } from '@kite/core/document/types';
import type { Box } from '@kite/core/geometry/bounds';
import type { Size } from '@kite/core/geometry/size';
import { layerBoxInScene } from '@kite/core/scene/bounds';
import type { Editor } from '../store/editor';
import { valueAt } from './layers';

/** Of the shorter side, left free at each edge. */
const MARGIN = 0.04;

interface Inside {
  readonly scale: number;
  readonly way: Point;
}

/** By how much a box is to be smaller, about a point, and moved after that, to lie inside a scene; null where it does. */
export const inside = ({ width, height }: Size, box: Box, about: Point): Inside | null => {
  const margin = Math.min(width, height) * MARGIN;
  const scale = Math.min(
    1,
    (width - 2 * margin) / (box.right - box.left),
    (height - 2 * margin) / (box.bottom - box.top),
  );
  const moved = (low: number, high: number, at: number, size: number): number => {
    const [a, b] = [at + (low - at) * scale, at + (high - at) * scale];
    return a < margin ? margin - a : b > size - margin ? size - margin - b : 0;
  };
  const way: Point = [moved(box.left, box.right, about[0], width), moved(box.top, box.bottom, about[1], height)];
  return scale === 1 && way[0] === 0 && way[1] === 0 ? null : { scale, way };
};

/** What brings a text that stands beyond the scene into it. */
const broughtIn = (editor: Editor, layer: Id, item: Id): Edit[] => {
  const { scene, program, writing } = editor;
  const at = { scene: scene.id, layer };
  const box = layerBoxInScene(program, layer, editor.state.frame);
  const position = valueAt(editor, { ...at, key: 'position' }) as Point;
  const found = box && inside(scene, box, position);
  if (!found) return [];
  const size = valueAt(editor, { ...at, item, key: 'size' }) as number;
  const [x, y] = [position[0] + found.way[0], position[1] + found.way[1]];
  return [
    // A little smaller than it would fit: letters are of whole sizes.
    ...(found.scale < 1
      ? [setValue({ ...at, item, key: 'size' }, Math.max(1, Math.floor(size * found.scale)), writing)]
      : []),
    setValue({ ...at, key: 'position' }, [Math.round(x), Math.round(y)], writing),
  ];
};

const bringIn = (editor: Editor, layer: Id, item: Id): void => {
  const now = editor.scene.layers[layer];
  if (now?.kind !== 'drawing' || !now.items[item]) return;
  const edits = broughtIn(editor, layer, item);
  if (edits.length > 0) editor.also(together('Write a text', edits));
};

/** After the first words of a new text: what would stand beyond the scene is brought into it. */
const settleWords = async (editor: Editor, layer: Id, item: Id): Promise<void> => {
  // How wide words are is known from their font.
  const coming = editor.fontsComing();
  if (coming) {
    await coming;
    await editor.atRest();
  }
  bringIn(editor, layer, item);
};

/** When a new text is left: its words stand inside the scene, and one without words goes again. */
export const settleText = (editor: Editor, layer: Id, item: Id): void => {
  const { scene } = editor;
  const own = scene.layers[layer];
  if (own?.kind !== 'drawing' || !own.items[item]) return;
  const text = valueAt(editor, { scene: scene.id, layer, item, key: 'text' });
  if (text === '') editor.edit(removeLayers(scene.id, [layer]));
  else void settleWords(editor, layer, item);
};
