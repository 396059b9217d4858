import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import {
  FORMAT_VERSION,
  newController,
  newDrawing,
  newItem,
  newPicture,
  newProject,
  newScene,
  newRoutine,
} from '../document/make';
import type { DrawingLayer, Layer, Project } from '../document/types';
import { ARCHIVE_LIMITS, fitsArchive, readArchive, streamArchive, writeArchive } from '../interchange/archive';
import { Invalid } from './problem';
import { checkProject } from './project';
import { checkSettings } from './settings';
import { upgraded } from './versions';

const size = { width: 300, height: 250, rate: { num: 30000, den: 1001 }, length: 50, background: null };
const scene = newScene('s', 'Banner', size);
const layer = (id: string, fields: Partial<Layer> = {}): Layer =>
  ({
    ...newDrawing(scene, id, id, [newItem('r', 'rectangle'), newItem('f', 'fill'), newItem('x', 'repeater')]),
    ...fields,
  }) as Layer;
const project = (...layers: Layer[]): Project =>
  newProject('p', 'Night pass', [
    { ...scene, layers: Object.fromEntries(layers.map((l) => [l.id, l])), order: layers.map((l) => l.id) },
  ]);
/** A project with one thing in it put wrong. */
const broken = (path: string, value: unknown): unknown => {
  const doc = JSON.parse(JSON.stringify(project(layer('a'), layer('b')))) as Record<string, unknown>;
  const keys = path.split('.');
  let at = doc;
  for (const key of keys.slice(0, -1)) at = at[key] as Record<string, unknown>;
  at[keys.at(-1) as string] = value;
  return doc;
};
const problem = (work: () => unknown): string => {
  try {
    work();
  } catch (error) {
    expect(error).toBeInstanceOf(Invalid);
    return (error as Error).message;
  }
  return 'passed';
};

describe('the schema', () => {
  it('passes what the product makes', () => {
    expect(checkProject(project(layer('a'), layer('b', { parent: 'a' })))).toBeTruthy();
  });
  const L = 'scenes.s.layers.a';
  it.each<[string, string, unknown, string]>([
    [
      'an opacity over 1',
      `${L}.params.opacity`,
      { value: 7 },
      'scenes.s.layers.a.params.opacity.value: got 7, wanted a number from 0 to 1',
    ],
    ['NaN', `${L}.params.rotation`, { value: NaN }, 'params.rotation.value: got NaN, wanted a number'],
    ['a text for a number', `${L}.params.rotation`, { value: '9' }, 'got the text "9", wanted a number'],
    [
      'a million copies',
      `${L}.items.x.params.copies`,
      { value: 1e6 },
      'items.x.params.copies.value: got 1000000, wanted a number from 0 to 1000',
    ],
    ['an unknown field', `${L}.params.speed`, { value: 1 }, 'unknown fields: speed'],
    ['an unknown card', `${L}.items.r.kind`, 'blob', 'items.r.kind: got the text "blob", wanted one of rectangle'],
    ['a huge scene', 'scenes.s.width', 1e6, 'scenes.s.width: got 1000000, wanted a whole number from 1 to 8192'],
    [
      'keyframes out of order',
      `${L}.params.rotation`,
      {
        keys: [
          { frame: 5, value: 1, ease: { kind: 'linear' } },
          { frame: 5, value: 2, ease: { kind: 'linear' } },
        ],
      },
      'rising order',
    ],
    [
      'keyframes at what is no number, and cannot be made one',
      `${L}.params.rotation`,
      {
        keys: [
          { frame: { toString: 1 }, value: 1, ease: { kind: 'linear' } },
          { frame: { valueOf: null }, value: 1, ease: { kind: 'linear' } },
        ],
      },
      'frame',
    ],
    [
      'an ease beyond its span',
      `${L}.params.rotation`,
      { keys: [{ frame: 5, value: 1, ease: { kind: 'bezier', x1: -1, y1: 0, x2: 1, y2: 1 } }] },
      'ease.x1: got -1',
    ],
    [
      'handles on a number',
      `${L}.params.rotation`,
      { keys: [{ frame: 0, value: 1, ease: { kind: 'linear' }, handles: [0, 0, 0, 0] }] },
      'has unknown fields: handles',
    ],
    [
      'three handles',
      `${L}.params.position`,
      { keys: [{ frame: 0, value: [1, 2], ease: { kind: 'linear' }, handles: [0, 0, 0] }] },
      'position.keys[0].handles: got a list of 3, wanted four numbers',
    ],
    ['parts of a number', `${L}.params.rotation`, { parts: [{ value: 1 }, { value: 2 }] }, 'unknown fields: parts'],
    [
      'a part that is a point',
      `${L}.params.position`,
      { parts: [{ value: 1 }, { value: [2, 3] }] },
      'position.parts[1].value: got a list of 2, wanted a number',
    ],
    [
      'one part',
      `${L}.params.position`,
      { parts: [{ value: 1 }] },
      'position.parts: got a list of 1, wanted two parts, x and y',
    ],
    [
      'a marker before the scene',
      'scenes.s.markers',
      [{ id: 'm', frame: -1, name: 'Doors' }],
      'markers[0].frame: got -1, wanted a whole number from 0',
    ],
    [
      'a routine that fades to twice',
      'scenes.s.routines',
      [newRoutine('r', 'R', [{ kind: 'fade', value: 2, frames: 5, gap: 0, ease: { kind: 'linear' } }], [])],
      'routines[0].steps[0].value: got 2, wanted a number from 0 to 1',
    ],
    [
      'an unknown move',
      `${L}.moves`,
      [
        {
          id: 'm',
          from: 0,
          to: 5,
          away: 0,
          move: { kind: 'teleport', name: 'T', frames: 5, ease: { kind: 'linear' } },
        },
      ],
      'moves[0].move',
    ],
    ['a layer that ends before it begins', `${L}.to`, -1, `${L}.to: got -1, wanted more than its first frame 0`],
    ['a parent that is not there', `${L}.parent`, 'zz', 'there is no layer "zz"'],
    ['an order that misses a layer', 'scenes.s.order', ['a'], 'scenes.s.order: must name each'],
    ['a card in two places', `${L}.recipe`, ['r', 'f', 'x', 'q'], 'names a card "q"'],
    ['a reserved key', `${L}.parent`, 'constructor', 'wanted an id or null'],
    ['a list for a project', 'scenes', [], 'scenes: got a list of 0, wanted an object'],
  ])('refuses %s, naming field, value and limit', (_name, path, value, message) => {
    expect(problem(() => checkProject(broken(path, value)))).toContain(message);
  });
  it('refuses a cycle of parents, naming it', () => {
    const cycle = project(layer('a', { parent: 'b' }), layer('b', { parent: 'a' }));
    expect(problem(() => checkProject(cycle))).toContain('layers are parents of each other: a → b → a');
  });
  it.each([[null], [3], ['text'], [[]]])('refuses %j for a whole document', (value) => {
    expect(problem(() => checkProject(value))).toContain('the document: got');
  });
});

