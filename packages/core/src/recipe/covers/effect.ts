/** Effects: covers that change the pixels of what is drawn above them. */
import { remembered } from '../../document/remembered';
import type { Params, Values } from '../../document/params';
import type { Table } from '../../picture/pixels';
import { grouped } from '../marks';
import { cover, type CoverKind, type Effect, type GroupMark, type Mark } from '../types';

type EffectKind<P extends Params> = Omit<CoverKind<P>, 'role' | 'holds' | 'cover'> & {
  /** What is done for values; null for nothing. */
  readonly effect: (values: Values<P>, frame: number) => Effect | null;
};

/** Marks with an effect on them, as one picture. */
export const changedBy = (by: Effect, marks: readonly Mark[]): GroupMark =>
  grouped(marks, { effect: { by, scale: 1, origin: [0, 0], turn: 0 } });

type FilterFunction = readonly [name: string, value: number, idle: number, unit?: string];

/** Functions of a filter one after another, without those that leave everything as it is: each costs a pass over the picture. */
export const filterOf = (...functions: readonly FilterFunction[]): string =>
  functions.flatMap(([name, value, idle, unit = '']) => (value === idle ? [] : `${name}(${value}${unit})`)).join(' ') ||
  'none';

/** What tables do, in a filter element of SVG. */
export const tablesInSvg = (tables: readonly [Table, Table, Table]): string => {
  const channels = (['R', 'G', 'B'] as const).map((channel, c) => {
    const values = Array.from(tables[c] as Table, (v) => Math.round((v / 255) * 1e4) / 1e4);
    return `<feFunc${channel} type="table" tableValues="${values.join(' ')}"/>`;
  });
  return `<feComponentTransfer>${channels.join('')}</feComponentTransfer>`;
};

/** A cover card that has an effect on all that is above it, as one picture. Values that stay have one effect, made once. */
export const effect = <P extends Params>({ effect: effectOf, ...kind }: EffectKind<P>) => {
  const ofStill = remembered((values: Values<P>) => effectOf(values, 0));
  return cover<P>({
    ...kind,
    cover: (marks, values, { frame }) => {
      const by = kind.byFrame?.(values) ? effectOf(values, frame) : ofStill(values);
      return by ? [changedBy(by, marks)] : marks;
    },
  });
};
