/** Each check has a scene that trips it and one that does not. */
import { countingIds, newDrawing, newItem, newPicture, newProject, newScene } from '@kite/core/document/make';
import type {
  DrawingLayer,
  Ease,
  Id,
  Item,
  KeptSettings,
  Layer,
  Project,
  Scene,
  Value,
} from '@kite/core/document/types';
import { newDelivery } from '@kite/core/delivery/kept';
import { checkProject } from '@kite/core/check/project';
import { applyEdit } from '@kite/core/edits/apply';
import { applyMove } from '@kite/core/edits/moves';
import { setLayers } from '@kite/core/edits/layers';
import { splitText } from '@kite/core/edits/text';
import { contrastOf, lightOf } from '@kite/core/proof/light';
import { CHECKS, mendOf } from '@kite/core/proof/table';
import { DEFAULT_RULES, type Finding } from '@kite/core/proof/types';
import { READY_MOVES } from '@kite/core/moves/ready';
import { compileScene } from '@kite/core/scene/compile';
import { demoProject } from '@kite/demo/project';
import { describe, expect, it } from 'vitest';
import { EMPTY_STOCK, materialsFor } from './materials';
import { proofOfScene } from './proof';

const SIZE = { width: 300, height: 250, rate: { num: 30, den: 1 }, length: 90, background: '#1B1F4B' } as const;
const EMPTY: Scene = newScene('s', 'Late ticket', SIZE);
const LINEAR: Ease = { kind: 'linear' };
const keyed = (...keys: readonly (readonly [frame: number, value: Value])[]) => ({
  keys: keys.map(([frame, value]) => ({ frame, value, ease: LINEAR })),
});

const sceneOf = (layers: readonly Layer[], fields: Partial<Scene> = {}): Scene => ({
  ...EMPTY,
  ...fields,
  layers: Object.fromEntries(layers.map((layer) => [layer.id, layer])),
  order: layers.map((layer) => layer.id),
});
const words = (
  text: string,
  { size = 24, color = '#E9ECF5', ...fields }: Partial<DrawingLayer> & { size?: number; color?: string } = {},
) => {
  const font = { family: 'Inter', weight: 500, italic: false };
  const layer = newDrawing(EMPTY, 'w', 'Words', [
    newItem('t', 'text', { text, size, font }),
    newItem('f', 'fill', { color }),
  ]);
  return { ...layer, ...fields, params: { ...layer.params, ...fields.params } };
};
const block = (id: Id, color: string, width: number, height: number, fields: Partial<DrawingLayer> = {}) => {
  const layer = newDrawing(EMPTY, id, id, [
    newItem('r', 'rectangle', { width, height }),
    newItem('f', 'fill', { color }),
  ]);
  return { ...layer, ...fields, params: { ...layer.params, ...fields.params } };
};
const delivering = (scene: Scene, settings: KeptSettings): Project => {
  const deliveries = [newDelivery('d', 'Banner', [scene.id], settings)];
  return { ...newProject('p', 'Night line', [scene]), deliveries };
};
const projectOf = (of: Scene | Project): Project =>
  'order' in of && 'assets' in of ? of : newProject('p', 'Night line', [of as Scene]);

const proof = async (of: Scene | Project, weights?: ReadonlyMap<Id, number>): Promise<readonly Finding[]> => {
  const project = projectOf(of);
  checkProject(project);
  const stock = { ...EMPTY_STOCK, assets: project.assets };
  return proofOfScene(project.scenes[project.order[0] as Id] as Scene, project, stock, {
    rules: DEFAULT_RULES,
    ...(weights && { weights }),
  });
};
/** The findings of one check. */
const found = async (
  check: string,
  of: Scene | Project,
  weights?: ReadonlyMap<Id, number>,
): Promise<readonly Finding[]> => (await proof(of, weights)).filter((finding) => finding.check === check);
/** What a check still finds once its first finding is mended. */
const mended = async (check: string, of: Scene | Project): Promise<readonly Finding[]> => {
  const project = projectOf(of);
  const [first] = await found(check, project);
  const edit = first && mendOf(first, project, countingIds('m'));
  expect(edit).not.toBeNull();
  return found(check, applyEdit(project, edit as NonNullable<typeof edit>).doc);
};

