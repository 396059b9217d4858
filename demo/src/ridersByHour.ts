/** Riders by hour: a ring from a table of numbers, whose parts open one after another with their shares and names; one of them pops out and rebounds. */
import type { FontChoice, Point } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import { PALETTE } from './palette';
import type { ProjectBuilder } from './builder';

const open = easeOfStrength({ start: 0.2, end: 0.7 });
const rebound = { kind: 'spring', bounces: 3, damping: 0.45 } as const;

const LABEL: FontChoice = { family: 'Space Grotesk', weight: 500, italic: false };
const NUMBER: FontChoice = { family: 'Unbounded', weight: 600, italic: false };

/** A night's riders. */
const HOURS = [
  { name: '22 to 24', riders: 1_240, color: PALETTE.teal },
  { name: '00 to 02', riders: 1_085, color: PALETTE.amber },
  { name: '02 to dawn', riders: 775, color: PALETTE.coral },
] as const;

export const ridersByHour = (project: ProjectBuilder): void => {
  const scene = project.scene('Riders by hour', {
    width: 1080,
    height: 1080,
    rate: { num: 30, den: 1 },
    length: 120,
    background: PALETTE.fog,
  });
  const middle: Point = [540, 610];
  scene.drawing({
    name: 'Title',
    tag: 'slate',
    at: [540, 150],
    items: scene.words('Riders by hour', NUMBER, 72, PALETTE.midnight),
  });
  const chart = scene.card('chart', {
    drawn: 'pie',
    numbers: HOURS.map(({ riders }) => riders),
    names: HOURS.map(({ name }) => name).join('\n'),
    width: 640,
    height: 640,
    inner: 0.5,
    stagger: 12,
    picked: 2,
  });
  const stops = HOURS.map(({ color }, i) => ({ at: i / (HOURS.length - 1), color }));
  const layer = scene.drawing({
    name: 'Ring',
    tag: 'amber',
    at: middle,
    items: [
      chart,
      scene.card('fill', { style: 'each', gradient: { stops } }),
      scene.card('labels', { written: 'share', after: ' %', place: 'middle', font: NUMBER, size: 44 }),
      scene.card('fill', { color: PALETTE.ink }),
      scene.card('labels', { written: 'name', font: LABEL, size: 34, away: 24 }),
      scene.card('fill', { color: PALETTE.ink }),
    ],
  });
  scene.animate(layer, chart, 'grown', [
    [8, 0, open],
    [30, 1],
  ]);
  scene.animate(layer, chart, 'out', [
    [64, 0, rebound],
    [88, 46],
  ]);
  // A chart of one number, which nothing paints: its label counts as it grows, by steps that can be read.
  const total = HOURS.reduce((sum, { riders }) => sum + riders, 0);
  const sum = scene.card('chart', { drawn: 'pie', numbers: [total], width: 0, height: 0 });
  const all = scene.drawing({
    name: 'All riders',
    tag: 'slate',
    at: middle,
    items: [
      sum,
      scene.card('labels', { place: 'middle', apart: ',', font: NUMBER, size: 60 }),
      scene.card('fill', { color: PALETTE.midnight }),
    ],
  });
  scene.animate(all, sum, 'grown', [
    [8, 0, { kind: 'steps', count: 8, jump: 'end' }],
    [54, 1],
  ]);
  scene.poster(100);
};
