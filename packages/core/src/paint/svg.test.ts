/** What SVG has no means for is a picture in it, where it stands and no larger. */
import { newDrawing, newItem, newScene, still } from '../document/make';
import type { Layer, Value } from '../document/types';
import { NO_LIBRARY } from '../scene/program';
import { compileScene } from '../scene/compile';
import type { Mark } from '../recipe/types';
import { describe, expect, it } from 'vitest';
import type { Frame } from './canvas';
import { notesOf, svgOf } from './svg';

const scene = newScene('s', 'Means', {
  width: 100,
  height: 50,
  rate: { num: 10, den: 1 },
  length: 4,
  background: null,
});
type Cards = ReturnType<typeof newItem>[];
const layer = (cards: Cards, params: { readonly [key: string]: Value } = {}): Layer => {
  const made = newDrawing(scene, 'l', 'Layer', [newItem('r', 'rectangle', { width: 40, height: 20 }), ...cards]);
  const values = Object.entries({ position: [50, 25], ...params }).map(([key, value]) => [key, still(value)]);
  return { ...made, params: { ...made.params, ...Object.fromEntries(values) } };
};
const fill = newItem('f', 'fill', { color: '#2EC4B6' });
const gradient = {
  stops: [
    { at: 0, color: '#2EC4B6' },
    { at: 1, color: '#FFB23E' },
  ],
};

/** A layer as an SVG of a size, with what was asked to be drawn for it. */
const written = (one: Layer, size = { width: 100, height: 50 }) => {
  const list = compileScene({ ...scene, layers: { l: one }, order: ['l'] }, NO_LIBRARY).at(0);
  const asked: { readonly marks: readonly Mark[]; readonly frame: Frame }[] = [];
  const inside = {
    pictureAt: () => null,
    drawn: (marks: readonly Mark[], frame: Frame) => `picture-${asked.push({ marks, frame })}`,
  };
  const made = svgOf(list, size, inside);
  return { svg: made.svg, notes: notesOf([made]), asked };
};

