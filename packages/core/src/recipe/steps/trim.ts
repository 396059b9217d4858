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
  const total = shapes.reduce((sum, s) => sum + s.outlines.reduce((own, o) => own + arcLength(o), 0), 0);
  const start = (from - Math.floor(from)) * total;
  const end = start + (to - from) * total;
  let at = 0;
  return shapes.map((shape) => {
    const outlines = shape.outlines.flatMap((outline) => {
      const length = arcLength(outline);
      const pieces = [0, total].map((shift) =>
        part(outline, Math.max(start - shift - at, 0), Math.min(end - shift - at, length)),
      );
      at += length;
      return pieces.filter((p) => p !== null);
    });
    return { ...shape, outlines };
  });
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
    if (to - from <= 0) return { ...flow, shapes: [] };
    const shapes =
      mode === 'together'
        ? flow.shapes.map((s) => ({ ...s, outlines: s.outlines.flatMap((o) => parts(o, from, to)) }))
        : inTurn(flow.shapes, from, to);
    return { ...flow, shapes };
  },
});
