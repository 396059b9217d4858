/** What a banner's scene uses of the player: what its document says, and what was seen in the frames that it plays. */
import { formulasOn } from '@kite/core/document/formulas';
import type { Params } from '@kite/core/document/params';
import {
  type Ease,
  isApart,
  isKeyed,
  type Item,
  type Keyframe,
  type Knob,
  type Layer,
  type Properties,
  type Property,
  type Scene,
  type ValueKind,
} from '@kite/core/document/types';
import { factsOf } from '@kite/core/formula/facts';
import { multiply, scaling } from '@kite/core/geometry/matrix';
import { EASES } from '@kite/core/motion/eases/table';
import { isCurved } from '@kite/core/motion/track';
import { isFar } from '@kite/core/paint/far';
import { paramsIn } from '@kite/core/properties/find';
import { eachMark } from '@kite/core/recipe/marks';
import { needsOf, valuesOf } from '@kite/core/recipe/needs';
import { nest } from '@kite/core/recipe/sources/nest';
import { kindOf } from '@kite/core/recipe/table';
import type { Mark } from '@kite/core/recipe/types';
import type { DisplayList } from '@kite/core/scene/program';
import { allLayers } from '@kite/core/scene/whole';
import type { Uses } from './parts';

const easesOf = (property: Property): readonly Ease['kind'][] => {
  if (isApart(property)) return property.parts.flatMap(easesOf);
  return isKeyed(property) ? property.keys.map(({ ease }) => ease.kind) : [];
};

/** Whether a property goes along a curve, or along all of its way at one pace. */
const isAlongCurve = (property: Property): boolean =>
  isKeyed(property) &&
  (property.even === true || property.keys.some((key, i) => i > 0 && isCurved(property.keys[i - 1] as Keyframe, key)));

/** Everything with parameters in a layer: itself, its cards, its knobs. */
const partsOf = (layer: Layer): readonly { readonly described: Params; readonly params: Properties }[] => [
  { described: paramsIn(layer, undefined), params: layer.params },
  ...Object.values<Item | Knob>(layer.kind === 'drawing' ? layer.items : layer.knobs).map(({ id, params }) => ({
    described: paramsIn(layer, id),
    params,
  })),
];

/** How much larger than its scene a banner, and what is drawn apart in it, may be. */
const ENLARGED = scaling(64);

/** Notes what there is to be drawn. */
export const seeing = () => {
  const marks = { cuts: false, growths: false, bends: false, effects: false, leftward: false, far: false, told: false };
  const note = (mark: Mark): void => {
    if (mark.op === 'stroke') {
      const matrix = multiply(ENLARGED, mark.matrix);
      marks.far ||= mark.outlines.some((outline) => isFar(outline, matrix));
    }
    if (mark.op !== 'group') return;
    marks.bends ||= mark.bend !== undefined;
    marks.effects ||= mark.effect !== undefined;
    marks.cuts ||= mark.cuts !== undefined;
    marks.growths ||= mark.cuts?.some((cut) => 'growth' in cut) ?? false;
  };
  return {
    marks,
    see: ({ marks: shown, problems }: Pick<DisplayList, 'marks' | 'problems'>): void => {
      marks.told ||= problems.length > 0;
      eachMark(shown, note);
    },
  };
};

/** Whether something has a value or a formula of its own for a parameter. */
const has = ({ params, formulas }: Pick<Item, 'params' | 'formulas'>, key: string): boolean =>
  params[key] !== undefined || formulas?.[key] !== undefined;

/** Of a scene as it is written into its banner: what it has is used. */
export const usesOf = (scene: Scene, marks: Uses['marks'], areas = false): Uses => {
  const layers = allLayers(scene);
  const cards = layers.flatMap((layer) => (layer.kind === 'drawing' ? Object.values(layer.items) : []));
  const parts = layers.flatMap(partsOf);
  const formulas = layers.flatMap(formulasOn);
  const calls = new Set(formulas.flatMap(({ formula }) => [...factsOf(formula).calls]));
  const keyed = parts.flatMap(({ params }) => Object.values(params).flatMap(easesOf));
  const needs = layers.map(needsOf);
  const values = new Set(parts.flatMap(({ described }) => Object.values(described).map(({ kind }): ValueKind => kind)));
  // A formula may mix whatever it reads, and colours of its own; and it may name any ease.
  const mixing = calls.has('mix');
  if (mixing) values.add('color');
  const kindsKeyed = parts.flatMap(({ described, params }) =>
    Object.entries(params)
      .filter(([, property]) => easesOf(property).length > 0)
      .flatMap(([key]) => described[key]?.kind ?? []),
  );
  return {
    cards: new Set(cards.map(({ kind }) => kind)),
    values,
    eases: new Set(calls.has('ease') ? (Object.keys(EASES) as Ease['kind'][]) : keyed),
    mixed: mixing ? values : new Set(kindsKeyed),
    curves: parts.some(({ params }) => Object.values(params).some(isAlongCurve)),
    given: new Set(
      cards.flatMap(({ kind, params, formulas: computed }) =>
        Object.keys({ ...params, ...computed }).map((key) => `${kind}/${key}`),
      ),
    ),
    each: cards.some(
      ({ kind, params, formulas: computed }) =>
        kindOf(kind).role === 'paint' && (computed?.style !== undefined || valuesOf(params.style, '').includes('each')),
    ),
    formulas: formulas.length > 0,
    calls,
    areas,
    // A nest may bring its layers into depth that have none themselves.
    depth:
      layers.some((layer) => has(layer, 'depth')) ||
      cards.some((card) => card.kind === nest.kind && has(card, 'space')),
    others: needs.some((need) => need.layers.size > 0 || need.asks.behind),
    marks,
  };
};
