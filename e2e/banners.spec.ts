/**
 * The banners of all demo scenes: their players are joined from different parts, and each shows what the server draws.
 * Weights are those of the zips, at 300 pixels wide.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkProject } from '@kite/core/check/project';
import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type {
  Color,
  Gradient,
  Id,
  Item,
  KeyedProperty,
  PathValue,
  Project,
  Scene,
  Value,
} from '@kite/core/document/types';
import type { RenderSettings } from '@kite/core/delivery/formats/table';
import { defaultSettings } from '@kite/core/delivery/settings';
import { KINDS } from '@kite/core/recipe/table';
import { holdsCards, type Kind } from '@kite/core/recipe/types';
import { wholeScene } from '@kite/core/scene/whole';
import { EMPTY_STOCK } from '@kite/render/materials';
import { renderScene } from '@kite/render/render';
import { demoProject } from '@kite/demo/project';
import type { BrowserContext } from '@playwright/test';
import { differing, readPng, unpack } from './support/media';
import { expect, test } from './support/test';

const WIDTH = 300;
/** Of the scenes that ad servers are meant for. */
const MOST = 60_000;
const MOST_OF_ALL = 80_000;
const ADS = ['Mark reveal', 'Route title', 'Next stop strip', 'Lamp fan', 'Riders by hour'];

/** What changes from frame 0 to 20, at one pace. */
const changing = (from: Value, to: Value): KeyedProperty => {
  const ease = { kind: 'linear' } as const;
  return {
    keys: [
      { frame: 0, value: from, ease },
      { frame: 20, value: to, ease },
    ],
  };
};
/** A card with a parameter that changes. */
const keyed = (
  id: Id,
  kind: string,
  key: string,
  [from, to]: readonly [Value, Value],
  others: { readonly [key: string]: Value } = {},
): Item => {
  const item = newItem(id, kind, others);
  return { ...item, params: { ...item.params, [key]: changing(from, to) } };
};
const triangle = (side: number): PathValue => ({
  closed: true,
  vertices: [
    [-side, side, 0, 0, 0, 0],
    [0, -side, -20, 0, 20, 0],
    [side, side, 0, 0, 0, 0],
  ],
});
const shades = (from: Color, to: Color): Gradient => ({
  stops: [
    { at: 0, color: from },
    { at: 1, color: to },
  ],
});

