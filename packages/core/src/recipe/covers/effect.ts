/** Effects: covers that change the pixels of what is drawn above them. */
import type { Params, Values } from '../../document/params';
import type { Table } from '../../picture/pixels';
import { cover, type CoverKind, type Effect, type GroupMark, type Mark } from '../types';

type EffectKind<P extends Params> = Omit<CoverKind<P>, 'role' | 'holds' | 'cover'> & {
  /** What is done for values; null for nothing. */
  readonly effect: (values: Values<P>) => Effect | null;
};

/** Marks with an effect on them, as one picture. */
export const changedBy = (by: Effect, marks: readonly Mark[], alpha = 1): GroupMark => ({
  op: 'group',
  marks,
  alpha,
  blend: 'normal',
  effect: { by, scale: 1 },
});

/** What tables do, in a filter element of SVG. */
export const tablesInSvg = (tables: readonly [Table, Table, Table]): string => {
  const channels = (['R', 'G', 'B'] as const).map((channel, c) => {
    const values = Array.from(tables[c] as Table, (v) => Math.round((v / 255) * 1e4) / 1e4);
    return `<feFunc${channel} type="table" tableValues="${values.join(' ')}"/>`;
  });
  return `<feComponentTransfer>${channels.join('')}</feComponentTransfer>`;
};

/** A cover card that has an effect on all that is above it, as one picture. */
export const effect = <P extends Params>({ effect: effectOf, ...kind }: EffectKind<P>) =>
  cover<P>({
    ...kind,
    cover: (marks, values) => {
      const by = effectOf(values);
      return by ? [changedBy(by, marks)] : marks;
    },
  });
