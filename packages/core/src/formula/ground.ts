/** In whose pixels a point is, for formulas that carry one over into those of another layer. */
import type { Id, Layer, Point, Scene } from '../document/types';
import { apply, IDENTITY, inverted, type Matrix, multiply } from '../geometry/matrix';
import { applySpace, invertedSpace } from '../geometry/space';
import type { Sampler } from '../motion/sampler';
import type { Computing } from '../motion/reader';
import { inSpace, isSpace, placementOf, type Pose, posed } from '../properties/placement';
import { standings } from '../properties/standing';
import { groupsOf, placeOfCard } from '../recipe/placeOfCard';
import { costOf, type Readable } from './parts';
import type { Target } from './refs';

/** A layer, or a group of cards in one, whose own place counts. */
export interface Holder {
  readonly layer: Id;
  readonly item?: Id;
}

/** What a layer hangs from, the nearest first. */
const parentsOf = (scene: Scene, layer: Id): Layer[] => {
  const found: Layer[] = [];
  for (let at = standings(scene).get(layer)?.parent; at; at = standings(scene).get(at.id)?.parent) found.push(at);
  return found;
};

/** The layers in whose pixels a point is, innermost first: a position is in those of the parent. */
const layersAround = (scene: Scene, { layer, item, key }: Target): Layer[] => {
  const owner = scene.layers[layer];
  if (!owner) return [];
  const parents = parentsOf(scene, layer);
  return item === undefined && key === 'position' ? parents : [owner, ...parents];
};

/** Everything whose place decides where a point of a property stands in the picture. */
export const holdersOf = (scene: Scene, to: Target): Holder[] => {
  const owner = scene.layers[to.layer];
  const groups = owner?.kind === 'drawing' && to.item !== undefined ? groupsOf(owner.items, to.item) : [];
  return [
    ...groups.map(({ id }) => ({ layer: to.layer, item: id })),
    ...layersAround(scene, to).map(({ id }) => ({ layer: id })),
  ];
};

interface Ground {
  readonly still: boolean;
  readonly at: (frame: number) => Pose;
}

/** A place that adds nothing. */
const WHOLE: { readonly still: boolean; readonly at: (frame: number) => Matrix } = { still: true, at: () => IDENTITY };

/** From the pixels that a point of a property is in to the scene’s. */
const groundOf = (scene: Scene, to: Target, computing: (layer: Id, item?: Id) => Computing | undefined): Ground => {
  const owner = scene.layers[to.layer];
  const places = layersAround(scene, to).map(({ id, params }) => placementOf(params, computing(id)));
  const { item } = to;
  const items = owner?.kind === 'drawing' && item !== undefined ? owner.items : null;
  const card = items && item !== undefined ? placeOfCard(items, item, (id) => computing(to.layer, id)) : WHOLE;
  return {
    still: card.still && places.every((place) => place.still),
    at: (frame) => places.reduce<Pose>((inner, place) => posed(place.pose(frame), inner), card.at(frame)),
  };
};

const carried = (from: Pose, to: Pose, [x, y]: Point): Point | null => {
  if (!isSpace(from) && !isSpace(to)) {
    const back = inverted(to);
    return back && apply(multiply(back, from), [x, y]);
  }
  const back = invertedSpace(inSpace(to));
  const there = back && applySpace(back, applySpace(inSpace(from), [x, y, 0]));
  return there && [there[0], there[1]];
};

export interface Carrying {
  /** Whether it is the same at every frame. */
  readonly still: boolean;
  /** A point in the pixels of the other property. What is scaled to nothing gives [0, 0]. */
  readonly at: (frame: number, point: Point) => Point;
}

/**
 * From the pixels of one property to those of another, so that a point is at one place of the picture; in depth, the point of the other’s
 * plane straight before or behind it.
 */
export const carrying = (
  scene: Scene,
  from: Target,
  to: Target,
  computing: (layer: Id, item?: Id) => Computing | undefined,
): Carrying => {
  const [there, here] = [groundOf(scene, from, computing), groundOf(scene, to, computing)];
  return {
    still: there.still && here.still,
    at: (frame, point) => carried(there.at(frame), here.at(frame), point) ?? [0, 0],
  };
};

/** A point as it is carried; `along` are the formulas on what both stand in. */
export const carriedPoint = (
  point: Sampler,
  way: Carrying,
  along: readonly Sampler[],
): Readable<Point> & { readonly constant: boolean } => {
  const cost = { moments: 1 };
  return {
    constant: point.constant && way.still,
    cost,
    at: (frame) => {
      const value = point.at(frame) as Point;
      cost.moments = costOf(point);
      for (const one of along) {
        one.at(frame);
        cost.moments = Math.max(cost.moments, costOf(one));
      }
      return way.at(frame, value);
    },
  };
};
