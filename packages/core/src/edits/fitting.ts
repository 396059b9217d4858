/**
 * A changed document brought within the limits of the schema: values and frames to the nearest that fits. What has no
 * nearest, as one layer too many, is refused. Only what an edit changed is looked at, found by identity.
 */
import { clamped, each, wholeWithin, withFields } from '../document/fitting';
import { isColor } from '../document/is';
import { paramsOfKnob } from '../document/knobs';
import { LIMITS, MOVE_LIMITS, WIDEST_EYE } from '../document/limits';
import { FAR, MOST_LETTERS, type Param, type Params, PLACE } from '../document/params';
import { asName, cutText, isSound, sound, thousands } from '../document/text';
import {
  type CurveProperty,
  type Delivery,
  type Formulas,
  type Id,
  isApart,
  isKeyed,
  type Item,
  type Knob,
  type KeyedProperty,
  type Keyframe,
  type Layer,
  type PathHandles,
  type Point,
  type Project,
  type Properties,
  type Property,
  type Scene,
  type Swatch,
  type Value,
  type Versions,
} from '../document/types';
import { MOST_CHARACTERS } from '../formula/types';
import { partParam } from '../motion/apart';
import { fittedEase } from '../motion/eases/table';
import { fittedValue, kindOfValue } from '../motion/kinds/table';
import { fittedStrip } from '../moves/poseStrip';
import type { Routine, RoutineStep, Move } from '../document/moves';
import { needsOf } from '../recipe/needs';
import { paramsOf } from '../recipe/table';
import { cutInCircle } from '../scene/follows';
import { wouldRecurse } from '../scene/whole';
import { fittedSettings } from '../delivery/kept';
import { DEFAULT_NAME } from '../delivery/naming';
import { NotFound } from './find';
import { holdsColors, withTrueSwatches } from './swatches';

/** More of something than a project may have: the edit that would make it is not made. */
export class TooMany extends RangeError {
  constructor(owner: string, most: number, what: string) {
    super(`${owner} has at most ${thousands(most)} ${what}`);
    this.name = 'TooMany';
  }
}

const atMost = (count: number, most: number, owner: string, what: string): void => {
  if (count > most) throw new TooMany(owner, most, what);
};

type Path = readonly (string | number)[];
/** What takes what does not fit, and the swatches that colours may be taken from. */
interface Fits {
  /** Takes the place of a value that does not fit. */
  readonly put: (path: Path, value: unknown) => void;
  readonly swatches: readonly Swatch[];
}

const frameWithin = (frame: number): number => wholeWithin(frame, -LIMITS.frame, LIMITS.frame);

const fittedHandles = (handles: PathHandles): PathHandles =>
  each(handles, (x) => clamped(x, -FAR, FAR, 0)) as PathHandles;

/** What a value holds too many of has no nearest that fits. */
const checkCount = ({ kind }: Param, value: Value): void => {
  const excess = kindOfValue(kind).excess?.(value);
  if (excess) throw new TooMany(excess.owner, excess.most, excess.what);
};

const fittedKey = (param: Param, key: Keyframe): Keyframe => {
  checkCount(param, key.value);
  return withFields(key, {
    frame: frameWithin(key.frame),
    value: fittedValue(param, key.value),
    ease: fittedEase(key.ease),
    ...(key.handles && { handles: fittedHandles(key.handles) }),
  });
};

const fittedKeys = (param: Param, property: KeyedProperty): KeyedProperty => {
  atMost(property.keys.length, LIMITS.keys, `“${param.label}”`, 'keyframes');
  const keys = each(property.keys, (key) => fittedKey(param, key));
  if (keys === property.keys) return property;
  // Of two that meet at a limit the later one stays.
  return { ...property, keys: [...new Map(keys.map((k) => [k.frame, k])).values()].sort((a, b) => a.frame - b.frame) };
};

const fittedCurve = (param: Param, property: CurveProperty): CurveProperty => {
  if (isKeyed(property)) return fittedKeys(param, property);
  checkCount(param, property.value);
  return withFields(property, { value: fittedValue(param, property.value) });
};

/** A property within its parameter's limits: the same object where it is. */
export const fittedProperty = (param: Param, property: Property): Property => {
  if (!isApart(property) || param.kind !== 'point') return isApart(property) ? property : fittedCurve(param, property);
  const [x, y] = property.parts;
  const parts = [fittedCurve(partParam(param, 0), x), fittedCurve(partParam(param, 1), y)] as const;
  return parts[0] === x && parts[1] === y ? property : { parts };
};

