/** Reveals by strokes: a layer is shown as strokes along its middle lines are drawn, by ordinary cards that can be changed. */
import { type MakeId, newItem } from '../document/make';
import { type Edit, plain } from '../document/patches';
import { isKeyed } from '../document/types';
import type { DrawingLayer, Ease, Id, Item, PathValue, Point } from '../document/types';
import { middleOf, type MiddleStroke } from '../geometry/middle';
import type { Outline } from '../geometry/outline';
import { transformed } from '../geometry/outline';
import { easeOfStrength, strengthOf } from '../motion/eases/table';
import { mask as maskKind } from '../recipe/covers/mask';
import { outlinesOf, ribbonArea } from '../geometry/polygons';
import type { Mark } from '../recipe/types';
import type { Program } from '../scene/compile';
import { drawingIn, type ItemDraft } from './find';
import { detach, within } from './recipe';

export interface Reveal {
  /** Of each layer. */
  readonly frames: number;
  /** How strongly it sets out and arrives, 0..1. */
  readonly strength: number;
  readonly order: 'together' | 'in-turn';
  /** Frames from one layer's beginning to the next one's. */
  readonly step: number;
}

export const FIRST_REVEAL: Reveal = { frames: 25, strength: 0.83, order: 'in-turn', step: 3 };
export const REVEAL_LIMITS = { frames: [1, 10_000], strength: [0, 1], step: [-1_000, 1_000] } as const;

/** What the card that reveals is called, by which it is found again. */
export const REVEAL_NAME = 'Written on';

/** What marks cover, as outlines in the pixels of their layer; pictures by their frames. */
const covered = (marks: readonly Mark[]): Outline[] =>
  marks.flatMap((mark): Outline[] => {
    switch (mark.op) {
      case 'group':
        return mark.aside ? [] : covered(mark.marks);
      case 'fill':
        return mark.outlines.map((outline) => transformed(mark.matrix, outline));
      case 'stroke': {
        const area = outlinesOf(ribbonArea(mark.outlines, mark.width / 2, 'round', mark.cap, 4));
        return area.map((outline) => transformed(mark.matrix, outline));
      }
      case 'picture':
        return [];
    }
  });

/** For the pixels on the edge, which are covered in part. */
const EDGE = 3;

const rounded = (n: number): number => Math.round(n * 100) / 100;

/** A smooth path through the points of a stroke (uniform Catmull-Rom). */
const pathOf = ({ points, closed }: MiddleStroke): PathValue => {
  const count = points.length;
  const at = (i: number): Point => points[closed ? (i + count) % count : Math.min(count - 1, Math.max(0, i))] as Point;
  return {
    closed,
    vertices: points.map(([x, y], i) => {
      const [before, after] = [at(i - 1), at(i + 1)];
      const [hx, hy] = [(after[0] - before[0]) / 6, (after[1] - before[1]) / 6];
      const [h, k] = [rounded(hx), rounded(hy)];
      return [rounded(x), rounded(y), -h, -k, h, k] as const;
    }),
  };
};

/** The mask that reveals a layer, if it has one. */
export const revealOf = (layer: DrawingLayer): Item | undefined =>
  Object.values(layer.items).find(({ kind, name }) => kind === maskKind.kind && name === REVEAL_NAME);

/** How a layer is written on now, and from which frame; null for one that is not. */
export const revealIn = (layer: DrawingLayer): (Omit<Reveal, 'step'> & { readonly from: number }) | null => {
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
      const middle = middleOf(covered(program.flowAt(id, cards, at).marks));
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
      for (const item of [mask, ...inside]) layer.items[item.id] = item as ItemDraft;
      layer.recipe = [...layer.recipe.filter((card) => card !== before?.id), mask.id];
    });
  },
});
