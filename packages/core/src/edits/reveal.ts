/** Reveals by strokes: a layer is shown as strokes along its middle lines are drawn, by ordinary cards that can be changed. */
import { type MakeId, newItem } from '../document/make';
import { type Edit, plain } from '../document/patches';
import {
  type Color,
  type DrawingLayer,
  type Ease,
  type Id,
  isKeyed,
  type Item,
  type PathValue,
  type Scene,
} from '../document/types';
import { middleOf, type MiddleStroke } from '../geometry/middle';
import { type Outline, smoothThrough, transformed } from '../geometry/outline';
import { pathOfOutline } from '../motion/paths';
import { easeOfStrength, strengthOf } from '../motion/eases/table';
import { mask as maskKind } from '../recipe/covers/mask';
import { intricacyOf, intricacyOfGrowth, outlinesOf, ribbonArea } from '../geometry/polygons';
import { workOfMarks } from '../recipe/room';
import type { Mark } from '../recipe/types';
import type { Program } from '../scene/program';
import { PLACE } from '../document/params';
import { referenceTo } from '../formula/refs';
import { flood } from '../recipe/covers/flood';
import { text } from '../recipe/sources/text';
import { type DrawingDraft, drawingIn, type ItemDraft, type LayerDraft, sceneIn } from './find';
import { copiesOf } from './layers';
import { leaveScene } from './sets';
import { detach, within } from './recipe';

export interface Reveal {
  /** Of each layer. */
  readonly frames: number;
  /** How strongly it sets out and arrives, 0..1. */
  readonly strength: number;
  readonly order: 'together' | 'in-turn';
  /** Frames from one layer's beginning to the next one's. */
  readonly step: number;
  /** The same in one colour that runs so many frames ahead, as a layer of its own right behind. */
  readonly ahead: { readonly color: Color; readonly frames: number } | null;
}

export const FIRST_REVEAL: Reveal = { frames: 25, strength: 0.83, order: 'in-turn', step: 3, ahead: null };
export const REVEAL_LIMITS = {
  frames: [1, 10_000],
  strength: [0, 1],
  step: [-1_000, 1_000],
  ahead: [1, 1_000],
} as const;

/** What the card that reveals is called, and the one with the colour that runs ahead, by which they are found again. */
export const REVEAL_NAME = 'Written on';
const AHEAD_NAME = 'Runs ahead';

/** What marks cover, as outlines in the pixels of their layer; pictures by nothing. `take` takes room for making areas of strokes. */
const covered = (marks: readonly Mark[], take: (work: number) => void): Outline[] =>
  marks.flatMap((mark): Outline[] => {
    switch (mark.op) {
      case 'group':
        return mark.aside ? [] : covered(mark.marks, take);
      case 'fill':
        return mark.outlines.map((outline) => transformed(mark.matrix, outline));
      case 'stroke': {
        take(intricacyOfGrowth([], mark.outlines, mark.width / 2, 'round', 4));
        const area = outlinesOf(ribbonArea(mark.outlines, mark.width / 2, 'round', mark.cap, 4));
        return area.map((outline) => transformed(mark.matrix, outline));
      }
      case 'picture':
        return [];
    }
  });

/** The most work that shapes to be written on may take to draw, and to be made one area. */
const MOST_WORK = 20_000;

/** What is to be written on, or grown along; RangeError where finding its middle lines would never end. */
export const shapesOf = (name: string, marks: readonly Mark[]): Outline[] => {
  const tooIntricate = new RangeError(`“${name}” is too intricate to be written on`);
  let left = MOST_WORK;
  const take = (work: number): void => {
    left -= work;
    if (left < 0) throw tooIntricate;
  };
  take(workOfMarks(marks));
  const outlines = covered(marks, take);
  take(intricacyOf(outlines));
  return outlines;
};

/** For the pixels on the edge, which are covered in part. */
const EDGE = 3;

const pathOf = ({ points, closed }: MiddleStroke): PathValue => pathOfOutline(smoothThrough(points, closed));

/** The mask that reveals a layer, if it has one. */
export const revealOf = (layer: DrawingLayer): Item | undefined =>
  Object.values(layer.items).find(({ kind, name }) => kind === maskKind.kind && name === REVEAL_NAME);

/** The layer that runs ahead of one that is written on. */
export const aheadOf = ({ layers }: Pick<Scene, 'layers'>, layer: Id): DrawingLayer | undefined =>
  Object.values(layers).find(
    (other): other is DrawingLayer =>
      other.kind === 'drawing' &&
      other.parent === layer &&
      revealOf(other) !== undefined &&
      Object.values(other.items).some(({ kind, name }) => kind === flood.kind && name === AHEAD_NAME),
  );

/** How a layer is written on now, and from which frame; null for one that is not. */
export const revealIn = (
  layer: DrawingLayer,
  scene: Pick<Scene, 'layers'>,
): (Omit<Reveal, 'step'> & { readonly from: number }) | null => {
  const before = aheadOf(scene, layer.id);
  const color = before && Object.values(before.items).find(({ name }) => name === AHEAD_NAME)?.params.color;
  const lead = before && revealIn(before, { layers: {} })?.from;
  const trim = (revealOf(layer)?.children ?? []).map((id) => layer.items[id]).find((item) => item?.kind === 'trim');
  const end = trim?.params.end;
  const [first, last] = isKeyed(end) ? [end.keys[0], end.keys.at(-1)] : [];
  if (!trim || !first || !last) return null;
  const mode = trim.params.mode && 'value' in trim.params.mode ? trim.params.mode.value : 'together';
  const { ease } = first;
  const strength = Math.round(strengthOf(ease).start * 100) / 100;
  return {
    frames: last.frame - first.frame,
    strength,
    order: mode === 'in-turn' ? 'in-turn' : 'together',
    from: first.frame,
    ahead:
      color && 'value' in color && lead !== undefined
        ? { color: color.value as Color, frames: first.frame - lead }
        : null,
  };
};

