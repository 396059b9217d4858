/** Strokes of a brush: how what a hand did becomes one, where it goes, and what is done to those that are there. */
import { clamped, tenths } from '../document/fitting';
import { BRUSH_LIMITS, LIMITS } from '../document/limits';
import { type MakeId, newItem } from '../document/make';
import { FAR } from '../document/params';
import { type Edit, plain } from '../document/patches';
import type { BrushStroke, DrawingLayer, Id, Item, Point } from '../document/types';
import { simplifiedTo } from '../geometry/simplify';
import { reader } from '../motion/reader';
import { brush as brushKind } from '../recipe/sources/brush';
import { kindOf } from '../recipe/table';
import { holdsCards } from '../recipe/types';
import { drawingIn, itemIn } from './find';
import { addCards, attach, type CardRef, groupOf, listOf } from './recipe';

type Holding = Pick<Item, 'kind' | 'children'>;

/** The card that a stroke drawn in a holder goes over, or after: the holder itself, or its last brush. */
const lastBrush = (items: { readonly [id: Id]: Holding }, item: Id): Id | undefined =>
  items[item]?.kind === brushKind.kind
    ? item
    : items[item]?.children?.findLast((id) => items[id]?.kind === brushKind.kind);

/** Whether a card of brush strokes takes those that are drawn with a picture: it has that one, or none yet. */
const takesStamp = (brush: Item, stamp: Id): boolean => {
  const own = reader(brushKind.params, brush.params).at(0).stamp;
  return own === '' || own === stamp;
};

/** How a stroke drawn with a picture is pressed where it goes. */
export const pressedIn = (layer: DrawingLayer | null, item: Id, stamp: Id): { every: number; turns: boolean } => {
  const brush = layer?.items[(layer && lastBrush(layer.items, item)) ?? ''];
  const { every, turns } = reader(brushKind.params, brush && takesStamp(brush, stamp) ? brush.params : {}).at(0);
  return { every, turns };
};

/**
 * Draws a stroke in a cel, or whatever holds cards: over what its last brush has drawn, or with a new one. One drawn with a picture goes
 * to a card of that picture.
 */
export const addStroke = (
  { scene, layer, item }: CardRef,
  stroke: BrushStroke,
  makeId: MakeId,
  stamp: Id = '',
): Edit => ({
  label: stroke.erases ? 'Erase' : 'Draw a stroke',
  change: (draft) => {
    const own = drawingIn(draft, scene, layer);
    const holder = itemIn(own, item);
    if (holder.kind !== brushKind.kind && !holdsCards(kindOf(holder.kind))) {
      throw new RangeError('a stroke is drawn among brush strokes, or in what holds cards');
    }
    const last = lastBrush(own.items, item);
    const fits = stroke.tip !== 'own' || last === undefined || takesStamp(plain<Item>(itemIn(own, last)), stamp);
    let brush = last;
    if (brush === undefined || !fits) {
      const made = newItem(makeId(), brushKind.kind);
      const group = holder.kind === brushKind.kind ? groupOf(own.items, item) : item;
      const list = listOf(own, group);
      addCards(own, [made]);
      attach(own, made.id, group, last === undefined ? list.length : list.indexOf(last) + 1);
      brush = made.id;
    }
    const { params } = itemIn(own, brush);
    if (stroke.tip === 'own' && stamp !== '') params.stamp = { value: stamp };
    const property = (params.strokes ??= { value: [] }) as { value?: BrushStroke[] };
    if (!property.value)
      throw new RangeError('Strokes that are keyed are not drawn on: take their keyframes away first');
    if (property.value.length >= LIMITS.brushStrokes) {
      throw new RangeError(`A brush has at most ${LIMITS.brushStrokes} strokes: go on in another card`);
    }
    property.value.push(stroke);
  },
});

/** As it was drawn: x, y, and how hard it was pressed, 0..1. */
export type DrawnBrush = readonly (readonly [x: number, y: number, pressure: number])[];

/**
 * Smoothed as it is drawn: each point follows the pen by a part of its way, the less the smoother it is, 0..1, and arrives where that is
 * lifted.
 */
export const steadied = (drawn: DrawnBrush, smooth: number): DrawnBrush => {
  const by = 1 - 0.9 * smooth;
  const out: (readonly [number, number, number])[] = [];
  for (const [x, y, pressure] of drawn) {
    const [px, py, pp] = out.at(-1) ?? [x, y, pressure];
    out.push([px + (x - px) * by, py + (y - py) * by, pp + (pressure - pp) * by]);
  }
  const last = drawn.at(-1);
  return last ? [...out, last] : out;
};