describe('assets', () => {
  const sha = 'ab'.repeat(32);
  const asset = {
    id: 'p',
    name: 'Lamp',
    sha,
    bytes: 9,
    kind: 'picture',
    type: 'image/png',
    width: 3,
    height: 2,
  } as const;
  const font = {
    id: 'f',
    name: 'Own',
    sha,
    bytes: 9,
    kind: 'font',
    family: 'Own',
    weight: 400,
    italic: false,
    weights: null,
  } as const;
  const shown = newPicture(scene, 'l', 'Lamp', 'p');
  const withAssets = (assets: object, layer: Layer = shown) => ({ ...project(layer), assets });
  it('pass when sound', () => {
    expect(checkProject(withAssets({ p: asset, f: font }))).toBeTruthy();
  });
  it.each([
    ['a picture that is gone', withAssets({}), 'shows a picture “p” that is not there'],
    ['a font for a picture', withAssets({ p: { ...font, id: 'p' } }), 'shows a picture “p” that is not there'],
    ['a name that is no SHA-256', withAssets({ p: { ...asset, sha: '../../etc' } }), 'wanted a SHA-256'],
    ['a type that runs scripts', withAssets({ p: { ...asset, type: 'image/svg+xml' } }), 'assets.p.type'],
    ['an id that is not its key', withAssets({ p: { ...asset, id: 'q' } }), 'does not match its key'],
    [
      'a cut with a seed of no number',
      withAssets(
        { p: asset },
        newDrawing(scene, 'l', 'Lamp', [
          newItem('c', 'picture', {
            asset: 'p',
            cut: { seeds: [{ x: NaN, y: 0, tolerance: 0 }], grow: 0, soften: 0, strokes: [] },
          }),
        ]),
      ),
      'wanted a cut',
    ],
  ])('are refused: %s', (_name, value, message) => {
    expect(problem(() => checkProject(value))).toContain(message);
  });
  it('go into the archive by their SHA-256, and come out as they were', () => {
    const doc = checkProject(withAssets({ p: asset }));
    const bytes = new Uint8Array([1, 2, 3]);
    const read = readArchive(
      writeArchive(
        doc,
        new Map([
          [sha, bytes],
          ['cd'.repeat(32), bytes],
        ]),
      ),
    );
    expect(read.project).toEqual(doc);
    expect([...read.files]).toEqual([[sha, bytes]]);
  });
});

