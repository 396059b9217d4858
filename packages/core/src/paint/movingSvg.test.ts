import { newDrawing, newItem, newScene } from '../document/make';
import type { Item } from '../document/types';
import { IDENTITY } from '../geometry/matrix';
import { polygon } from '../geometry/outline';
import type { AreaCut } from '../recipe/types';
import { compileScene } from '../scene/compile';
import { type DisplayList, NO_LIBRARY } from '../scene/program';
import { expect, it } from 'vitest';
import { movingSvgOf } from './movingSvg';
import { type Inside, svgOf } from './svg';

const NOTHING: Inside = { pictureAt: () => null, drawn: () => '' };
const written = (list: DisplayList, inside = NOTHING): string => svgOf(list, { width: 40, height: 20 }, inside).svg;

const scene = newScene('s', 'Moving', {
  width: 40,
  height: 20,
  rate: { num: 10, den: 1 },
  length: 4,
  background: '#FFFFFF',
});
const linear = { kind: 'linear' } as const;
const disc = newDrawing(scene, 'd', 'Disc', [
  newItem('e', 'ellipse', { width: 10, height: 10 }),
  newItem('f', 'fill', { color: '#2EC4B6' }),
]);
const position = {
  keys: [
    { frame: 0, value: [0, 10] as const, ease: linear },
    { frame: 3, value: [30, 10] as const, ease: linear },
  ],
};
const plate = newDrawing(scene, 'p', 'Plate', [
  newItem('r', 'rectangle', { width: 10, height: 10 }),
  newItem('pf', 'fill', { color: '#FFB23E' }),
]);

