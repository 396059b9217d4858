/** A hand-drawn frame: a group that is shown for some frames, where it stands in cels. */
import { number } from '../../document/params';
import type { Item } from '../../document/types';
import { reader } from '../../motion/reader';
import type { GroupKind } from '../types';

const PARAMS = {
  hold: number('Held', 2, { unit: 'frames', min: 1, max: 100_000, whole: true, still: true }),
};

/** One of several cels: what stands in it is drawn for as long as it is held. */
export const cel: GroupKind<typeof PARAMS> = {
  role: 'group',
  kind: 'cel',
  label: 'Cel',
  params: PARAMS,
  summary: ({ hold }) => `${hold} frame${hold === 1 ? '' : 's'}`,
};

/** How many frames a card in cels is held. */
export const holdOf = ({ kind, params }: Item): number => (kind === cel.kind ? reader(PARAMS, params).at(0).hold : 1);
