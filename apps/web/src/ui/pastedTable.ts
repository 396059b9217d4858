/** Numbers, and their names, in lines that were copied from a table. */
import { dsvFormat } from 'd3-dsv';

/** Groups of three and decimals, by what stands between them: as 12,500.5, 12 500,5 and 12.500,5. */
const WRITTEN: readonly (readonly [form: RegExp, group: RegExp, point: string])[] = [
  [/^-?\d{1,3}(,\d{3})+(\.\d+)?$/, /,/g, '.'],
  [/^-?\d{1,3}(\.\d{3})+,\d+$/, /\./g, ','],
  [/^-?\d+,\d+$/, /$^/g, ','],
];

/** The number that a cell says, without a sign of percent; null for none. */
const numberOf = (cell: string): number | null => {
  const bare = cell.replace(/[\s'’]|%$/g, '').replace('−', '-');
  if (bare === '') return null;
  const written = WRITTEN.find(([form]) => form.test(bare));
  const value = Number(written ? bare.replace(written[1], '').replace(written[2], '.') : bare);
  return Number.isFinite(value) ? value : null;
};

export interface PastedTable {
  readonly numbers: readonly number[];
  /** One for each number; null where there are none. */
  readonly names: readonly string[] | null;
}

/** Of each line the last number, and the first cell that is none as its name; null for what is one line of one cell. Lines without a number are heads. */
export const readTable = (words: string): PastedTable | null => {
  // A comma may stand in a number.
  const { parseRows } = dsvFormat(words.includes('\t') ? '\t' : ';');
  const rows = parseRows(words.trim(), (cells) => cells.map((cell) => cell.trim().replace(/\s+/g, ' ')));
  if (rows.length < 2 && (rows[0]?.length ?? 0) < 2) return null;
  // One line of numbers alone is all of them.
  const lying = rows.length === 1 && rows[0]!.every((cell) => numberOf(cell) !== null);
  const found = (lying ? rows[0]!.map((cell) => [cell]) : rows).flatMap((cells) => {
    const number = cells.map(numberOf).findLast((value) => value !== null);
    return number === undefined || number === null
      ? []
      : [{ number, name: cells.find((cell) => numberOf(cell) === null) ?? '' }];
  });
  if (found.length === 0) return null;
  const names = found.map(({ name }) => name);
  return { numbers: found.map(({ number }) => number), names: names.some((name) => name !== '') ? names : null };
};
