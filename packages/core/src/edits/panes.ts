/** A layer cut into panes: one layer for each, that shows its part and is free to move. */
import { type MakeId, namesIn, naming, newItem } from '../document/make';
import { type Edit, plain, together } from '../document/patches';
import type { DrawingLayer, Id, Item, Point, Scene } from '../document/types';
import { type Box, outlineBox, union } from '../geometry/bounds';
import { inverted, multiply } from '../geometry/matrix';
import { transformed } from '../geometry/outline';
import { pathOfOutline } from '../motion/paths';
import { mask } from '../recipe/covers/mask';
import { boxOfMarks } from '../recipe/marks';
import { path } from '../recipe/sources/path';
import { rectangle } from '../recipe/sources/rectangle';
import { EMPTY } from '../recipe/types';
import type { Program } from '../scene/program';
import { drawingIn, type LayerDraft, sceneIn } from './find';
import { copiesOf, setLayers } from './layers';
import { pivotedAt } from './place';
import { leaveScene } from './sets';

export interface Panes {
  readonly rows: number;
  readonly columns: number;
  /** Pixels of the layer left out between panes. */
  readonly gap: number;
}

export const PANE_LIMITS = { rows: [1, 50], columns: [1, 50], gap: [0, 1_000] } as const;

type Part = readonly [from: number, to: number];

/**
 * From and to of so many parts of a stretch. They begin and end at whole pixels, where one that ends there and one that begins
 * meet exactly.
 */
export const partsOf = (from: number, to: number, count: number, gap: number): readonly Part[] => {
  const size = (to - from - gap * (count - 1)) / count;
  const begins = (i: number) => (i === 0 ? Math.floor(from) : Math.round(from + i * (size + gap)));
  return Array.from({ length: count }, (_, i) => {
    if (i === count - 1) return [begins(i), Math.ceil(to)] as const;
    return [begins(i), gap === 0 ? begins(i + 1) : Math.round(from + i * (size + gap) + size)] as const;
  });
};

/** What one pane shows through. */
interface Pane {
  /** What it is called after its layer's name. */
  readonly name: string;
  readonly middle: Point;
  readonly outlines: readonly Item[];
}

/** What a layer shows at a frame becomes one layer for each window, in their order; all of them show what it shows. */
const paned = (
  program: Program,
  layerId: Id,
  frame: number,
  makeId: MakeId,
  windowsOf: (layer: DrawingLayer, box: Box) => readonly Pane[],
): Edit => ({
  label: 'Cut into panes',
  change: (draft) => {
    const sceneId = program.scene.id;
    const scene = sceneIn(draft, sceneId);
    const layer = plain<DrawingLayer>(drawingIn(draft, sceneId, layerId));
    const box = boxOfMarks(program.flowAt(layerId, layer.recipe, frame).marks);
    if (!box || box.right <= box.left || box.bottom <= box.top)
      throw new RangeError(`“${layer.name}” shows nothing at this frame that could be cut`);
    const free = naming(namesIn(plain<Scene>(scene)));
    const made = windowsOf(layer, box).map(({ name: called, middle, outlines }): DrawingLayer => {
      const cut = {
        ...newItem(makeId(), mask.kind, { mode: 'show', crisp: true }),
        name: 'Pane',
        children: outlines.map(({ id }) => id),
      };
      const [copy] = copiesOf([layer], makeId) as [DrawingLayer];
      const name = free(`${layer.name} ${called}`);
      const items = { ...copy.items, ...Object.fromEntries([cut, ...outlines].map((item) => [item.id, item])) };
      return { ...copy, name, items, recipe: [...copy.recipe, cut.id], params: pivotedAt(layer.params, middle, frame) };
    });
    for (const pane of made) scene.layers[pane.id] = pane as LayerDraft;
    const index = scene.order.indexOf(layerId);
    const ids = made.map(({ id }) => id);
    scene.order = [...scene.order.slice(0, index), ...ids, ...scene.order.slice(index)];
    for (const other of Object.values(scene.layers)) if (other.parent === layerId) other.parent = ids[0] ?? null;
    leaveScene(scene, new Set([layerId]));
  },
});

/** Parts of which the outer ones reach a quarter further out: the soft outer edges of a picture are not cut. */
const bled = (parts: readonly Part[]): readonly Part[] =>
  parts.map(([from, to], i) => {
    const further = (to - from) / 4;
    return [i === 0 ? from - further : from, i === parts.length - 1 ? to + further : to];
  });

/** The panes of a layer as it shows at a frame, row by row from the top left. */
export const cutIntoPanes = (
  program: Program,
  layerId: Id,
  { rows, columns, gap }: Panes,
  frame: number,
  makeId: MakeId,
): Edit =>
  paned(program, layerId, frame, makeId, (layer, box) => {
    const across = partsOf(box.left, box.right, columns, gap);
    const down = partsOf(box.top, box.bottom, rows, gap);
    if ([...across, ...down].some(([from, to]) => to <= from)) {
      throw new RangeError(`“${layer.name}” is too small for so many panes with such a gap`);
    }
    const [wide, high] = [bled(across), bled(down)];
    return down.flatMap(([top, bottom], row) =>
      across.map(([left, right], column): Pane => {
        const [[from, to], [over, under]] = [wide[column] as Part, high[row] as Part];
        const size = { width: to - from, height: under - over, centre: [(from + to) / 2, (over + under) / 2] as const };
        return {
          name: `${row + 1}.${column + 1}`,
          middle: [(left + right) / 2, (top + bottom) / 2],
          outlines: [newItem(makeId(), rectangle.kind, size)],
        };
      }),
    );
  });

/** As many panes as a grid can have. */
const MOST_PANES = PANE_LIMITS.rows[1] * PANE_LIMITS.columns[1];

/**
 * A pane for each shape of another layer, as both stand at a frame: for each copy of a repeater. What lies in no shape is left
 * out, and the layer whose shapes they are is switched off.
 */
export const cutByShapes = (program: Program, layerId: Id, byId: Id, frame: number, makeId: MakeId): Edit => {
  const cutting = paned(program, layerId, frame, makeId, (layer) => {
    const by = program.scene.layers[byId];
    const { shapes } = by?.kind === 'drawing' ? program.flowAt(byId, by.recipe, frame) : EMPTY;
    const back = inverted(program.matrixAt(layerId, frame));
    if (!by || !back || shapes.length === 0) {
      throw new RangeError(`“${by?.name ?? byId}” has no outlines at this frame to cut “${layer.name}” by`);
    }
    if (shapes.length > MOST_PANES) {
      throw new RangeError(`“${by.name}” has ${shapes.length} shapes; a layer is cut into ${MOST_PANES} panes at most`);
    }
    const through = multiply(back, program.matrixAt(byId, frame));
    return shapes.flatMap(({ outlines }, i): Pane[] => {
      const here = outlines.map((outline) => transformed(through, outline));
      const box = here.reduce<Box | null>((sum, outline) => union(sum, outlineBox(outline)), null);
      if (!box) return [];
      return [
        {
          name: String(i + 1),
          middle: [(box.left + box.right) / 2, (box.top + box.bottom) / 2],
          outlines: here.map((outline) => newItem(makeId(), path.kind, { path: pathOfOutline(outline) })),
        },
      ];
    });
  });
  return together(cutting.label, [cutting, setLayers(program.scene.id, [byId], { hidden: true })]);
};
