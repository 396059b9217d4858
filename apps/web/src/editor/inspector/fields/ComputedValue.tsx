import type { Param } from '@kite/core/document/params';
import type { PropertyRef, Value } from '@kite/core/document/types';
import { SquareFunction } from 'lucide-react';
import { useEditor } from '../../store/context';
import { shownValue } from '../../timeline/ribbons';

interface ComputedValueProps {
  refs: readonly PropertyRef[];
  param: Param;
  value: Value;
}

/** What a formula gives; it is changed in the formula. */
export const ComputedValue = ({ refs, param, value }: ComputedValueProps) => {
  const editor = useEditor();
  const first = refs[0] as PropertyRef;
  return (
    <button
      type="button"
      aria-label={`${param.label}, computed`}
      title="Computed by a formula: press to open it"
      className="tabular flex h-7 min-w-0 flex-1 items-center truncate rounded-md border border-dashed border-tail/60 bg-tail-2/50 px-2 text-tail"
      onClick={() => {
        const { part: _part, ...whole } = first;
        editor.set({ formulaAt: whole });
      }}
    >
      <SquareFunction size={13} className="mr-1.5 shrink-0" />
      <span className="truncate">{shownValue(param, value)}</span>
    </button>
  );
};
