/** An upright ad: two lines, a ticket that swings in, and a button that is pressed. */
import type { FontChoice } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder } from '../builder';
import { PALETTE } from '../palette';

const arrive = easeOfStrength({ start: 0.1, end: 0.85 });
const HEAD: FontChoice = { family: 'Unbounded', weight: 700, italic: false };
const BODY: FontChoice = { family: 'Space Grotesk', weight: 600, italic: false };

export const storyAd = (project: ProjectBuilder): void => {
  const scene = project.scene('Story', {
    width: 1080,
    height: 1920,
    rate: { num: 30, den: 1 },
    length: 240,
    background: PALETTE.midnight,
  });
  const slides = (name: string, text: string, y: number, from: number, color: string) =>
    scene.drawing({
      name,
      tag: 'blue',
      at: [540, y],
      items: scene.words(text, HEAD, 74, color),
      keys: {
        position: [
          [from, [540, y + 70], arrive],
          [from + 20, [540, y]],
        ],
        opacity: [
          [from, 0],
          [from + 12, 1],
        ],
      },
    });
  slides('First line', 'The town sleeps.', 470, 6, PALETTE.fog);
  slides('Second line', 'We don’t.', 590, 24, PALETTE.amber);
  const ticket = scene.drawing({
    name: 'Ticket',
    tag: 'amber',
    at: [540, 1020],
    items: scene.ticket({ width: 780, height: 420, radius: 40 }, 90, PALETTE.amber),
    keys: {
      position: [
        [44, [540, 2_200], arrive],
        [76, [540, 1_020]],
      ],
      rotation: [
        [44, -14, arrive],
        [86, 0],
      ],
    },
  });
  scene.drawing({
    name: 'Price',
    tag: 'slate',
    parent: ticket,
    at: [0, 10],
    items: scene.words('Night pass 3.80', HEAD, 58, PALETTE.ink),
  });
  scene.drawing({
    name: 'How often',
    tag: 'slate',
    parent: ticket,
    at: [0, 90],
    items: scene.words('Every 12 minutes till dawn', BODY, 40, PALETTE.ink),
  });
  const button = scene.drawing({
    name: 'Button',
    tag: 'coral',
    at: [540, 1_480],
    items: [
      scene.card('rectangle', { width: 520, height: 130, radius: 65 }),
      scene.card('fill', { color: PALETTE.coral }),
    ],
    keys: {
      scale: [
        [92, [0, 0], arrive],
        [112, [1, 1], arrive],
        [160, [1, 1], arrive],
        [168, [0.94, 0.94], arrive],
        [180, [1, 1]],
      ],
    },
  });
  scene.drawing({
    name: 'Plan my ride',
    tag: 'slate',
    parent: button,
    at: [0, 18],
    items: scene.words('Plan my ride', BODY, 54, PALETTE.ink),
  });
  scene.poster(200);
};
