/**
 * Window grid: one window, nested for each stop in its line's colour and with its name; then they open on the night behind,
 * which a repeater of panes cuts.
 */
import type { Point } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder, SceneBuilder } from './builder';
import { PALETTE } from './palette';

const RATE = { num: 24, den: 1 };
const arrive = easeOfStrength({ start: 0.1, end: 0.8 });
const leave = easeOfStrength({ start: 0.7, end: 0.1 });
const pop = { kind: 'bezier', x1: 0.3, y1: 0.2, x2: 0.4, y2: 1.5 } as const;

const SIDE = 400;
const PANE = { width: 360, height: 360, radius: 28 };
/** What two lines share is of neither colour. */
const STOPS: readonly (readonly [name: string, color: string])[] = [
  ['Harbour Steps', PALETTE.amber],
  ['Ropewalk', PALETTE.amber],
  ['Quill Square', PALETTE.fog],
  ['Observatory', PALETTE.amber],
  ['Mill Lane', PALETTE.teal],
  ['Saltings', PALETTE.teal],
];
const placeOf = (i: number): Point => [960 + ((i % 3) - 1) * SIDE, 540 + (Math.floor(i / 3) - 0.5) * SIDE];

const litWindow = (project: ProjectBuilder): SceneBuilder => {
  const scene = project.scene('Lit window', { width: SIDE, height: SIDE, rate: RATE, length: 48, background: null });
  const pane = scene.card('rectangle', PANE);
  const light = scene.card('fill', { color: PALETTE.amber });
  const window = scene.drawing({
    name: 'Pane',
    tag: 'amber',
    items: [pane, light],
    keys: {
      scale: [
        [0, [0, 0], pop],
        [14, [1, 1]],
      ],
    },
  });
  const words = scene.card('text', {
    text: 'Stop',
    font: { family: 'Space Grotesk', weight: 700, italic: false },
    size: 44,
  });
  const name = scene.drawing({
    name: 'Name',
    tag: 'slate',
    items: [words, scene.card('fill', { color: PALETTE.ink })],
    keys: {
      position: [
        [8, [SIDE / 2, SIDE / 2 + 90], arrive],
        [22, [SIDE / 2, SIDE / 2 + 16]],
      ],
      opacity: [
        [8, 0],
        [14, 1],
      ],
    },
  });
  const rig = scene.controller('Window', [40, 40], 'violet');
  scene.knob(rig, { kind: 'color', name: 'Light', value: PALETTE.amber });
  scene.knob(rig, { kind: 'text', name: 'Stop', value: 'Stop' });
  scene.formula(window, 'color', '{Window / Light}', light);
  scene.formula(name, 'text', '{Window / Stop}', words);
  scene.poster(40);
  return scene;
};

export const windowGrid = (project: ProjectBuilder): void => {
  const inner = litWindow(project);
  const scene = project.scene('Window grid', {
    width: 1920,
    height: 1080,
    rate: RATE,
    length: 192,
    background: PALETTE.midnight,
  });

  const moon = scene.card('ellipse', { width: 420, height: 420, centre: [-120, -60] });
  const moonlight = scene.card('fill', { color: PALETTE.fog });
  const night = scene.drawing({
    name: 'Night outside',
    tag: 'blue',
    from: 84,
    items: [
      scene.card('rectangle', { width: 1920, height: 1080 }),
      scene.card('fill', {
        style: 'linear',
        gradient: {
          stops: [
            { at: 0, color: PALETTE.teal },
            { at: 1, color: PALETTE.ink },
          ],
        },
        from: [0, -300],
        to: [0, 420],
      }),
      ...scene.holding('group', [moon, moonlight], {}, 'Moon'),
    ],
    keys: {
      position: [
        [84, [1080, 540], arrive],
        [191, [900, 540]],
      ],
    },
  });
  const panes = scene.drawing({
    name: 'Panes',
    tag: 'violet',
    items: [
      scene.card('rectangle', PANE),
      scene.card('repeater', { layout: 'grid', columns: 3, rows: 2, spacing: [SIDE, SIDE] }),
      scene.card('fill', { color: PALETTE.fog }),
    ],
  });
  scene.cut(panes, [night]);

  STOPS.forEach(([name, light], i) => {
    const window = scene.nest({
      name,
      inner: inner.id,
      at: placeOf(i),
      start: 6 + 9 * i,
      settings: { Light: light, Stop: name },
    });
    scene.animate(window, undefined, 'scale', [
      [96 + 5 * i, [1, 1], leave],
      [110 + 5 * i, [0, 1]],
    ]);
  });
  scene.poster(88);
};
