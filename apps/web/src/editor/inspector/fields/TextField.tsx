import type { TextParam } from '@kite/core/document/params';
import { useLasting } from '../../../ui/useLasting';

interface TextFieldProps {
  label: string;
  /** null shows that several things differ. */
  value: string | null;
  param: TextParam;
  onStart: () => void;
  onChange: (value: string) => void;
  onEnd: () => void;
}

/** What texts of each form look like. */
const SHAPES = {
  address: 'https://',
  colors: '#1B1F4B #FFB23E',
  features: 'tnum, ss01',
  stays: '12: 0.5, 40: 1',
  areas: 'Button = https://',
} as const;

/** A text, written while it is typed: what is typed until it rests, or the field is left, is one step. */
export const TextField = ({ label, value, param, onStart, onChange, onEnd }: TextFieldProps) => {
  const writing = useLasting(onStart, onEnd);
  const shared = {
    'aria-label': label,
    value: value ?? '',
    placeholder: value === null ? 'mixed' : param.form && SHAPES[param.form],
    maxLength: param.most,
    spellCheck: false,
    // What is written from right to left stands so in its field.
    dir: 'auto',
    onFocus: writing.start,
    onBlur: writing.end,
    onChange: (event: { target: { value: string } }) => onChange(event.target.value),
    onKeyDown: (event: React.KeyboardEvent<HTMLElement>) => {
      event.stopPropagation();
      if (event.key === 'Escape' || (event.key === 'Enter' && param.lines === 'one')) event.currentTarget.blur();
    },
  };
  return param.lines === 'many' ? (
    <textarea
      rows={Math.min(5, (value ?? '').split('\n').length)}
      className="field-sizing-content max-h-40 w-full resize-none rounded-md bg-paper-2 px-2 py-1 select-text"
      {...shared}
    />
  ) : (
    <input className="h-[26px] w-full min-w-0 rounded-md bg-paper-2 px-2" {...shared} />
  );
};
