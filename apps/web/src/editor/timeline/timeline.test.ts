import { color, number, point } from '@kite/core/document/params';
import type { KeyedProperty, Scene } from '@kite/core/document/types';
import { demoProject } from '@kite/demo/project';
import { describe, expect, it } from 'vitest';
import type { Param } from '@kite/core/document/params';
import { keyFrames } from '@kite/core/motion/keys';
import { samplerOf } from '@kite/core/motion/sampler';
import { heapsOf } from './heaps';
import { ribbonColors, ribbonCurves, shownValue } from './ribbons';
import { ribbonName, rowsElsewhere, rowsOf } from './rows';
import { panned, timeScale, zoomed } from './scale';
import { snappedBy } from './snapFrames';

const scale = timeScale(100, 232);
const linear = { kind: 'linear' } as const;
const keyed = (...keys: (readonly [number, KeyedProperty['keys'][number]['value']])[]): KeyedProperty => ({
  keys: keys.map(([frame, value]) => ({ frame, value, ease: linear })),
});

describe('the scale', () => {
  it('spreads the scene over the width and reads places back', () => {
    expect([scale.x(0), scale.x(50), scale.x(100)]).toEqual([16, 116, 216]);
    expect(scale.frame(116)).toBe(50);
  });
  it('zooms about a frame, which stays where it is, and not beyond the scene', () => {
    const reach = zoomed(scale, 2, 25);
    expect(reach).toEqual([12.5, 62.5]);
    const near = timeScale(100, 232, reach);
    expect(near.x(25)).toBe(scale.x(25));
    expect(zoomed(near, 0.1, 25)).toBeNull();
    expect(panned(near, 500)).toEqual([50, 100]);
  });
  it('snaps what is dragged to the nearest target in reach, or to whole frames', () => {
    expect(snappedBy([10, 40], 4.2, [46, 90], scale, false)).toEqual({ by: 6, at: 46 });
    expect(snappedBy([10, 40], 4.2, [60], scale, false)).toEqual({ by: 4, at: null });
    expect(snappedBy([10, 40], 4.2, [46], scale, true)).toEqual({ by: 4, at: null });
  });
  it('has ticks at whole frames only', () => {
    expect(timeScale(3, 900).ticks).toEqual([0, 1, 2, 3]);
  });
});

describe('beads', () => {
  it('are one for each keyframe that has room for its own', () => {
    expect(heapsOf([0, 2, 4, 50], scale)).toEqual([[0], [2], [4], [50]]);
  });
  it('are one for those that would lie on one another, of a width that can be taken hold of, wherever the time is moved to', () => {
    // Two pixels a frame.
    const frames = [0, 1, 2, 3, 4, 5, 6, 7, 8, 12];
    const heaps = [[0, 1, 2, 3, 4, 5, 6], [7, 8], [12]];
    expect(heapsOf(frames, scale)).toEqual(heaps);
    expect(heapsOf(frames, timeScale(1000, 232, [3, 103]))).toEqual(heaps);
  });
  it('are left out where they are out of sight', () => {
    const later = timeScale(1000, 232, [100, 200]);
    expect(heapsOf([0, 80, 100, 150, 203, 260], later)).toEqual([[100], [150], [203]]);
  });
});

const curvesOf = (param: Param, property: KeyedProperty) =>
  ribbonCurves(param, samplerOf(param, property), keyFrames(property), scale, 25);

describe('ribbons', () => {
  it('draw a rising value from their foot to their top', () => {
    const [curve] = curvesOf(number('Size', 0), keyed([0, 0], [100, 40]));
    expect([curve?.y(0), curve?.y(50), curve?.y(100), curve?.reach]).toEqual([20, 12.5, 5, 40]);
  });
  it('draw a value that does not change in the middle', () => {
    const [curve] = curvesOf(number('Size', 0), keyed([0, 7], [100, 7]));
    expect(curve?.y(30)).toBe(12.5);
  });
  it('have a curve for each part of a point, and none for a colour', () => {
    const parts = curvesOf(point('At', [0, 0]), keyed([0, [0, 5]], [100, [10, 5]]));
    expect(parts.map((c) => c.reach)).toEqual([10, 0]);
    expect(curvesOf(color('Ink', '#000000'), keyed([0, '#000000'], [100, '#ffffff']))).toEqual([]);
  });
  it('show colours as they run', () => {
    const strip =
      ribbonColors(
        color('Ink', '#000000'),
        samplerOf(color('Ink', '#000000'), keyed([0, '#000000'], [100, '#ffffff'])),
        scale,
      ) ?? '';
    expect(strip).toMatch(/^linear-gradient\(to right, #000000 0px, .*#ffffff 232px\)$/);
  });
  it('tell values in the units of the interface', () => {
    expect(shownValue(number('Opacity', 1, { unit: 'percent' }), 0.255)).toBe('25.5 %');
    expect(shownValue(number('Turn', 0, { unit: 'deg' }), 12.34)).toBe('12.3°');
    expect(shownValue(point('At', [0, 0]), [1.26, -3])).toBe('1.3, -3');
  });
});

describe('rows', () => {
  const project = demoProject();
  const scene = project.scenes[project.order[0] as string] as Scene;
  const moon = Object.values(scene.layers).find((l) => l.name === 'Moon');
  const rail = Object.values(scene.layers).find((l) => l.name === 'Upper rail');
  it('are the layers, with the animated properties of the open ones below them', () => {
    expect(rowsOf(scene, new Set()).map((r) => r.kind)).toEqual(scene.order.map(() => 'layer'));
    const rows = rowsOf(scene, new Set([moon?.id as string]));
    expect(rows.filter((r) => r.kind === 'ribbon').map((r) => r.key.split('/').at(-1))).toEqual([
      'position',
      'scale',
      'rotation',
    ]);
  });
  it('say so where nothing is animated', () => {
    const sky = Object.values(scene.layers).find((l) => l.name === 'Night sky');
    expect(rowsOf(scene, new Set([sky?.id as string])).some((r) => r.kind === 'hint')).toBe(true);
  });
  it('of other scenes are their names, and below an open one the layers that move', () => {
    const [first, second] = project.order as [string, string];
    const closed = rowsElsewhere(project, first, new Set());
    expect(closed.map((r) => r.kind)).toEqual(project.order.slice(1).map(() => 'scene'));
    const rows = rowsElsewhere(project, first, new Set([second]));
    const ribbons = rows.filter((r) => r.kind === 'ribbon');
    expect(ribbons.length).toBeGreaterThan(5);
    expect(ribbons.every((r) => r.ref.scene === second)).toBe(true);
    expect(rows[1]?.kind).toBe('elsewhere');
  });
  it('name a card’s property with its card', () => {
    const ribbon = rowsOf(scene, new Set([rail?.id as string])).find((r) => r.kind === 'ribbon');
    expect(ribbon?.kind === 'ribbon' && rail && ribbonName(rail, ribbon.ref)).toBe('Trim · start');
  });
});
