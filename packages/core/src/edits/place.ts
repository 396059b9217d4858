/** Edits to where layers are that leave the picture as it is: other parents, other pivots, groups. */
import { newController } from '../document/make';
import { FLAT_PLACE, type Param, PLACE } from '../document/params';
import { type Edit, type ProjectDraft, plain } from '../document/patches';
import {
  type Id,
  isApart,
  type Layer,
  type Point,
  type Properties,
  type Property,
  type Scene,
  type Value,
} from '../document/types';
import {
  apply,
  determinant,
  IDENTITY,
  inverted,
  type Matrix,
  multiply,
  placed,
  turnOf,
  turnsAndStretch,
} from '../geometry/matrix';
import { applySpace, chained, decomposedSpace, invertedSpace, placedInSpace } from '../geometry/space';
import { displaced, mappedValues } from '../motion/keys';
import { broughtTogether } from '../motion/parting';
import { withMembers } from '../scene/groups';
import { inSpace, isSpace, type Placement, placementOf, type Pose, posed } from '../properties/placement';
import { drawingIn, itemIn, layerIn, type LayerDraft, sceneIn } from './find';
import { leaveScene } from './sets';

export const tidy = (n: number): number => Math.round(n * 1e4) / 1e4 + 0;
export const tidyPoint = ([x, y]: Point): Point => [tidy(x), tidy(y)];

/** What of a layer's properties, or of their formulas, a group of cards has too: it stands in the plane of its layer. */
export const withoutDepth = <T>(of: { readonly [key: string]: T } = {}): { readonly [key: string]: T } =>
  Object.fromEntries(Object.entries(of).filter(([key]) => (key.split('.')[0] as string) in FLAT_PLACE));

const placementIn = (layer: Pick<LayerDraft, 'params'>) => placementOf(plain<Properties>(layer.params));

/** What a layer and those that it hangs from come to together, from the outermost in; a circle is gone round once. */
const throughParents = <T>(
  scene: ProjectDraft['scenes'][string],
  id: Id | null,
  none: T,
  join: (placement: Placement, inner: T) => T,
): T => {
  const seen = new Set<Id>();
  let all = none;
  for (let at = id; at !== null && !seen.has(at);) {
    seen.add(at);
    const layer = scene.layers[at];
    if (!layer) break;
    all = join(placementIn(layer), all);
    at = layer.parent;
  }
  return all;
};

/** From a layer's parent's pixels to the scene's. */
export const parentMatrix = (scene: ProjectDraft['scenes'][string], id: Id | null, frame: number): Matrix =>
  throughParents(scene, id, IDENTITY, (placement, inner) => multiply(placement.matrix(frame), inner));

/** The same, in space where one of those that it hangs from is. */
const parentPose = (scene: ProjectDraft['scenes'][string], id: Id | null, frame: number): Pose =>
  throughParents<Pose>(scene, id, IDENTITY, (placement, inner) => posed(placement.pose(frame), inner));

/** Changes a property's value, or all of its keyframes' values. */
const mapProperty = <K extends keyof typeof PLACE>(
  layer: LayerDraft,
  key: K,
  change: (value: never) => Value,
  way?: (way: Point) => Point,
): void => {
  const param: Param = PLACE[key];
  const now = layer.params[key] && plain<Property>(layer.params[key]);
  // What turns a point needs both its parts.
  const whole = isApart(now) && param.kind === 'point' ? broughtTogether(param, now) : now;
  layer.params[key] = mappedValues(
    whole,
    param.default,
    change as (value: Value) => Value,
    way,
  ) as LayerDraft['params'][string];
};

const displace = (layer: Pick<LayerDraft, 'params'>, key: 'position' | 'pivot', way: Point): void => {
  const now = layer.params[key] && plain<Property>(layer.params[key]);
  layer.params[key] = displaced(now, PLACE[key].default, way) as LayerDraft['params'][string];
};

/** Scale and turn of a matrix; what it slants cannot be kept by a layer. */
export const decomposed = (m: Matrix): { rotation: number; scale: Point; slant: number } => {
  const width = Math.hypot(m[0], m[1]);
  const rotation = (Math.atan2(m[1], m[0]) * 180) / Math.PI;
  const height = width > 0 ? determinant(m) / width : Math.hypot(m[2], m[3]);
  const slant = width > 0 ? (m[0] * m[2] + m[1] * m[3]) / (width * width) : 0;
  return { rotation, scale: [width, height], slant };
};