describe('versions', () => {
  it('format 1 becomes today’s, and is sound', () => {
    const old = JSON.parse(JSON.stringify(project(layer('a'), newController(scene, 'c', 'Rig')))) as Record<
      string,
      unknown
    >;
    const s = (old.scenes as Record<string, Record<string, unknown>>).s!;
    const layers = s.layers as Record<string, Record<string, unknown>>;
    delete old.assets;
    delete old.swatches;
    delete old.eases;
    delete s.guides;
    delete s.markers;
    delete s.routines;
    delete old.moves;
    for (const l of Object.values(layers)) for (const key of ['tucked', 'knobs', 'panel', 'moves']) delete l[key];
    expect(checkProject(upgraded({ ...old, version: 1 }))).toEqual(
      project(layer('a'), newController(scene, 'c', 'Rig')),
    );
  });
  const steps = new Map([
    [1, (d: Record<string, unknown>) => ({ ...d, title: d.name })],
    [2, (d: Record<string, unknown>) => ({ ...d, title: `${String(d.title)}!` })],
  ]);
  it('turns pictures and nests of format 4 into cards, with all that belongs to them', () => {
    const layer = { ...newDrawing(scene, 'x', 'X', []), moves: [] } as Record<string, unknown>;
    delete layer.items;
    delete layer.recipe;
    const cut = { seeds: [], grow: -1, soften: 2, strokes: [] };
    const four = {
      version: 4,
      scenes: {
        s: {
          layers: {
            p: { ...layer, id: 'p', kind: 'picture', asset: 'lamp', cut },
            n: {
              ...layer,
              id: 'n',
              kind: 'nest',
              scene: 'inner',
              start: 12,
              params: { position: { value: [1, 2] }, speed: { value: 2 } },
              formulas: {
                rotation: { text: '{@this/speed} + {@n/position}.x', on: true },
                speed: { text: '{@p/rotation}', on: false },
              },
            },
          },
        },
      },
    };
    const { p, n } = (upgraded(four, 5) as typeof four).scenes.s.layers as unknown as Record<string, DrawingLayer>;
    expect(p).toMatchObject({ kind: 'drawing', recipe: ['p-picture'] });
    expect(p?.items['p-picture']?.params).toEqual({ asset: { value: 'lamp' }, cut: { value: cut } });
    expect(n).toMatchObject({
      kind: 'drawing',
      recipe: ['n-nest'],
      params: { position: { value: [1, 2] } },
      formulas: { rotation: { text: '{@this/n-nest/speed} + {@n/position}.x', on: true } },
    });
    expect(n?.items['n-nest']).toMatchObject({
      kind: 'nest',
      params: { scene: { value: 'inner' }, start: { value: 12 }, speed: { value: 2 } },
      formulas: { speed: { text: '{@p/rotation}', on: false } },
    });
  });
  it('older ones are upgraded step by step', () => {
    expect(upgraded({ version: 1, name: 'Tram' }, 3, steps)).toEqual({ version: 3, name: 'Tram', title: 'Tram!' });
  });
  it('newer ones are refused, saying what to do', () => {
    expect(problem(() => upgraded({ version: 99 }))).toContain(
      `newer than the ${FORMAT_VERSION} this version of Agile Kite reads`,
    );
  });
});

describe('archives', () => {
  const good = writeArchive(project(layer('a')), new Map());
  const zip = (files: Record<string, Uint8Array>) => zipSync(files);
  const read = (bytes: Uint8Array) => problem(() => readArchive(bytes));

  it('come back as they went', () => {
    expect(readArchive(good).project).toEqual(project(layer('a')));
  });
  it('cut short at any place are refused', () => {
    for (const share of [0.1, 0.5, 0.9, 0.99]) {
      expect(read(good.slice(0, Math.floor(good.length * share)))).toMatch(/^the archive: /);
    }
  });
  it.each([
    ['empty', new Uint8Array(), 'is not a zip file'],
    ['not a zip', strToU8('hello there'), 'is not a zip file'],
    ['without a document', zip({ 'assets/': new Uint8Array(3) }), 'has no project.json'],
    [
      'with names that climb out',
      zip({ '../evil': new Uint8Array(3), 'project.json': strToU8('{}') }),
      'points outside',
    ],
    ['with absolute names', zip({ '/etc/passwd': new Uint8Array(3) }), 'points outside'],
    ['with strange entries', zip({ 'run.exe': new Uint8Array(3) }), 'is not part of a project'],
    ['with JSON that is none', zip({ 'project.json': strToU8('{"a":') }), 'not valid JSON'],
    [
      'that unpack to far more than they weigh',
      zip({ 'project.json': new Uint8Array(40 * 2 ** 20) }),
      'unpacks to more than',
    ],
  ])('%s are refused', (_name, bytes, message) => {
    expect(read(bytes)).toContain(message);
  });
  it('that lie about their unpacked size are refused without unpacking it', () => {
    const bomb = zip({ 'project.json': new Uint8Array(40 * 2 ** 20) });
    const view = new DataView(bomb.buffer, bomb.byteOffset);
    // Central directory header, APPNOTE 4.3.12: the unpacked size is at offset 24.
    for (let i = 0; i + 46 < bomb.length; i++)
      if (view.getUint32(i, true) === 0x02014b50) view.setUint32(i + 24, 100, true);
    expect(read(bomb)).toMatch(/^the archive: /);
  });
});

