import type { NumbersParam } from '@kite/core/document/params';
import type { ClipboardEvent, KeyboardEvent } from 'react';
import { calculate } from '../../../ui/arithmetic';
import { type PastedTable, readTable } from '../../../ui/pastedTable';
import { useTyping } from '../../../ui/useTyping';

/** A list that may be longer stands on lines of its own. */
const MOST_BESIDE = 16;
export const isLong = ({ most }: NumbersParam): boolean => most > MOST_BESIDE;

interface NumbersFieldProps {
  label: string;
  value: readonly number[] | null;
  param: NumbersParam;
  onChange: (value: readonly number[]) => void;
  /** What becomes of a table that is pasted. */
  onTable?: (table: PastedTable) => void;
}

/** What keeps numbers from being taken; null for nothing. */
const problemOf = (wrong: string | undefined, numbers: readonly number[], { min, max, most }: NumbersParam) => {
  if (wrong !== undefined) return `“${wrong}” is no number or sum`;
  const beyond = numbers.find((n) => n < min || n > max);
  if (beyond !== undefined) return `${beyond} is not from ${min} to ${max}`;
  return numbers.length > most ? `at most ${most} numbers` : null;
};

/** A list of numbers, typed with commas or spaces between them. */
export const NumbersField = ({ label, value, param, onChange, onTable }: NumbersFieldProps) => {
  const { text, typed, ...typing } = useTyping();
  const pieces = (text ?? '').split(/[\s,;]+/).filter(Boolean);
  const parsed = pieces.flatMap((piece) => calculate(piece) ?? []);
  const problem = problemOf(
    pieces.find((piece) => calculate(piece) === null),
    parsed,
    param,
  );
  const fits = problem === null;
  const field = {
    'aria-label': label,
    'aria-invalid': text !== null && !fits,
    placeholder: 'none',
    title: param.hint === undefined ? label : `${label}: ${param.hint}`,
    value: text ?? value?.map((n) => Math.round(n * 100) / 100).join(', ') ?? '',
    onFocus: () => typing.begin(value?.join(', ') ?? ''),
    onChange: (event: { target: { value: string } }) => typing.type(event.target.value),
    onBlur: () => {
      if (typed !== null && fits) onChange(parsed);
      typing.end();
    },
    onKeyDown: (event: KeyboardEvent<HTMLElement>) => {
      event.stopPropagation();
      const field = event.currentTarget;
      if (event.key === 'Escape') {
        typing.end();
        requestAnimationFrame(() => field.blur());
      }
      if (event.key !== 'Enter' || !fits) return;
      event.preventDefault();
      field.blur();
    },
    onPaste: (event: ClipboardEvent) => {
      const table = onTable && readTable(event.clipboardData.getData('text/plain'));
      if (!table || problemOf(undefined, table.numbers, param) !== null) return;
      event.preventDefault();
      typing.begin(table.numbers.join(', '));
      onTable(table);
    },
  };
  const look = 'tabular w-full min-w-0 rounded-md bg-paper-2 px-2 aria-invalid:ring-2 aria-invalid:ring-kite';
  return (
    <span className="relative flex min-w-0">
      {isLong(param) ? (
        <textarea rows={2} className={`${look} field-sizing-content max-h-28 resize-none py-1 leading-5`} {...field} />
      ) : (
        <input className={`${look} h-[26px]`} {...field} />
      )}
      {text !== null && problem !== null && (
        <span
          role="status"
          className="pointer-events-none absolute top-full right-0 z-30 mt-0.5 rounded-sm bg-ink px-1.5 text-xs leading-4 whitespace-nowrap text-paper"
        >
          {problem}
        </span>
      )}
    </span>
  );
};