/** Whether a matrix leaves shapes as they are, but for their size. */
export const isSimilar = (m: Matrix): boolean => {
  const { scale, slant } = decomposed(m);
  return Math.abs(slant) < 1e-6 && Math.abs(Math.abs(scale[0]) - Math.abs(scale[1])) < 1e-6;
};

type Place = { readonly [key: string]: Value };

const placeOf = (position: Point, rotation: number, scale: Point): Place => ({
  ...(position.some((v) => v !== 0) && { position: tidyPoint(position) }),
  ...(Math.abs(rotation) > 1e-6 && { rotation: tidy(rotation) }),
  ...(scale.some((s) => Math.abs(s - 1) > 1e-6) && { scale: tidyPoint(scale) }),
});

/**
 * The places of things in each other, the outermost first, that come to a matrix: one where that does not slant, else two, by
 * its singular values (a turn, a stretch along the axes, another turn).
 */
export const placesFor = (m: Matrix): readonly [Place, ...Place[]] => {
  const position: Point = [m[4], m[5]];
  const { rotation, scale, slant } = decomposed(m);
  if (Math.abs(slant) < 1e-6) return [placeOf(position, rotation, scale)];
  const { first, stretch, then } = turnsAndStretch(m);
  const degrees = (angle: number) => (angle * 180) / Math.PI;
  return [placeOf(position, degrees(then), stretch), placeOf([0, 0], degrees(first), [1, 1])];
};

/** The nearest whole turns, so that 350° carried on by 20° is 370°. */
const near = (angle: number, to: number): number => angle + 360 * Math.round((to - angle) / 360);

/** Rewrites a layer's place so that under another parent matrix it stands where it stood, at a frame. */
const settle = (layer: LayerDraft, before: Matrix, after: Matrix, frame: number): void => {
  const back = inverted(after);
  if (!back) return;
  const change = multiply(back, before);
  const placement = placementIn(layer);
  const v = placement.at(frame);
  const { rotation, scale } = decomposed(multiply(change, placed(v)));
  // What turns with its path turns when its path is turned.
  const turn = placement.turn(frame) === v.rotation ? near(rotation, v.rotation) - v.rotation : 0;
  const factor: Point = [v.scale[0] === 0 ? 1 : scale[0] / v.scale[0], v.scale[1] === 0 ? 1 : scale[1] / v.scale[1]];
  // A mirrored layer's width comes out of the matrix without its sign, turned by half a turn.
  const mirrored = v.scale[0] < 0;
  mapProperty(
    layer,
    'position',
    (p: Point) => tidyPoint(apply(change, p)),
    (way) => tidyPoint(apply([change[0], change[1], change[2], change[3], 0, 0], way)),
  );
  if (mirrored) {
    const turned = near(rotation - 180, v.rotation) - v.rotation;
    mapProperty(layer, 'rotation', (r: number) => tidy(r + turned));
    mapProperty(layer, 'scale', (s: Point) => tidyPoint([s[0] * -factor[0], s[1] * -factor[1]]));
    return;
  }
  if (Math.abs(turn) > 1e-9) mapProperty(layer, 'rotation', (r: number) => tidy(r + turn));
  if (Math.abs(factor[0] - 1) > 1e-9 || Math.abs(factor[1] - 1) > 1e-9) {
    mapProperty(layer, 'scale', (s: Point) => tidyPoint([s[0] * factor[0], s[1] * factor[1]]));
  }
};