describe('the largest project that is allowed', () => {
  /** Layers of long texts, as many as it takes. */
  const weighing = (bytes: number): Project => {
    const text = (i: number) =>
      newDrawing(scene, `t${i}`, `Text ${i}`, [
        newItem('t', 'text', { text: 'Every 12 minutes till dawn. '.repeat(178) }),
        newItem('f', 'fill'),
      ]);
    const each = JSON.stringify(text(1_000)).length + 12;
    const layers = Array.from({ length: Math.floor((bytes - 2_000) / (each + 8) / 4) }, (_, i) => text(i));
    const scenes = ['s0', 's1', 's2', 's3'].map((id) => ({
      ...newScene(id, id, size),
      layers: Object.fromEntries(layers.map((l) => [l.id, l])),
      order: layers.map((l) => l.id),
    }));
    return newProject('p', 'Large', scenes);
  };
  it('is written, and read back as it was', async () => {
    const largest = checkProject(weighing(ARCHIVE_LIMITS.document));
    const text = JSON.stringify(largest);
    expect(text.length).toBeGreaterThan(ARCHIVE_LIMITS.document * 0.95);
    expect(() => fitsArchive(text.length, [])).not.toThrow();
    const pieces: Uint8Array[] = [];
    const sha = 'ab'.repeat(32);
    await streamArchive(text, [[sha, async () => new Uint8Array([1, 2, 3])]], (piece) => pieces.push(piece));
    const bytes = new Uint8Array(pieces.reduce((sum, p) => sum + p.length, 0));
    pieces.reduce((at, piece) => (bytes.set(piece, at), at + piece.length), 0);
    const back = readArchive(bytes);
    expect(JSON.stringify(back.project)).toBe(text);
    expect([...(back.files.get(sha) ?? [])]).toEqual([1, 2, 3]);
  });
  it('is told by its weight before it is written', () => {
    expect(() => fitsArchive(ARCHIVE_LIMITS.document + 1, [])).toThrow('weighs more than the 32 MB');
    expect(() => fitsArchive(5, [200 * 2 ** 20, 100 * 2 ** 20])).toThrow(
      'its files weigh 300 MB, more than the 256 MB',
    );
  });
});

describe('render settings', () => {
  const gif = { format: 'gif', scale: 1, rate: null, from: 0, to: 50, loop: 0, palette: 'global', dither: 'none' };
  it('pass when sound', () => {
    expect(checkSettings(gif)).toEqual(gif);
  });
  it.each(['https://nighttram.example', 'http://[::1]:80/a?b=c#d', 'https://straße.example:8443/ride'])(
    'take the address %s',
    (click) => {
      const banner = { format: 'html5', scale: 1, rate: null, from: 0, to: 5, loop: 0, fallback: 0, click };
      expect(checkSettings(banner)).toEqual(banner);
    },
  );
  it.each<[object, string]>([
    [{ ...gif, loop: -1 }, 'loop: got -1, wanted a whole number from 0 to 65535'],
    [{ ...gif, dither: 'heavy' }, 'dither: got the text "heavy"'],
    [{ ...gif, rate: { num: 0, den: 1 } }, 'rate'],
    [{ format: 'avi' }, 'format: got the text "avi"'],
    [
      { format: 'html5', scale: 1, rate: null, from: 0, to: 5, loop: 0, fallback: 0, click: 'javascript:alert(1)' },
      'click',
    ],
    ...['https://', 'https:///page', 'https://a:b@tram.example', 'https://me@tram.example/', 'ftp://tram.example'].map(
      (click): [object, string] => [
        { format: 'html5', scale: 1, rate: null, from: 0, to: 5, loop: 0, fallback: 0, click },
        'click: got the text',
      ],
    ),
  ])('are refused with the field: %j', (value, message) => {
    expect(problem(() => checkSettings(value))).toContain(message);
  });
});