const fitProperties = (
  params: Params,
  now: Properties,
  before: Properties | undefined,
  path: Path,
  fits: Fits,
): void => {
  if (now === before) return;
  for (const [key, property] of Object.entries(now)) {
    const param = params[key];
    if (!param || property === before?.[key]) continue;
    const within = fittedProperty(param, property);
    const fitting = holdsColors(param) ? withTrueSwatches(within, fits.swatches) : within;
    if (fitting !== property) fits.put([...path, key], fitting);
  }
};

const fitFormulas = (now: Formulas | undefined, before: Formulas | undefined, path: Path, fits: Fits): void => {
  if (!now || now === before) return;
  for (const [key, { text }] of Object.entries(now)) {
    atMost(text.length, MOST_CHARACTERS, 'A formula', 'characters');
    if (!isSound(text)) fits.put([...path, 'formulas', key, 'text'], sound(text));
  }
};

const fitName = (name: string, fallback: string, path: Path, fits: Fits): void => {
  const fitting = asName(name, fallback, LIMITS.name);
  if (fitting !== name) fits.put([...path, 'name'], fitting);
};

const fittedMove = (move: Move): Move => {
  const fields: Record<string, unknown> = {
    name: asName(move.name, 'Move', LIMITS.name),
    frames: wholeWithin(move.frames, ...MOVE_LIMITS.frames),
    ease: fittedEase(move.ease),
  };
  if (move.kind === 'emphasis') {
    fields.strength = clamped(move.strength, 0, 1, 0);
    fields.times = wholeWithin(move.times, ...MOVE_LIMITS.times);
    return withFields(move, fields as Partial<Move>);
  }
  fields.angle = clamped(move.angle, ...MOVE_LIMITS.angle, 0);
  fields.distance = clamped(move.distance, -FAR, FAR, 0);
  fields.fade = clamped(move.fade, 0, 1, 1);
  if (move.kind === 'passage') fields.drift = clamped(move.drift, -FAR, FAR, 0);
  else {
    fields.scale = clamped(move.scale, ...MOVE_LIMITS.scale, 1);
    fields.turn = clamped(move.turn, ...MOVE_LIMITS.angle, 0);
    if (move.turnX !== undefined) fields.turnX = clamped(move.turnX, ...MOVE_LIMITS.angle, 0);
    if (move.turnY !== undefined) fields.turnY = clamped(move.turnY, ...MOVE_LIMITS.angle, 0);
    if (move.z !== undefined) fields.z = clamped(move.z, -FAR, FAR, 0);
    if (move.drawn !== undefined) fields.drawn = clamped(move.drawn, 0, 1, 1);
    if (move.behind !== undefined) fields.behind = clamped(move.behind, 0, 1, 0);
  }
  return withFields(move, fields as Partial<Move>);
};

const fitKnob = (knob: Knob, before: Knob | undefined, path: Path, fits: Fits): void => {
  if (knob === before) return;
  fitName(knob.name, 'Knob', path, fits);
  const min = clamped(knob.min, -FAR, FAR, -FAR);
  const max = Math.max(min, clamped(knob.max, -FAR, FAR, FAR));
  if (min !== knob.min) fits.put([...path, 'min'], min);
  if (max !== knob.max) fits.put([...path, 'max'], max);
  const same = before?.min === min && before.max === max;
  fitProperties(
    paramsOfKnob({ ...knob, min, max }),
    knob.params,
    same ? before.params : undefined,
    [...path, 'params'],
    fits,
  );
  fitFormulas(knob.formulas, before?.formulas, path, fits);
};

const fitItem = (item: Item, before: Item | undefined, path: Path, fits: Fits): void => {
  if (item === before) return;
  if (item.name !== undefined) fitName(item.name, 'Card', path, fits);
  const same = before?.kind === item.kind ? before.params : undefined;
  fitProperties(paramsOf(item.kind), item.params, same, [...path, 'params'], fits);
  fitFormulas(item.formulas, before?.formulas, path, fits);
};