/** Cards, by what a banner's player has for them alone. */
const PARTS: { readonly [part: string]: readonly Item[] } = {
  nothing: [newItem('r', 'rectangle'), newItem('f', 'fill')],
  taper: [newItem('w', 'wedge'), newItem('s', 'stroke', { taperStart: 0.6, width: 20 })],
  'fitted dashes': [newItem('e', 'ellipse'), newItem('s', 'stroke', { dashes: [10, 6], fit: 7 })],
  'dashes as they are': [newItem('e', 'ellipse'), newItem('s', 'stroke', { dashes: [10, 6] })],
  'a trim': [newItem('e', 'ellipse'), newItem('t', 'trim', { end: 0.4 }), newItem('s', 'stroke')],
  'a path that changes': [
    keyed('p', 'path', 'path', [triangle(40), triangle(90)]),
    newItem('f', 'fill'),
    newItem('s', 'stroke', { color: '#2EC4B6' }),
  ],
  'a colour that changes': [newItem('e', 'ellipse'), keyed('f', 'fill', 'color', ['#FFB23E', '#2EC4B6'])],
  'a gradient that changes': [
    newItem('r', 'rectangle'),
    keyed('f', 'fill', 'gradient', [shades('#FFB23E', '#10132E'), shades('#2EC4B6', '#FFFFFF')], { style: 'linear' }),
  ],
  'noise in a gradient': [
    newItem('e', 'ellipse', { width: 180, height: 180 }),
    newItem('f', 'fill', { style: 'linear', gradient: shades('#FFB23E', '#2EC4B600'), grain: 0.6 }),
  ],
  'a curved way': [
    newItem('e', 'ellipse'),
    newItem('f', 'fill'),
    {
      ...newItem('c', 'repeater'),
      params: {
        copies: { value: 3 },
        position: {
          keys: [
            { frame: 0, value: [0, 0], ease: { kind: 'linear' }, handles: [0, 0, 60, -60] },
            { frame: 20, value: [60, 20], ease: { kind: 'linear' } },
          ],
        },
      },
    },
  ],
  'a trail': [newItem('r', 'rectangle', { width: 40 }), newItem('f', 'fill'), newItem('t', 'trail', { every: 3 })],
  'blur by motion': [newItem('r', 'rectangle'), newItem('f', 'fill'), newItem('b', 'motion-blur', { shutter: 720 })],
  'what is bent along a ring': [
    newItem('r', 'rectangle', { width: 120, height: 20 }),
    newItem('f', 'fill', { style: 'linear', from: [-60, 0], to: [60, 0] }),
    newItem('s', 'stroke', { width: 3 }),
    { ...newItem('a', 'along', { lies: 'bent' }), children: ['e'] },
    newItem('e', 'ellipse'),
  ],
  'a chart, its parts coloured one by one': [
    keyed('c', 'chart', 'grown', [0, 1], { width: 200, height: 160, stagger: 1, order: 'random' }),
    newItem('f', 'fill', { style: 'each', gradient: shades('#FFB23E', '#2EC4B6') }),
    newItem('l', 'labels', { size: 20, apart: ',', after: ' km' }),
    newItem('g', 'fill', { color: '#FFFFFF' }),
  ],
  'a smooth line with names': [
    newItem('c', 'chart', { drawn: 'line', smooth: true, names: 'Mill Lane\nSaltings', width: 200, height: 160 }),
    newItem('s', 'stroke'),
    newItem('l', 'labels', { written: 'name', size: 20 }),
    newItem('g', 'fill', { color: '#FFFFFF' }),
  ],
  'letters behind their edge': [
    newItem('t', 'text', { text: 'Tram' }),
    newItem('f', 'fill'),
    newItem('l', 'letters', { behind: 0.4, stagger: 0 }),
  ],
  'a blur': [newItem('e', 'ellipse'), newItem('f', 'fill'), newItem('b', 'blur')],
  'a stroke from far away': [
    newItem('e', 'ellipse', { width: 100_000, height: 100_000, centre: [50_000, 0] }),
    newItem('s', 'stroke', { width: 2 }),
    { ...newItem('g', 'group', { scale: [20, 20] }), children: ['e', 's'] },
  ],
  'half of a group': [
    newItem('e', 'ellipse'),
    newItem('f', 'fill'),
    newItem('s', 'stroke'),
    { ...newItem('g', 'group', { opacity: 0.5, rotation: 20 }), children: ['e', 'f', 's'] },
  ],
};
/** What is drawn with one kind of card, as it is when it is new or as an example of it. */
const recipeWith = (kind: Kind): readonly Item[] => {
  const values = 'example' in kind && kind.example ? kind.example : {};
  const inside = kind.role !== 'group' && holdsCards(kind) ? [newItem('c', 'ellipse')] : [];
  const item = {
    ...newItem('own', kind.kind, values as { readonly [key: string]: Value }),
    ...(holdsCards(kind) && { children: inside.map(({ id }) => id) }),
  };
  const [shape, fill] = [newItem('r', 'rectangle', { width: 60, height: 40 }), newItem('f', 'fill')];
  switch (kind.role) {
    case 'source':
      return [item, fill];
    case 'step':
      return kind.onDrawn ? [shape, fill, item, ...inside] : [shape, item, fill];
    case 'paint':
      return [shape, item];
    case 'group':
      return [shape, fill, { ...item, children: ['r', 'f'] }];
    case 'cover':
      return [shape, fill, item, ...inside];
    case 'setting':
      return [];
  }
};

/** A scene for each recipe, in which its layer turns. */
const turning = (recipes: readonly (readonly [name: string, items: readonly Item[]])[]): Project => {
  const size = { width: WIDTH, height: 250, rate: { num: 25, den: 1 }, length: 20, background: '#10132E' };
  const scenes = recipes.map(([name, items], i) => {
    const scene = newScene(`s${i}`, name, size);
    const layer = newDrawing(scene, 'l', 'Ring', items);
    const params = { ...layer.params, rotation: changing(0, 90) };
    return { ...scene, layers: { l: { ...layer, params } }, order: ['l'] };
  });
  return checkProject(newProject('parts', 'Parts', scenes));
};

const kite = (...args: readonly string[]) => execFileSync('node', ['dist/kite.mjs', ...args], { stdio: 'pipe' });
const folder = mkdtempSync(join(tmpdir(), 'kite-banners-'));
const project = join(folder, 'demo.kite');

