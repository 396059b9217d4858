/** Night pass: energy in a word and a ticket that wobbles, made of three poses with one picture in between, as a looping GIF. */
import type { FontChoice, Gradient } from '@kite/core/document/types';
import type { ProjectBuilder } from './builder';
import { PALETTE } from './palette';

const HEAD: FontChoice = { family: 'Unbounded', weight: 800, italic: false };

/** Three colours with hard edges between them, as flames have. */
const energy = (low: string, middle: string, high: string): Gradient => ({
  stops: [
    { at: 0.4, color: low },
    { at: 0.46, color: middle },
    { at: 0.56, color: middle },
    { at: 0.62, color: high },
  ],
});

/** How the word burns and how the ticket leans in each pose. */
const POSES = [
  { name: 'Left', seed: 3, colors: energy(PALETTE.coral, PALETTE.amber, PALETTE.fog), turn: -7, at: [314, 104] },
  { name: 'Up', seed: 8, colors: energy(PALETTE.teal, PALETTE.fog, PALETTE.amber), turn: 1, at: [318, 94] },
  { name: 'Right', seed: 5, colors: energy(PALETTE.amber, PALETTE.coral, PALETTE.fog), turn: 8, at: [322, 104] },
] as const;

export const nightPass = (project: ProjectBuilder): void => {
  const scene = project.scene('Night pass', {
    width: 420,
    height: 200,
    rate: { num: 20, den: 1 },
    length: 60,
    background: PALETTE.midnight,
  });
  const clouds = scene.card('clouds', { size: 56, octaves: 4, contrast: 3 });
  const word = scene.drawing({
    name: 'Night',
    tag: 'coral',
    at: [122, 120],
    items: [...scene.words('NIGHT', HEAD, 47, PALETTE.fog), clouds],
  });
  const ticket = scene.drawing({
    name: 'Pass',
    tag: 'amber',
    at: [314, 104],
    items: [
      scene.card('rectangle', { width: 150, height: 84, radius: 10 }),
      scene.card('ellipse', { width: 20, height: 20, centre: [-75, 0] }),
      scene.card('ellipse', { width: 20, height: 20, centre: [75, 0] }),
      scene.card('combine', { operation: 'subtract' }),
      scene.card('fill', { color: PALETTE.amber }),
      ...scene.holding('group', [
        scene.card('text', { text: 'PASS 3.80', font: HEAD, size: 19, align: 'center', place: [0, 7] }),
        scene.card('fill', { color: PALETTE.ink }),
      ]),
    ],
  });
  const poses = POSES.map(({ name, seed, colors, turn, at }) => {
    scene.values(word, { seed, colors }, clouds.id);
    scene.values(ticket, { rotation: turn, position: at });
    return scene.pose(name);
  });
  scene.strip(poses, { hold: 5, between: 1, each: 2 });
  scene.poster(0);
};