const fitParts = (layer: Layer, before: Layer | undefined, path: Path, fits: Fits): void => {
  switch (layer.kind) {
    case 'drawing': {
      const old = before?.kind === 'drawing' ? before.items : {};
      if (layer.items === old) return;
      atMost(Object.keys(layer.items).length, LIMITS.items, `“${layer.name}”`, 'cards');
      for (const [id, item] of Object.entries(layer.items)) fitItem(item, old[id], [...path, 'items', id], fits);
      return;
    }
    case 'controller': {
      const old = before?.kind === 'controller' ? before.knobs : {};
      if (layer.knobs === old) return;
      atMost(layer.panel.length, LIMITS.knobs, `“${layer.name}”`, 'knobs');
      for (const [id, knob] of Object.entries(layer.knobs)) fitKnob(knob, old[id], [...path, 'knobs', id], fits);
      return;
    }
  }
};

const fitLayer = (layer: Layer, before: Layer | undefined, path: Path, fits: Fits): void => {
  if (layer === before) return;
  fitName(layer.name, 'Layer', path, fits);
  // It shows for a frame at least.
  const from = wholeWithin(layer.from, -LIMITS.frame, LIMITS.frame - 1);
  const to = Math.max(from + 1, frameWithin(layer.to));
  if (from !== layer.from) fits.put([...path, 'from'], from);
  if (to !== layer.to) fits.put([...path, 'to'], to);
  if (layer.moves !== before?.moves) {
    atMost(layer.moves.length, LIMITS.moves, `“${layer.name}”`, 'moves');
    const moves = each(layer.moves, (m) =>
      withFields(m, {
        move: fittedMove(m.move),
        from: frameWithin(m.from),
        to: frameWithin(m.to),
        away: clamped(m.away, -FAR, FAR, 0),
      }),
    );
    if (moves !== layer.moves) fits.put([...path, 'moves'], moves);
  }
  fitProperties(PLACE, layer.params, before?.params, [...path, 'params'], fits);
  fitFormulas(layer.formulas, before?.formulas, path, fits);
  fitParts(layer, before, path, fits);
};

const STEP_FITS: { readonly [K in RoutineStep['kind']]: (value: never) => unknown } = {
  move: (p: Point) => each(p, (x) => clamped(x, -FAR, FAR, 0)),
  grow: (v: number) => clamped(v, ...MOVE_LIMITS.grow, 1),
  turn: (v: number) => clamped(v, -FAR, FAR, 0),
  turnX: (v: number) => clamped(v, -FAR, FAR, 0),
  turnY: (v: number) => clamped(v, -FAR, FAR, 0),
  away: (v: number) => clamped(v, -FAR, FAR, 0),
  fade: (v: number) => clamped(v, 0, 1, 1),
  colour: (v: unknown) => (isColor(v) ? v : '#000000'),
  trim: (v: number) => clamped(v, 0, 1, 1),
};

const fittedRoutine = (routine: Routine): Routine => {
  atMost(routine.steps.length, LIMITS.moves, `“${routine.name}”`, 'steps');
  return withFields(routine, {
    name: asName(routine.name, 'Routine', LIMITS.name),
    start: frameWithin(routine.start),
    stagger: wholeWithin(routine.stagger, -LIMITS.length, LIMITS.length),
    rounds: wholeWithin(routine.rounds, ...MOVE_LIMITS.rounds),
    seed: wholeWithin(routine.seed, ...MOVE_LIMITS.seed),
    speed: clamped(routine.speed, ...MOVE_LIMITS.speed, 1),
    steps: each(routine.steps, (step) =>
      withFields(step, {
        value: STEP_FITS[step.kind](step.value as never) as RoutineStep['value'],
        frames: wholeWithin(step.frames, ...MOVE_LIMITS.frames),
        gap: wholeWithin(step.gap, ...MOVE_LIMITS.gap),
        ease: fittedEase(step.ease),
      }),
    ),
  });
};

