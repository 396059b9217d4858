/** What edits do at the limits of the schema. */
import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { countingIds, newDrawing, newItem, newProject, newScene, newRoutine } from '../document/make';
import { cutText, isSound, sound, thousands } from '../document/text';
import type { DrawingLayer, KeyedProperty, Project, Scene } from '../document/types';
import { compileScene } from '../scene/compile';
import { squareFonts } from '../test/fonts';
import { applyEdit } from './apply';
import { addLayers, setLayers } from './layers';
import { addKey, removeKeys } from './keyframes';
import { animate, setValue } from './properties';
import { adjustableMoves, applyMove } from './moves';
import { addRoutine, setRoutine } from './routines';
import { renameProject } from './scenes';
import { splitText } from './text';
import { done } from '../test/done';

const scene = newScene('s', 'Night pass', {
  width: 300,
  height: 250,
  rate: { num: 25, den: 1 },
  length: 100,
  background: null,
});
const drawing = newDrawing(scene, 'a', 'Sign', [newItem('t', 'text'), newItem('k', 'stroke'), newItem('f', 'fill')]);
const base = applyEdit(newProject('p', 'Project', [scene]), addLayers('s', [drawing])).doc;
const layer = (doc: Project) => doc.scenes.s?.layers.a as DrawingLayer;
const opacity = { scene: 's', layer: 'a', key: 'opacity' };
const width = { scene: 's', layer: 'a', item: 'k', key: 'width' };

describe('a curve that is moved', () => {
  it('is one keyframe where one is', () => {
    const keyed = done(
      base,
      animate(opacity, [
        [0, 0],
        [20, 1],
      ]),
    );
    const moved = done(keyed, setValue(opacity, 0.3, { write: 'curve', frame: 0 }));
    expect((layer(moved).params.opacity as KeyedProperty).keys.map((k) => k.value)).toEqual([0.3, 1]);
  });
  it('stops at its limits, key by key', () => {
    const keyed = done(
      base,
      animate(opacity, [
        [0, 0],
        [20, 1],
      ]),
    );
    const moved = done(keyed, setValue(opacity, 0.8, { write: 'curve', frame: 30 }));
    expect((layer(moved).params.opacity as KeyedProperty).keys.map((k) => k.value)).toEqual([0, 0.8]);
  });
  it('of a stroke’s width never goes below nothing', () => {
    const keyed = done(
      base,
      animate(width, [
        [0, 2],
        [20, 40],
      ]),
    );
    const moved = done(keyed, setValue(width, 1, { write: 'curve', frame: 30 }));
    expect((layer(moved).items.k?.params.width as KeyedProperty).keys.map((k) => k.value)).toEqual([0, 1]);
  });
});

describe('a routine whose steps add up past a limit', () => {
  const step = { kind: 'turn', value: 90_000, frames: 5, gap: 0, ease: { kind: 'linear' } } as const;
  const routine = newRoutine('r', 'Round and round', [step, step], ['a']);
  it('stays at it, and can still be adjusted', () => {
    const played = done(base, addRoutine('s', routine));
    const keys = (doc: Project) => (layer(doc).params.rotation as KeyedProperty).keys.map((k) => k.value);
    expect(keys(played)).toEqual([0, 90_000, 100_000]);
    expect(keys(done(played, setRoutine('s', 'r', { steps: [{ ...step, value: 90 }] })))).toEqual([0, 90]);
  });
});

describe('a move that would go past a limit', () => {
  it('goes to it, and can still be adjusted', () => {
    const move = {
      kind: 'entrance',
      name: 'From afar',
      frames: 10,
      ease: { kind: 'linear' },
      angle: 0,
      distance: 100_000,
      outside: false,
      fade: 1,
      scale: 1,
      turn: 0,
    } as const;
    const moved = done(
      base,
      applyMove('s', ['a'], 'm', move, 0, () => 0, countingIds('n')),
    );
    expect((layer(moved).params.position as KeyedProperty).keys[0]?.value).toEqual([100_000, 125]);
    expect(adjustableMoves(moved.scenes.s!, ['a'])).toHaveLength(1);
  });
});

describe('more of something than there may be', () => {
  it('is refused in words, and nothing is changed', () => {
    const many = Array.from({ length: 2_000 }, (_, i) => ({ ...drawing, id: `l${i}` }));
    expect(() => applyEdit(base, addLayers('s', many))).toThrow('“Night pass” has at most 2,000 layers');
    const keys = Array.from({ length: 5_000 }, (_, i) => [i, i / 5_000] as const);
    const full = done(base, animate(opacity, keys.slice(0, 1)));
    const crowded: Project = {
      ...full,
      scenes: {
        s: {
          ...full.scenes.s!,
          layers: {
            a: {
              ...layer(full),
              params: {
                opacity: { keys: keys.map(([frame, value]) => ({ frame, value, ease: { kind: 'linear' } })) },
              },
            },
          },
        },
      },
    };
    expect(() => applyEdit(crowded, addKey(opacity, 6_000))).toThrow('“Opacity” has at most 5,000 keyframes');
    expect(() => applyEdit(crowded, removeKeys([{ ref: opacity, frames: [3] }]))).not.toThrow();
  });
});

describe('texts', () => {
  const letters = 'x'.repeat(59);
  it.each([
    // The emoji is a surrogate pair; the family is eleven units, and one character to its reader.
    [`${letters}🚋`, letters],
    [`${'x'.repeat(58)}🚋`, `${'x'.repeat(58)}🚋`],
    [`${'x'.repeat(55)}👨‍👩‍👧‍👦`, 'x'.repeat(55)],
    [`${'x'.repeat(59)}e\u0301`, 'x'.repeat(59)],
  ])('are cut between characters: %s', (text, cut) => {
    expect(cutText(text, 60)).toBe(cut);
  });
  it.each([0, 7, 999, 1_000, 12_500, 100_000, 1_234_567, 50_000_000])('have %i as English does', (count) => {
    expect(thousands(count)).toBe(count.toLocaleString('en'));
  });
  it('of a split word give layers names that can be stored', () => {
    const text = { scene: 's', layer: 'a', item: 't', key: 'text' };
    const written = done(base, setValue(text, `${letters}🚋`, { write: 'curve', frame: 0 }));
    const program = compileScene(written.scenes.s as Scene, { assets: {}, fonts: squareFonts });
    const split = done(
      written,
      splitText({ scene: 's', layer: 'a', item: 't' }, 'words', 0, program, countingIds('n')),
    );
    const names = Object.values(split.scenes.s?.layers ?? {}).map((l) => l.name);
    expect(names).toEqual([letters]);
    expect(names.every(isSound)).toBe(true);
  });
  it('are made sound by edits: names and values', () => {
    const half = '🚋'.slice(0, 1);
    expect(done(base, renameProject(`Tram\0${half}`)).name).toBe('Tram\uFFFD\uFFFD');
    expect(layer(done(base, setLayers('s', ['a'], { name: `${'n'.repeat(199)}🚋` }))).name).toBe('n'.repeat(199));
    expect(sound('whole 🚋')).toBe('whole 🚋');
  });
  it('that are not sound are refused at the door, by their field', () => {
    const broken = JSON.parse(JSON.stringify(base).replace('"Sign"', '"Sign\\u0000"')) as unknown;
    expect(() => checkProject(broken)).toThrow('scenes.s.layers.a.name: got the text "Sign\uFFFD"');
  });
});