const HTML5 = { format: 'html5', loop: 1, click: 'https://nighttram.example/' } as const;
const sentence = 'The town sleeps. We do not. Every twelve minutes till dawn';

interface Case {
  readonly check: string;
  readonly trips: Scene | Project;
  readonly says: RegExp;
  readonly passes: Scene | Project;
  readonly weights?: ReadonlyMap<Id, number>;
}
const CASES: readonly Case[] = [
  {
    check: 'working',
    trips: sceneOf([{ ...words('Ride home'), formulas: { opacity: { text: '1 / time(', on: true } } }]),
    says: /^“Words” .+\.$/,
    passes: sceneOf([words('Ride home')]),
  },
  {
    check: 'reading',
    // Eleven words in a second: at three a second they take 3.7.
    trips: sceneOf([words(sentence, { size: 9, from: 10, to: 40 })]),
    says: /is seen for 1\.0 s; reading it takes 3\.7 s/,
    passes: sceneOf([words('Ride home easy', { from: 10, to: 45 })]),
  },
  {
    check: 'textSize',
    trips: sceneOf([words('Ride home', { size: 6 })]),
    says: /is 6\.0 px; 7\.5 px is the least/,
    passes: sceneOf([words('Ride home', { size: 8 })]),
  },
  {
    check: 'contrast',
    trips: sceneOf([words('Ride home', { color: '#2A2E66' })]),
    says: /has a contrast of 1\.\d : 1/,
    passes: sceneOf([words('Ride home')]),
  },
  {
    check: 'cut',
    trips: sceneOf([words(sentence)]),
    says: /is cut by the edge of the picture/,
    // What runs through the picture is seen in the end.
    passes: sceneOf([words(sentence, { params: { position: keyed([0, [700, 125]], [89, [-400, 125]]) } })]),
  },
  {
    check: 'safeArea',
    trips: sceneOf([words('Ride home', { params: { position: { value: [62, 125] } } })]),
    says: /stands \d+ px outside the safe area/,
    passes: sceneOf([words('Ride home')]),
  },
  {
    check: 'endsEarly',
    trips: sceneOf([block('Lamp', '#FFB23E', 50, 50, { to: 84 })]),
    says: /^“Lamp” vanishes 6 frames before its scene ends\.$/,
    // It has faded out by then.
    passes: sceneOf([block('Lamp', '#FFB23E', 50, 50, { to: 84, params: { opacity: keyed([60, 1], [83, 0]) } })]),
  },
  {
    check: 'lateKeys',
    trips: sceneOf([block('Lamp', '#FFB23E', 50, 50, { params: { opacity: keyed([0, 1], [120, 0]) } })]),
    says: /as late as 120; the scene’s last frame is 89/,
    passes: sceneOf([block('Lamp', '#FFB23E', 50, 50, { params: { opacity: keyed([0, 1], [89, 0]) } })]),
  },
  {
    check: 'flashes',
    // Black and white every third frame at 30 a second: five flashes.
    trips: sceneOf([block('Flash', '#FFFFFF', 300, 250, { params: { opacity: keyed(...flicker(3)) } })]),
    says: /more than three times a second/,
    // Every tenth: one and a half.
    passes: sceneOf([block('Flash', '#FFFFFF', 300, 250, { params: { opacity: keyed(...flicker(10)) } })]),
  },
  {
    check: 'bannerTime',
    trips: delivering(sceneOf([words('Ride home')]), { ...HTML5, loop: 0, stop: 0 }),
    says: /moves for ever; ad servers allow 30 seconds/,
    passes: delivering(sceneOf([words('Ride home')]), { ...HTML5, loop: 3 }),
  },
  {
    check: 'bannerLoops',
    trips: delivering(sceneOf([words('Ride home')]), { ...HTML5, loop: 5 }),
    says: /plays more than 3 times/,
    passes: delivering(sceneOf([words('Ride home')]), { ...HTML5, loop: 3 }),
  },
  {
    check: 'bannerClick',
    trips: delivering(sceneOf([words('Ride home')]), { ...HTML5, click: '' }),
    says: /leads nowhere unless/,
    passes: delivering(sceneOf([words('Ride home')]), HTML5),
  },
  {
    check: 'weight',
    trips: delivering(sceneOf([words('Ride home')]), { ...HTML5, budget: 60 }),
    says: /weighed 80 KB when it was last rendered; its budget is 60 KB/,
    passes: delivering(sceneOf([words('Ride home')]), { ...HTML5, budget: 80 }),
    weights: new Map([['d', 80 * 1024]]),
  },
  {
    check: 'bannerFallback',
    trips: delivering(sceneOf([words('Ride home', { from: 20 })]), { ...HTML5, fallback: 0 }),
    says: /frame 0, is empty/,
    passes: delivering(sceneOf([words('Ride home', { from: 20 })]), { ...HTML5, fallback: 45 }),
  },
  {
    check: 'bannerBorder',
    trips: delivering(sceneOf([words('Ride home', { color: '#10132E' })], { background: '#FFFFFF' }), HTML5),
    says: /white at its edges and has no border/,
    passes: delivering(sceneOf([words('Ride home')]), HTML5),
  },
  {
    check: 'loop',
    trips: delivering(
      sceneOf([block('Tram', '#FFB23E', 60, 60, { params: { position: keyed([0, [40, 125]], [89, [260, 125]]) } })]),
      {
        format: 'gif',
      },
    ),
    says: /jumps from its last frame to its first/,
    passes: delivering(
      sceneOf([
        block('Tram', '#FFB23E', 60, 60, {
          params: { position: keyed([0, [40, 125]], [45, [260, 125]], [90, [40, 125]]) },
        }),
      ]),
      { format: 'gif' },
    ),
  },
];