/** A layer right behind one that is written on: what that shows, in one colour, with the words that it has. */
const runningAhead = (layer: DrawingLayer, color: Color, makeId: MakeId): DrawingLayer => {
  const [copy] = copiesOf([layer], makeId) as [DrawingLayer];
  // Cards come in the order of the originals.
  const originals = Object.keys(layer.items);
  const items = Object.entries(copy.items).map(([id, item], i): [Id, Item] => {
    if (item.kind !== text.kind) return [id, item];
    const read = referenceTo(
      { layer: layer.id, item: originals[i] as Id, key: 'text' },
      { layer: copy.id, key: 'text' },
    );
    return [id, { ...item, formulas: { ...item.formulas, text: { text: read, on: true } } }];
  });
  const over = { ...newItem(makeId(), flood.kind, { color }), name: AHEAD_NAME };
  const { formulas: _formulas, ...rest } = copy;
  return {
    ...rest,
    name: `${layer.name} ahead`,
    parent: layer.id,
    // It stands where the layer stands, which it hangs from.
    params: { position: { value: PLACE.position.default } },
    moves: [],
    items: Object.fromEntries([...items, [over.id, over]]),
    recipe: [...copy.recipe, over.id],
  };
};

/** The cards that write a layer on, from a frame on. */
const cardsOf = (
  strokes: readonly MiddleStroke[],
  width: number,
  { frames, strength, order }: Reveal,
  from: number,
  makeId: MakeId,
) => {
  const paths = strokes.map((stroke, i) => ({
    ...newItem(makeId(), 'path', { path: pathOf(stroke) }),
    name: `Stroke ${i + 1}`,
  }));
  const ease: Ease = easeOfStrength({ start: strength, end: strength });
  const trim: Item = {
    ...newItem(makeId(), 'trim', { mode: order }),
    params: {
      mode: { value: order },
      end: {
        keys: [
          { frame: from, value: 0, ease },
          { frame: from + frames, value: 1, ease },
        ],
      },
    },
  };
  const stroke = newItem(makeId(), 'stroke', { color: '#FFFFFF', width: Math.ceil(width + EDGE) });
  return [...paths, trim, stroke];
};

/** Hides all that the cards in it have not drawn yet, and nothing once they have drawn all. */
const maskOf = (inside: readonly Item[], from: number, to: number, makeId: MakeId): Item => {
  const mask = newItem(makeId(), maskKind.kind, { mode: 'hide', by: 'drawn', inverted: true });
  const hold = { kind: 'hold' } as const;
  return {
    ...mask,
    name: REVEAL_NAME,
    params: {
      ...mask.params,
      strength: {
        keys: [
          { frame: from, value: 1, ease: hold },
          { frame: to, value: 0, ease: hold },
        ],
      },
    },
    children: inside.map((item) => item.id),
  };
};

const putMask = (layer: DrawingDraft, mask: Item, inside: readonly Item[]): void => {
  for (const item of [mask, ...inside]) layer.items[item.id] = item as ItemDraft;
  layer.recipe = [...layer.recipe.filter((card) => card !== mask.id), mask.id];
};

/**
 * Layers written on along their middle lines, as they show at frame `at`: from a frame on, each a step later than the one
 * before it. A layer that is written on already is so anew.
 */
export const revealByStrokes = (
  program: Program,
  layers: readonly Id[],
  reveal: Reveal,
  at: number,
  from: number,
  makeId: MakeId,
): Edit => ({
  label: 'Write on',
  change: (draft) => {
    layers.forEach((id, i) => {
      const layer = drawingIn(draft, program.scene.id, id);
      const before = revealOf(plain<DrawingLayer>(layer));
      const cards = layer.recipe.filter((card) => card !== before?.id);
      const middle = middleOf(shapesOf(layer.name, program.flowAt(id, cards, at).marks));
      if (!middle) throw new RangeError(`“${layer.name}” shows no shape at this frame that could be written on`);
      const begins = from + i * reveal.step;
      const inside = cardsOf(middle.strokes, middle.width, reveal, begins, makeId);
      if (before) {
        for (const item of within(plain<DrawingLayer>(layer).items, before.id)) {
          if (item.id === before.id) detach(layer, item.id);
          delete layer.items[item.id];
        }
      }
      const mask = maskOf(inside, begins, begins + reveal.frames, makeId);
      const bare = { ...plain<DrawingLayer>(layer), recipe: cards };
      putMask(layer, mask, inside);
      const scene = sceneIn(draft, program.scene.id);
      const old = aheadOf(plain<Scene>(scene), id);
      if (old) leaveScene(scene, new Set([old.id]));
      if (!reveal.ahead) return;
      const made = runningAhead(bare, reveal.ahead.color, makeId);
      const early = begins - reveal.ahead.frames;
      const ahead = cardsOf(middle.strokes, middle.width, reveal, early, makeId);
      scene.layers[made.id] = made as LayerDraft;
      putMask(drawingIn(draft, program.scene.id, made.id), maskOf(ahead, early, early + reveal.frames, makeId), ahead);
      const behind = scene.order.indexOf(id) + 1;
      scene.order = [...scene.order.slice(0, behind), made.id, ...scene.order.slice(behind)];
    });
  },
});
