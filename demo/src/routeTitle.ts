/** Route title: two lines drawn on, their stops popping in order, names sliding out of mattes. */
import type { FontChoice, PathValue, Point, Vertex } from '@kite/core/document/types';
import { easeOfStrength } from '@kite/core/motion/eases/table';
import type { ProjectBuilder, SceneBuilder } from './builder';
import { PALETTE } from './palette';

const draw = easeOfStrength({ start: 0.3, end: 0.3 });
const arrive = easeOfStrength({ start: 0.1, end: 0.8 });
const pop = { kind: 'bezier', x1: 0.3, y1: 0.2, x2: 0.4, y2: 1.9 } as const;

const STOP: FontChoice = { family: 'Space Grotesk', weight: 500, italic: false };
const TITLE: FontChoice = { family: 'Unbounded', weight: 700, italic: false };

const ABOVE: Point = [0, -48];
const BELOW: Point = [0, 78];

interface Stop {
  readonly name: string;
  readonly at: Point;
  /** Where its name stands from it. */
  readonly nameAt: Point;
}
interface Line {
  readonly name: string;
  readonly color: string;
  readonly tag: 'amber' | 'teal';
  readonly start: number;
  readonly end: number;
  readonly stops: readonly Stop[];
  readonly path: readonly Vertex[];
}

const LINES: readonly Line[] = [
  {
    name: 'Teal line',
    color: PALETTE.teal,
    tag: 'teal',
    start: 34,
    end: 84,
    stops: [
      { name: 'Mill Lane', at: [430, 230], nameAt: ABOVE },
      { name: 'Saltings', at: [1500, 760], nameAt: BELOW },
    ],
    path: [
      [430, 230, 0, 0, 260, 0],
      [1000, 460, -180, -180, 180, 180],
      [1500, 760, -220, 0, 0, 0],
    ],
  },
  {
    name: 'Amber line',
    color: PALETTE.amber,
    tag: 'amber',
    start: 6,
    end: 60,
    stops: [
      { name: 'Harbour Steps', at: [280, 700], nameAt: BELOW },
      { name: 'Ropewalk', at: [640, 620], nameAt: BELOW },
      { name: 'Quill Square', at: [1000, 460], nameAt: [24, -96] },
      { name: 'Observatory', at: [1560, 260], nameAt: ABOVE },
    ],
    path: [
      [280, 700, 0, 0, 160, 0],
      [640, 620, -140, 50, 140, -50],
      [1000, 460, -120, 70, 180, -105],
      [1560, 260, -240, 0, 0, 0],
    ],
  },
];

const path = (vertices: readonly Vertex[]): PathValue => ({ closed: false, vertices });

interface Words {
  readonly text: string;
  readonly font: FontChoice;
  readonly size: number;
  readonly color: string;
  readonly at: Point;
  readonly from: number;
  readonly align: 'left' | 'center';
}

/** Texts that slide up into view behind one layer of windows, which cuts them all. */
const slidingTexts = (scene: SceneBuilder, name: string, texts: readonly Words[]): void => {
  const layers = texts.map(({ text, font, size, color, at, from, align }) => {
    const items = [scene.card('text', { text, font, size, align }), scene.card('fill', { color })];
    const keys = {
      position: [
        [from, [at[0], at[1] + size * 1.5], arrive],
        [from + 18, at],
      ] as const,
    };
    return scene.drawing({ name: text, tag: 'slate', items, keys });
  });
  const windows = texts.map(({ text, size, at, align }) => {
    const width = size * text.length;
    const centre: Point = [at[0] + (align === 'left' ? width / 2 : 0), at[1] - size * 0.3];
    return scene.card('rectangle', { width, height: size * 1.5, centre });
  });
  const cutting = scene.drawing({
    name,
    tag: 'violet',
    at: [0, 0],
    items: [...windows, scene.card('fill')],
  });
  scene.cut(cutting, layers);
};

export const routeTitle = (project: ProjectBuilder): void => {
  const scene = project.scene('Route title', {
    width: 1920,
    height: 1080,
    rate: { num: 25, den: 1 },
    length: 150,
    background: PALETTE.midnight,
  });

  for (const { name, color, tag, start, end, path: vertices } of LINES) {
    const line = scene.card('path', { path: path(vertices) });
    const trim = scene.card('trim');
    const stroke = scene.card('stroke', { color, width: 18 });
    const layer = scene.drawing({ name, tag, at: [0, 0], items: [line, trim, stroke] });
    scene.animate(layer, trim, 'end', [
      [start, 0, draw],
      [end, 1],
    ]);
  }

  const words: Words[] = [];
  for (const { tag, color, start, end, stops } of LINES) {
    const [first, last] = [stops[0] as Stop, stops.at(-1) as Stop];
    for (const { name, at, nameAt } of stops) {
      // A stop pops when the line comes to it.
      const share = (at[0] - first.at[0]) / (last.at[0] - first.at[0]);
      const arrives = Math.round(start + (end - start) * share);
      scene.drawing({
        name: `${name} stop`,
        tag,
        at,
        items: [
          scene.card('ellipse', { width: 44, height: 44 }),
          scene.card('fill', { color: PALETTE.midnight }),
          scene.card('stroke', { color, width: 12 }),
        ],
        keys: {
          scale: [
            [arrives, [0, 0], pop],
            [arrives + 10, [1, 1]],
          ],
        },
      });
      words.push({
        text: name,
        font: STOP,
        size: 40,
        color: PALETTE.fog,
        at: [at[0] + nameAt[0], at[1] + nameAt[1]],
        from: arrives + 4,
        align: 'center',
      });
    }
  }

  const amber = LINES.find((line) => line.name === 'Amber line') as Line;
  const tram = scene.drawing({
    name: 'Tram',
    tag: 'coral',
    from: 70,
    items: [
      scene.card('rectangle', { width: 92, height: 36, radius: 14 }),
      scene.card('fill', { color: PALETTE.coral }),
      scene.card('rectangle', { width: 52, height: 12, radius: 6, centre: [6, 0] }),
      scene.card('fill', { color: PALETTE.fog }),
    ],
  });
  scene.ride(tram, amber.path, 74, 138, draw);
  scene.marker(60, 'Lines drawn');
  scene.marker(86, 'Title');

  words.push(
    {
      text: 'Last tram 02:40',
      font: TITLE,
      size: 84,
      color: PALETTE.amber,
      at: [150, 930],
      from: 86,
      align: 'left',
    },
    {
      text: 'Every 12 minutes till dawn',
      font: STOP,
      size: 40,
      color: PALETTE.fog,
      at: [150, 1000],
      from: 96,
      align: 'left',
    },
  );
  slidingTexts(scene, 'Windows of the stops', words.slice(0, -2));
  slidingTexts(scene, 'Window of the title', words.slice(-2, -1));
  slidingTexts(scene, 'Window of the line below', words.slice(-1));
  scene.poster(130);
};
