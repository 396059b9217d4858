/** A burst of dashes around a disc that pops up, and a time on it. */
import type { FontChoice } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder } from '../builder';
import { PALETTE } from '../palette';

const out = easeOfStrength({ start: 0.05, end: 0.9 });
const pop = { kind: 'spring', bounces: 2, damping: 0.6 } as const;
const HEAD: FontChoice = { family: 'Unbounded', weight: 700, italic: false };

export const burst = (project: ProjectBuilder): void => {
  const scene = project.scene('Burst', {
    width: 1080,
    height: 1080,
    rate: { num: 30, den: 1 },
    length: 90,
    background: PALETTE.midnight,
  });
  const trim = scene.card('trim', {});
  const dashes = scene.drawing({
    name: 'Dashes',
    tag: 'amber',
    at: [540, 540],
    items: [
      scene.card('line', { from: [0, -270], to: [0, -430] }),
      trim,
      scene.card('stroke', { color: PALETTE.amber, width: 18, cap: 'round' }),
      scene.card('repeater', { copies: 20, position: [0, 0], rotation: 18, delay: 0.4 }),
    ],
  });
  scene.animate(dashes, trim, 'end', [
    [10, 0, out],
    [30, 1],
  ]);
  scene.animate(dashes, trim, 'start', [
    [16, 0, out],
    [40, 1],
  ]);
  const disc = scene.drawing({
    name: 'Disc',
    tag: 'teal',
    at: [540, 540],
    items: [scene.card('ellipse', { width: 440, height: 440 }), scene.card('fill', { color: PALETTE.teal })],
    keys: {
      scale: [
        [0, [0, 0], pop],
        [36, [1, 1]],
      ],
    },
  });
  scene.drawing({
    name: 'Time',
    tag: 'slate',
    parent: disc,
    at: [0, 34],
    items: scene.words('02:40', HEAD, 96, PALETTE.ink),
  });
  scene.poster(26);
};
