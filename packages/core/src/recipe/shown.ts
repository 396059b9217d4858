/** Effects, and pictures of them to choose them by. */
import type { Params, Values } from '../document/params';
import { translation } from '../geometry/matrix';
import { NO_FONTS } from '../type/types';
import { boxOfMarks, markThrough } from './marks';
import { asksOf } from './table';
import { type CoverKind, EMPTY, type Flow, type Kind, type StepKind } from './types';

/** What changes what is drawn by itself, without cards or layers to do it by: a cover, or a step that shows it at other frames. */
type EffectKind = CoverKind | StepKind;

export const isEffect = (kind: Kind): kind is EffectKind =>
  kind.role === 'cover'
    ? !kind.holds && !asksOf(kind.kind).layers
    : kind.role === 'step' && !!kind.onDrawn && !kind.copies;

/** Of its width, how far a picture is taken to move in a frame where motion is to be seen. */
const PACE = 0.12;

/** What an effect makes of a flow as it comes, with room for all that it does; one over time sees it move to the right. */
export const shownBy = (kind: EffectKind, flow: Flow): Flow => {
  const defaults = Object.fromEntries(Object.entries(kind.params).map(([key, param]) => [key, param.default]));
  const values = { ...defaults, ...kind.example } as Values<Params>;
  const room = { take: () => true, takeAreas: () => true };
  const now = 1;
  if (kind.role === 'cover') {
    const by = { own: EMPTY, frame: now, goesOn: false, room, shown: () => null };
    return { shapes: [], marks: kind.cover(flow.marks, values, by) };
  }
  const box = boxOfMarks(flow.marks, false);
  const pace = box ? (box.right - box.left) * PACE : 0;
  const since = (frame: number) => translation((frame - now) * pace, 0);
  const at = (frame: number): Flow => ({ ...flow, marks: flow.marks.map((mark) => markThrough(since(frame), mark)) });
  const above = {
    ...room,
    frame: now,
    fonts: NO_FONTS,
    at,
    since: () => translation(0, 0),
    texts: () => ({ all: [], asked: [] }),
    own: EMPTY,
  };
  return { shapes: [], marks: kind.apply(above, values, () => values).marks };
};
