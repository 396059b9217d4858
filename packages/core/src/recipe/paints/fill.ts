import { choice, percent } from '../../document/params';
import type { Point } from '../../document/types';
import { IDENTITY, inverted, type Matrix, multiply, translation } from '../../geometry/matrix';
import { transformed } from '../../geometry/outline';
import { paint } from '../types';
import { INK, inkOf, inkSummary } from './ink';

/** Around a point: `breadth` times as wide across the way to another one, and as long along it. */
const across = ([x, y]: Point, [toX, toY]: Point, breadth: number): Matrix => {
  const [dx, dy] = [toX - x, toY - y];
  const long = dx * dx + dy * dy || 1;
  // The way along is kept: along · alongᵀ + breadth · across · acrossᵀ.
  const [xx, xy, yy] = [(dx * dx) / long, (dx * dy) / long, (dy * dy) / long];
  const wider: Matrix = [xx + breadth * yy, xy - breadth * xy, xy - breadth * xy, yy + breadth * xx, 0, 0];
  return multiply(multiply(translation(x, y), wider), translation(-x, -y));
};

export const fill = paint({
  kind: 'fill',
  label: 'Fill',
  params: {
    ...INK,
    breadth: percent('Breadth', 1, { min: 0.01, max: 100, when: ['style', 'radial'] }),
    rule: choice(
      'Overlaps',
      [
        { value: 'nonzero', label: 'Filled' },
        { value: 'evenodd', label: 'Holes' },
      ],
      'nonzero',
    ),
  },
  summary: inkSummary,
  mark: (outlines, alpha, v) => {
    // What is drawn goes through the matrix that makes an ellipse of the gradient's circle.
    const oval = v.style === 'radial' && v.breadth !== 1 ? across(v.from, v.to, v.breadth) : null;
    const back = oval && inverted(oval);
    return {
      op: 'fill',
      outlines: back ? outlines.map((outline) => transformed(back, outline)) : outlines,
      matrix: (back && oval) ?? IDENTITY,
      ink: inkOf(v),
      alpha: alpha * v.opacity,
      rule: v.rule,
    };
  },
});
