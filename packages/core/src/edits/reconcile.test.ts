import { expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { newDrawing, newItem, newProject, newScene } from '../document/make';
import { applyEdit } from './apply';
import type { Project } from '../document/types';
import { reconcile } from './reconcile';

const scene = newScene('s', 'S', { width: 10, height: 10, rate: { num: 25, den: 1 }, length: 10, background: null });
const layer = (id: string) => newDrawing(scene, id, id, [newItem('r', 'rectangle')]);
const doc = (order: string[], ...ids: string[]): Project =>
  newProject('p', 'P', [{ ...scene, order, layers: Object.fromEntries(ids.map((id) => [id, layer(id)])) }]);
const order = (project: Project) => applyEdit(project, reconcile()).doc.scenes.s?.order;

it('puts what a list misses in front, and drops what is gone or doubled', () => {
  expect(order(doc(['a'], 'a', 'b'))).toEqual(['b', 'a']);
  expect(order(doc(['x', 'a', 'a'], 'a'))).toEqual(['a']);
  expect(() => checkProject(applyEdit(doc(['x', 'a'], 'a', 'b'), reconcile()).doc)).not.toThrow();
});

it('frees what has a parent that is gone', () => {
  const base = doc(['a'], 'a');
  const orphan = applyEdit(base, {
    label: '',
    change: (d) => void ((d.scenes.s!.layers.a!.parent as string | null) = 'gone'),
  }).doc;
  expect(applyEdit(orphan, reconcile()).doc.scenes.s?.layers.a?.parent).toBeNull();
});

it('changes nothing that agrees', () => {
  expect(applyEdit(doc(['b', 'a'], 'a', 'b'), reconcile()).patches).toEqual([]);
});
