/** Fog and lamp: a flame painted cel by cel, moths that wobble, and fog that drifts, as a small loop. */
import type { BrushStroke, Item } from '@kite/core/document/types';
import type { ProjectBuilder, SceneBuilder } from './builder';
import { PALETTE } from './palette';

const SIDE = 600;
/** Frames of the loop at 12 a second, and those that each cel is held. */
const [LENGTH, HOLD] = [24, 2];
const LAMP = [300, 250] as const;
const IRON = '#3A3F7C';

const stroke = (
  points: readonly number[],
  color: string,
  size: number,
  more: Partial<BrushStroke> = {},
): BrushStroke => ({
  points,
  color,
  size,
  tip: 'round',
  thins: 0.7,
  taper: 0.25,
  erases: false,
  ...more,
});

/** A tongue of the flame, from its wick to a tip that leans. */
const tongue = (lean: number, height: number, color: string, size: number): BrushStroke =>
  stroke([0, 40, 0.9, lean * 0.3, 40 - height * 0.45, 1, lean, 40 - height, 0.2], color, size);

/** How far the flame leans in each of its cels, and how high it stands. */
const FLAMES: readonly (readonly [lean: number, height: number])[] = [
  [-8, 96],
  [4, 108],
  [14, 92],
  [2, 116],
  [-14, 100],
  [-4, 88],
];

const celsOf = (scene: SceneBuilder, all: readonly (readonly BrushStroke[])[]): Item[] =>
  scene.holding(
    'cels',
    all.flatMap((strokes) => scene.holding('cel', [scene.card('brush', { strokes })], { hold: HOLD })),
    { ends: 'loop' },
  );

/** A moth of four strokes, its wings up or down. */
const moth = (lift: number): readonly BrushStroke[] =>
  [-1, 1].flatMap((side) => [
    stroke([0, 0, 1, side * 12, -lift, 0.8, side * 20, -lift * 0.4, 0.1], PALETTE.fog, 7, { tip: 'flat' }),
    stroke([0, 2, 0.6, side * 8, 8 - lift * 0.2, 0.2], PALETTE.fog, 4),
  ]);

const fog = (scene: SceneBuilder, name: string, top: number, seed: number, alpha: string): void => {
  scene.drawing({
    name,
    at: [SIDE / 2, top],
    items: [
      scene.card('rectangle', { width: SIDE, height: 260 }),
      scene.card('fill', {
        style: 'linear',
        gradient: {
          stops: [
            { at: 0, color: '#E9ECF500' },
            { at: 0.6, color: '#E9ECF5FF' },
          ],
        },
        from: [0, -130],
        to: [0, 130],
      }),
      scene.card('clouds', {
        size: 220,
        octaves: 4,
        contrast: 2.2,
        loop: LENGTH,
        seed,
        colors: {
          stops: [
            { at: 0, color: '#E9ECF500' },
            { at: 1, color: `#E9ECF5${alpha}` },
          ],
        },
      }),
    ],
  });
};

export const fogAndLamp = (project: ProjectBuilder): void => {
  const scene = project.scene('Fog and lamp', {
    width: SIDE,
    height: SIDE,
    rate: { num: 12, den: 1 },
    length: LENGTH,
    background: PALETTE.ink,
  });
  fog(scene, 'Fog behind', 470, 3, '70');
  const [x, y] = LAMP;
  scene.drawing({
    name: 'Lamp',
    at: [x, y],
    items: [
      scene.card('rectangle', { centre: [0, 250], width: 18, height: 340 }),
      scene.card('rectangle', { centre: [0, 74], width: 120, height: 16, radius: 8 }),
      scene.card('rectangle', { centre: [0, -84], width: 130, height: 18, radius: 9 }),
      scene.card('rectangle', { centre: [-58, -5], width: 8, height: 150 }),
      scene.card('rectangle', { centre: [58, -5], width: 8, height: 150 }),
      scene.card('fill', { color: IRON }),
    ],
  });
  scene.drawing({
    name: 'Flame',
    at: [x, y],
    items: [
      ...celsOf(
        scene,
        FLAMES.map(([lean, height]) => [
          tongue(lean, height, PALETTE.coral, 54),
          tongue(lean * 0.8, height * 0.8, PALETTE.amber, 38),
          tongue(lean * 0.5, height * 0.5, PALETTE.fog, 18),
        ]),
      ),
      scene.card('glow', { size: 70, strength: 0.8 }),
    ],
  });
  const flown = scene.drawing({
    name: 'Moth',
    at: [x + 120, y - 40],
    items: celsOf(scene, [moth(16), moth(4), moth(-8), moth(4)]),
  });
  scene.animate(flown, undefined, 'position', [
    [0, [x + 120, y - 40], { kind: 'linear' }],
    [6, [x + 150, y + 20], { kind: 'linear' }],
    [12, [x + 104, y + 60], { kind: 'linear' }],
    [18, [x + 88, y - 10], { kind: 'linear' }],
    // One frame short of where it began.
    [LENGTH - 1, [x + 115, y - 35]],
  ]);
  fog(scene, 'Fog in front', 510, 11, 'B0');
  scene.poster(6);
};
