/** Hand-drawn frames: a group that shows one of the groups in it at a time. */
import { LIMITS } from '../../document/limits';
import { beginsAt, choice, number, type Values } from '../../document/params';
import { holdOf } from './cel';
import type { GroupKind } from '../types';

const TIMED = { when: ['by', 'time'] } as const;
const PARAMS = {
  by: choice(
    'Shown',
    [
      { value: 'time', label: 'In time' },
      { value: 'number', label: 'By number' },
    ],
    'time',
  ),
  start: beginsAt(TIMED),
  ends: choice(
    'Then',
    [
      { value: 'hold', label: 'Stays' },
      { value: 'loop', label: 'Again' },
      { value: 'swing', label: 'Back and forth' },
      { value: 'gone', label: 'Nothing' },
    ],
    'hold',
    TIMED,
  ),
  again: number('Again from cel', 1, {
    min: 1,
    max: LIMITS.items,
    whole: true,
    still: true,
    when: ['ends', 'loop', 'swing'],
  }),
  cel: number('Cel', 1, { min: 1, max: LIMITS.items, when: ['by', 'number'] }),
};

/** Frames from one on in the order of one round: back and forth the first and the last are there once. */
const orderOf = (ends: string, first: number, count: number): readonly number[] => {
  const forth = Array.from({ length: count - first }, (_, i) => first + i);
  return ends === 'swing' ? [...forth, ...forth.slice(1, -1).reverse()] : forth;
};

/** Which of several frames shows, each held for so many frames of the scene, from 0 on; null for none. */
export const celAt = (v: Values<typeof PARAMS>, holds: readonly number[], frame: number): number | null => {
  const last = holds.length - 1;
  if (last < 0) return null;
  // A number that a formula gives may lie a hair below the one that it means.
  if (v.by === 'number') return Math.min(last, Math.max(0, Math.floor(v.cel + 1e-6) - 1));
  let at = Math.floor(frame - v.start + 1e-6);
  if (at < 0) return null;
  const repeats = v.ends === 'loop' || v.ends === 'swing';
  const first = repeats ? Math.min(last, Math.max(0, Math.round(v.again) - 1)) : 0;
  // Those before the round are there once.
  for (let i = 0; i < first; i++) if ((at -= holds[i]!) < 0) return i;
  const order = orderOf(v.ends, first, holds.length);
  const round = order.reduce((sum, i) => sum + holds[i]!, 0);
  if (at >= round) {
    if (!repeats) return v.ends === 'hold' ? last : null;
    at %= round;
  }
  return order.find((i) => (at -= holds[i]!) < 0) ?? last;
};

export const cels: GroupKind<typeof PARAMS> = {
  role: 'group',
  kind: 'cels',
  label: 'Cels',
  params: PARAMS,
  byFrame: ({ by }) => by === 'time',
  picking: (cards) => {
    const holds = cards.map(holdOf);
    return (values, frame) => celAt(values, holds, frame);
  },
  summary: (v) => {
    if (v.by === 'number') return 'By number';
    return `In time, then ${PARAMS.ends.choices.find(({ value }) => value === v.ends)?.label.toLowerCase()}`;
  },
};
