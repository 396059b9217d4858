import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import { applyEdit } from '@kite/core/edits/apply';
import type { Ease, Scene } from '@kite/core/document/types';
import { addLayers } from '@kite/core/edits/layers';
import { animate } from '@kite/core/edits/properties';
import { describe, expect, it } from 'vitest';
import { gripsOf } from './grips';
import { handlesOf } from './handles';
import { sampledCurve, shownCurves } from './shown';
import { extentsOf } from './extents';

const blank = newScene('s', 'One', {
  width: 400,
  height: 300,
  rate: { num: 25, den: 1 },
  length: 100,
  background: null,
});
const lamp = newDrawing(blank, 'a', 'Lamp', [newItem('e', 'ellipse')]);
const linear: Ease = { kind: 'linear' };
const scene = [
  addLayers('s', [lamp]),
  animate({ scene: 's', layer: 'a', key: 'position' }, [
    [0, [0, 40], linear],
    [50, [200, 90]],
  ]),
  animate({ scene: 's', layer: 'a', key: 'opacity' }, [
    [10, 0, { kind: 'hold' }],
    [20, 1],
  ]),
].reduce((doc, edit) => applyEdit(doc, edit).doc, newProject('p', 'Project', [blank])).scenes.s as Scene;
const value = shownCurves(scene, ['a'], 'value');
const speed = shownCurves(scene, ['a'], 'speed');

describe('the curves shown', () => {
  it('are one for each component of a value, and one for each speed', () => {
    expect(value.map((c) => c.label)).toEqual(['Lamp · Position x', 'Lamp · Position y', 'Lamp · Opacity']);
    expect(speed.map((c) => c.label)).toEqual(['Lamp · Position', 'Lamp · Opacity']);
  });
  it('are in the units that are shown, speeds in units a second', () => {
    expect([value[0]?.at(25), value[2]?.at(20)]).toEqual([100, 100]);
    // 50 frames are two seconds, the way is the length of (200, 50).
    expect(speed[0]?.at(25)).toBeCloseTo(Math.hypot(200, 50) / 2, 3);
  });
  it('reach as high as their values, speeds down to standing still', () => {
    const [low, high] = extentsOf(value.slice(0, 2), 'value', 100, 25).get('px') ?? [0, 0];
    expect([low < 0, low > -60, high > 200, high < 260]).toEqual([true, true, true, true]);
    const [still = 1] = extentsOf(speed.slice(0, 1), 'speed', 100, 25).get('px') ?? [];
    expect(still).toBeLessThanOrEqual(0);
  });
  it('are drawn on both sides of a jump', () => {
    const points = sampledCurve(value[2]!, 0, 40, 1).filter(([f]) => f === 20);
    expect(points.map(([, v]) => v)).toEqual([100, 100]);
    expect(
      sampledCurve(speed[0]!, 40, 60, 1)
        .filter(([f]) => f === 50)
        .map(([, v]) => Math.round(v)),
    ).toEqual([103, 0]);
  });
});

describe('the handles', () => {
  it('stand on the curve’s own tangents, and none stand where an ease has none', () => {
    const handles = handlesOf(value[0]!, 'value', 25);
    expect(handles.map((h) => [h.which, Math.round(h.tip[0]), Math.round(h.tip[1])])).toEqual([
      ['start', 17, 67],
      ['end', 33, 133],
    ]);
    expect(handlesOf(value[2]!, 'value', 25)).toEqual([]);
  });
  it('stand at the spans that are wanted alone', () => {
    expect(handlesOf(value[0]!, 'value', 25, (from, to) => to - from > 50)).toEqual([]);
    expect(handlesOf(value[0]!, 'value', 25, (from, to) => from === 0 && to === 50)).toHaveLength(2);
  });
  it('make the ease that they are dragged to', () => {
    const [start] = handlesOf(value[0]!, 'value', 25);
    expect(start?.moved(25, 0)).toMatchObject({ kind: 'bezier', x1: 0.5, y1: 0 });
    const [fast] = handlesOf(speed[0]!, 'speed', 25);
    const even = Math.hypot(200, 50) / 2;
    expect(fast?.at[1]).toBeCloseTo(even, 6);
    // Twice the even pace is a slope of 2.
    expect(fast?.moved(25, 2 * even)).toMatchObject({ x1: 0.5, y1: expect.closeTo(1) });
  });
});

describe('grips', () => {
  const far = (a: readonly number[], b: readonly number[]) => Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!);
  it('stand at the ends of their handles where there is room', () => {
    const tips = [
      { tip: [40, 10], bead: [0, 80], way: 1 },
      { tip: [60, 80], bead: [100, 80], way: -1 },
    ] as const;
    expect(
      gripsOf(tips, [
        [0, 80],
        [100, 80],
      ]),
    ).toEqual([
      [40, 10],
      [60, 80],
    ]);
  });
  it('are apart from each other and from the beads, whatever the ease', () => {
    // Two of no length, and two whose tips are one: those of the usual ease by their speeds.
    const tips = [
      { tip: [0, 50], bead: [0, 50], way: 1 },
      { tip: [100, 50], bead: [100, 50], way: -1 },
      { tip: [50, 50], bead: [0, 50], way: 1 },
      { tip: [50, 50], bead: [100, 50], way: -1 },
      { tip: [50, 55], bead: [100, 50], way: -1 },
    ] as const;
    const beads = [
      [0, 50],
      [100, 50],
    ] as const;
    const grips = gripsOf(tips, beads);
    expect(grips.slice(0, 2)).toEqual([
      [12, 50],
      [88, 50],
    ]);
    const all = [...grips, ...beads];
    all.forEach((a, i) => all.slice(i + 1).forEach((b) => expect(far(a, b)).toBeGreaterThanOrEqual(12 - 1e-6)));
  });
});
