/** A layer cut into panes: one layer for each, that shows its part and is free to move. */
import { type MakeId, newItem, uniqueName } from '../document/make';
import { type Edit, plain } from '../document/patches';
import { PLACE } from '../document/params';
import type { DrawingLayer, Id, Point, Properties } from '../document/types';
import { type Box, union } from '../geometry/bounds';
import { displaced } from '../motion/keys';
import { mask } from '../recipe/covers/mask';
import { markBox } from '../recipe/marks';
import { rectangle } from '../recipe/sources/rectangle';
import type { Program } from '../scene/compile';
import { placementOf } from '../scene/placement';
import { drawingIn, type LayerDraft, sceneIn } from './find';
import { copiesOf } from './layers';
import { waysToPivot } from './place';
import { leaveScene } from './sets';

export interface Panes {
  readonly rows: number;
  readonly columns: number;
  /** Pixels of the layer left out between panes. */
  readonly gap: number;
}

export const PANE_LIMITS = { rows: [1, 50], columns: [1, 50], gap: [0, 1_000] } as const;

/**
 * From and to of so many parts of a stretch. They begin and end at whole pixels, where one that ends there and one that begins
 * meet exactly.
 */
export const partsOf = (
  from: number,
  to: number,
  count: number,
  gap: number,
): readonly (readonly [number, number])[] => {
  const size = (to - from - gap * (count - 1)) / count;
  const begins = (i: number) => (i === 0 ? Math.floor(from) : Math.round(from + i * (size + gap)));
  return Array.from({ length: count }, (_, i) => {
    if (i === count - 1) return [begins(i), Math.ceil(to)] as const;
    return [begins(i), gap === 0 ? begins(i + 1) : Math.round(from + i * (size + gap) + size)] as const;
  });
};

/** A place with its pivot elsewhere, in the layer's pixels: the picture stays at the frame. */
const about = (params: Properties, pivot: Point, frame: number): Properties => {
  const ways = waysToPivot(placementOf(params), pivot, frame);
  return {
    ...params,
    position: displaced(params.position, PLACE.position.default, ways.position),
    pivot: displaced(params.pivot, PLACE.pivot.default, ways.pivot),
  };
};

/** The panes of a layer as it shows at a frame, row by row from the top left; all of them show what it shows. */
export const cutIntoPanes = (
  program: Program,
  layerId: Id,
  { rows, columns, gap }: Panes,
  frame: number,
  makeId: MakeId,
): Edit => ({
  label: 'Cut into panes',
  change: (draft) => {
    const sceneId = program.scene.id;
    const scene = sceneIn(draft, sceneId);
    const layer = plain<DrawingLayer>(drawingIn(draft, sceneId, layerId));
    const box = program
      .flowAt(layerId, layer.recipe, frame)
      .marks.reduce<Box | null>((sum, mark) => union(sum, markBox(mark)), null);
    if (!box || box.right <= box.left || box.bottom <= box.top)
      throw new RangeError(`“${layer.name}” shows nothing at this frame that could be cut`);
    const across = partsOf(box.left, box.right, columns, gap);
    const down = partsOf(box.top, box.bottom, rows, gap);
    if ([...across, ...down].some(([from, to]) => to <= from)) {
      throw new RangeError(`“${layer.name}” is too small for so many panes with such a gap`);
    }
    const taken = Object.values(scene.layers).map((l) => l.name);
    const made = down.flatMap(([top, bottom], row) =>
      across.map(([left, right], column): DrawingLayer => {
        const middle: Point = [(left + right) / 2, (top + bottom) / 2];
        const window = newItem(makeId(), rectangle.kind, { width: right - left, height: bottom - top, centre: middle });
        const cut = { ...newItem(makeId(), mask.kind, { mode: 'show' }), name: 'Pane', children: [window.id] };
        const [copy] = copiesOf([layer], makeId) as [DrawingLayer];
        const name = uniqueName(`${layer.name} ${row + 1}.${column + 1}`, taken);
        taken.push(name);
        const items = { ...copy.items, [window.id]: window, [cut.id]: cut };
        return { ...copy, name, items, recipe: [...copy.recipe, cut.id], params: about(layer.params, middle, frame) };
      }),
    );
    for (const pane of made) scene.layers[pane.id] = pane as LayerDraft;
    const index = scene.order.indexOf(layerId);
    const ids = made.map(({ id }) => id);
    scene.order = [...scene.order.slice(0, index), ...ids, ...scene.order.slice(index)];
    for (const other of Object.values(scene.layers)) if (other.parent === layerId) other.parent = ids[0] ?? null;
    leaveScene(scene, new Set([layerId]));
  },
});
