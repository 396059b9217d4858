/** What a banner's scene uses of the player: what its document says, and what was seen in the frames that it plays. */
import { hasFormulas } from '@kite/core/delivery/lean';
import type { Params } from '@kite/core/document/params';
import {
  type Ease,
  isApart,
  isKeyed,
  type Item,
  type Knob,
  type Layer,
  type Properties,
  type Property,
  type Scene,
  type ValueKind,
} from '@kite/core/document/types';
import { EASES } from '@kite/core/motion/eases/table';
import { paramsIn } from '@kite/core/properties/find';
import { eachMark } from '@kite/core/recipe/marks';
import { needsOf } from '@kite/core/recipe/needs';
import { nest } from '@kite/core/recipe/sources/nest';
import type { Mark } from '@kite/core/recipe/types';
import { allLayers } from '@kite/core/scene/whole';
import type { Uses } from './parts';

const easesOf = (property: Property): readonly Ease['kind'][] => {
  if (isApart(property)) return property.parts.flatMap(easesOf);
  return isKeyed(property) ? property.keys.map(({ ease }) => ease.kind) : [];
};

/** Everything with parameters in a layer: itself, its cards, its knobs. */
const partsOf = (layer: Layer): readonly { readonly described: Params; readonly params: Properties }[] => [
  { described: paramsIn(layer, undefined), params: layer.params },
  ...Object.values<Item | Knob>(layer.kind === 'drawing' ? layer.items : layer.knobs).map(({ id, params }) => ({
    described: paramsIn(layer, id),
    params,
  })),
];

/** Notes what kinds of marks there are. */
export const seeing = () => {
  const marks = { cuts: false, growths: false, bends: false };
  return {
    marks,
    see: (shown: readonly Mark[]): void =>
      eachMark(shown, (mark) => {
        if (mark.op !== 'group') return;
        marks.bends ||= mark.bend !== undefined;
        marks.cuts ||= mark.cuts !== undefined;
        marks.growths ||= mark.cuts?.some((cut) => 'growth' in cut) ?? false;
      }),
  };
};

/** Whether something has a value or a formula of its own for a parameter. */
const has = ({ params, formulas }: Pick<Item, 'params' | 'formulas'>, key: string): boolean =>
  params[key] !== undefined || formulas?.[key] !== undefined;

/** Of a scene as it is written into its banner: what it has is used. */
export const usesOf = (scene: Scene, marks: Uses['marks']): Uses => {
  const layers = allLayers(scene);
  const cards = layers.flatMap((layer) => (layer.kind === 'drawing' ? Object.values(layer.items) : []));
  const parts = layers.flatMap(partsOf);
  const formulas = hasFormulas(scene);
  const keyed = parts.flatMap(({ params }) => Object.values(params).flatMap(easesOf));
  const needs = layers.map(needsOf);
  return {
    cards: new Set(cards.map(({ kind }) => kind)),
    values: new Set(parts.flatMap(({ described }) => Object.values(described).map(({ kind }): ValueKind => kind))),
    // A formula may name any ease.
    eases: new Set(formulas ? (Object.keys(EASES) as Ease['kind'][]) : keyed),
    formulas,
    // A nest may bring its layers into depth that have none themselves.
    depth:
      layers.some((layer) => has(layer, 'depth')) ||
      cards.some((card) => card.kind === nest.kind && has(card, 'space')),
    others: needs.some((need) => need.layers.size > 0 || need.asks.behind),
    marks,
  };
};
