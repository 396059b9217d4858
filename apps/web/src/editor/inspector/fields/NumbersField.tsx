import type { NumbersParam } from '@kite/core/document/params';
import { calculate } from '../../../ui/arithmetic';
import { useTyping } from '../../../ui/useTyping';

interface NumbersFieldProps {
  label: string;
  value: readonly number[] | null;
  param: NumbersParam;
  onChange: (value: readonly number[]) => void;
}

/** A list of numbers, typed with commas or spaces between them. */
export const NumbersField = ({ label, value, param, onChange }: NumbersFieldProps) => {
  const { text, typed, ...typing } = useTyping();
  const pieces = (text ?? '').split(/[\s,;]+/).filter(Boolean);
  const parsed = pieces.flatMap((piece) => calculate(piece) ?? []);
  const wrong = pieces.find((piece) => calculate(piece) === null);
  const beyond = parsed.find((n) => n < param.min || n > param.max);
  const problem =
    wrong !== undefined
      ? `“${wrong}” is no number or sum`
      : beyond !== undefined
        ? `${beyond} is not from ${param.min} to ${param.max}`
        : parsed.length > param.most
          ? `at most ${param.most} numbers`
          : null;
  const fits = problem === null;
  return (
    <span className="relative flex min-w-0">
      <input
        aria-label={label}
        aria-invalid={text !== null && !fits}
        placeholder="none"
        title="Dash, gap, dash, gap … in pixels, each a number or a sum. A dash of 0 with round caps is a dot."
        className="tabular h-[26px] w-full min-w-0 rounded-md bg-paper-2 px-2 aria-invalid:ring-2 aria-invalid:ring-kite"
        value={text ?? value?.map((n) => Math.round(n * 100) / 100).join(', ') ?? ''}
        onFocus={() => typing.begin(value?.join(', ') ?? '')}
        onChange={(event) => typing.type(event.target.value)}
        onBlur={() => {
          if (typed !== null && fits) onChange(parsed);
          typing.end();
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter' && fits) event.currentTarget.blur();
        }}
      />
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
