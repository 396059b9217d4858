/** Projects from chance: sound, and as various as the schema lets them be. */
import { newKnob } from '../document/knobs';
import { newController, newDrawing, newItem, newNest, newPicture, newProject, newScene, still } from '../document/make';
import { FAR, type Param, type Params, PLACE } from '../document/params';
import {
  type Asset,
  BEYOND,
  type CurveProperty,
  type Ease,
  type Id,
  type Item,
  type Keyframe,
  KNOB_KINDS,
  type Layer,
  type Point,
  type Project,
  type Properties,
  type Property,
  type Scene,
  type Value,
  type Vertex,
} from '../document/types';
import { partParam } from '../motion/apart';
import { KINDS, kindOf, paramsOf } from '../recipe/table';
import { holdsCards, holdsSettings } from '../recipe/types';
import { BRUSH_TIPS } from '../document/limits';
import type { Chance } from './random';

/** How wild the values are: within the limits, or also far beyond them, as an edit may ask for. */
export type Wildness = 'within' | 'beyond';

const WORDS = ['Night tram', 'Last tram 02:40', '🚋🌙', 'e\u0301toile', 'Ropewalk', '', 'a\nb', 'ﬁ👨‍👩‍👧‍👦'];

export const randomText = (chance: Chance, most: number, how: Wildness): string => {
  const text = chance.times(0, 4, () => chance.one(WORDS)).join(' ');
  if (how === 'beyond' && chance.happens(0.1)) return `${'x'.repeat(most - 1)}🚋${text}`;
  if (how === 'beyond' && chance.happens(0.05)) return `${text}\0\uD83D`;
  return [...text]
    .slice(0, Math.min(40, most))
    .join('')
    .slice(0, most)
    .replace(/\p{Surrogate}/gu, '');
};

const randomNumber = (chance: Chance, min: number, max: number, how: Wildness): number => {
  if (how === 'beyond' && chance.happens(0.2)) return chance.one([min - 20, max + 20, -1e12, 1e12, NaN, Infinity]);
  // Mostly of an everyday size, now and then at a limit.
  if (chance.happens(0.1)) return chance.one([min, max]);
  return chance.between(Math.max(min, -300), Math.min(max, 300));
};

const randomColor = (chance: Chance): string =>
  `#${chance.whole(0, 0xffffff).toString(16).padStart(6, '0')}${chance.happens(0.2) ? '80' : ''}`;

export const randomValue = (chance: Chance, param: Param, how: Wildness): Value => {
  const number = (min: number, max: number) => randomNumber(chance, min, max, how);
  switch (param.kind) {
    case 'number': {
      const value = number(param.min, param.max);
      return param.whole ? Math.round(value) : value;
    }
    case 'point':
      return [number(-param.limit, param.limit), number(-param.limit, param.limit)];
    case 'color':
      return randomColor(chance);
    case 'gradient':
      return {
        stops: chance.times(2, 4, () => ({ at: number(0, 1), color: randomColor(chance) })).sort((a, b) => a.at - b.at),
      };
    case 'path':
      return {
        closed: chance.happens(0.5),
        vertices: chance.times(0, 6, () => chance.times(6, 6, () => number(-FAR, FAR)) as unknown as Vertex),
      };
    case 'numbers':
      return chance.times(0, how === 'beyond' ? param.most + 3 : 4, () => number(param.min, param.max));
    case 'switch':
      return chance.happens(0.5);
    case 'choice':
      return chance.one(param.choices).value;
    case 'text': {
      const text = randomText(chance, param.most, how);
      return param.lines === 'one' && how === 'within' ? text.replaceAll('\n', ' ') : text;
    }
    case 'font':
      return { family: chance.one(['Inter', 'Lora', 'Nowhere']), weight: number(1, 1000), italic: chance.happens(0.3) };
    // What they lead to is for who makes the project to say.
    case 'asset':
    case 'scene':
    case 'layer':
      return '';
    case 'mesh': {
      const [columns, rows] = [chance.whole(1, 3), chance.whole(1, 3)];
      return { columns, rows, ways: Array.from({ length: 2 * (columns + 1) * (rows + 1) }, () => number(-FAR, FAR)) };
    }
    case 'strokes':
      return chance.times(0, 3, () => ({
        points: chance.times(1, 4, () => [number(-FAR, FAR), number(-FAR, FAR), number(0, 1)]).flat(),
        color: chance.one(['#FFB23E', '#2EC4B680']),
        size: number(0.1, 2_000),
        tip: chance.one(BRUSH_TIPS),
        ...(chance.happens(0.3) && { opacity: number(0, 1), seed: chance.whole(0, 9_999) }),
        thins: number(0, 1),
        taper: number(0, 0.5),
        erases: chance.happens(0.3),
      }));
    case 'growth':
      return {
        points: chance.times(0, 3, () => ({
          at: [number(-FAR, FAR), number(-FAR, FAR)] as const,
          root: chance.happens(0.5),
          wait: number(0, 200),
          pace: number(0.05, 20),
        })),
        strokes: chance.times(0, 2, () =>
          chance.times(1, 3, () => [number(-FAR, FAR), number(-FAR, FAR), number(0, 1_000)]).flat(),
        ),
      };
    case 'cutout':
      return {
        seeds: chance.times(0, 2, () => ({ x: number(-FAR, FAR), y: number(-FAR, FAR), tolerance: number(0, 1) })),
        grow: number(-200, 200),
        soften: number(0, 200),
        strokes: chance.times(0, 2, () => ({
          keep: chance.happens(0.5),
          size: number(0.01, 2_000),
          points: chance.times(0, 3, () => [number(-FAR, FAR), number(-FAR, FAR)] as const),
        })),
      };
  }
};

