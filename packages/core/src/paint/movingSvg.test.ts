import { newDrawing, newItem, newScene } from '../document/make';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { expect, it } from 'vitest';
import { movingSvgOf } from './movingSvg';

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
  const frames = [0, 1, 2, 3].map((frame) => program.at(frame));
  // The last frame stays for half a second.
  const how = { width: 40, height: 20, seconds: [0.1, 0.1, 0.1, 0.5], plays: 3 };
  const { svg } = movingSvgOf(frames, how, () => null);
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
