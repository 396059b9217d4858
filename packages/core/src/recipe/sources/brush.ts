import { strokes } from '../../document/params';
import { remembered } from '../../document/remembered';
import type { BrushStroke } from '../../document/types';
import { brushOutlines } from '../../geometry/brush';
import { areaCut, flatFill, grouped } from '../marks';
import { workOf } from '../room';
import { type Mark, pictureSource } from '../types';

/** What strokes draw, one after another: each of those that erase takes from what is drawn before it. */
const marksOf = remembered((all: readonly BrushStroke[]): readonly Mark[] => {
  let marks: Mark[] = [];
  for (const stroke of all) {
    const outlines = brushOutlines(stroke);
    if (outlines.length === 0) continue;
    if (!stroke.erases) marks.push(flatFill(outlines, stroke.color));
    else if (marks.length > 0) marks = [grouped(marks, { cuts: [areaCut(outlines, { mode: 'hide' })] })];
  }
  return marks;
});

/** Strokes of a brush, drawn by hand. */
export const brush = pictureSource({
  kind: 'brush',
  label: 'Brush strokes',
  params: { strokes: strokes('Strokes') },
  summary: (v) => `${v.strokes.length} stroke${v.strokes.length === 1 ? '' : 's'}`,
  marks: (v, { take }) => {
    // Before they are made: what there is no room for costs nothing.
    if (!take(v.strokes.reduce((sum, { points }) => sum + points.length, 0))) return [];
    return take(v.strokes.reduce((sum, s) => sum + workOf(brushOutlines(s)), 0)) ? marksOf(v.strokes) : [];
  },
});
