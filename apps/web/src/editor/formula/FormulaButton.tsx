import type { PropertyRef } from '@kite/core/document/types';
import { formulaIn } from '@kite/core/edits/formulas';
import { sameRef } from '@kite/core/properties/find';
import { SquareFunction } from 'lucide-react';
import { type PointerEvent, useState } from 'react';
import { followPointer } from '../../ui/drag';
import { useEditor, useSlice } from '../store/context';
import { targetOf } from '../commands/formulas';

/** What a pointer over the page would link to: a property, or a layer one of whose properties is then chosen. */
const under = (x: number, y: number): { layer: string; item?: string; key?: string } | null => {
  const at = document.elementFromPoint(x, y);
  const property = at?.closest<HTMLElement>('[data-property]')?.dataset.property;
  if (property) return JSON.parse(property) as { layer: string; item?: string; key: string };
  const layer = at?.closest<HTMLElement>('[data-layer]')?.dataset.layer;
  return layer ? { layer } : null;
};

/** Opens the formula of a property; dragged to another property, to a ribbon or to a layer, it links to that. */
export const FormulaButton = ({ refs, label }: { refs: readonly PropertyRef[]; label: string }) => {
  const editor = useEditor();
  const [line, setLine] = useState<readonly [number, number, number, number] | null>(null);
  const first = refs[0] as PropertyRef;
  const state = useSlice((s) => {
    const layer = s.doc.scenes[first.scene]?.layers[first.layer];
    const formulas = [first, { ...first, part: 0 as const }, { ...first, part: 1 as const }].flatMap(
      (ref) => formulaIn(layer, ref) ?? [],
    );
    return formulas.length === 0 ? 'none' : formulas.some((f) => f.on) ? 'on' : 'off';
  });
  const open = useSlice((s) => s.formulaAt !== null && sameRef(s.formulaAt, first));

  const onDown = (event: PointerEvent<HTMLButtonElement>) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const box = event.currentTarget.getBoundingClientRect();
    const from = [box.left + box.width / 2, box.top + box.height / 2] as const;
    followPointer(event, {
      onMove: ({ event: now }) => setLine([...from, now.clientX, now.clientY]),
      onEnd: ({ event: now }, moved) => {
        setLine(null);
        if (!moved) return;
        const found = under(now.clientX, now.clientY);
        if (!found || (found.layer === first.layer && found.key === first.key && found.item === first.item)) return;
        editor.set({ linking: { refs, to: found, at: [now.clientX, now.clientY] } });
      },
      onCancel: () => setLine(null),
    });
  };
  return (
    <>
      <button
        type="button"
        aria-label={`Formula of ${label.toLowerCase()}`}
        aria-expanded={open}
        title={`${state === 'none' ? 'Formula' : state === 'on' ? 'Computed by a formula' : 'Its formula is off'}: press to ${open ? 'close' : 'open'}, drag to another property to link`}
        data-state={state}
        onPointerDown={onDown}
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
      {line && (
        <svg aria-hidden className="pointer-events-none fixed inset-0 z-50 h-full w-full">
          <path d={`M${line[0]} ${line[1]}L${line[2]} ${line[3]}`} stroke="var(--tail)" strokeWidth={2} />
          <circle cx={line[2]} cy={line[3]} r={4} fill="var(--tail)" />
        </svg>
      )}
    </>
  );
};
