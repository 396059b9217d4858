/** Players of banners: what they weigh, by what their scenes use. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { leanScene } from '@kite/core/delivery/lean';
import { newDrawing, newItem, newScene } from '@kite/core/document/make';
import type { Ease, ValueKind } from '@kite/core/document/types';
import { FUNCTION_GROUPS, FUNCTIONS } from '@kite/core/formula/functions/table';
import { EASES } from '@kite/core/motion/eases/table';
import { KINDS as VALUES } from '@kite/core/motion/kinds/table';
import { KINDS } from '@kite/core/recipe/table';
import { wholeScene } from '@kite/core/scene/whole';
import { demoProject } from '@kite/demo/project';
import { CALLED, SEAMS, TABLES, TELLING, type Uses } from '@kite/player/parts';
import { seeing, usesOf } from '@kite/player/uses';
import { describe, expect, it } from 'vitest';
import { playerFor } from './encoders/player';
import { packed } from './encoders/zip';
import { appRoot } from './root';

const SIZE = { width: 300, height: 250, rate: { num: 30, den: 1 }, length: 90, background: null } as const;
const NO_MARKS: Uses['marks'] = seeing().marks;
const PLAIN: Uses = {
  cards: new Set(['rectangle', 'ellipse', 'path', 'text', 'fill', 'stroke']),
  values: new Set(['number', 'point', 'color', 'gradient', 'path', 'numbers', 'switch', 'choice', 'text', 'font']),
  eases: new Set(['linear', 'hold', 'bezier']),
  mixed: new Set(['number', 'point', 'color']),
  curves: false,
  given: new Set(['stroke/width']),
  each: false,
  formulas: false,
  calls: new Set(),
  areas: false,
  depth: false,
  others: false,
  marks: NO_MARKS,
};
const EVERYTHING: Uses = {
  cards: new Set(KINDS.keys()),
  values: new Set(Object.keys(VALUES) as ValueKind[]),
  eases: new Set(Object.keys(EASES) as Ease['kind'][]),
  mixed: new Set(Object.keys(VALUES) as ValueKind[]),
  curves: true,
  given: new Set([...KINDS.values()].flatMap(({ kind, params }) => Object.keys(params).map((key) => `${kind}/${key}`))),
  each: true,
  formulas: true,
  calls: new Set(FUNCTIONS.keys()),
  areas: true,
  depth: true,
  others: true,
  marks: { cuts: true, growths: true, bends: true, effects: true, leftward: true, far: true, told: true },
};

const zipped = async (uses: Uses): Promise<number> => packed(await playerFor(uses)).length;

describe('the player of a banner', () => {
  it('has what its scene uses, and weighs as much', async () => {
    const [plain, everything] = [await zipped(PLAIN), await zipped(EVERYTHING)];
    expect(plain).toBeLessThan(24_600);
    expect(everything).toBeLessThan(109_700);
    // What one card or one function needs comes with it.
    const computing = await zipped({ ...PLAIN, formulas: true });
    const drifting = await zipped({ ...PLAIN, formulas: true, calls: new Set(['drift']) });
    expect(computing - plain).toBeLessThan(12_000);
    expect(drifting - computing).toBeGreaterThan(900);
    const combining = await zipped({ ...PLAIN, cards: new Set([...PLAIN.cards, 'combine']) });
    expect(combining - plain).toBeGreaterThan(10_000);
  });

  it('reads nothing of what is left out of its definitions', async () => {
    const reads = async (uses: Uses, telling: typeof TELLING) => {
      const code = new TextDecoder().decode(await playerFor(uses));
      return telling
        .flatMap(({ keys }) => keys)
        .filter((key) => new RegExp(`\\.${key}\\b|[{,]${key}:[\\w$]+[,}=]`).test(code));
    };
    // A parameter passes its hint on to nobody.
    expect(await reads(EVERYTHING, TELLING)).toEqual(['hint']);
    // Halves of points are called after the whole, which nobody hears.
    expect(await reads({ ...EVERYTHING, formulas: false, calls: new Set() }, [...TELLING, CALLED])).toEqual([
      'hint',
      'label',
    ]);
  });

  it('finds the module of every card, value, ease and function', () => {
    const recipe = TABLES.find(({ module }) => module === 'recipe/table');
    const modules = ['sources', 'steps', 'covers', 'paints', 'groups'].flatMap((folder) =>
      readdirSync(join(appRoot(), 'packages/core/src/recipe', folder))
        .filter((file) => !file.endsWith('.test.ts'))
        .map((file) => `./${folder}/${file.replace('.ts', '')}`),
    );
    const inTable = [...KINDS.keys()].filter((kind) => !/^own-/.test(kind));
    for (const kind of inTable) {
      const found = modules.filter((module) => recipe?.uses(module, { ...PLAIN, cards: new Set([kind]) }));
      expect(found, kind).toHaveLength(1);
    }
    const functions = TABLES.find(({ module }) => module === 'formula/functions/table');
    const groups = Object.keys(FUNCTION_GROUPS);
    for (const name of groups) {
      expect(existsSync(join(appRoot(), `packages/core/src/formula/functions/${name}.ts`)), name).toBe(true);
    }
    for (const name of FUNCTIONS.keys()) {
      const found = groups.filter((group) => functions?.uses(`./${group}`, { ...PLAIN, calls: new Set([name]) }));
      expect(found, name).toHaveLength(1);
    }
    expect(functions?.uses('./call', PLAIN)).toBe(true);
  });

  it('leaves out at its seams what is asked for there', () => {
    const read = (module: string) => {
      const [, own] = /^player\/(.*)/.exec(module) ?? [];
      return readFileSync(join(appRoot(), 'packages', own ? 'player/src' : 'core/src', `${own ?? module}.ts`), 'utf8');
    };
    for (const { at, modules, instead } of SEAMS) {
      for (const [asking, asked] of at.flatMap((a) => modules.map((m) => [a, m] as const))) {
        const name = asked.split('/').at(-1) ?? '';
        expect(read(asking), `${asking} asks for ${asked}`).toMatch(new RegExp(`from '[./a-zA-Z]*/${name}'`));
        expect(read(asked)).toBeTruthy();
      }
      if (instead) expect(existsSync(join(appRoot(), 'packages/player/src/instead', `${instead}.ts`))).toBe(true);
    }
  });

  it('keeps where layers were for every step that asks for it', () => {
    const folder = join(appRoot(), 'packages/core/src/recipe/steps');
    const asking = readdirSync(folder)
      .map((file) => readFileSync(join(folder, file), 'utf8'))
      .filter((text) => text.includes('above.since('))
      .map((text) => /kind: '([a-z-]+)'/.exec(text)?.[1] ?? '');
    const seam = SEAMS.find(({ modules }) => modules.includes('scene/around'));
    expect(asking.length).toBeGreaterThan(0);
    for (const kind of asking) expect(seam?.neededBy({ ...PLAIN, cards: new Set([kind]) }), kind).toBe(true);
    expect(seam?.neededBy(PLAIN)).toBe(false);
  });

  it('notes what is seen of a scene', () => {
    const { marks, see } = seeing();
    see({ marks: [], problems: [] });
    expect(Object.values(marks).some(Boolean)).toBe(false);
    see({ marks: [], problems: [{ layer: 'l', message: 'is too intricate' }] });
    expect(marks).toEqual({ ...NO_MARKS, told: true });
  });

  it('is told what each scene of the demo uses', () => {
    const project = demoProject();
    const of = (name: string): Uses => {
      const scene = Object.values(project.scenes).find((one) => one.name === name);
      if (!scene) throw new Error(`no scene ${name}`);
      return usesOf(leanScene(wholeScene(scene, project)), NO_MARKS);
    };
    expect(of('Mark reveal')).toMatchObject({ formulas: false, depth: false });
    expect(of('Next stop strip')).toMatchObject({ formulas: true, depth: false });
    expect([...of('Next stop strip').calls].sort()).toEqual(['drift', 'lag', 'remap', 'text', 'textWidth']);
    expect(of('Turning sign')).toMatchObject({ formulas: true, calls: new Set() });
    expect(of('Letter cube')).toMatchObject({ depth: true });
    // A nest that brings what is in it into depth.
    const inner = newScene('inner', 'Lamp', SIZE);
    const outer = newScene('outer', 'Depot', SIZE);
    const nesting = (space: boolean) => {
      const layer = newDrawing(outer, 'n', 'Nest', [newItem('i', 'nest', { scene: 'inner', space })]);
      return usesOf(leanScene({ ...outer, layers: { n: layer }, order: ['n'], nested: { inner } }), NO_MARKS).depth;
    };
    expect([nesting(false), nesting(true)]).toEqual([false, true]);
    expect([...of('Riders by hour').cards].sort()).toEqual(['chart', 'fill', 'labels', 'text']);
    expect(of('Riders by hour').values.has('mesh')).toBe(false);
  });
});
