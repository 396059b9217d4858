/** Projects that pass the check and ask for far more than a frame can have: each has to be drawn in part, and told. */
import { newDrawing, newItem, newNest, newProject, newScene } from '../document/make';
import type { Item, Layer, Project, Scene, Value } from '../document/types';
import { Chance } from './random';

const size = (side = 600) =>
  ({ width: side, height: side, rate: { num: 25, den: 1 }, length: 10, background: '#10132E' }) as const;

const scened = (scene: Scene, layers: readonly Layer[]): Scene => ({
  ...scene,
  layers: Object.fromEntries(layers.map((l) => [l.id, l])),
  order: layers.map((l) => l.id),
});

type Cards = readonly (readonly [kind: string, values?: { readonly [key: string]: Value }])[];

/** A layer of these cards. */
const layer = (scene: Scene, id: string, cards: Cards): Layer =>
  newDrawing(
    scene,
    id,
    id,
    cards.map(([kind, values], i): Item => newItem(`${id}c${i}`, kind, values)),
  );

const many = (count: number, cards: Cards, side = 600): Project => {
  const scene = newScene('s', 'Heavy', size(side));
  return newProject('p', 'Heavy', [
    scened(
      scene,
      Array.from({ length: count }, (_, i) => layer(scene, `l${i}`, cards)),
    ),
  ]);
};

/** Scenes that each nest the one before it, so many deep and so many times over; the innermost draws a square. */
const nests = (deep: number, wide: number): Project => {
  const scenes: Scene[] = [];
  for (let d = 0; d <= deep; d++) {
    const scene = newScene(`s${d}`, `Level ${d}`, size(60));
    const square = layer(scene, 'l', [['rectangle'], ['fill']]);
    const inner = Array.from({ length: wide }, (_, i) => newNest(scene, `n${i}`, `Nest ${i}`, `s${d - 1}`));
    scenes.push(scened(scene, d === 0 ? [square] : inner));
  }
  return newProject('p', 'Nests', scenes.reverse());
};

const tangle = (vertices: number): Value => {
  const chance = new Chance(7);
  const place = () => Math.round(chance.between(-300, 300));
  return { closed: true, vertices: Array.from({ length: vertices }, () => [place(), place(), 0, 0, 0, 0] as const) };
};

const star: Cards[number] = ['star', { points: 100, outer: 250, inner: 60 }];
const copies = (count: number): Cards[number] => ['repeater', { copies: count, position: [1, 1], rotation: 3 }];
const grid: Cards[number] = ['repeater', { layout: 'grid', columns: 100, rows: 100, spacing: [6, 6] }];

/** By what is too much in them. */
export const HEAVY: { readonly [name: string]: () => Project } = {
  'nests 16 deep and 2 wide': () => nests(16, 2),
  'nests 8 deep and 10 wide': () => nests(8, 10),
  '200 layers of 20,000 copies': () => many(200, [['rectangle', { width: 4, height: 4 }], ['fill'], grid, copies(2)]),
  '100 texts with 1,000 copies': () =>
    many(100, [['text', { text: 'Night tram '.repeat(40) }], ['fill'], copies(1000)]),
  'a combine above 1,000 copies of a star': () => many(1, [star, copies(1000), ['combine'], ['fill']]),
  'an offset and a combine of 5,000 vertices': () =>
    many(1, [['path', { path: tangle(5_000) }], ['offset', { amount: 40, join: 'round' }], ['combine'], ['fill']]),
  'a wide offset of many points': () =>
    many(1, [star, copies(100), ['offset', { amount: 5_000, join: 'round' }], ['fill']]),
  '100 blended layers at 8192': () => ({
    ...many(100, [['rectangle', { width: 9_000, height: 9_000 }], ['fill', { opacity: 0.9 }], ['stroke']], 8_192),
  }),
  'dashes without end': () =>
    many(20, [
      ['path', { path: tangle(5_000) }],
      ['stroke', { dashes: [0.001, 0.001], width: 2 }],
    ]),
  'zig-steps over zig-steps': () =>
    many(4, [star, copies(1000), ['zigsteps', { length: 0.5 }], ['roughen'], ['twist'], ['stroke']]),
  'tapers of many dashes': () =>
    many(8, [
      ['path', { path: tangle(5_000) }],
      ['stroke', { dashes: [1, 1], taperStart: 0.5, width: 4 }],
    ]),
  'tapers of long dashes on long outlines': () =>
    many(4, [
      ['polygon', { radius: 100_000, sides: 200 }],
      ['repeater', { copies: 40, position: [10, 10] }],
      ['stroke', { dashes: [4_000, 1], taperEnd: 0.5, width: 4 }],
    ]),
  'curves a million pixels away': () =>
    scaled(
      many(4, [
        ['path', { path: waves(5_000) }],
        ['stroke', { width: 8 }],
      ]),
      200,
    ),
  'groups in groups': () => nested(),
};

/** Groups that fade, 30 deep, over many marks. */
function nested(): Project {
  const scene = newScene('s', 'Groups', size());
  const groups = Array.from({ length: 30 }, (_, i) => ({ ...newItem(`g${i}`, 'group', { opacity: 0.9 }) }));
  const cards = [newItem('r', 'rectangle'), newItem('f', 'fill'), newItem('x', 'repeater', { copies: 1000 })];
  const held = groups.map((group, i) => ({ ...group, children: i < 29 ? [`g${i + 1}`] : cards.map((c) => c.id) }));
  return newProject('p', 'Groups', [scened(scene, [newDrawing(scene, 'l', 'Groups', [...held, ...cards])])]);
}

/** A closed path of curves that wanders over 100,000 px. */
function waves(vertices: number): Value {
  const chance = new Chance(3);
  const place = () => chance.between(-50_000, 50_000);
  const handle = () => chance.between(-40, 40);
  const vertex = () => [place(), place(), handle(), handle(), handle(), handle()] as const;
  return { closed: true, vertices: Array.from({ length: vertices }, vertex) };
}

const eachLayer = (project: Project, change: (layer: Layer) => Layer): Project => ({
  ...project,
  scenes: Object.fromEntries(
    Object.entries(project.scenes).map(([id, scene]) => [
      id,
      { ...scene, layers: Object.fromEntries(Object.entries(scene.layers).map(([key, l]) => [key, change(l)])) },
    ]),
  ),
});

const scaled = (project: Project, by: number): Project =>
  eachLayer(project, (l) => ({ ...l, params: { ...l.params, scale: { value: [by, by] } } }));

/** Blended, so that none can be drawn straight onto the picture. */
export const blended = (project: Project): Project => eachLayer(project, (l) => ({ ...l, blend: 'multiply' }));
