import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { newDrawing, newItem, newProject, newScene } from '../document/make';
import { applyPatches, changeOf, type Edit } from '../document/patches';
import type { Project } from '../document/types';
import { Chance } from '../test/random';
import { randomEdit } from '../test/randomEdit';
import { randomProject } from '../test/randomProject';
import { applyEdit } from './apply';
import { become } from './become';
import { onTopOf, patchesBetween } from './merge';

const scene = newScene('s', 'S', { width: 10, height: 10, rate: { num: 25, den: 1 }, length: 50, background: null });
const withLayers = (...ids: string[]): Project =>
  newProject('p', 'P', [
    {
      ...scene,
      order: ids,
      layers: Object.fromEntries(ids.map((id) => [id, newDrawing(scene, id, id, [newItem('r', 'rectangle')])])),
    },
  ]);

const edit = (change: Edit['change']): Edit => ({ label: '', change });
const done = (doc: Project, ...edits: Edit[]): Project => edits.reduce((now, e) => applyEdit(now, e).doc, doc);
const rename = (layer: string, name: string) => edit((d) => void (d.scenes.s!.layers[layer]!.name = name));
const remove = (layer: string) =>
  edit((d) => {
    delete d.scenes.s!.layers[layer];
    d.scenes.s!.order = d.scenes.s!.order.filter((id) => id !== layer);
  });
const order = (...ids: string[]) => edit((d) => void (d.scenes.s!.order = ids));
const add = (id: string, at: number) =>
  edit((d) => {
    d.scenes.s!.layers[id] = newDrawing(scene, id, id, []) as never;
    d.scenes.s!.order.splice(at, 0, id);
  });
const keyed = (...frames: number[]) =>
  edit((d) => {
    (d.scenes.s!.layers.a!.params as Record<string, unknown>).opacity = {
      keys: frames.map((frame) => ({ frame, value: frame / 100, ease: { kind: 'linear' } })),
    };
  });
const valueAt = (frame: number, value: number) =>
  edit((d) => {
    const { keys } = d.scenes.s!.layers.a!.params.opacity as unknown as { keys: { frame: number; value: number }[] };
    keys.find((key) => key.frame === frame)!.value = value;
  });

describe('two changes of one document', () => {
  const base = withLayers('a', 'b', 'c');
  const merged = (mine: Edit, theirs: Edit, from = base) => onTopOf(from, done(from, mine), done(from, theirs)).doc;

  it('of different properties are both there', () => {
    const doc = merged(rename('a', 'Mine'), rename('b', 'Theirs'));
    expect([doc.scenes.s?.layers.a?.name, doc.scenes.s?.layers.b?.name]).toEqual(['Mine', 'Theirs']);
  });

  it('of one property: the later one stands', () => {
    expect(merged(rename('a', 'Mine'), rename('a', 'Theirs')).scenes.s?.layers.a?.name).toBe('Mine');
  });

  it('leave what one took away gone', () => {
    expect(merged(rename('a', 'Mine'), remove('a')).scenes.s?.order).toEqual(['b', 'c']);
    expect(merged(remove('a'), rename('a', 'Theirs')).scenes.s?.order).toEqual(['b', 'c']);
    expect(onTopOf(base, done(base, rename('a', 'Mine')), done(base, remove('a'))).patches).toEqual([]);
  });

  it('put what each added where it was added, in the order of the later one', () => {
    expect(merged(add('m', 1), add('t', 3)).scenes.s?.order).toEqual(['a', 'm', 'b', 'c', 't']);
    expect(merged(order('c', 'b', 'a'), add('t', 1)).scenes.s?.order).toEqual(['c', 'b', 'a', 't']);
    expect(merged(order('c', 'b', 'a'), remove('b')).scenes.s?.order).toEqual(['c', 'a']);
  });

  it('know keyframes by their frames: an insertion moves no edit to its neighbour', () => {
    const from = done(base, keyed(10, 20));
    const doc = merged(valueAt(20, 0.9), keyed(5, 10, 20), from);
    expect(doc.scenes.s?.layers.a?.params.opacity).toMatchObject({
      keys: [
        { frame: 5, value: 0.05 },
        { frame: 10, value: 0.1 },
        { frame: 20, value: 0.9 },
      ],
    });
  });

  it('leave every card in one place: one that was put into a group that is gone is kept', () => {
    const group = done(
      base,
      edit((d) => {
        const layer = d.scenes.s!.layers.a as unknown as { items: Record<string, unknown>; recipe: string[] };
        layer.items.g = { ...newItem('g', 'group'), children: [] };
        layer.recipe.push('g');
      }),
    );
    const into = edit((d) => {
      const layer = d.scenes.s!.layers.a as unknown as {
        items: Record<string, { children: string[] }>;
        recipe: string[];
      };
      layer.recipe = ['g'];
      layer.items.g!.children = ['r'];
    });
    const away = edit((d) => {
      const layer = d.scenes.s!.layers.a as unknown as { items: Record<string, unknown>; recipe: string[] };
      delete layer.items.g;
      layer.recipe = ['r'];
    });
    const doc = merged(into, away, group);
    expect(() => checkProject(doc)).not.toThrow();
    expect(doc.scenes.s?.layers.a).toMatchObject({ recipe: ['r'] });
  });
});

/** As a save sends it. */
const sent = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

const ROUNDS = 250;

describe('two edits from chance', () => {
  const each = (test: (base: Project, mine: Project, theirs: Project, where: string) => void) => {
    for (let seed = 0; seed < ROUNDS; seed++) {
      const chance = new Chance(seed);
      const base = checkProject(randomProject(chance));
      try {
        const [mine, theirs] = ['m', 't'].map((by) => done(base, randomEdit(chance, base, by))) as [Project, Project];
        test(base, mine, theirs, `seed ${seed}`);
      } catch (error) {
        if (!(error instanceof RangeError)) throw error;
      }
    }
  };

  it('leave a document as it is where only one of them did something', () => {
    each((base, mine, _theirs, where) => {
      expect(onTopOf(base, mine, base).doc, where).toEqual(mine);
      expect(onTopOf(base, base, mine).patches, where).toEqual([]);
    });
  });

  it('give what the schema takes, but for the few that cannot both be', () => {
    let refused = 0;
    let made = 0;
    each((base, mine, theirs) => {
      const { doc } = onTopOf(base, mine, theirs);
      made++;
      try {
        checkProject(doc);
      } catch {
        refused++;
      }
    });
    expect(made).toBeGreaterThan(ROUNDS / 2);
    expect(refused / made).toBeLessThan(0.03);
  });

  it('are gone back from as an edit', () => {
    each((base, mine, theirs, where) => {
      const { doc, inverse } = applyEdit(mine, become('Go back', { ...theirs, id: 'another' }));
      expect(sent(doc), where).toEqual(sent(theirs));
      expect(sent(applyPatches(doc, inverse)), where).toEqual(sent(mine));
      expect(applyEdit(base, become('Go back', base)).patches, where).toEqual([]);
    });
  });

  it('are told by patches that say the same after they were sent', () => {
    each((base, mine, theirs, where) => {
      expect(sent(applyPatches(mine, sent(patchesBetween(mine, theirs)))), where).toEqual(sent(theirs));
      const { patches } = applyEdit(base, randomEdit(new Chance(1), base, 'i'));
      const change = changeOf(base, patches);
      expect(sent(applyPatches(change.doc, sent(change.inverse))), where).toEqual(sent(base));
    });
  });
});
