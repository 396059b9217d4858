/**
 * Points that are shared: one follows another by a formula that reads it where it stands in the picture. What is joined to what is joined
 * follows the same, so that all of them have one lead, which is what is moved and keyed.
 */
import { type Edit, together } from '../document/patches';
import type { Id, Keyframe, PathHandles, Point, PropertyRef, Scene, Value } from '../document/types';
import { isKeyed } from '../document/types';
import { bakedFormula } from '../formula/bake';
import { factsOf } from '../formula/facts';
import { carrying } from '../formula/ground';
import { referenceOf, referenceTo, type Target } from '../formula/refs';
import type { Node } from '../formula/types';
import { paramIn, propertyIn } from '../properties/find';
import type { Program } from '../scene/program';
import { readingsIn } from '../scene/follows';
import { bakeFormula, formulaIn, removeFormula, setFormula } from './formulas';
import { NotFound } from './find';

/** In which of its two numbers a point follows another. */
export type JoinedIn = 'both' | 'x' | 'y';

/** A point and what it follows. */
export interface Joint {
  readonly to: PropertyRef;
  readonly along: JoinedIn;
}

const PARTS: Readonly<Record<JoinedIn, 0 | 1 | undefined>> = { both: undefined, x: 0, y: 1 };
const ALL = ['both', 'x', 'y'] as const;

const partRef = (ref: PropertyRef, along: JoinedIn): PropertyRef => {
  const part = PARTS[along];
  return part === undefined ? ref : { ...ref, part };
};

const targetOf = ({ layer, item, key }: PropertyRef): Target => ({
  layer,
  key,
  ...(item !== undefined && { item }),
});

/** The reference of `here({…})` or, of one part, `here({…}).x`; null for any other formula. */
const carriedIn = (tree: Node, along: JoinedIn): string | null => {
  const call = along !== 'both' && tree.op === 'part' && tree.part === PARTS[along] ? tree.of : tree;
  if ((along === 'both') !== (call === tree) || call.op !== 'call' || call.name !== 'here') return null;
  const [point] = call.args;
  return point?.op === 'ref' && call.args.length === 1 ? point.path.trim() : null;
};

/** What a point is joined to; null for one that stands by itself. */
export const jointOf = (scene: Scene, ref: PropertyRef): Joint | null => {
  for (const along of ALL) {
    const formula = formulaIn(scene.layers[ref.layer], partRef(ref, along));
    const { tree } = formula?.on ? factsOf(formula) : { tree: null };
    const path = tree && 'op' in tree ? carriedIn(tree, along) : null;
    const found = path === null ? null : referenceOf(path, scene, targetOf(ref));
    if (found && typeof found !== 'string' && found.kind === 'property') {
      return { to: { scene: ref.scene, ...found.to }, along };
    }
  }
  return null;
};

/** More than these behind each other are a circle. */
const MOST_BEHIND = 100;

/** Where the lead of a point is: what it is joined to in both, however far down the line; itself for one that is not. */
export const leadOfPoint = (scene: Scene, ref: PropertyRef): PropertyRef => {
  let lead = ref;
  for (let i = 0; i < MOST_BEHIND; i++) {
    const joint = jointOf(scene, lead);
    if (joint?.along !== 'both') return lead;
    lead = joint.to;
  }
  return lead;
};

const isSame = (a: PropertyRef, b: PropertyRef): boolean => a.layer === b.layer && a.item === b.item && a.key === b.key;

/** The points that are joined to one, directly. */
export const joinedTo = (scene: Scene, ref: PropertyRef): readonly PropertyRef[] =>
  readingsIn(scene).flatMap(({ by, reads }) => {
    if (!reads.some((read) => isSame({ scene: scene.id, ...read }, ref))) return [];
    const { part: _part, ...whole } = by;
    const to = jointOf(scene, whole)?.to;
    return to && isSame(to, ref) ? [whole] : [];
  });

/** Whether what a point follows leads to another: joined the other way round they would go in a circle. */
const follows = (scene: Scene, ref: PropertyRef, other: PropertyRef): boolean => {
  let at: PropertyRef | undefined = ref;
  for (let i = 0; at && i < MOST_BEHIND; i++) {
    if (isSame(at, other)) return true;
    at = jointOf(scene, at)?.to;
  }
  return false;
};

const sceneOf = (draft: Parameters<Edit['change']>[0], id: Id): Scene => {
  const scene = draft.scenes[id] as Scene | undefined;
  if (!scene) throw new NotFound('scene', id);
  return scene;
};

/** Whether a point can be joined to another: not to itself, nor to what follows it. */
export const canJoin = (scene: Scene, ref: PropertyRef, to: PropertyRef): boolean =>
  ref.scene === to.scene && !follows(scene, to, leadOfPoint(scene, ref));