describe('a picture in an SVG', () => {
  it.each([
    ['clouds', [fill, newItem('x', 'clouds')], 'squares, grain, clouds, patterns, ripples and warps'],
    ['an angular gradient', [newItem('f', 'fill', { style: 'angular', gradient })], 'angular gradients'],
    ['grain in a gradient', [newItem('f', 'fill', { style: 'linear', gradient, grain: 0.5 })], 'gradients with grain'],
  ])('is as large as %s, in the pixels of the file', (_what, cards, told) => {
    const { svg, notes, asked } = written(layer(cards), { width: 200, height: 100 });
    expect(notes).toEqual([`As pictures, since SVG has no means for them: ${told}.`]);
    expect(asked.map(({ frame }) => frame)).toEqual([{ width: 80, height: 40, view: [2, 0, 0, 2, -60, -30] }]);
    expect(svg).toContain('<image x="30" y="15" width="40" height="20" preserveAspectRatio="none" href="picture-1"/>');
    expect(svg).not.toMatch(/<path|Gradient/);
  });
  it('ends where the scene does, but for what spreads back into it', () => {
    const cards = [fill, newItem('x', 'clouds'), newItem('e', 'ellipse', { width: 4, height: 4 }), fill];
    const params = { scale: [10, 1] };
    expect(written(layer(cards, params)).asked[0]?.frame).toMatchObject({ width: 100, height: 20 });
    const blurred = written(layer([...cards, newItem('b', 'blur', { amount: 4 })], params));
    // Three deviations each way, along with what a picture is rounded up to.
    const { width, view } = blurred.asked[0]!.frame;
    expect(width).toBe(100 + 2 * view[4]);
    expect(view[4]).toBeGreaterThanOrEqual(12);
    expect(blurred.svg).toMatch(/<g filter="url\(#filter1\)"><image [^>]*\/><path/);
  });
  it('is faded and laid over the others as what it shows is', () => {
    const { svg, asked } = written({ ...layer([fill, newItem('x', 'clouds')], { opacity: 0.5 }), blend: 'screen' });
    expect(svg).toMatch(/opacity="0.5"/);
    expect(svg).toContain('style="mix-blend-mode:screen"');
    expect(asked[0]?.marks).toMatchObject([{ alpha: 1, blend: 'normal' }]);
  });
  it('shows where something that grows has come to, of which all else stays paths', () => {
    const from = { points: [{ at: [-20, 0] as const, root: true, wait: 0, pace: 1 }], strokes: [] };
    const { svg, notes, asked } = written(layer([fill, newItem('g', 'grow', { from, shown: 0.4 })]));
    expect(notes).toEqual(['As pictures, since SVG has no means for them: the edges of what grows.']);
    expect(svg).toMatch(/<mask [^>]*><g><image [^>]*href="picture-1"\/><\/g><\/mask>/);
    expect(svg).toMatch(/<g mask="url\(#mask1\)"><path [^>]*fill="#2EC4B6"/);
    expect(asked[0]?.marks).toMatchObject([{ marks: [{ ink: { color: '#FFFFFF' } }], cuts: [{ shown: 0.4 }] }]);
  });
  it('is what a gradient is in perspective, and not what a matrix takes there', () => {
    const cards = [newItem('f', 'fill', { style: 'linear', gradient })];
    const turned = written(layer(cards, { depth: true, turnY: 40 }));
    expect(turned.notes).toHaveLength(1);
    expect(turned.svg).not.toContain('<path');
    const away = written(layer(cards, { depth: true, z: 100 }));
    expect([away.notes, away.asked]).toEqual([[], []]);
    expect(away.svg).toMatch(/<path [^>]*fill="url\(#linear1\)"/);
  });
  it('has larger pixels where there would be too many, and none where it is flat', () => {
    const items = [fill, newItem('x', 'clouds'), newItem('e', 'ellipse', { width: 4, height: 4 }), fill];
    const far = layer([...items, newItem('b', 'blur', { amount: 900 })], { scale: [1e4, 1e4] });
    const { width, height } = written(far, { width: 4000, height: 2000 }).asked[0]!.frame;
    expect(width * height).toBeGreaterThan(31e6);
    expect(width * height).toBeLessThan(33e6);
    expect(written(layer([fill, newItem('x', 'clouds')], { scale: [0, 1] })).asked).toEqual([]);
  });
  it('is not there where nothing of it is seen', () => {
    const { svg, asked } = written(layer([fill, newItem('x', 'clouds')], { position: [500, 25] }));
    expect(asked).toEqual([]);
    expect(svg).not.toContain('<image');
  });
});

it('is stretched to whole pixels as a frame is, and has their shape', () => {
  const { svg } = written(layer([fill]), { width: 33, height: 17 });
  expect(svg).toContain('width="33" height="17" viewBox="0 0 33 17"');
  expect(svg).toContain('<g transform="matrix(0.33 0 0 0.34 0 0)">');
  expect(written(layer([fill]), { width: 200, height: 100 }).svg).toContain('viewBox="0 0 100 50"');
});

it('what is hidden is a hole in all that can be seen, however small its layer is drawn', () => {
  const mask = { ...newItem('m', 'mask', { mode: 'hide' }), children: ['e'] };
  const { svg } = written(layer([fill, mask, newItem('e', 'ellipse')], { scale: [0.02, 0.02] }));
  // A pixel beyond the scene, fifty times as far from the layer's own middle.
  expect(svg).toMatch(/<path d="M-2550 -1300L2550 -1300L2550 1300L-2550 1300Z[^"]*" clip-rule="evenodd"/);
});

it('says once what is to be known of many frames', () => {
  const made = (unread: string[], lacks: string[]) => ({ svg: '', unread: new Set(unread), lacks: new Set(lacks) });
  expect(notesOf([made([], []), made(['Ticket'], ['clouds']), made(['Ticket'], ['clouds', 'grain'])])).toEqual([
    'The picture “Ticket” could not be read.',
    'As pictures, since SVG has no means for them: clouds; grain.',
  ]);
});
