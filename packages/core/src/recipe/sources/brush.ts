import { asset, percent, strokes, switchParam } from '../../document/params';
import { lastMade } from '../../document/remembered';
import type { BrushStroke, PictureAsset } from '../../document/types';
import { brushOutlines, printsOf } from '../../geometry/brush';
import { opacityOf } from '../../picture/pixels';
import { changedBy } from '../covers/effect';
import { floodBy } from '../covers/flood';
import { areaCut, flatFill, grouped } from '../marks';
import { workOf, workOfMarks } from '../room';
import { type Cut, type Mark, pictureSource } from '../types';

/** A picture as the tip of a brush. */
interface Stamp {
  readonly asset: PictureAsset;
  readonly every: number;
  readonly turns: boolean;
}

const printed = (stroke: BrushStroke, { asset: file, ...how }: Stamp): readonly Mark[] =>
  printsOf(stroke, file, how).map((matrix) => ({ op: 'picture', asset: file, cut: null, matrix, alpha: 1 }));

/** What a stroke draws: one colour, however often it goes over itself. */
const drawnBy = (stroke: BrushStroke, stamp: Stamp | null): readonly Mark[] => {
  const alpha = stroke.opacity ?? 1;
  if (stamp && stroke.tip === 'own') {
    const prints = changedBy(floodBy(stroke.color.slice(0, 7), 1), printed(stroke, stamp));
    return [{ ...prints, alpha: alpha * opacityOf(stroke.color) }];
  }
  const outlines = brushOutlines(stroke);
  return outlines.length === 0 ? [] : [{ ...flatFill(outlines, stroke.color), alpha }];
};

/** What a stroke that erases takes away. */
const erasedBy = (stroke: BrushStroke, stamp: Stamp | null): Cut => {
  const strength = stroke.opacity ?? 1;
  if (!stamp || stroke.tip !== 'own') return areaCut(brushOutlines(stroke), { mode: 'hide', strength });
  return { mode: 'hide', inverted: false, strength, marks: printed(stroke, stamp) };
};

/** What strokes draw, one after another: each of those that erase takes from what is drawn before it. */
const marksOf = (all: readonly BrushStroke[], stamp: Stamp | null): readonly Mark[] => {
  let marks: Mark[] = [];
  for (const stroke of all) {
    if (!stroke.erases) marks.push(...drawnBy(stroke, stamp));
    else if (marks.length > 0) marks = [grouped(marks, { cuts: [erasedBy(stroke, stamp)] })];
  }
  return marks;
};

const lastMarks = lastMade<readonly BrushStroke[], readonly Mark[]>();

/** Strokes of a brush, drawn by hand. */
export const brush = pictureSource({
  kind: 'brush',
  label: 'Brush strokes',
  params: {
    strokes: strokes('Strokes'),
    stamp: asset('Tip picture', 'picture'),
    every: percent('Pressed every', 0.15, { min: 0.02, max: 4, when: ['stamp'], hint: 'of its size' }),
    turns: switchParam('Turns with the stroke', true, { when: ['stamp'] }),
  },
  summary: (v) => `${v.strokes.length} stroke${v.strokes.length === 1 ? '' : 's'}`,
  marks: (v, { supplies, take, tell }) => {
    const own = v.strokes.filter(({ tip }) => tip === 'own');
    const file = own.length > 0 && v.stamp !== '' ? supplies.assets[v.stamp] : undefined;
    const stamp = file?.kind === 'picture' ? { asset: file, every: v.every, turns: v.turns } : null;
    if (own.length > 0 && !stamp) tell('is drawn with a picture that is gone: a round tip stands for it');
    // Before they are made: what there is no room for costs nothing.
    if (!take(v.strokes.reduce((sum, { points }) => sum + points.length, 0))) return [];
    if (!take(v.strokes.reduce((sum, s) => sum + workOf(brushOutlines(s)), 0))) return [];
    const marks = lastMarks(v.strokes, [stamp?.asset, v.every, v.turns], () => marksOf(v.strokes, stamp));
    return stamp && !take(workOfMarks(marks)) ? [] : marks;
  },
});
