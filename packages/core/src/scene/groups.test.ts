import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newProject, newScene } from '../document/make';
import type { Id, Layer, Project, Scene } from '../document/types';
import { addLayers, removeLayers, setLayers } from '../edits/layers';
import { groupLayers, ungroupLayers } from '../edits/place';
import { setValue } from '../edits/properties';
import { slideLayers, stretchLayers } from '../edits/timing';
import { layerBoxInScene } from './bounds';
import { compileScene } from './compile';
import { NO_LIBRARY } from './program';
import { groupsAround, isShown, membersOf, withMembers } from './groups';
import { done } from '../test/done';

const size = { width: 400, height: 300, rate: { num: 25, den: 1 }, length: 100, background: '#10132E' } as const;
const first = newScene('s', 'One', size);
const disc = (id: Id, x: number) =>
  newDrawing(first, id, id, [newItem(`${id}e`, 'ellipse', { width: 80, height: 80 }), newItem(`${id}f`, 'fill')], {
    position: [x, 150],
  });
const scene = (doc: Project) => doc.scenes.s as Scene;
const layer = (doc: Project, id: Id) => scene(doc).layers[id] as Layer;
const base = done(
  newProject('p', 'Project', [first]),
  addLayers('s', [disc('a', 100), disc('b', 200), disc('c', 300)]),
);
/** a and c, whose middle is at (200, 150). */
const made = done(base, groupLayers(scene(base), ['a', 'c'], 'g', 'Group', [200, 150], 0));
const listAt = (doc: Project, frame: number) => compileScene(scene(doc), NO_LIBRARY).at(frame).marks;
const opacity = (id: Id, value: number) =>
  setValue({ scene: 's', layer: id, key: 'opacity' }, value, { write: 'curve', frame: 0 });

describe('a group', () => {
  it('gathers its members where the front one stood, and lasts as long as they', () => {
    const trimmed = done(base, setLayers('s', ['a', 'c'], { from: 10, to: 60 }));
    const grouped = done(trimmed, groupLayers(scene(trimmed), ['c', 'a'], 'g', 'Group', [200, 150], 0));
    expect(scene(grouped).order).toEqual(['g', 'a', 'c', 'b']);
    expect(layer(grouped, 'g')).toMatchObject({ group: true, from: 10, to: 60 });
    expect(membersOf(scene(grouped), ['g'])).toEqual(['a', 'c']);
    expect(withMembers(scene(grouped), ['b', 'g'])).toEqual(['g', 'a', 'c', 'b']);
    expect(groupsAround(scene(grouped), 'c').map(({ id }) => id)).toEqual(['g']);
  });
  it('fades as one picture where its members stand together', () => {
    const faded = listAt(done(made, opacity('g', 0.5)), 0);
    expect(faded).toMatchObject([{ op: 'fill' }, { op: 'group', alpha: 0.5, marks: [{ alpha: 1 }, { alpha: 1 }] }]);
    expect(listAt(done(made, opacity('g', 0)), 0)).toHaveLength(1);
    expect(listAt(made, 0).map(({ op }) => op)).toEqual(['fill', 'fill', 'fill']);
    // Groups in groups fade once more.
    const nested = done(made, groupLayers(scene(made), ['g'], 'h', 'Outer', [200, 150], 0));
    expect(listAt(done(nested, opacity('g', 0.5), opacity('h', 0.4)), 0)).toMatchObject([
      { op: 'fill' },
      { alpha: 0.4, marks: [{ alpha: 0.5, marks: [{}, {}] }] },
    ]);
  });
  it('hides and is trimmed with its members', () => {
    expect(listAt(done(made, setLayers('s', ['g'], { hidden: true })), 0)).toHaveLength(1);
    const short = done(made, setLayers('s', ['g'], { from: 20, to: 40 }));
    expect([19, 20, 39, 40].map((f) => listAt(short, f).length)).toEqual([1, 3, 3, 1]);
    expect([19, 20].map((f) => isShown(scene(short), layer(short, 'a'), f))).toEqual([false, true]);
  });
  it('is slid and stretched as one, and goes with its members', () => {
    const early = done(made, setLayers('s', ['a'], { from: 10, to: 30 }), slideLayers('s', ['g'], 5));
    expect([layer(early, 'g').from, layer(early, 'a').from, layer(early, 'b').from]).toEqual([5, 15, 0]);
    const long = done(early, stretchLayers('s', ['g'], 2));
    expect([layer(long, 'g').from, layer(long, 'a').from, layer(long, 'a').to]).toEqual([5, 25, 65]);
    expect(scene(done(made, removeLayers('s', ['g']))).order).toEqual(['b']);
    expect(scene(done(made, ungroupLayers('s', ['g'], 0))).order).toEqual(['a', 'c', 'b']);
  });
  it('has the box of its members', () => {
    const program = compileScene(scene(made), NO_LIBRARY);
    expect(layerBoxInScene(program, 'g', 0)).toEqual({ left: 60, top: 110, right: 340, bottom: 190 });
  });
  it('is not what any other controller is', () => {
    const plain = done(made, {
      label: 'No group',
      change: (draft) => {
        const g = draft.scenes.s?.layers.g;
        if (g?.kind === 'controller') g.group = false;
      },
    });
    expect(listAt(done(plain, opacity('g', 0), setLayers('s', ['g'], { hidden: true })), 0)).toHaveLength(3);
    expect(withMembers(scene(plain), ['g'])).toEqual(['g']);
  });
});