test.beforeAll(() => {
  kite('demo', '--out', project);
});

/** The weight of a scene's banner, whose frames are as the server draws them, to so many levels. */
const agreeing = async (context: BrowserContext, of: Project, id: Id, frames: readonly number[], levels = 1) => {
  const scene = wholeScene(of.scenes[id] as Scene, of);
  const { name, width } = scene;
  const render = async (format: 'html5' | 'png', more: object = {}): Promise<string> => {
    const settings = { ...defaultSettings(format, scene), scale: WIDTH / width, ...more } as RenderSettings;
    const out = join(folder, `${name}.${format}`);
    await renderScene({ scene, stock: EMPTY_STOCK, settings, out });
    return out;
  };
  const zip = await render('html5');
  const banner = unpack(new Uint8Array(readFileSync(zip)));
  const page = await context.newPage();
  const wrong: string[] = [];
  page.on('pageerror', (error) => wrong.push(error.message));
  for (const frame of frames) {
    await page.goto('about:blank');
    await page.goto(`file://${banner.folder}/index.html#frame=${frame}`);
    const url = await page.locator('canvas').evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL('image/png'));
    const shown = await readPng(Buffer.from(url.split(',')[1] ?? '', 'base64'));
    const drawn = await readPng(readFileSync(await render('png', { frame })));
    expect(differing(shown, drawn, levels), `frame ${frame} of ${name}`).toBe(0);
  }
  expect(wrong).toEqual([]);
  await page.close();
  return statSync(zip).size;
};

const demo = demoProject();
for (const scene of Object.values(demo.scenes)) {
  const { name, length } = scene;
  test(`the banner of ${name} shows what the server draws, and is light`, async ({ context }) => {
    const frames = [Math.floor(length / 3), Math.floor((length * 2) / 3)];
    const weight = await agreeing(context, demo, scene.id, frames);
    expect(weight).toBeLessThan(ADS.includes(name) ? MOST : MOST_OF_ALL);
  });
}

test('a banner has the parts of a player that its scene needs', async ({ context }) => {
  const project = turning(Object.entries(PARTS));
  for (const id of project.order) {
    // Noise laid over a gradient doubles what platforms differ by in that.
    const levels = project.scenes[id]?.name === 'noise in a gradient' ? 3 : 1;
    await agreeing(context, project, id, [7], levels);
  }
});

test('a banner has what each card by itself needs', async ({ context }) => {
  const project = turning([...KINDS.values()].map((kind) => [kind.kind, recipeWith(kind)]));
  for (const id of project.order) await agreeing(context, project, id, [7]);
});

test('a banner that is out of sight does nothing, and goes on once it is seen', async ({ context }) => {
  const zip = join(folder, 'strip.zip');
  const scale = String(WIDTH / 1920);
  kite(
    'render',
    project,
    '--scene',
    'Next stop strip',
    '--format',
    'html5',
    '--scale',
    scale,
    '--loop',
    '0',
    '--out',
    zip,
  );
  const banner = unpack(new Uint8Array(readFileSync(zip)));
  const page = await context.newPage();
  await page.route('http://delivered.example/**', (route) => {
    const path = new URL(route.request().url()).pathname;
    if (path !== '/around.html') return route.fulfill({ path: join(banner.folder, path) });
    const around = '<div style="height:3000px"></div><iframe src="index.html" width="300" height="169"></iframe>';
    return route.fulfill({ contentType: 'text/html', body: around });
  });
  await page.addInitScript(() => {
    const own = window as unknown as { asked: number };
    own.asked = 0;
    const ask = window.requestAnimationFrame.bind(window);
    window.requestAnimationFrame = (then) => {
      own.asked++;
      return ask(then);
    };
  });
  await page.goto('http://delivered.example/around.html');
  const [, inner] = page.frames();
  await inner!.locator('canvas').waitFor({ state: 'attached' });
  const asked = () => inner!.evaluate(() => (window as unknown as { asked: number }).asked);
  const pictures = () =>
    page.evaluate(async () => {
      for (let n = 0; n < 20; n++) await new Promise(requestAnimationFrame);
    });
  await pictures();
  const before = await asked();
  await pictures();
  expect(await asked()).toBe(before);
  await page.evaluate(() => window.scrollTo(0, 3000));
  await expect.poll(asked).toBeGreaterThan(before + 10);
});