/** Joins a point, with all that it is joined to, to another: both are where that is, in both numbers or in one. */
export const joinPoint = (ref: PropertyRef, to: PropertyRef, along: JoinedIn = 'both'): Edit => ({
  label: 'Join points',
  change: (draft) => {
    const scene = sceneOf(draft, ref.scene);
    if (!canJoin(scene, ref, to)) throw new RangeError('these points are joined already');
    joining(leadOfPoint(scene, ref), to, along).change(draft);
  },
});

const joining = (ref: PropertyRef, to: PropertyRef, along: JoinedIn): Edit => {
  const read = `here(${referenceTo(targetOf(to), targetOf(ref))})`;
  return setFormula(partRef(ref, along), along === 'both' ? read : `${read}.${along}`);
};

/** Lets a joined point follow in both numbers, or in one of them, and be its own in the other. */
export const turnJoint = (ref: PropertyRef, along: JoinedIn): Edit => ({
  label: 'Join points otherwise',
  change: (draft) => {
    const joint = jointOf(sceneOf(draft, ref.scene), ref);
    if (!joint) throw new NotFound('joint', ref.key);
    removeFormula(partRef(ref, joint.along)).change(draft);
    joining(ref, joint.to, along).change(draft);
  },
});

/** How far what is written of a point that was joined may lie off, in pixels. */
const TOLERANCE = 0.05;

/** The keyframes of what a point follows, in its own pixels; null where what both stand in moves, or a formula moves the lead. */
const keysOf = (program: Program, ref: PropertyRef): readonly Keyframe[] | null => {
  const { scene, wiring } = program;
  const lead = leadOfPoint(scene, ref);
  const way = carrying(scene, targetOf(lead), targetOf(ref), wiring.computing);
  const property = propertyIn(scene.layers[lead.layer], lead);
  const isComputed = wiring.computedOn(targetOf(lead)).length > 0;
  if (!way.still || isComputed || !isKeyed(property)) return null;
  return property.keys.map(({ handles, ...key }): Keyframe => {
    const at = way.at(key.frame, key.value as Point);
    const end = (dx: number, dy: number): Point => {
      const [x, y] = key.value as Point;
      const [ex, ey] = way.at(key.frame, [x + dx, y + dy]);
      return [ex - at[0], ey - at[1]];
    };
    const ways = handles && ([...end(handles[0], handles[1]), ...end(handles[2], handles[3])] as PathHandles);
    return { ...key, value: at as Value, ...(ways && { handles: ways }) };
  });
};

/** Lets points go that are joined: each has the motion that it had, as keyframes of its own. */
export const unjoinPoints = (program: Program, refs: readonly PropertyRef[]): Edit => {
  const { scene, wiring } = program;
  const edits = refs.flatMap((ref): Edit[] => {
    const joint = jointOf(scene, ref);
    if (!joint) return [];
    const own = partRef(ref, joint.along);
    const param = paramIn(scene.layers[ref.layer], own);
    const { part } = own;
    const sampler = wiring.sampler({ ...targetOf(ref), ...(part !== undefined && { part }) });
    if (!param || !sampler) return [];
    const keys =
      (joint.along === 'both' ? keysOf(program, ref) : null) ??
      bakedFormula(param, sampler, 0, scene.length - 1, TOLERANCE);
    return [bakeFormula(own, keys), removeFormula(own)];
  });
  return together('Let joined points go', edits);
};

/** What leads points where they are joined, and those that are not, each once: what is keyed for all of them. */
export const leadsOfPoints = (scene: Scene, refs: readonly PropertyRef[]): readonly PropertyRef[] => {
  const leads = refs.map((ref) => leadOfPoint(scene, ref));
  return leads.filter((ref, i) => leads.findIndex((other) => isSame(ref, other)) === i);
};

/**
 * What has to be written so that a point comes to a place in its own pixels: its lead's value, and its own where it follows in one number
 * alone.
 */
export const writesOfPoint = (
  program: Program,
  ref: PropertyRef,
  value: Point,
  frame: number,
): readonly (readonly [ref: PropertyRef, value: Point])[] => {
  const { scene, wiring } = program;
  const joint = jointOf(scene, ref);
  if (!joint) return [[ref, value]];
  const to = targetOf(joint.to);
  const lead = (point: Point) =>
    writesOfPoint(program, joint.to, carrying(scene, targetOf(ref), to, wiring.computing).at(frame, point), frame);
  if (joint.along === 'both') return lead(value);
  const point = wiring.sampler(to)?.at(frame) as Point;
  const [x, y] = carrying(scene, to, targetOf(ref), wiring.computing).at(frame, point);
  return [...lead(joint.along === 'x' ? [value[0], y] : [x, value[1]]), [ref, value]];
};

/** Whether a point follows another, or is followed. */
export const isJoined = (scene: Scene, ref: PropertyRef): boolean =>
  jointOf(scene, ref) !== null || joinedTo(scene, ref).length > 0;