export const randomEase = (chance: Chance, how: Wildness): Ease => {
  const within = (min: number, max: number) => randomNumber(chance, min, max, how);
  switch (chance.whole(0, 6)) {
    case 0:
      return { kind: 'hold' };
    case 1:
      return { kind: 'bezier', x1: within(0, 1), y1: within(-2, 3), x2: within(0, 1), y2: within(-2, 3) };
    case 2:
      return { kind: 'steps', count: Math.round(within(2, 20)), jump: chance.one(['start', 'end', 'both', 'none']) };
    case 3:
      return { kind: 'spring', bounces: Math.round(within(1, 9)), damping: within(0, 1) };
    case 4:
      return { kind: 'bounce', bounces: Math.round(within(1, 9)), height: within(0, 0.9) };
    case 5:
      return {
        kind: 'drawn',
        points: chance.times(0, 4, (i) => ({ x: (i + 1) / 6, y: within(-1, 2), corner: chance.happens(0.5) })),
      };
    default:
      return { kind: 'linear' };
  }
};

const randomKeys = (chance: Chance, param: Param, how: Wildness): Keyframe[] => {
  const frames = new Set(chance.times(1, 5, () => chance.whole(-20, 120)));
  return [...frames]
    .sort((a, b) => a - b)
    .map((frame) => ({
      frame,
      value: randomValue(chance, param, how),
      ease: randomEase(chance, how),
      ...(param.kind === 'point' && chance.happens(0.3) && { handles: [-30, 5, 30, -5] as const }),
    }));
};

const randomCurve = (chance: Chance, param: Param, how: Wildness): CurveProperty =>
  chance.happens(0.5)
    ? { value: randomValue(chance, param, how) }
    : {
        keys: randomKeys(chance, param, how),
        ...(chance.happens(0.3) && { before: chance.one(BEYOND) }),
        ...(chance.happens(0.3) && { after: chance.one(BEYOND) }),
      };

export const randomProperty = (chance: Chance, param: Param, how: Wildness = 'within'): Property =>
  param.kind === 'point' && chance.happens(0.2)
    ? { parts: [randomCurve(chance, partParam(param, 0), how), randomCurve(chance, partParam(param, 1), how)] }
    : randomCurve(chance, param, how);

const randomProperties = (chance: Chance, params: Params): Properties =>
  Object.fromEntries(chance.some(Object.entries(params)).map(([key, p]) => [key, randomProperty(chance, p)]));

const CARDS = [...KINDS.keys()];

export const randomItem = (chance: Chance, id: Id): Item => {
  const kind = chance.one(CARDS);
  return {
    ...newItem(id, kind),
    on: chance.happens(0.9),
    params: randomProperties(chance, paramsOf(kind)),
    ...((holdsCards(kindOf(kind)) || holdsSettings(kindOf(kind))) && { children: [] }),
    ...(kindOf(kind).role === 'setting' && { sets: chance.one(['k0', 'k1']) }),
  };
};

/** A recipe in which groups hold what stands behind them in the list. */
export const randomItems = (chance: Chance, prefix: string): Item[] => {
  const items = [
    newItem(`${prefix}s`, chance.one(['rectangle', 'ellipse', 'star', 'text', 'polygon'])),
    ...chance.times(0, 6, (i) => randomItem(chance, `${prefix}c${i}`)),
    newItem(`${prefix}f`, chance.one(['fill', 'stroke'])),
  ];
  return items.map((item, i) =>
    item.children && i + 2 < items.length && chance.happens(0.7) && !items[i + 1]?.children
      ? { ...item, children: [(items[i + 1] as Item).id] }
      : item,
  );
};

