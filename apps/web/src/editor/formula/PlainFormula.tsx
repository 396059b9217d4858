import type { Span } from '@kite/core/formula/types';
import type { RefObject } from 'react';

export interface FormulaFieldProps {
  label: string;
  value: string;
  /** Where it is wrong. */
  wrong: Span | null;
  /** The names that lead to properties, and whether what is there may stand here. */
  paths: () => readonly { readonly path: string; readonly fits: boolean }[];
  onChange: (text: string) => void;
  /** Where the caret stands in what was typed into the plain field; null while nothing was, and that it was left for something else. */
  caretRef: RefObject<number | 'left' | null>;
  /** Enter; the text is kept. */
  onDone: () => void;
  /** Escape; what was typed is given up, and then the field. */
  onCancel: () => void;
}

/** A formula's text alone, to be typed in until what helps with it has come over the wire. */
export const PlainFormula = ({ label, value, wrong, caretRef, onChange, onDone, onCancel }: FormulaFieldProps) => (
  <textarea
    // It was asked for by a press: what is typed next is for it.
    autoFocus
    onFocus={({ target }) => {
      caretRef.current = null;
      target.setSelectionRange(target.value.length, target.value.length);
    }}
    onBlur={() => {
      caretRef.current = 'left';
    }}
    aria-label={label}
    aria-invalid={wrong !== null}
    className="block field-sizing-content w-full resize-none rounded-md border border-line bg-paper px-2 py-1 font-mono text-[12px] leading-[1.4] outline-2 outline-sky"
    value={value}
    onChange={({ target }) => {
      caretRef.current = target.selectionEnd;
      onChange(target.value);
    }}
    onSelect={({ currentTarget }) => {
      if (caretRef.current !== null) caretRef.current = currentTarget.selectionEnd;
    }}
    onKeyDown={(event) => {
      event.stopPropagation();
      if (event.key === 'Escape') {
        caretRef.current = null;
        onCancel();
      }
      if (event.key !== 'Enter') return;
      event.preventDefault();
      onDone();
    }}
  />
);