/** The same in space: it stands where it stood at the frame, and its keyframes go along by as much as that changes it. */
const settleInSpace = (layer: LayerDraft, before: Pose, after: Pose, frame: number): void => {
  const back = invertedSpace(inSpace(after));
  if (!back) return;
  const placement = placementIn(layer);
  const v = placement.at(frame);
  const own = placement.depthAt(frame);
  const change = chained(back, inSpace(before));
  // A mirrored layer keeps its signs: they work before all else.
  const sizes: Point = [Math.abs(v.scale[0]), Math.abs(v.scale[1])];
  const flat = { turnX: 0, turnY: 0, z: 0, pivotZ: 0, scaleZ: 1, ...own };
  const turned = { ...v, rotation: placement.turn(frame), scale: sizes };
  const next = decomposedSpace(chained(change, placedInSpace({ ...flat, ...turned, scaleZ: Math.abs(flat.scaleZ) })));
  const [x, y, z] = applySpace(change, [v.position[0], v.position[1], flat.z]);
  const by = (to: number, from: number) => near(to, from) - from;
  const factor = next.scale.map((k, i) => (sizes[i] === 0 ? 1 : k / (sizes[i] as number))) as unknown as Point;
  mapProperty(layer, 'position', ([px, py]: Point) => tidyPoint([px + x - v.position[0], py + y - v.position[1]]));
  mapProperty(layer, 'rotation', (r: number) => tidy(r + by(next.rotation, turned.rotation)));
  mapProperty(layer, 'scale', (s: Point) => tidyPoint([s[0] * factor[0], s[1] * factor[1]]));
  // What comes to lie flat in its parent needs no depth of its own.
  if (!own && Math.abs(z) + Math.abs(next.turnX) + Math.abs(next.turnY) < 1e-6) return;
  layer.params.depth = { value: true };
  if (own?.aims) {
    const [tx, ty, tz] = applySpace(change, [...own.target, own.targetZ]);
    mapProperty(layer, 'target', ([px, py]: Point) => tidyPoint([px + tx - own.target[0], py + ty - own.target[1]]));
    mapProperty(layer, 'targetZ', (from: number) => tidy(from + tz - own.targetZ));
  }
  mapProperty(layer, 'z', (from: number) => tidy(from + z - flat.z));
  mapProperty(layer, 'turnX', (from: number) => tidy(from + by(next.turnX, flat.turnX)));
  mapProperty(layer, 'turnY', (from: number) => tidy(from + by(next.turnY, flat.turnY)));
  const deeper = flat.scaleZ === 0 ? 1 : next.scaleZ / Math.abs(flat.scaleZ);
  if (Math.abs(deeper - 1) > 1e-9) mapProperty(layer, 'scaleZ', (from: number) => tidy(from * deeper));
};

/** From a layer's pixels to the scene's at a frame, as it is shown, formulas and all; undefined for one that is not shown yet. */
export type AsShown = (layer: Id) => Matrix | undefined;

export const reparent = (
  scene: ProjectDraft['scenes'][string],
  id: Id,
  parent: Id | null,
  frame: number,
  shown: AsShown = () => undefined,
): void => {
  const layer = layerIn(scene, id);
  for (let at = parent; at !== null; at = scene.layers[at]?.parent ?? null) {
    if (at === id) throw new RangeError(`“${layer.name}” cannot be its own parent`);
  }
  const poses = [parentPose(scene, layer.parent, frame), parentPose(scene, parent, frame)] as const;
  if (poses.some(isSpace) || placementIn(layer).depthAt(frame)) {
    layer.parent = parent;
    settleInSpace(layer, ...poses, frame);
    return;
  }
  const matrixOf = (of: Id | null) => (of === null ? undefined : shown(of)) ?? parentMatrix(scene, of, frame);
  const before = matrixOf(layer.parent);
  const after = matrixOf(parent);
  layer.parent = parent;
  settle(layer, before, after, frame);
};

/** Other parents, without a jump at the frame: places and all their keyframes are put in the new parent's pixels. */
export const setParent = (
  sceneId: Id,
  ids: readonly Id[],
  parent: Id | null,
  frame: number,
  shown?: AsShown,
): Edit => ({
  label: 'Change a parent',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const id of ids) reparent(scene, id, parent, frame, shown);
  },
});

/** How far a place's position and pivot go when the pivot goes to a point of the layer, so that the picture stays at the frame. */
export const waysToPivot = (placement: Placement, pivot: Point, frame: number): { position: Point; pivot: Point } => {
  const v = placement.at(frame);
  const [x, y] = apply(placement.matrix(frame), pivot);
  return { position: [x - v.position[0], y - v.position[1]], pivot: [pivot[0] - v.pivot[0], pivot[1] - v.pivot[1]] };
};

/** A place with its pivot elsewhere, in the layer's pixels: the picture stays at the frame. */
export const pivotedAt = (params: Properties, pivot: Point, frame: number): Properties => {
  const ways = waysToPivot(placementOf(params), pivot, frame);
  return {
    ...params,
    position: displaced(params.position, PLACE.position.default, ways.position),
    pivot: displaced(params.pivot, PLACE.pivot.default, ways.pivot),
  };
};

