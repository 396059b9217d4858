import type { NumbersParam } from '@kite/core/document/params';
import { useState } from 'react';

interface NumbersFieldProps {
  label: string;
  value: readonly number[] | null;
  param: NumbersParam;
  onChange: (value: readonly number[]) => void;
}

/** A list of numbers, typed with commas or spaces between them. */
export const NumbersField = ({ label, value, param, onChange }: NumbersFieldProps) => {
  const [text, setText] = useState<string | null>(null);
  const parsed = (text ?? '')
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);
  const fits = parsed.length <= param.most && parsed.every((n) => n >= param.min && n <= param.max);
  return (
    <input
      aria-label={label}
      aria-invalid={text !== null && !fits}
      placeholder="none"
      title="Dash, gap, dash, gap … in pixels. A dash of 0 with round caps is a dot."
      className="tabular h-[26px] w-full min-w-0 rounded-md bg-paper-2 px-2 aria-invalid:ring-2 aria-invalid:ring-kite"
      value={text ?? value?.map((n) => Math.round(n * 100) / 100).join(', ') ?? ''}
      onFocus={() => setText(value?.join(', ') ?? '')}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        if (text !== null && fits && text !== (value?.join(', ') ?? '')) onChange(parsed);
        setText(null);
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter' && fits) event.currentTarget.blur();
      }}
    />
  );
};