function flicker(every: number): (readonly [number, Value])[] {
  // Held values: a keyframe just before each change.
  return Array.from({ length: Math.floor(90 / every) }, (_, i) => i).flatMap((i) => [
    [i * every, i % 2] as const,
    [(i + 1) * every - 1, i % 2] as const,
  ]);
}

describe('checks', () => {
  it.each(CASES)('$check trips where it should', async ({ check, trips, says, weights }) => {
    const [first] = await found(check, trips, weights);
    expect(first?.message ?? 'nothing').toMatch(says);
  });
  it.each(CASES)('$check passes what is right', async ({ check, passes, weights }) => {
    expect(await found(check, passes, weights)).toEqual([]);
  });
  it('words that move all the while', async () => {
    const moving = words('Ride home easy', { params: { position: keyed([0, [60, 125]], [89, [240, 125]]) } });
    expect((await found('reading', sceneOf([moving])))[0]?.message).toMatch(/moves nearly all the while/);
    const stops = words('Ride home easy', { params: { position: keyed([0, [60, 125]], [20, [150, 125]]) } });
    expect(await found('reading', sceneOf([stops]))).toEqual([]);
  });
  it('layers that are there before their entrance', async () => {
    const entrance = READY_MOVES.find((move) => move.kind === 'entrance' && move.scale === 0 && move.turn === 0);
    const scene = sceneOf([block('Lamp', '#FFB23E', 50, 50, { from: 20 })]);
    const pop = {
      ...(entrance ?? READY_MOVES[0]),
      kind: 'entrance',
      fade: 1,
      scale: 0.5,
      distance: 0,
      outside: false,
    } as never;
    const { doc } = applyEdit(
      projectOf(scene),
      applyMove(scene.id, ['Lamp'], 'v', pop, 30, () => 0, countingIds('n')),
    );
    const there = applyEdit(doc, setLayers(scene.id, ['Lamp'], { from: 0 })).doc;
    expect((await found('early', there))[0]?.message).toMatch(/^“Lamp” is seen before its entrance at frame \d+\.$/);
    expect(await mended('early', there)).toEqual([]);
    expect(await found('early', scene)).toEqual([]);
  });
  it('pictures larger than their pixels', async () => {
    const photo = {
      id: 'a',
      name: 'Quay.png',
      sha: 'a'.repeat(64),
      bytes: 1,
      kind: 'picture',
      type: 'image/png',
      width: 60,
      height: 50,
    } as const;
    const shown = (scale: number): Project => {
      const layer = newPicture(EMPTY, 'q', 'Quay', 'a');
      const scene = sceneOf([{ ...layer, params: { ...layer.params, scale: { value: [scale, scale] } } }]);
      return { ...projectOf(scene), assets: { a: photo } };
    };
    expect((await found('enlarged', shown(2)))[0]?.message).toBe(
      '“Quay” shows a picture 2.0 times as large as it has pixels for.',
    );
    expect(await found('enlarged', shown(1))).toEqual([]);
  });
  it('all are tried here', () => {
    const tried = [...CASES.map(({ check }) => check), 'early', 'enlarged'];
    expect([...tried].sort()).toEqual(CHECKS.map(({ kind }) => kind).sort());
  });
});

