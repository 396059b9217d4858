/** Ride home easy: three words, each stretched between corners that it shares with the next, which swing to and fro for ever. */
import type { Ease, Id, Item, Point } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import { PIN_CORNERS, type PinCorner } from '@kite/core/recipe/covers/pin';
import type { ProjectBuilder, SceneBuilder } from './builder';
import { PALETTE } from './palette';

const SIDE = 1080;
const LENGTH = 150;
/** Where each stretch is over; the last keyframe is the first again. */
const FRAMES = [0, 37, 75, 112, LENGTH - 1] as const;
const FONT = { family: 'Anton', weight: 400, italic: false } as const;
const swing: Ease = easeOfStrength({ start: 0.5, end: 0.5 });

/** How high the line between two words stands at its left and its right end, at each of the frames. */
const LINES: readonly (readonly (readonly [left: number, right: number])[])[] = [
  [
    [500, 330],
    [320, 330],
    [320, 470],
    [420, 420],
  ],
  [
    [790, 650],
    [600, 780],
    [760, 740],
    [680, 680],
  ],
];
const [TOP, BOTTOM, LEFT, RIGHT] = [70, SIDE - 70, 70, SIDE - 70];

interface Word {
  readonly layer: Id;
  readonly pin: Item;
}

const word = (scene: SceneBuilder, text: string, color: string, corners: readonly Point[]): Word => {
  // From the middle of the scene, where every word stands.
  const own = corners.map(([x, y]): Point => [x - SIDE / 2, y - SIDE / 2]);
  const pin = scene.card('pin', Object.fromEntries(PIN_CORNERS.map((key, i) => [key, own[i] as Point])));
  const layer = scene.drawing({
    name: text,
    at: [SIDE / 2, SIDE / 2],
    items: [
      scene.card('text', { text: text.toUpperCase(), size: 300, font: FONT, align: 'center' }),
      scene.card('fill', { color }),
      pin,
    ],
  });
  return { layer, pin };
};

export const stretchedWords = (project: ProjectBuilder): void => {
  const scene = project.scene('Ride home easy', {
    width: SIDE,
    height: SIDE,
    rate: { num: 30, den: 1 },
    length: LENGTH,
    background: PALETTE.midnight,
  });
  const [between, below] = LINES.map((line) => line[0]) as [readonly [number, number], readonly [number, number]];
  const easy = word(scene, 'Easy', PALETTE.coral, [
    [LEFT, below[0]],
    [RIGHT, below[1]],
    [RIGHT, BOTTOM],
    [LEFT, BOTTOM],
  ]);
  const home = word(scene, 'Home', PALETTE.fog, [
    [LEFT, between[0]],
    [RIGHT, between[1]],
    [RIGHT, below[1]],
    [LEFT, below[0]],
  ]);
  const ride = word(scene, 'Ride', PALETTE.amber, [
    [LEFT, TOP],
    [RIGHT, TOP],
    [RIGHT, between[1]],
    [LEFT, between[0]],
  ]);
  const join = (of: Word, to: Word, pairs: readonly (readonly [PinCorner, PinCorner])[]) => {
    for (const [own, other] of pairs) scene.join([of.layer, of.pin, own], [to.layer, to.pin, other]);
  };
  const stacked = [
    ['topLeft', 'bottomLeft'],
    ['topRight', 'bottomRight'],
  ] as const;
  join(home, ride, stacked);
  join(easy, home, stacked);
  [ride, home].forEach(({ layer, pin }, i) => {
    (['bottomLeft', 'bottomRight'] as const).forEach((key, side) => {
      const line = LINES[i] as (typeof LINES)[number];
      const x = (side === 0 ? LEFT : RIGHT) - SIDE / 2;
      const keys = FRAMES.map((frame, k) => {
        const y = (line[k % line.length] as readonly [number, number])[side] as number;
        return [frame, [x, y - SIDE / 2], swing] as const;
      });
      scene.animate(layer, pin, key, keys);
    });
  });
  scene.poster(10);
};