it('says once what stays, and when what changes does', () => {
  const layers = { d: { ...disc, params: { ...disc.params, position } }, p: { ...plate, from: 2 } };
  const program = compileScene({ ...scene, layers, order: ['d', 'p'] }, NO_LIBRARY);
  const frames = [0, 1, 2, 3].map((frame) => written(program.at(frame)));
  // The last frame stays for half a second.
  const how = { seconds: [0.1, 0.1, 0.1, 0.5], plays: 3 };
  const svg = movingSvgOf(frames, how);
  const timing = 'dur="0.8s" repeatCount="3" fill="freeze"';
  expect(svg.match(/#2EC4B6/g)).toHaveLength(1);
  expect(svg).toContain(
    `type="translate" additive="replace" calcMode="discrete" values="0 10;10 10;20 10;30 10" keyTimes="0;0.125;0.25;0.375" ${timing}`,
  );
  // The plate comes with the third frame.
  expect(svg).toContain(
    `display="none"><animate attributeName="display" calcMode="discrete" values="none;inline" keyTimes="0;0.25" ${timing}`,
  );
  expect(svg).not.toContain('<script');
});

const overFour = (from: number, to: number) => ({
  keys: [
    { frame: 0, value: from, ease: linear },
    { frame: 3, value: to, ease: linear },
  ],
});
const gradient = (...colors: string[]) => ({
  style: 'linear',
  gradient: { stops: colors.map((color, i) => ({ at: i / colors.length, color })) },
});
const plateWith = (id: string, from: number, ...items: Item[]) => ({
  ...newDrawing(scene, id, id, [newItem(`${id}r`, 'rectangle', { width: 10, height: 10 }), ...items]),
  from,
});

it('animates nothing to what browsers do not: addresses, other counts, nothing at all', () => {
  const trim = newItem('at', 'trim');
  const stroke = newItem('bs', 'stroke', { width: 2 });
  const layers = {
    a: plateWith('a', 0, { ...trim, params: { end: overFour(1, 0) } }, newItem('as', 'stroke')),
    b: plateWith('b', 0, { ...stroke, params: { ...stroke.params, fit: overFour(0, 6) } }),
    c: plateWith('c', 2, newItem('cf', 'fill', gradient('#2EC4B6', '#FFFFFF', '#FFB23E')), newItem('cb', 'blur')),
    d: plateWith('d', 0, newItem('df', 'fill', gradient('#2EC4B6', '#FFFFFF')), newItem('do', 'outline')),
  };
  const program = compileScene({ ...scene, layers, order: ['a', 'b', 'c', 'd'] }, NO_LIBRARY);
  const frames = [0, 1, 2, 3].map((frame) => written(program.at(frame)));
  const how = { seconds: [1, 1, 1, 1], plays: 0 };
  const svg = movingSvgOf(frames, how);

  const moving = [...svg.matchAll(/attributeName="([\w-]+)"[^>]* values="([^"]*)" keyTimes="([^"]*)"/g)];
  expect(moving.map(([, name]) => name)).toEqual(expect.arrayContaining(['d', 'stroke-dasharray', 'display']));
  for (const [, , values = '', times = ''] of moving) {
    const list = values.split(';');
    expect(list).toHaveLength(times.split(';').length);
    expect(list).not.toContain('');
    expect(values).not.toMatch(/url|none;\d|\d;none/);
  }
  const names = [...svg.matchAll(/ id="([^"]*)"/g)].map(([, id]) => id);
  expect(new Set(names).size).toBe(names.length);
  // Of three colours and of two, blurred and outlined: in each frame of which it is one it is that one.
  expect(new Set([...svg.matchAll(/url\(#([^)]*)\)/g)].map(([, id]) => id))).toEqual(new Set(names));
  expect(names).toHaveLength(4);
});

it('a clip that has shrunk to nothing has no path, which would end its motion', () => {
  const [mark] = compileScene({ ...scene, layers: { d: disc }, order: ['d'] }, NO_LIBRARY).at(0).marks;
  const part = { mode: 'show', inverted: false, strength: 1, feather: 0, scale: 1, crisp: false } as const;
  const list = (outlines: AreaCut['outlines']): DisplayList => ({
    ...compileScene(scene, NO_LIBRARY).at(0),
    marks: [
      { op: 'group', marks: [mark!], alpha: 1, blend: 'normal', cuts: [{ ...part, outlines, matrix: IDENTITY }] },
    ],
  });
  const whole = polygon([
    [0, 0],
    [9, 0],
    [9, 9],
  ]);
  const how = { seconds: [1, 1], plays: 0 };
  const svg = movingSvgOf([written(list([whole])), written(list([]))], how);
  expect(svg).toContain(
    '<clipPath id="clip1"><path d="M0 0L9 0L9 9Z" display="inline"><animate attributeName="display"',
  );
  expect(svg).not.toMatch(/d="[^"]*;"/);
});

it('a stroke that has shrunk to a spot is not in the SVG, where its round ends would show', () => {
  const spot = newDrawing(scene, 's', 'Spot', [
    newItem('e', 'rectangle', { width: 0, height: 0 }),
    newItem('k', 'stroke', { width: 8, cap: 'round', join: 'round' }),
  ]);
  const program = compileScene({ ...scene, layers: { s: spot }, order: ['s'] }, NO_LIBRARY);
  expect(written(program.at(0))).not.toContain('<path');
});

it('a mask within a mask has something in it that moves with every frame, without which browsers would not draw it anew', () => {
  const frame = (width: number) =>
    `<svg><defs><mask id="mask1"><rect width="${width}"/></mask><mask id="mask2"><g><g mask="url(#mask1)"/></g></mask></defs></svg>`;
  const svg = movingSvgOf([frame(1), frame(2), frame(3)], { seconds: [1, 1, 2], plays: 0 });
  const [inner, outer] = svg.match(/<mask .*?<\/mask>/g) as [string, string];
  expect(inner).not.toContain('height="0"');
  expect(outer).toContain(
    '<rect width="0" height="0"><animate attributeName="x" calcMode="discrete" values="0;1;0" keyTimes="0;0.25;0.5"',
  );
});

it('another picture is another element: an address is no list of values', () => {
  const image = (n: number) => `<svg><image x="${n}" href="data:image/png;base64,${n}"/></svg>`;
  const svg = movingSvgOf([image(1), image(2), image(1)], { seconds: [1, 1, 1], plays: 0 });
  expect(svg.match(/href="[^"]*"/g)).toEqual(['href="data:image/png;base64,1"', 'href="data:image/png;base64,2"']);
  expect(svg).toContain('values="inline;none;inline" keyTimes="0;0.33333;0.66667"');
  expect(svg).not.toMatch(/attributeName="(href|x)"/);
});
