import { describe, expect, it } from 'vitest';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { Id, Project, Scene } from '../document/types';
import type { GroupMark, Mark } from '../recipe/types';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { setFormula } from './formulas';
import { joinLayers } from './join';
import { addLayers, setLayers } from './layers';
import { matteBy } from './mattes';
import { setParent } from './place';
import { animate } from './properties';
import { takeApart } from './takeApart';
import { done } from '../test/done';

const size = { width: 400, height: 300, rate: { num: 25, den: 1 }, length: 50, background: null } as const;
const first = newScene('s', 'One', size);
const box = (id: Id, x: number, color: string) =>
  newDrawing(first, id, `Box ${id}`, [newItem(`${id}r`, 'rectangle'), newItem(`${id}f`, 'fill', { color })], {
    position: [x, 150],
  });
const scene = (doc: Project) => doc.scenes.s as Scene;
/** What is painted, in order, with where it is. */
const painted = (doc: Project, frame: number) => {
  const flat = (mark: Mark, alpha = 1): unknown[] =>
    mark.op === 'group'
      ? (mark as GroupMark).marks.flatMap((inner) => flat(inner, alpha * mark.alpha))
      : mark.op === 'fill'
        ? [[mark.ink, mark.matrix.map((x) => Math.round(x * 1e3) / 1e3 + 0), alpha * mark.alpha]]
        : [];
  return compileScene(scene(doc), NO_LIBRARY)
    .at(frame)
    .marks.flatMap((mark) => flat(mark));
};
const base = done(
  newProject('p', 'Project', [first]),
  addLayers('s', [box('a', 100, '#FF0000'), box('b', 200, '#00FF00'), box('c', 300, '#0000FF')]),
  animate({ scene: 's', layer: 'a', key: 'position' }, [
    [0, [100, 150]],
    [40, [300, 50]],
  ]),
  animate({ scene: 's', layer: 'b', key: 'opacity' }, [
    [0, 0],
    [40, 1],
  ]),
  setFormula({ scene: 's', layer: 'b', key: 'rotation' }, '{@a/position}.x / 10'),
);
const join = (doc: Project, ...ids: Id[]) => done(doc, joinLayers('s', ids, [200, 150], 0, countingIds('n')));

describe('joined drawings', () => {
  it('look as they did, at every frame, formulas among them too', () => {
    const joined = join(base, 'a', 'b');
    expect(scene(joined).order).toHaveLength(2);
    for (const frame of [0, 13, 40]) expect(painted(joined, frame)).toEqual(painted(base, frame));
    // And come apart again.
    const apart = done(joined, takeApart('s', scene(joined).order[0] as Id, countingIds('t')));
    expect(scene(apart).order).toHaveLength(3);
    for (const frame of [0, 13, 40]) expect(painted(apart, frame)).toEqual(painted(base, frame));
  });
  it('come apart with the formulas of the whole, and of what reads it', () => {
    const whole = join(base, 'a', 'b');
    const [id] = scene(whole).order as [Id];
    const read = done(
      whole,
      setFormula({ scene: 's', layer: id, key: 'rotation' }, '{@this/opacity} * 30'),
      setFormula({ scene: 's', layer: 'c', key: 'rotation' }, `{@${id}/rotation} / 2`),
    );
    const apart = done(read, takeApart('s', id, countingIds('t')));
    for (const frame of [0, 40]) expect(painted(apart, frame)).toEqual(painted(read, frame));
    expect(painted(read, 0)).not.toEqual(painted(whole, 0));
  });
  it('blend as their layers did', () => {
    const screened = done(base, setLayers('s', ['b'], { blend: 'screen' }));
    const joined = join(screened, 'a', 'b');
    const marksOf = (doc: Project) => compileScene(scene(doc), NO_LIBRARY).at(20).marks as GroupMark[];
    const { blend, alpha } = marksOf(screened)[1] as GroupMark;
    expect(blend).toBe('screen');
    expect(marksOf(joined).at(-1)?.marks).toMatchObject([{ blend, alpha }, { op: 'fill' }]);
    expect(painted(joined, 20)).toEqual(painted(base, 20));
  });
  it('keep their parent, and what hangs from them', () => {
    const hung = done(base, setParent('s', ['a', 'b'], 'c', 0), setParent('s', ['c'], null, 0));
    const joined = join(hung, 'a', 'b');
    const [id] = scene(joined).order as [Id];
    expect(scene(joined).layers[id]).toMatchObject({ name: 'Box a', parent: 'c' });
    expect(painted(joined, 20)).toEqual(painted(hung, 20));
    const child = done(base, setParent('s', ['c'], 'a', 0));
    const whole = join(child, 'a', 'b');
    expect(scene(whole).layers.c?.parent).toBe(scene(whole).order[0]);
    expect(painted(whole, 0)).toEqual(painted(child, 0));
  });
  it('are refused where cards cannot do what one of them does', () => {
    const refused =
      (doc: Project, ...ids: Id[]) =>
      () =>
        join(doc, ...ids);
    expect(refused(base, 'a')).toThrow('two drawings');
    expect(refused(done(base, setLayers('s', ['b'], { from: 5 })), 'a', 'b')).toThrow('give them one time first');
    const matte = done(base, matteBy('s', 'b', ['c'], countingIds('m')));
    expect(refused(matte, 'a', 'b')).toThrow('cuts other layers');
  });
});
