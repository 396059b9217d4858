/** Covers as pictures, to choose them by. */
import type { Params, Values } from '../document/params';
import { asksOf } from './table';
import { type CoverKind, EMPTY, type Flow, type Kind } from './types';

/** Whether a kind shows what it is by itself, without cards of its own. */
export const isPictured = (kind: Kind): kind is CoverKind =>
  kind.role === 'cover' && !kind.holds && !asksOf(kind.kind).layers;

/** What a cover makes of a flow as it comes, with room for all that it does. */
export const shownBy = ({ params, example, cover }: CoverKind, flow: Flow): Flow => {
  const defaults = Object.fromEntries(Object.entries(params).map(([key, param]) => [key, param.default]));
  const values = { ...defaults, ...example };
  const room = { take: () => true, takeAreas: () => true };
  return {
    shapes: [],
    marks: cover(flow.marks, values as Values<Params>, {
      own: EMPTY,
      frame: 0,
      goesOn: false,
      room,
      shown: () => null,
    }),
  };
};