const fitScene = (scene: Scene, before: Scene | undefined, path: Path, fits: Fits): void => {
  if (scene === before) return;
  const owner = `“${scene.name}”`;
  const fit = <K extends keyof Scene>(key: K, value: Scene[K]) => {
    if (!Object.is(value, scene[key])) fits.put([...path, key], value);
  };
  fit('name', asName(scene.name, 'Scene', LIMITS.name));
  fit('width', wholeWithin(scene.width, 1, LIMITS.side));
  fit('height', wholeWithin(scene.height, 1, LIMITS.side));
  fit('length', wholeWithin(scene.length, 1, LIMITS.length));
  fit('poster', wholeWithin(scene.poster, 0, LIMITS.length));
  if (scene.light !== before?.light) {
    const { turn, tilt, strength } = scene.light;
    fit('light', {
      turn: clamped(turn, -FAR, FAR, 0),
      tilt: clamped(tilt, -90, 90, 0),
      strength: clamped(strength, 0, 1, 0),
    });
  }
  if (scene.eye !== before?.eye) {
    const [x, y] = scene.eye.off;
    const off: Point = [clamped(x, -FAR, FAR, 0), clamped(y, -FAR, FAR, 0)];
    fit('eye', { angle: clamped(scene.eye.angle, 0, WIDEST_EYE, 0), off });
  }
  if (scene.guides !== before?.guides) {
    atMost(Math.max(scene.guides.x.length, scene.guides.y.length), LIMITS.guides, owner, 'guides each way');
    const places = (list: readonly number[]) => each(list, (x) => clamped(x, -FAR, FAR, 0));
    fit('guides', withFields(scene.guides, { x: places(scene.guides.x), y: places(scene.guides.y) }));
  }
  if (scene.markers !== before?.markers) {
    atMost(scene.markers.length, LIMITS.markers, owner, 'markers');
    fit(
      'markers',
      each(scene.markers, (m) =>
        withFields(m, { frame: wholeWithin(m.frame, 0, LIMITS.length), name: asName(m.name, 'Marker', LIMITS.name) }),
      ),
    );
  }
  if (scene.routines !== before?.routines) {
    atMost(scene.routines.length, LIMITS.moves, owner, 'routines');
    fit('routines', each(scene.routines, fittedRoutine));
  }
  if (scene.sets !== before?.sets) {
    atMost(scene.sets.length, LIMITS.sets, owner, 'sets');
    fit(
      'sets',
      each(scene.sets, (s) => withFields(s, { name: asName(s.name, 'Set', LIMITS.name) })),
    );
  }
  if (scene.poses && scene.poses !== before?.poses) {
    const { kept, strip } = scene.poses;
    atMost(kept.length, LIMITS.poses, owner, 'poses');
    atMost(strip.held.length, LIMITS.held, owner, 'poses one after another');
    const fitting = each(kept, (p) =>
      withFields(p, { name: asName(p.name, 'Pose', LIMITS.name), frame: frameWithin(p.frame) }),
    );
    fit('poses', withFields(scene.poses, { kept: fitting, strip: fittedStrip(strip) }));
  }
  if (scene.layers === before?.layers) return;
  atMost(scene.order.length, LIMITS.layers, owner, 'layers');
  for (const [id, layer] of Object.entries(scene.layers)) {
    fitLayer(layer, before?.layers[id], [...path, 'layers', id], fits);
  }
};

/** What cards name is there, and no scene plays itself. */
const checkLinks = (now: Project, before: Project): void => {
  for (const scene of Object.values(now.scenes)) {
    const old = before.scenes[scene.id];
    if (scene.layers === old?.layers) continue;
    for (const layer of Object.values(scene.layers)) {
      const before = old?.layers[layer.id];
      if (layer === before) continue;
      const { assets, scenes } = needsOf(layer);
      // Named from the one that was linked.
      const same = before && needsOf(before) === needsOf(layer);
      const circle = same ? null : cutInCircle(scene, layer);
      if (circle) {
        const names = [...circle, layer].map((l) => `“${l.name}”`).join(' → ');
        throw new RangeError(`“${layer.name}” would be cut by itself: ${names}`);
      }
      for (const id of assets) if (now.assets[id]?.kind !== 'picture') throw new NotFound('picture', id);
      for (const id of scenes) {
        const inner = now.scenes[id];
        if (!inner) throw new NotFound('scene', id);
        if (wouldRecurse(now.scenes, id, scene.id)) {
          throw new RangeError(`“${inner.name}” cannot be nested in “${scene.name}”: it would play itself`);
        }
      }
    }
  }
};

