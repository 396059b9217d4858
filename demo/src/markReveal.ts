/** Mark reveal: rails drawn on by trims, the moon's spring, a burst of round-cap dashes, letters in a stagger. */
import type { Ease, FontChoice, Item } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder, SceneBuilder } from './builder';
import { crescent } from './crescent';
import { LETTERS } from './letters';
import { PALETTE } from './palette';

const arrive = easeOfStrength({ start: 0.1, end: 0.8 });
/** Past its end and back, as a spring's first swing. */
const swing: Ease = { kind: 'bezier', x1: 0.3, y1: 0.2, x2: 0.3, y2: 1.7 };
/** When the name comes. */
const NAME = 52;
const NAME_FONT: FontChoice = { family: 'Unbounded', weight: 600, italic: false };

const settle = easeOfStrength({ start: 0.4, end: 0.5 });

/** The mark alone, in a scene of its own. */
const mark = (project: ProjectBuilder): SceneBuilder => {
  const scene = project.scene('Mark reveal', {
    width: 1920,
    height: 1080,
    rate: { num: 30, den: 1 },
    length: 120,
    background: PALETTE.midnight,
  });

  scene.drawing({
    name: 'Night sky',
    tag: 'slate',
    items: [
      scene.card('rectangle', { width: 1920, height: 1080 }),
      scene.card('fill', {
        style: 'radial',
        gradient: {
          stops: [
            { at: 0, color: '#2C3272' },
            { at: 1, color: PALETTE.midnight },
          ],
        },
        from: [0, -80],
        to: [0, 820],
      }),
    ],
  });

  const rails = [
    { name: 'Lower rail', y: 770, half: 300, start: 6 },
    { name: 'Upper rail', y: 700, half: 420, start: 0 },
  ];
  for (const { name, y, half, start } of rails) {
    const trim = scene.card('trim');
    const line = scene.card('line', { from: [-half, 0], to: [half, 0] });
    const stroke = scene.card('stroke', { color: PALETTE.teal, width: 26 });
    const layer = scene.drawing({ name, tag: 'teal', at: [960, y], items: [line, trim, stroke] });
    scene.animate(layer, trim, 'start', [
      [start, 0.5, arrive],
      [start + 30, 0],
    ]);
    scene.animate(layer, trim, 'end', [
      [start, 0.5, arrive],
      [start + 30, 1],
    ]);
  }

  const ray = scene.card('line', { from: [0, -300], to: [0, -390] });
  const rayTrim = scene.card('trim');
  const burst = scene.drawing({
    name: 'Lamp burst',
    tag: 'amber',
    at: [960, 400],
    from: 34,
    to: 92,
    items: [
      ray,
      rayTrim,
      scene.card('stroke', { color: PALETTE.amber, width: 14 }),
      scene.card('repeater', { copies: 24, position: [0, 0], rotation: 15, delay: 0.5 }),
    ],
  });
  scene.animate(burst, rayTrim, 'start', [
    [48, 0, arrive],
    [70, 1],
  ]);
  scene.animate(burst, rayTrim, 'end', [
    [38, 0, arrive],
    [60, 1],
  ]);

  const lamp = scene.drawing({
    name: 'Lamp ring',
    tag: 'amber',
    at: [960, 400],
    from: 30,
    items: [
      scene.card('ellipse', { width: 540, height: 540 }),
      scene.card('stroke', { color: PALETTE.amber, width: 10, dashes: [0, 33.93], opacity: 0.9 }),
    ],
    keys: {
      opacity: [
        [30, 0, arrive],
        [56, 1],
      ],
    },
  });
  scene.animate(lamp, undefined, 'rotation', [
    [30, -40, arrive],
    [119, 0],
  ]);

  scene.drawing({
    name: 'Moon',
    tag: 'coral',
    at: [960, 400],
    from: 14,
    items: [scene.card('path', { path: crescent(210, [86, -52], 172) }), scene.card('fill', { color: PALETTE.amber })],
    keys: {
      position: [
        [14, [960, 690], arrive],
        [40, [960, 400]],
      ],
      scale: [
        [14, [0, 0], swing],
        [40, [1, 1], settle],
      ],
      rotation: [
        [14, -90, swing],
        [48, 0],
      ],
    },
  });

  scene.marker(14, 'Moon');
  scene.marker(NAME, 'Name');
  scene.poster(112);
  return scene;
};

/** Under the mark its name, each letter in strokes of its own. */
export const markReveal = (project: ProjectBuilder): void => {
  const scene = mark(project);
  const word = scene.controller('Wordmark', [960, 960], 'violet');
  const tracking = 34;
  const letters = [...'Night Tram'].map((letter) => ({ letter, ...(LETTERS[letter] ?? { width: 0, strokes: [] }) }));
  const total = letters.reduce((sum, l) => sum + l.width + tracking, -tracking);
  let x = -total / 2;
  let order = 0;
  for (const { letter, width, strokes } of letters) {
    const left = x;
    x += width + tracking;
    if (strokes.length === 0) continue;
    const start = NAME + 2 * order++;
    const trim = scene.card('trim', { mode: 'in-turn' });
    const layer = scene.drawing({
      name: letter,
      tag: 'blue',
      parent: word,
      from: start,
      items: [
        ...strokes.map((path) => scene.card('path', { path })),
        trim,
        scene.card('stroke', { color: PALETTE.fog, width: 15 }),
      ],
      keys: {
        position: [
          [start, [left, 46], arrive],
          [start + 24, [left, 0]],
        ],
        opacity: [
          [start, 0, arrive],
          [start + 10, 1],
        ],
      },
    });
    scene.animate(layer, trim, 'end', [
      [start, 0, arrive],
      [start + 30, 1],
    ]);
  }
};

/** Under the mark any name: its outlines draw themselves one after another, and are filled. */
export const namedReveal = (project: ProjectBuilder): void => {
  const scene = mark(project);
  const [text, fill] = scene.words('Night Tram', NAME_FONT, 110, PALETTE.fog) as [Item, Item];
  const trim = scene.card('trim', { mode: 'in-turn' });
  const stroke = scene.card('stroke', { color: PALETTE.fog, width: 5 });
  const name = scene.drawing({
    name: 'Name',
    tag: 'blue',
    at: [960, 980],
    from: NAME,
    items: [text, fill, trim, stroke],
  });
  scene.animate(name, trim, 'end', [
    [NAME, 0, arrive],
    [NAME + 40, 1],
  ]);
  scene.animate(name, fill, 'opacity', [
    [NAME + 26, 0, arrive],
    [NAME + 48, 1],
  ]);
};
