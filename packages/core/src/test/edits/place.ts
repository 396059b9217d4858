/** Where edits from chance are made, and what they are made with. */
import type { Edit } from '../../document/patches';
import { LIMITS } from '../../document/limits';
import { type Id, type Layer, type Project, type PropertyRef, type Scene, isKeyed } from '../../document/types';
import { curvesOf, keyedCurvesOf, paramAt, propertyIn } from '../../properties/find';
import type { KeyChoice } from '../../edits/keyframes';
import { type Move, STEP_KINDS, type RoutineStep } from '../../document/moves';
import { compileScene } from '../../scene/compile';
import { wholeScene } from '../../scene/whole';
import { squareFonts } from '../fonts';
import type { Chance } from '../random';
import { randomEase, randomFrame, randomPoint, randomText } from '../randomProject';

/** Where an edit is made. */
export interface Place {
  readonly chance: Chance;
  readonly doc: Project;
  readonly scene: Scene;
  readonly layer: Layer;
  /** Some of the layers, the layer among them. */
  readonly ids: readonly Id[];
  readonly makeId: () => Id;
}

export const programOf = ({ doc, scene }: Place) =>
  compileScene(wholeScene(scene, doc), { assets: doc.assets, fonts: squareFonts });

export const HOW = 'beyond';
export const frame = ({ chance }: Place) => randomFrame(chance, HOW);
export const name = ({ chance }: Place) => randomText(chance, LIMITS.name, HOW);
export const amount = ({ chance }: Place) => randomPoint(chance, HOW)[0];

/** A property of the layer, and what it may be. */
export const propertyAt = (at: Place, kinds?: readonly string[]): PropertyRef | null => {
  const refs = curvesOf(at.scene.id, at.layer).filter((ref) => {
    const kind = paramAt(at.doc, ref)?.kind;
    return kind !== undefined && (!kinds || kinds.includes(kind));
  });
  return refs.length > 0 ? at.chance.one(refs) : null;
};

export const keysAt = (at: Place): KeyChoice[] =>
  at.chance.some(keyedCurvesOf(at.scene.id, at.layer)).flatMap((ref) => {
    const property = propertyIn(at.layer, ref);
    const frames = isKeyed(property) ? at.chance.some(property.keys.map((k) => k.frame)) : [];
    return frames.length > 0 ? [{ ref, frames }] : [];
  });

export const itemAt = ({ chance, layer }: Place): Id | null =>
  layer.kind === 'drawing' && layer.recipe.length > 0 ? chance.one(Object.keys(layer.items)) : null;
export const knobAt = ({ chance, layer }: Place): Id | null =>
  layer.kind === 'controller' && layer.panel.length > 0 ? chance.one(layer.panel) : null;

export const randomMove = (at: Place): Move => {
  const { chance } = at;
  const base = { name: name(at), frames: chance.one([1, 12, 40, 1e6]), ease: randomEase(chance, HOW) };
  const away = {
    angle: amount(at),
    distance: amount(at),
    outside: chance.happens(0.3),
    fade: chance.one([0, 0.5, 1, 3]),
  };
  switch (chance.whole(0, 2)) {
    case 0:
      return {
        ...base,
        kind: 'emphasis',
        form: chance.one(['pulse', 'shake', 'wobble', 'pop']),
        strength: 0.5,
        times: 3,
      };
    case 1:
      return { ...base, ...away, kind: 'passage', drift: amount(at) };
    default:
      return {
        ...base,
        ...away,
        kind: chance.one(['entrance', 'exit']),
        scale: amount(at),
        ...(chance.happens(0.3) && { drawn: chance.one([0, 0.5, 7]) }),
        ...(chance.happens(0.3) && { behind: chance.one([1, 0.5, 7]) }),
        turn: amount(at),
        ...(chance.happens(0.3) && { turnY: amount(at), z: amount(at) }),
      };
  }
};

export const randomStep = (at: Place): RoutineStep => {
  const { chance } = at;
  const kind = chance.one(STEP_KINDS);
  const value =
    kind === 'move' ? randomPoint(chance, HOW) : kind === 'colour' ? '#FF5D5D' : chance.one([0, 0.5, 1.5, -3, 4_000]);
  return { kind, value, frames: chance.whole(1, 30), gap: chance.whole(-10, 10), ease: randomEase(chance, HOW) };
};

export const FORMULAS = [
  'frame * 2',
  '[1, 2] * frame',
  '{this / Position}',
  'lag({this / Turn}, 0.2)',
  '2 +',
  '"🚋"',
  'x\0',
];

/** A kind of edit; null where the place has nothing for it. */
export type RandomEdit = (at: Place) => Edit | null;