const fitDelivery = (delivery: Delivery, path: Path, fits: Fits): void => {
  const { name, file, scenes, fade, settings } = delivery;
  fitName(name, 'Delivery', path, fits);
  const called = asName(file, DEFAULT_NAME, LIMITS.name);
  if (called !== file) fits.put([...path, 'file'], called);
  if (scenes.length === 0) throw new RangeError(`“${name}” has to show a scene`);
  atMost(scenes.length, LIMITS.scenes, `“${name}”`, 'scenes');
  const frames = wholeWithin(fade, 0, LIMITS.fade);
  if (frames !== fade) fits.put([...path, 'fade'], frames);
  const fitting = fittedSettings(settings);
  if (fitting !== settings) fits.put([...path, 'settings'], fitting);
};

const fitVersions = ({ columns, rows }: Versions, before: Versions, fits: Fits): void => {
  atMost(columns.length, LIMITS.versionColumns, 'A project', 'columns of versions');
  atMost(rows.length, LIMITS.versions, 'A project', 'versions');
  columns.forEach((column, i) => {
    if (column === before.columns[i]) return;
    fitName(column.name, 'Column', ['versions', 'columns', i], fits);
    if (column.kind === 'words') atMost(column.places.length, LIMITS.versionPlaces, `“${column.name}”`, 'places');
  });
  const swatches = new Set(columns.filter(({ kind }) => kind === 'swatch').map(({ id }) => id));
  rows.forEach((row, i) => {
    if (row === before.rows[i]) return;
    fitName(row.name, 'Version', ['versions', 'rows', i], fits);
    for (const [id, value] of Object.entries(row.values)) {
      const fitting = swatches.has(id) && !isColor(value) ? '#000000' : cutText(sound(value), MOST_LETTERS);
      if (fitting !== value) fits.put(['versions', 'rows', i, 'values', id], fitting);
    }
  });
};

/** Calls `put` with each value of a changed document that does not fit and what takes its place; TooMany where nothing can. */
export const fitDocument = (now: Project, before: Project, put: Fits['put']): void => {
  const fits: Fits = { put, swatches: now.swatches };
  fitName(now.name, 'Project', [], fits);
  checkLinks(now, before);
  atMost(now.order.length, LIMITS.scenes, 'A project', 'scenes');
  if (now.assets !== before.assets) {
    atMost(Object.keys(now.assets).length, LIMITS.assets, 'A project', 'files');
    for (const [id, asset] of Object.entries(now.assets)) fitName(asset.name, 'Untitled', ['assets', id], fits);
  }
  for (const key of ['swatches', 'eases', 'moves', 'effects'] as const) {
    if (now[key] !== before[key]) {
      const most = key === 'moves' ? LIMITS.moves : LIMITS.swatches;
      atMost(now[key].length, most, 'A project', key === 'swatches' ? key : `kept ${key}`);
    }
  }
  now.swatches.forEach((s, i) => {
    if (s === before.swatches[i]) return;
    fitName(s.name, s.color, ['swatches', i], fits);
    if (!isColor(s.color)) fits.put(['swatches', i, 'color'], '#000000');
  });
  now.eases.forEach((e, i) => {
    if (e === before.eases[i]) return;
    fitName(e.name, 'Ease', ['eases', i], fits);
    if (fittedEase(e.ease) !== e.ease) fits.put(['eases', i, 'ease'], fittedEase(e.ease));
  });
  now.moves.forEach((m, i) => {
    if (m !== before.moves[i] && fittedMove(m.move) !== m.move) fits.put(['moves', i, 'move'], fittedMove(m.move));
  });
  now.effects.forEach((saved, i) => {
    if (saved === before.effects[i]) return;
    fitName(saved.name, 'Effects', ['effects', i], fits);
    atMost(saved.cards.length, LIMITS.effects, `“${saved.name}”`, 'cards');
    saved.cards.forEach((card, j) => fitItem(card, undefined, ['effects', i, 'cards', j], fits));
  });
  if (now.deliveries !== before.deliveries) {
    atMost(now.deliveries.length, LIMITS.deliveries, 'A project', 'deliveries');
    now.deliveries.forEach((d, i) => {
      if (d !== before.deliveries[i]) fitDelivery(d, ['deliveries', i], fits);
    });
  }
  if (now.versions !== before.versions) fitVersions(now.versions, before.versions, fits);
  for (const id of now.order as readonly Id[]) {
    const scene = now.scenes[id];
    if (scene) fitScene(scene, before.scenes[id], ['scenes', id], fits);
  }
};
