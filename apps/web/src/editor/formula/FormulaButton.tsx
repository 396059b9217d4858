import type { PropertyRef } from '@kite/core/document/types';
import { formulaIn } from '@kite/core/edits/formulas';
import { sameRef } from '@kite/core/properties/find';
import { SquareFunction } from 'lucide-react';
import { useEditor, useSlice } from '../store/context';
import { useLinkDrag } from '../linking/useLinkDrag';
import { targetOf } from '../commands/formulas';

/** Opens the formula of a property; dragged to another property, to a ribbon or to a layer, it links to that. */
export const FormulaButton = ({ refs, label }: { refs: readonly PropertyRef[]; label: string }) => {
  const editor = useEditor();
  const first = refs[0] as PropertyRef;
  const state = useSlice((s) => {
    const layer = s.doc.scenes[first.scene]?.layers[first.layer];
    const formulas = [first, { ...first, part: 0 as const }, { ...first, part: 1 as const }].flatMap(
      (ref) => formulaIn(layer, ref) ?? [],
    );
    return formulas.length === 0 ? 'none' : formulas.some((f) => f.on) ? 'on' : 'off';
  });
  const open = useSlice((s) => s.formulaAt !== null && sameRef(s.formulaAt, first));

  const { onPointerDown, line } = useLinkDrag((found, at) => {
    if (!found || (found.layer === first.layer && found.key === first.key && found.item === first.item)) return;
    editor.set({ linking: { refs, to: found, at } });
  });
  return (
    <>
      <button
        type="button"
        aria-label={`Formula of ${label.toLowerCase()}`}
        aria-expanded={open}
        title={`${state === 'none' ? 'Formula' : state === 'on' ? 'Computed by a formula' : 'Its formula is off'}: press to ${open ? 'close' : 'open'}, drag to another property to link`}
        data-state={state}
        onPointerDown={onPointerDown}
        onClick={() => {
          const layers = refs.map((ref) => ref.layer);
          // From a ribbon the inspector may yet have to show it.
          if (!layers.every((id) => editor.state.selection.layers.includes(id))) editor.select({ layers });
          editor.set({ formulaAt: open ? null : { scene: first.scene, ...targetOf(first) } });
        }}
        className={`absolute right-0 grid h-6 w-5 shrink-0 cursor-grab place-items-center rounded-sm bg-paper opacity-0 group-hover:opacity-100 focus-visible:opacity-100 ${state === 'none' ? 'text-ink-2' : 'text-tail'} ${open ? 'opacity-100' : ''}`}
      >
        <SquareFunction size={13} />
      </button>
      {line}
    </>
  );
};