/** Moves the pivot of a layer, or of a group among its cards, in its own pixels, and its position with it: the picture stays at the frame. */
export const movePivot = (sceneId: Id, id: Id, pivot: Point, frame: number, group?: Id): Edit => ({
  label: 'Move the pivot',
  change: (draft) => {
    const holder =
      group === undefined ? layerIn(sceneIn(draft, sceneId), id) : itemIn(drawingIn(draft, sceneId, id), group);
    const ways = waysToPivot(placementIn(holder), pivot, frame);
    displace(holder, 'position', ways.position);
    displace(holder, 'pivot', ways.pivot);
  },
});

/** Moves layers by ways in the scene's pixels, all their keyframes with them. */
export const moveBy = (sceneId: Id, ways: ReadonlyMap<Id, Point>, label: string, frame: number): Edit => ({
  label,
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const [id, way] of ways) {
      const layer = layerIn(scene, id);
      const m = parentMatrix(scene, layer.parent, frame);
      const back = inverted([m[0], m[1], m[2], m[3], 0, 0]);
      if (!back) continue;
      const [dx, dy] = apply(back, way);
      displace(layer, 'position', [dx, dy]);
    }
  },
});

/** Mirrors layers across (axis 0) or down (1) about an x or a y of the scene, with all their keyframes. */
export const flipLayers = (sceneId: Id, ids: readonly Id[], axis: 0 | 1, about: number, frame: number): Edit => ({
  label: axis === 0 ? 'Flip left to right' : 'Flip top to bottom',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const ways = ids.map((id): [Id, Point] => {
      const layer = layerIn(scene, id);
      const around = parentMatrix(scene, layer.parent, frame);
      const at = apply(around, placementIn(layer).at(frame).position)[axis];
      // What is turned by its parent is mirrored across the scene still.
      const turned = (((-360 * turnOf(around)) / Math.PI) % 360) * Math.sign(determinant(around));
      mapProperty(layer, 'scale', ([x, y]: Point) => (axis === 0 ? [0 - x, y] : [x, 0 - y]));
      mapProperty(layer, 'rotation', (degrees: number) => tidy(turned - degrees));
      const by = 2 * (about - at);
      return [id, axis === 0 ? [by, 0] : [0, by]];
    });
    moveBy(sceneId, new Map(ways), '', frame).change(draft);
  },
});

/** Puts layers under a new controller in their midst. */
export const groupLayers = (
  scene: Scene,
  ids: readonly Id[],
  controller: Id,
  name: string,
  at: Point,
  frame: number,
  shown?: AsShown,
): Edit => ({
  label: 'Group layers',
  change: (draft) => {
    const target = sceneIn(draft, scene.id);
    const made = { ...newController(scene, controller, name, { position: at, tag: 'violet' }), group: true };
    const all = new Set(withMembers(scene, ids));
    const members = scene.order.filter((id) => all.has(id));
    made.from = Math.min(...members.map((id) => layerIn(target, id).from));
    made.to = Math.max(...members.map((id) => layerIn(target, id).to));
    target.layers[controller] = made as LayerDraft;
    // Its members stand together, where the front one stood.
    const first = target.order.findIndex((id) => all.has(id));
    const rest = target.order.filter((id) => !all.has(id));
    target.order = [...rest.slice(0, first), controller, ...members, ...rest.slice(first)];
    // What hangs from a layer of the group stays with it.
    const chosen = new Set(ids);
    const inner = (layer: Layer | LayerDraft): boolean => {
      for (let p = layer.parent; p !== null; p = target.layers[p]?.parent ?? null) if (chosen.has(p)) return true;
      return false;
    };
    for (const id of ids) if (!inner(layerIn(target, id))) reparent(target, id, controller, frame, shown);
  },
});

/** Frees what hangs from controllers, where it stands, and takes the controllers away. */
export const ungroupLayers = (sceneId: Id, ids: readonly Id[], frame: number, shown?: AsShown): Edit => ({
  label: 'Ungroup',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const id of ids) {
      const controller = layerIn(scene, id);
      if (controller.kind !== 'controller') continue;
      const { parent } = controller;
      for (const layer of Object.values(scene.layers))
        if (layer.parent === id) reparent(scene, layer.id, parent, frame, shown);
      leaveScene(scene, new Set([id]));
    }
  },
});