/** The cards of a layer, showing a picture and playing a scene where there is one. */
const linked = (chance: Chance, layer: Layer, inner: Id | null, assets: readonly Id[]): Layer => {
  if (layer.kind !== 'drawing') return layer;
  const shown = (item: Item): Item => {
    const params = randomProperties(chance, paramsOf(item.kind));
    if (item.kind === 'picture') return { ...item, params: { ...params, asset: still(assets[0] ?? '') } };
    return item.kind === 'nest' ? { ...item, params: { ...params, scene: still(inner ?? '') } } : item;
  };
  return { ...layer, items: Object.fromEntries(Object.values(layer.items).map((item) => [item.id, shown(item)])) };
};

export const randomLayer = (chance: Chance, scene: Scene, id: Id, inner: Id | null, assets: readonly Id[]): Layer => {
  const name = `Layer ${id}`;
  const kind = chance.one(['drawing', 'drawing', 'drawing', 'controller', inner && 'nest', assets[0] && 'picture']);
  const made: Layer =
    kind === 'controller'
      ? randomController(chance, scene, id)
      : kind === 'nest'
        ? newNest(scene, id, name, inner ?? '')
        : kind === 'picture'
          ? newPicture(scene, id, name, assets[0] ?? '')
          : newDrawing(scene, id, name, randomItems(chance, id));
  const from = chance.whole(-10, 40);
  return {
    ...linked(chance, made, inner, assets),
    from,
    to: from + chance.whole(1, 90),
    params: randomProperties(chance, PLACE),
  };
};

const randomController = (chance: Chance, scene: Scene, id: Id): Layer => {
  const knobs = chance.times(0, 3, (i) => newKnob(`${id}k${i}`, chance.one(KNOB_KINDS), `Knob ${i}`));
  return {
    ...newController(scene, id, `Rig ${id}`),
    knobs: Object.fromEntries(knobs.map((k) => [k.id, k])),
    panel: knobs.map((k) => k.id),
  };
};

const randomScene = (chance: Chance, id: Id, inner: Id | null, assets: readonly Id[]): Scene => {
  const empty = newScene(id, `Scene ${id}`, {
    width: chance.whole(20, 600),
    height: chance.whole(20, 600),
    rate: chance.one([
      { num: 25, den: 1 },
      { num: 30000, den: 1001 },
    ]),
    length: chance.whole(2, 120),
    background: chance.one([null, '#10132E']),
  });
  const layers = chance.times(1, 6, (i) => randomLayer(chance, empty, `${id}l${i}`, inner, assets));
  // A parent stands behind its children in the list, so that there is no circle.
  const hung = layers.map((layer, i) =>
    i + 1 < layers.length && chance.happens(0.3) ? { ...layer, parent: chance.one(layers.slice(i + 1)).id } : layer,
  );
  const members = chance.some(hung.map((l) => l.id));
  return {
    ...empty,
    layers: Object.fromEntries(hung.map((l) => [l.id, l])),
    order: hung.map((l) => l.id),
    poster: chance.whole(0, empty.length - 1),
    light: { turn: chance.one([0, 400]), tilt: chance.one([-20, 90]), strength: chance.one([0, 0.5]) },
    eye: { angle: chance.one([0, 40, 90]), off: chance.one([[0, 0] as const, [40, -30] as const]) },
    markers: chance.times(0, 2, (i) => ({ id: `m${i}`, frame: i * 10, name: `Marker ${i}` })),
    sets: members.length > 0 ? [{ id: 'set', name: 'Set', members }] : [],
  };
};

const picture = (id: Id): Asset => ({
  id,
  name: 'Lamp',
  sha: 'ab'.repeat(32),
  bytes: 9,
  kind: 'picture',
  type: 'image/png',
  width: 30,
  height: 20,
});

/** A sound project of one to three scenes; each may nest the one before it. */
export const randomProject = (chance: Chance): Project => {
  const assets = chance.happens(0.5) ? [picture('pic')] : [];
  const ids = assets.map((a) => a.id);
  const scenes = chance.times(1, 3, (i) => randomScene(chance, `s${i}`, i > 0 ? `s${i - 1}` : null, ids));
  return {
    ...newProject('p', 'Quillhaven', scenes),
    assets: Object.fromEntries(assets.map((a) => [a.id, a])),
    swatches: chance.happens(0.5) ? [{ id: 'w', name: 'Amber', color: '#FFB23E' }] : [],
    eases: chance.happens(0.5) ? [{ id: 'e', name: 'Soft', ease: randomEase(chance, 'within') }] : [],
  };
};

/** A point that may be anywhere. */
export const randomPoint = (chance: Chance, how: Wildness): Point => [
  randomNumber(chance, -FAR, FAR, how),
  randomNumber(chance, -FAR, FAR, how),
];
export const randomFrame = (chance: Chance, how: Wildness): number =>
  how === 'beyond' && chance.happens(0.05) ? chance.one([-5e6, 5e6]) : chance.whole(-20, 130);
