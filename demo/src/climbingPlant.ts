/** Climbing plant: it grows up the lamp of a tram stop from its root, along its stem, into its branches, and last into its leaves. */
import type { Item, PathValue, Point } from '@kite/core/document/types';
import { smoothThrough } from '@kite/core/geometry/outline';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import { pathOfOutline } from '@kite/core/motion/paths';
import type { ProjectBuilder, SceneBuilder } from './builder';
import { PALETTE } from './palette';

const SIDE = 1080;
const LENGTH = 150;
const [LEAF, STEM] = ['#2EC4B6', '#1F8F86'] as const;
/** The post that it climbs. */
const POST = 430;
const [FOOT, TOP] = [940, 250];

const line = (points: readonly Point[]): PathValue => pathOfOutline(smoothThrough(points, false));

/** Where the stem is at a share of its height: to and fro across the post. */
const onStem = (share: number): Point => [
  POST + 62 * Math.sin(share * 15) * (1 - 0.3 * share),
  FOOT - (FOOT - TOP) * share,
];

/** A leaf from its stalk to its tip. */
const leaf = ([x, y]: Point, angle: number, length: number): PathValue => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const at = (along: number, side: number): Point => [along * c - side * s, along * s + side * c];
  const tip = at(length, 0);
  const [left, right] = [at(length * 0.5, length * 0.42), at(length * 0.5, -length * 0.42)];
  const back = ([hx, hy]: Point): Point => [hx - tip[0], hy - tip[1]];
  return {
    closed: true,
    vertices: [
      [x, y, ...left, ...right],
      [x + tip[0], y + tip[1], ...back(right), ...back(left)],
    ],
  };
};

/** A branch off the stem, in its own order: up and out to one side. */
const branch = (share: number, side: 1 | -1, reach: number) => {
  const [x, y] = onStem(share);
  const points: Point[] = [
    [x, y],
    [x + side * reach * 0.4, y - 20],
    [x + side * reach * 0.75, y - 70],
    [x + side * reach, y - 90],
  ];
  const out = side === 1 ? 0 : Math.PI;
  const leaves = [
    leaf(points[3] as Point, out - side * 0.5, 92),
    leaf(points[2] as Point, out + side * 0.9, 70),
    leaf(points[1] as Point, out - side * 1.5, 64),
  ];
  return { points, leaves };
};

const BRANCHES = [
  branch(0.2, 1, 190),
  branch(0.33, -1, 170),
  branch(0.48, 1, 230),
  branch(0.63, -1, 180),
  branch(0.78, 1, 200),
  branch(0.9, -1, 130),
] as const;

const stroked = (
  scene: SceneBuilder,
  name: string,
  paths: readonly PathValue[],
  width: number,
  taper: number,
): Item[] => {
  const stroke = scene.card('stroke', { color: STEM, width, taperEnd: taper, tip: 0.4 });
  return scene.holding('group', [...paths.map((path) => scene.card('path', { path })), stroke], {}, name);
};

export const climbingPlant = (project: ProjectBuilder): void => {
  const scene = project.scene('Climbing plant', {
    width: SIDE,
    height: SIDE,
    rate: { num: 25, den: 1 },
    length: LENGTH,
    background: PALETTE.midnight,
  });
  scene.drawing({
    name: 'Lamp',
    at: [POST, 0],
    items: [
      scene.card('rectangle', { centre: [0, 560], width: 22, height: 800 }),
      scene.card('rectangle', { centre: [0, 965], width: 120, height: 26, radius: 13 }),
      scene.card('rectangle', { centre: [150, 168], width: 320, height: 16, radius: 8 }),
      scene.card('fill', { color: '#3A3F7C' }),
    ],
  });
  scene.drawing({
    name: 'Light',
    at: [POST + 290, 214],
    items: [
      scene.card('wedge', { radius: 74, start: 90, share: 0.5 }),
      scene.card('fill', { color: PALETTE.amber }),
      scene.card('glow', { size: 60, strength: 0.7 }),
    ],
  });
  const grow = scene.card('grow', {
    soft: 10,
    tip: 8,
    from: {
      points: [
        { at: onStem(0), root: true, wait: 0, pace: 1 },
        // The widest branch waits, and hurries then; the one opposite dawdles.
        { at: BRANCHES[2].points[1] as Point, root: false, wait: 160, pace: 1.6 },
        { at: BRANCHES[1].points[1] as Point, root: false, wait: 0, pace: 0.6 },
      ],
      strokes: [],
    },
  });
  const stem = Array.from({ length: 15 }, (_, i) => onStem(i / 14));
  const leaves = [...BRANCHES.flatMap((of) => of.leaves), leaf(onStem(1), -1.2, 110)];
  const plant = scene.drawing({
    name: 'Plant',
    at: [0, 0],
    items: [
      ...stroked(scene, 'Stem', [line(stem)], 20, 0.9),
      ...stroked(
        scene,
        'Branches',
        BRANCHES.map(({ points }) => line(points)),
        11,
        0.8,
      ),
      ...scene.holding(
        'group',
        [...leaves.map((path) => scene.card('path', { path })), scene.card('fill', { color: LEAF })],
        {},
        'Leaves',
      ),
      grow,
    ],
  });
  scene.animate(plant, grow, 'shown', [
    [0, 0, easeOfStrength({ start: 0.3, end: 0.6 })],
    [110, 1],
  ]);
  scene.drawing({
    name: 'Words',
    at: [760, 900],
    items: [
      scene.card('text', { text: 'The town sleeps.\nWe don’t.', size: 58, align: 'center', leading: 1.25 }),
      scene.card('fill', { color: PALETTE.fog }),
    ],
    keys: {
      opacity: [
        [70, 0, easeOfStrength({ start: 0, end: 0.6 })],
        [92, 1],
      ],
    },
  });
  scene.poster(90);
};