/** A project whose words in “w” are layers of their own. */
const inLetters = async (project: Project): Promise<Project> => {
  const scene = project.scenes.s as Scene;
  const { library } = await materialsFor(scene, EMPTY_STOCK);
  const place = { scene: 's', layer: 'w', item: 't' };
  return applyEdit(project, splitText(place, 'letters', 0, compileScene(scene, library), countingIds('l'))).doc;
};

describe('words whose letters are layers', () => {
  const OF_TEXTS = CASES.filter(({ check }) => ['reading', 'textSize', 'contrast', 'cut', 'safeArea'].includes(check));
  it.each(OF_TEXTS)('are told what they are as one text: $check', async ({ check, trips, passes }) => {
    const messages = async (project: Project) => (await found(check, project)).map(({ message }) => message);
    for (const project of [trips, passes].map(projectOf)) {
      expect(await messages(await inLetters(project))).toEqual(await messages(project));
    }
  });
  it('are read once the last of them is there', async () => {
    const project = await inLetters(projectOf(sceneOf([words('Ride home easy', { from: 10, to: 45 })])));
    const last = (project.scenes.s as Scene).sets[0]?.members.at(-1) as Id;
    expect(await found('reading', project)).toEqual([]);
    const late = applyEdit(project, setLayers('s', [last], { from: 26 })).doc;
    expect((await found('reading', late))[0]?.message).toBe(
      '“Ride home easy” is seen for 0.6 s; reading it takes 1.0 s.',
    );
    // One that is hidden is not waited for.
    const hidden = applyEdit(late, setLayers('s', [last], { hidden: true })).doc;
    expect(await found('reading', hidden)).toEqual([]);
  });
  it('are moved into the safe area together', async () => {
    const [{ trips }] = CASES.filter(({ check }) => check === 'safeArea') as [Case];
    expect(await mended('safeArea', await inLetters(projectOf(trips)))).toEqual([]);
  });
});

describe('a press mends', () => {
  it.each(CASES.filter(({ check }) => CHECKS.some(({ kind, mend }) => kind === check && mend)))(
    '$check',
    async ({ check, trips }) => {
      expect(await mended(check, trips)).toEqual([]);
    },
  );
});