/** Of a pen that does not tell how hard it is pressed: the faster it goes beside its width, the less. */
export const pressedBySpeed = (drawn: DrawnBrush, size: number): DrawnBrush => {
  let pressure = 0.5;
  return drawn.map(([x, y], i) => {
    const [px, py] = drawn[Math.max(0, i - 1)] as DrawnBrush[number];
    const fast = Math.min(1, Math.hypot(x - px, y - py) / Math.max(1, size));
    pressure += (1 - fast - pressure) * fast * 0.275;
    return [x, y, pressure];
  });
};

/** A stroke's points with as few of them as say the same, for a brush of a size. */
export const keptPoints = (drawn: DrawnBrush, size: number): readonly number[] => {
  const width = Math.min(Math.max(size, BRUSH_LIMITS.size[0]), BRUSH_LIMITS.size[1]);
  // The width that pressure makes is met as nearly as the place.
  const points = drawn.map(([x, y, pressure]) => [x, y, (pressure * width) / 2] as const);
  const kept = simplifiedTo(points, Math.min(0.5, Math.max(0.1, width * 0.02)), LIMITS.strokePoints);
  return kept.flatMap(([x, y, p]) => [tenths(x), tenths(y), Math.round(Math.min(1, (p * 2) / width) * 1000) / 1000]);
};

/** Which strokes lie in an area, most of each of them: by their places in the list. */
export const strokesIn = (all: readonly BrushStroke[], inside: (at: Point) => boolean): readonly number[] =>
  all.flatMap(({ points }, i) => {
    const count = points.length / 3;
    let within = 0;
    for (let n = 0; n < count; n++) if (inside([points[3 * n]!, points[3 * n + 1]!])) within++;
    return within * 2 > count ? [i] : [];
  });

/** The stroke that passes nearest to a place, within a way beyond its own width: its place in the list, -1 for none. */
export const strokeAt = (all: readonly BrushStroke[], [x, y]: Point, slack: number): number => {
  let [best, found] = [Infinity, -1];
  all.forEach(({ points, size }, i) => {
    for (let k = 0; k < points.length; k += 3) {
      const [ax, ay] = [points[k]!, points[k + 1]!];
      const [bx, by] = k + 3 < points.length ? [points[k + 3]!, points[k + 4]!] : [ax, ay];
      const [dx, dy] = [bx - ax, by - ay];
      const t = clamped(((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy), 0, 1, 0);
      const far = Math.hypot(x - ax - t * dx, y - ay - t * dy) - size / 2;
      // Of those that are as near, the one in front.
      if (far <= slack && far <= best) [best, found] = [far, i];
    }
  });
  return found;
};

const nearest = (n: number): number => Math.min(FAR, Math.max(-FAR, tenths(n)));

/** The strokes with some of them moved. */
export const strokesMoved = (all: readonly BrushStroke[], some: readonly number[], [dx, dy]: Point): BrushStroke[] =>
  all.map((stroke, i) =>
    some.includes(i)
      ? {
          ...stroke,
          points: stroke.points.map((x, k) => (k % 3 === 0 ? nearest(x + dx) : k % 3 === 1 ? nearest(x + dy) : x)),
        }
      : stroke,
  );

/** A point of a stroke: x, y and how hard it is pressed, 0..1. */
export type StrokePoint = readonly [x: number, y: number, pressure: number];

export const strokePoint = ({ points }: BrushStroke, n: number): StrokePoint =>
  points.slice(3 * n, 3 * n + 3) as unknown as StrokePoint;

/** The strokes with one point of one of them elsewhere, or pressed otherwise; without it for null, unless it is the last. */
export const withStrokePoint = (
  all: readonly BrushStroke[],
  stroke: number,
  n: number,
  to: StrokePoint | null,
): BrushStroke[] =>
  all.map((own, i) => {
    if (i !== stroke || (to === null && own.points.length <= 3)) return own;
    const made = to ? [nearest(to[0]), nearest(to[1]), Math.round(clamped(to[2], 0, 1, 0.5) * 1000) / 1000] : [];
    return { ...own, points: own.points.toSpliced(3 * n, 3, ...made) };
  });
