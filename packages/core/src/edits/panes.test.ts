import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { DrawingLayer, Project, Scene } from '../document/types';
import { markBox } from '../recipe/marks';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { applyEdit } from './apply';
import { addLayers } from './layers';
import { cutByShapes, cutIntoPanes, type Panes, partsOf } from './panes';

describe('parts of a stretch', () => {
  it('meet exactly, at whole pixels, and leave nothing out', () => {
    for (const [from, to, count] of [
      [-50, 50, 3],
      [0.4, 99.7, 7],
      [-33.3, 12.1, 4],
    ] as const) {
      const parts = partsOf(from, to, count, 0);
      expect([parts[0]?.[0], parts.at(-1)?.[1]]).toEqual([Math.floor(from), Math.ceil(to)]);
      parts.slice(1).forEach(([begin], i) => expect(begin).toBe(parts[i]?.[1]));
      expect(parts.flat().every(Number.isInteger)).toBe(true);
    }
  });
  it('keep their gaps', () => {
    expect(partsOf(0, 100, 3, 5)).toEqual([
      [0, 30],
      [35, 65],
      [70, 100],
    ]);
  });
});

const empty = newScene('s', 'One', {
  width: 400,
  height: 300,
  rate: { num: 25, den: 1 },
  length: 50,
  background: null,
});
const sheet = (width: number): DrawingLayer =>
  newDrawing(empty, 'a', 'Window', [newItem('r', 'rectangle', { width, height: 60 }), newItem('f', 'fill')]);
const projectOf = (layer: DrawingLayer): Project =>
  applyEdit(newProject('p', 'P', [empty]), addLayers('s', [layer])).doc;
const programOf = (doc: Project) => compileScene(doc.scenes.s as Scene, NO_LIBRARY);
const cut = (doc: Project, panes: Panes) =>
  checkProject(applyEdit(doc, cutIntoPanes(programOf(doc), 'a', panes, 0, countingIds('n'))).doc);

describe('a layer cut into panes', () => {
  const doc = cut(projectOf(sheet(90)), { rows: 2, columns: 3, gap: 0 });
  const { order, layers } = doc.scenes.s as Scene;
  it('is one layer for each, named by row and column, in that order', () => {
    expect(order.map((id) => layers[id]?.name)).toEqual(
      [1, 2].flatMap((row) => [1, 2, 3].map((c) => `Window ${row}.${c}`)),
    );
    expect(layers.a).toBeUndefined();
  });
  it('shows in each what it showed there, about the middle of each', () => {
    const program = programOf(doc);
    const boxes = order.map((id) => markBox(program.at(0, (layer) => layer === id).marks[0] as never));
    expect(boxes.slice(0, 2)).toEqual([
      { left: 155, top: 120, right: 185, bottom: 150 },
      { left: 185, top: 120, right: 215, bottom: 150 },
    ]);
    const middles = order.map((id) => (layers[id]?.params.position as { value: unknown }).value);
    expect(middles.slice(0, 2)).toEqual([
      [170, 135],
      [200, 135],
    ]);
  });
  it('is refused where there is nothing to cut, or too little', () => {
    expect(() => cut(projectOf(sheet(0)), { rows: 2, columns: 2, gap: 0 })).toThrow('shows nothing');
    expect(() => cut(projectOf(sheet(90)), { rows: 2, columns: 3, gap: 50 })).toThrow('too small for so many panes');
  });
});

describe('a layer cut by the shapes of another', () => {
  const square = newItem('q', 'rectangle', { width: 20, height: 20, centre: [-30, 0] });
  const blinds = {
    ...newDrawing(empty, 'b', 'Blinds', [
      square,
      newItem('bf', 'fill'),
      newItem('rep', 'repeater', { copies: 3, position: [30, 0] }),
    ]),
    params: { position: { value: [210, 150] } },
  } as const satisfies DrawingLayer;
  const both = applyEdit(projectOf(sheet(90)), addLayers('s', [blinds])).doc;
  const cutBy = (doc: Project, by: string) =>
    checkProject(applyEdit(doc, cutByShapes(programOf(doc), 'a', by, 0, countingIds('n'))).doc);
  it('is a pane for each copy of a repeater, where that lies on the picture; the copies are switched off', () => {
    const scene = cutBy(both, 'b').scenes.s as Scene;
    const program = compileScene(scene, NO_LIBRARY);
    const panes = scene.order.filter((id) => id !== 'b');
    expect(panes.map((id) => scene.layers[id]?.name)).toEqual(['Window 1', 'Window 2', 'Window 3']);
    expect(scene.layers.b?.hidden).toBe(true);
    // The sheet reaches from 155 to 245, the last copy from 230 to 250.
    expect(panes.map((id) => markBox(program.at(0, (layer) => layer === id).marks[0] as never))).toEqual([
      { left: 170, top: 140, right: 190, bottom: 160 },
      { left: 200, top: 140, right: 220, bottom: 160 },
      { left: 230, top: 140, right: 245, bottom: 160 },
    ]);
  });
  it('is refused where there are no outlines', () => {
    expect(() => cutBy(both, 'none')).toThrow('has no outlines at this frame');
  });
});