describe('measures', () => {
  it('contrast as WCAG 2.2 has it', () => {
    // Black and white are 21 : 1; #767676 is the known grey of 4.54 : 1 on white.
    expect(contrastOf(lightOf([0, 0, 0]), lightOf([255, 255, 255]))).toBeCloseTo(21, 5);
    expect(contrastOf(lightOf([0x76, 0x76, 0x76]), 1)).toBeCloseTo(4.54, 2);
  });
  it('bold text that fills its box, beside others, is read against what is right beside its letters', async () => {
    const bold = (color: string) => words('HHH', { size: 90, color, params: { position: { value: [150, 150] } } });
    // A line as light as the letters below them, within their box.
    const near = block('Line', '#E9ECF5', 200, 20, { params: { position: { value: [150, 128] } } });
    expect(await found('contrast', sceneOf([bold('#E9ECF5')]))).toEqual([]);
    expect(await found('contrast', sceneOf([bold('#2A2E66')]))).toHaveLength(1);
    expect(await found('contrast', sceneOf([bold('#FFB23E'), near]))).toEqual([]);
  });
  it('text on a plate of its own is read against the plate', async () => {
    const plate = { ...newItem('g', 'group'), children: ['r', 'rf'] };
    const items: readonly Item[] = [
      plate,
      newItem('r', 'rectangle', { width: 290, height: 240 }),
      newItem('rf', 'fill', { color: '#2A2E66' }),
      { ...newItem('h', 'group'), children: ['t', 'tf'] },
      newItem('t', 'text', { text: 'Plan my ride', size: 20, font: { family: 'Inter', weight: 600, italic: false } }),
      newItem('tf', 'fill', { color: '#E9ECF5' }),
    ];
    expect(await found('contrast', sceneOf([newDrawing(EMPTY, 'b', 'Button', items)]))).toEqual([]);
    const dark = items.map((item) => (item.id === 'tf' ? newItem('tf', 'fill', { color: '#32366E' }) : item));
    expect(await found('contrast', sceneOf([newDrawing(EMPTY, 'b', 'Button', dark)]))).toHaveLength(1);
    // The plate reaches the edges; the words do not.
    expect(await found('safeArea', sceneOf([newDrawing(EMPTY, 'b', 'Button', items)]))).toEqual([]);
  });
});

it('of versions is told what is not so in the project itself, by their names', async () => {
  const small = { size: 6, params: { position: { value: [150, 200] as const } } };
  const scene = sceneOf([words('Ride home', { from: 10, to: 45 }), { ...words('Late', small), id: 'l', name: 'Late' }]);
  const column = {
    id: 'c',
    name: 'Ride',
    kind: 'words' as const,
    places: [{ scene: 's', layer: 'w', item: 't', key: 'text' }],
  };
  const said = (id: string, name: string, text: string) => ({ id, name, values: { c: text } });
  const rows = [
    said('short', 'Kurz', 'Heim'),
    said('long', 'Lang', sentence.replaceAll('. ', '.\n').replace('twelve ', 'twelve\n')),
    said('wide', 'Breit', sentence),
    { id: 'none', name: 'Wie sonst', values: {} },
  ];
  const project = { ...newProject('p', 'Night line', [scene]), versions: { columns: [column], rows } };
  const all = await proof(project);
  // What is small is so in all of them.
  expect(all.filter(({ check }) => check === 'textSize')).toMatchObject([
    { layer: 'l', message: expect.stringContaining('“Late” is 6.0 px') as string },
  ]);
  const ofVersions = all.filter(({ version }) => version !== undefined);
  expect(ofVersions).toMatchObject([
    { check: 'reading', version: 'long', layer: 'w' },
    { check: 'cut', version: 'wide', layer: 'w' },
  ]);
  expect((await proof(await inLetters(project))).map(({ check, version }) => [check, version])).toContainEqual([
    'cut',
    'wide',
  ]);
  expect(ofVersions[0]?.message).toBe(
    'In “Lang”: “The town sleeps. We do not. Every twelve” is seen for 1.2 s; reading it takes 3.7 s.',
  );
  expect(ofVersions.every(({ mend, value }) => mend === undefined && value === undefined)).toBe(true);
});

it('the demo passes but for what is told here', async () => {
  const project = demoProject();
  const all: string[] = [];
  for (const id of project.order) {
    const scene = project.scenes[id] as Scene;
    const stock = { ...EMPTY_STOCK, assets: project.assets };
    const list = await proofOfScene(scene, project, stock, { rules: DEFAULT_RULES });
    all.push(...list.map(({ message }) => `${scene.name}: ${message}`));
  }
  expect(all).toEqual([]);
});
