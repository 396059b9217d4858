/** How far marks are said to reach, against what the platform's canvas draws of them. */
import type { Box } from '@kite/core/geometry/bounds';
import { multiply, type Matrix, turn } from '@kite/core/geometry/matrix';
import { type Outline, OutlineWriter } from '@kite/core/geometry/outline';
import { markBox } from '@kite/core/recipe/marks';
import { boxAround } from '@kite/core/scene/bounds';
import type { StrokeMark } from '@kite/core/recipe/types';
import { Chance } from '@kite/core/test/random';
import { createCanvas } from '@napi-rs/canvas';
import { expect, it } from 'vitest';

const SIZE = 200;

const someOutline = (chance: Chance): Outline => {
  const at = () => chance.between(-40, 40);
  const writer = new OutlineWriter(at(), at());
  for (const isCurve of chance.times(1, 5, () => chance.happens(0.4))) {
    if (isCurve) writer.cubic(at(), at(), at(), at(), at(), at());
    else writer.line(at(), at());
  }
  return chance.happens(0.5) ? writer.close() : writer.open();
};

const someStroke = (chance: Chance): StrokeMark => {
  const [cos, sin] = turn(chance.one([0, 30, 90, 200]));
  const [across, down] = [chance.between(0.5, 1.2), chance.between(0.5, 1.2)];
  const middle: Matrix = [1, 0, 0, 1, SIZE / 2, SIZE / 2];
  return {
    op: 'stroke',
    outlines: [someOutline(chance)],
    matrix: multiply(multiply(middle, [cos, sin, -sin, cos, 0, 0]), [across, 0, 0, down, 0, 0]),
    ink: { style: 'solid', color: '#000000' },
    alpha: 1,
    width: chance.between(4, 14),
    cap: chance.one(['butt', 'round', 'square'] as const),
    join: chance.one(['miter', 'round', 'bevel'] as const),
    miterLimit: chance.one([1, 2, 4]),
    dashes: chance.happens(0.3) ? [chance.between(0, 9), chance.between(1, 9)] : [],
    dashOffset: 0,
  };
};

/** The box of the pixels of which the canvas covers half. */
const drawn = (mark: StrokeMark): Box => {
  const context = createCanvas(SIZE, SIZE).getContext('2d');
  context.setTransform(...mark.matrix);
  for (const { closed, points: p } of mark.outlines) {
    context.moveTo(p[0]!, p[1]!);
    for (let k = 0; k + 7 < p.length; k += 6)
      context.bezierCurveTo(p[k + 2]!, p[k + 3]!, p[k + 4]!, p[k + 5]!, p[k + 6]!, p[k + 7]!);
    if (closed) context.closePath();
  }
  context.lineWidth = mark.width;
  context.lineCap = mark.cap;
  context.lineJoin = mark.join;
  context.miterLimit = mark.miterLimit;
  context.setLineDash([...mark.dashes]);
  context.stroke();
  const { data } = context.getImageData(0, 0, SIZE, SIZE);
  const box = { left: SIZE, top: SIZE, right: 0, bottom: 0 };
  for (let i = 3; i < data.length; i += 4) {
    if (data[i]! < 128) continue;
    const [x, y] = [((i - 3) / 4) % SIZE, Math.floor((i - 3) / 4 / SIZE)];
    box.left = Math.min(box.left, x);
    box.right = Math.max(box.right, x + 1);
    box.top = Math.min(box.top, y);
    box.bottom = Math.max(box.bottom, y + 1);
  }
  return box;
};

/** How far what is seen goes beyond a box, on each side. */
const beyondIt = (box: Box, seen: Box): number[] => [
  box.left - seen.left,
  box.top - seen.top,
  seen.right - box.right,
  seen.bottom - box.bottom,
];

it('strokes of any kind stay within both of their boxes, and mostly fill the tight one', () => {
  const chance = new Chance(7);
  const over: number[] = [];
  for (let i = 0; i < 600; i++) {
    const mark = someStroke(chance);
    const seen = drawn(mark);
    const beyond = beyondIt(boxAround([mark])!, seen);
    expect(Math.max(...beyond, ...beyondIt(markBox(mark)!, seen)), JSON.stringify(mark)).toBeLessThan(1);
    if (mark.dashes.length > 0) continue;
    const within = beyond.map((by) => -by);
    expect(Math.max(...within), JSON.stringify(mark)).toBeLessThan(mark.width / Math.SQRT2 + 1.5);
    over.push(...within);
  }
  over.sort((a, b) => a - b);
  // Half of all sides are where the pixels end.
  expect(over[over.length / 2]!).toBeLessThan(1);
});
