/** Formulas to begin with: links from one property to another, and ready ones for what is wanted often. */
import type { Param } from '../document/params';
import { type Here, referenceTo, type Target } from './refs';
import { fitsType, typeOf } from './types';

/** How a property takes over another’s value. */
export type Link =
  | { readonly how: 'same' }
  /** In seconds; in a set so long for each rank. */
  | { readonly how: 'late'; readonly by: number }
  /** A share: 0.5 is half as much. */
  | { readonly how: 'scaled'; readonly by: number }
  | { readonly how: 'opposite' };

interface End {
  readonly target: Target;
  readonly param: Param;
}

const numeric = ({ kind }: Param) => kind === 'number' || kind === 'point' || kind === 'numbers';

/** A number without the noise of its last digits. */
const short = (n: number): string => String(Number(n.toFixed(4)));
const share = (n: number): string => `${short(n * 100)}%`;

/**
 * The text of a link from a property, or from one part of it, to another; null where they cannot be linked. A number
 * takes the x of a point, or the part that it is itself.
 */
export const linkText = (link: Link, from: End, to: End & { readonly part?: 0 | 1 }, inSet: boolean): string | null => {
  const { part } = to;
  const here: Here = to.target;
  const fits =
    fitsType(typeOf(from.param), typeOf(to.param)) || (from.param.kind === 'number' && to.param.kind === 'point');
  const takesPart = from.param.kind === 'point' && to.param.kind === 'number';
  if (!fits && !takesPart) return null;
  const read = `${referenceTo(from.target, here)}${takesPart ? (part === 1 ? '.y' : '.x') : ''}`;
  switch (link.how) {
    case 'same':
      return read;
    case 'late':
      return `lag(${read}, ${short(link.by)}${inSet ? ' * order' : ''})`;
    case 'scaled':
      return numeric(from.param) ? `${read} * ${share(link.by)}` : null;
    case 'opposite':
      if (from.param.kind === 'switch') return `not ${read}`;
      return numeric(from.param) ? `-${read}` : null;
  }
};

/** What a ready formula is made for. */
export interface Occasion {
  readonly param: Param;
  readonly here: Here;
  /** The same property of the lead of its set, or else of another layer. */
  readonly lead: Target | null;
  /** The position of that layer. */
  readonly leadPosition: Target | null;
  /** A text card of the scene. */
  readonly text: Target | null;
  readonly inSet: boolean;
}

export interface ReadyFormula {
  readonly name: string;
  readonly says: string;
  /** A small curve of what it does, in a box of 32 by 16. */
  readonly sketch: string;
  /** null where the property cannot have it. */
  readonly text: (occasion: Occasion) => string | null;
}

const unitOf = (param: Param) => (param.kind === 'number' || param.kind === 'point' ? param.unit : '');
/** How far something swings that is to be seen and not to disturb, in the units of the property. */
const swingOf = (param: Param): string => ({ px: '12', deg: '8', percent: '10%', frames: '5', '': '1' })[unitOf(param)];
const isMoving = ({ kind }: Param) => kind === 'number' || kind === 'point';

export const READY_FORMULAS: readonly ReadyFormula[] = [
  {
    name: 'Follow late',
    says: 'Does what the lead does, a little later.',
    sketch: 'M1 14C8 14 6 2 14 2H31M7 14C14 14 12 5 20 5H31',
    text: ({ here, lead, inSet }) => lead && `lag(${referenceTo(lead, here)}, ${inSet ? '0.1 * order' : '0.1'})`,
  },
  {
    name: 'Drift',
    says: 'Wanders about its keyframes.',
    sketch: 'M1 8C4 2 7 4 9 8S14 13 17 7 22 10 25 5 29 9 31 7',
    text: ({ param }) => (isMoving(param) ? `value + drift(0.5, ${swingOf(param)}, order)` : null),
  },
  {
    name: 'Wave',
    says: 'Swings about its keyframes, each of a set a little later.',
    sketch: 'M1 8C4 0 8 0 11 8S18 16 21 8 28 0 31 8',
    text: ({ param, here }) => {
      if (!isMoving(param)) return null;
      const swing = `wave(1, ${swingOf(param)}, -30 * order)`;
      return param.kind === 'point' && here.key === 'position' ? `value + [0, ${swing}]` : `value + ${swing}`;
    },
  },
  {
    name: 'Spin steadily',
    says: 'Turns on and on, a quarter each second.',
    sketch: 'M1 15L31 1',
    text: ({ param }) => (param.kind === 'number' && param.unit === 'deg' ? 'value + 90 * time' : null),
  },
  {
    name: 'Bounce after the last key',
    says: 'Swings past each keyframe and settles.',
    sketch: 'M1 15C5 15 7 1 11 1C14 1 14 9 17 9S20 4 23 4 26 6 31 6',
    text: ({ param }) =>
      isMoving(param) ? 'value + arrival * 0.05 * sin(360 * 3 * sinceKey) * exp(-5 * sinceKey)' : null,
  },
  {
    name: 'Fit box to its text',
    says: 'As wide or as high as the words, and some room.',
    sketch: 'M2 2H30V14H2ZM7 11L10 5L13 11M17 5V11M21 8H25',
    text: ({ param, here, text }) => {
      if (!text || param.kind !== 'number' || param.unit !== 'px') return null;
      const axis = here.key === 'height' ? 'Height' : 'Width';
      return `text${axis}(${referenceTo(text, here)}) + 48`;
    },
  },
  {
    name: 'Keep distance',
    says: 'Stays so far from another layer, on its side of it.',
    sketch: 'M4 8a3 3 0 1 0 6 0a3 3 0 1 0 -6 0M12 8H20M22 8a3 3 0 1 0 6 0a3 3 0 1 0 -6 0',
    text: ({ param, here, leadPosition }) => {
      if (param.kind !== 'point' || here.key !== 'position' || !leadPosition) return null;
      const other = referenceTo(leadPosition, here);
      return `${other} + toward(angle(value - ${other}), 200)`;
    },
  },
  {
    name: 'Look at',
    says: 'Turns to another layer.',
    sketch: 'M3 13L20 6M14 4L20 6L17 12M26 4a2 2 0 1 0 4 0a2 2 0 1 0 -4 0',
    text: ({ param, here, leadPosition }) => {
      if (param.kind !== 'number' || here.key !== 'rotation' || !leadPosition) return null;
      const own = referenceTo({ layer: here.layer, key: 'position' }, here);
      return `angle(${referenceTo(leadPosition, here)} - ${own})`;
    },
  },
  {
    name: 'Count up',
    says: 'A number that rises and slows down.',
    sketch: 'M4 13V5L2 7M9 13H14L9.5 8A2.6 2.6 0 1 1 14 6M19 4H24L21 7.5A2.8 2.8 0 1 1 19 12M28 13L31 10M28 13V4',
    text: ({ param }) => (param.kind === 'text' ? 'text(mix(0, 12500, ease(time / 2, "out")), 0, " ")' : null),
  },
];
