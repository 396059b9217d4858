/** Words that come letter by letter round a ring, which goes on turning about the moon. */
import type { FontChoice } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder } from '../builder';
import { crescent } from '../crescent';
import { PALETTE } from '../palette';

const arrive = easeOfStrength({ start: 0.1, end: 0.85 });
const pop = { kind: 'spring', bounces: 2, damping: 0.6 } as const;
const HEAD: FontChoice = { family: 'Unbounded', weight: 700, italic: false };

export const badge = (project: ProjectBuilder): void => {
  const scene = project.scene('Badge', {
    width: 1080,
    height: 1080,
    rate: { num: 30, den: 1 },
    length: 120,
    background: PALETTE.midnight,
  });
  scene.drawing({
    name: 'Moon',
    tag: 'amber',
    at: [540, 540],
    items: [scene.card('path', { path: crescent(150, [64, -34], 124) }), scene.card('fill', { color: PALETTE.amber })],
    keys: {
      scale: [
        [0, [0, 0], pop],
        [36, [1, 1]],
      ],
      rotation: [
        [0, -60, arrive],
        [40, 0],
      ],
    },
  });
  const [ring, ...line] = scene.holding('along', [scene.card('ellipse', { width: 560, height: 560 })], {
    stands: 'spread',
  });
  const letters = scene.card('letters', { stagger: 1 });
  const words = scene.drawing({
    name: 'Words',
    tag: 'teal',
    at: [540, 540],
    items: [
      ...scene.words('QUILLHAVEN · NIGHT TRAM · RIDE HOME EASY · ', HEAD, 62, PALETTE.fog),
      ring!,
      ...line,
      letters,
    ],
  });
  scene.animate(words, ring, 'shift', [
    [0, -0.1, { kind: 'linear' }],
    [119, 0.1],
  ]);
  scene.animate(words, letters, 'scale', [
    [12, [0, 0], arrive],
    [28, [1, 1]],
  ]);
  scene.poster(90);
};
