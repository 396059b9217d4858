/** A title whose letters rise one after another, a line below it, and words that slide out of that. */
import type { FontChoice } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder } from '../builder';
import { PALETTE } from '../palette';

const arrive = easeOfStrength({ start: 0.1, end: 0.85 });
const HEAD: FontChoice = { family: 'Unbounded', weight: 700, italic: false };
const BODY: FontChoice = { family: 'Space Grotesk', weight: 500, italic: false };

export const letterTitle = (project: ProjectBuilder): void => {
  const scene = project.scene('Title', {
    width: 1920,
    height: 1080,
    rate: { num: 30, den: 1 },
    length: 150,
    background: PALETTE.midnight,
  });
  const letters = scene.card('letters', { stagger: 2 });
  const title = scene.drawing({
    name: 'Title',
    tag: 'amber',
    at: [960, 540],
    items: [...scene.words('Ride home easy', HEAD, 150, PALETTE.fog), letters],
  });
  scene.animate(title, letters, 'position', [
    [6, [0, 90], arrive],
    [26, [0, 0]],
  ]);
  scene.animate(title, letters, 'opacity', [
    [6, 0],
    [16, 1],
  ]);
  const trim = scene.card('trim', {});
  const line = scene.drawing({
    name: 'Line',
    tag: 'teal',
    at: [960, 610],
    items: [
      scene.card('line', { from: [-420, 0], to: [420, 0] }),
      trim,
      scene.card('stroke', { color: PALETTE.teal, width: 10, cap: 'round' }),
    ],
  });
  scene.animate(line, trim, 'end', [
    [30, 0, arrive],
    [56, 1],
  ]);
  scene.drawing({
    name: 'Below',
    tag: 'blue',
    at: [960, 710],
    items: scene.words('Every 12 minutes till dawn', BODY, 60, PALETTE.amber),
    keys: {
      position: [
        [44, [960, 750], arrive],
        [66, [960, 710]],
      ],
      opacity: [
        [44, 0],
        [58, 1],
      ],
    },
  });
  scene.poster(100);
};
