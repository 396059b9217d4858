/** Formulas and the properties that they are for. */
import { remembered } from '../document/remembered';
import type { Param } from '../document/params';
import { formulasOn } from '../document/formulas';
import type { Formula, Id, Layer, Scene } from '../document/types';
import { partParam } from '../motion/apart';
import { paramsIn } from '../properties/find';
import type { Target } from './refs';

/** A property, or one part of a point. */
export interface Wired extends Target {
  readonly part?: 0 | 1;
}

export const keyOf = ({ layer, item, key, part }: Wired): string =>
  `${layer}/${item ?? ''}/${key}${part === undefined ? '' : `.${'xy'.charAt(part)}`}`;

/** A formula and the property that it is for. */
export interface Entry {
  readonly at: Wired;
  readonly formula: Formula;
  readonly param: Param;
}

export const entriesOf = remembered((layer: Layer): readonly Entry[] =>
  formulasOn(layer).flatMap(({ of, formula }): Entry[] => {
    const whole = paramsIn(layer, of.item)[of.key];
    const param = of.part === undefined ? whole : whole?.kind === 'point' ? partParam(whole, of.part) : undefined;
    return param && formula.on ? [{ at: { layer: layer.id, ...of }, formula, param }] : [];
  }),
);

/** The rank of every layer that is in a set. */
export const ranks = (scene: Scene): ReadonlyMap<Id, { readonly order: number; readonly count: number }> =>
  new Map(
    scene.sets.flatMap(({ members }) => members.map((id, order) => [id, { order, count: members.length }] as const)),
  );

export const ALONE = { order: 0, count: 1 };
