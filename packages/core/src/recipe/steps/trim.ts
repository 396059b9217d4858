import { choice, percent } from '../../document/params';
import { arcLength, part } from '../../geometry/length';
import type { Outline } from '../../geometry/outline';
import { type Shape, shortPercent, step } from '../types';

/** The parts of one outline in a range of fractions of its length; the range may run over its ends. */
const parts = (outline: Outline, from: number, to: number): Outline[] => {
  const total = arcLength(outline);
  const start = from - Math.floor(from);
  const end = start + to - from;
  const pieces =
    outline.closed || end <= 1
      ? [part(outline, start * total, end * total)]
      : [part(outline, start * total, total), part(outline, 0, (end - 1) * total)];
  return pieces.filter((p) => p !== null);
};

/** A range of the outlines laid end to end, each outline's share of it cut from that outline. */
const inTurn = (shapes: readonly Shape[], from: number, to: number): Shape[] => {
  const lengths = shapes.map((s) => arcLength(s.outline));
  const total = lengths.reduce((sum, l) => sum + l, 0);
  const start = (from - Math.floor(from)) * total;
  const end = start + (to - from) * total;
  const kept: Shape[] = [];
  let at = 0;
  shapes.forEach((shape, i) => {
    const length = lengths[i] as number;
    for (const shift of [0, total]) {
      const piece = part(shape.outline, Math.max(start - shift - at, 0), Math.min(end - shift - at, length));
      if (piece) kept.push({ ...shape, outline: piece });
    }
    at += length;
  });
  return kept;
};

/** Keeps the part of the outlines from start to end, both shifted by the offset. Ends given the wrong way round are swapped. */
export const trim = step({
  kind: 'trim',
  label: 'Trim',
  params: {
    start: percent('Start', 0),
    end: percent('End', 1),
    offset: percent('Offset', 0, { min: -1000, max: 1000 }),
    mode: choice(
      'Outlines',
      [
        { value: 'together', label: 'Together' },
        { value: 'in-turn', label: 'One after another' },
      ],
      'together',
    ),
  },
  summary: (v) => `${shortPercent(v.start)} to ${shortPercent(v.end)}`,
  apply: (above, { start, end, offset, mode }) => {
    const flow = above.at(above.frame);
    const [from, to] = [Math.min(start, end) + offset, Math.max(start, end) + offset];
    if (to - from >= 1 - 1e-12) return flow;
    const shapes =
      to - from <= 0
        ? []
        : mode === 'together'
          ? flow.shapes.flatMap((s) => parts(s.outline, from, to).map((outline) => ({ ...s, outline })))
          : inTurn(flow.shapes, from, to);
    return { ...flow, shapes };
  },
});
