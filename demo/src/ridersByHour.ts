/** Riders by hour, begun: a ring of wedges that opens slice by slice, one of which pops out, with its numbers. */
import type { FontChoice, Point } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import { PALETTE } from './palette';
import type { ProjectBuilder } from './builder';

const open = easeOfStrength({ start: 0.2, end: 0.7 });
const out = { kind: 'bezier', x1: 0.3, y1: 0.1, x2: 0.4, y2: 1.7 } as const;

const LABEL: FontChoice = { family: 'Space Grotesk', weight: 500, italic: false };
const NUMBER: FontChoice = { family: 'Unbounded', weight: 600, italic: false };

/** Shares of a night's riders. */
const HOURS = [
  { name: '22 to 24', share: 0.4, color: PALETTE.teal, tag: 'teal' },
  { name: '00 to 02', share: 0.35, color: PALETTE.amber, tag: 'amber' },
  { name: '02 to dawn', share: 0.25, color: PALETTE.coral, tag: 'coral' },
] as const;

const towards = (degrees: number, distance: number): Point => [
  Math.round(distance * Math.sin((degrees * Math.PI) / 180)),
  Math.round(-distance * Math.cos((degrees * Math.PI) / 180)),
];

export const ridersByHour = (project: ProjectBuilder): void => {
  const scene = project.scene('Riders by hour', {
    width: 1080,
    height: 1080,
    rate: { num: 30, den: 1 },
    length: 120,
    background: PALETTE.fog,
  });
  const middle: Point = [540, 600];
  scene.drawing({
    name: 'Title',
    tag: 'slate',
    at: [540, 150],
    items: [
      scene.card('text', { text: 'Riders by hour', font: NUMBER, size: 72 }),
      scene.card('fill', { color: PALETTE.midnight }),
    ],
  });
  let from = 0;
  HOURS.forEach(({ name, share, color, tag }, i) => {
    const angle = (from + share / 2) * 360;
    const wedge = scene.card('wedge', { share, start: from * 360, radius: 330, inner: 170 });
    const cards = [wedge, scene.card('fill', { color })];
    const layer = scene.drawing({ name, tag, at: middle, items: cards });
    const start = 8 + i * 12;
    scene.animate(layer, wedge, 'share', [
      [start, 0, open],
      [start + 22, share],
    ]);
    if (i === 1) {
      const [dx, dy] = towards(angle, 46);
      scene.animate(layer, undefined, 'position', [
        [64, middle, out],
        [76, [middle[0] + dx, middle[1] + dy]],
      ]);
    }
    scene.drawing({
      name: `${name} number`,
      tag,
      // Hangs from its slice: where that goes it goes too.
      parent: layer,
      at: towards(angle, 250),
      items: [
        scene.card('text', { text: `${Math.round(share * 100)} %`, font: NUMBER, size: 48, place: [0, 4] }),
        scene.card('text', { text: name, font: LABEL, size: 26, place: [0, 40] }),
        scene.card('fill', { color: PALETTE.ink }),
      ],
      keys: {
        opacity: [
          [start + 14, 0, open],
          [start + 26, 1],
        ],
      },
    });
    from += share;
  });
  scene.poster(100);
};
