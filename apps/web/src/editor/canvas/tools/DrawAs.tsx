import { useEditor, useSlice } from '../../store/context';
import { toolOf } from '../../store/workspace';
import { drawnOn, holderNext, openHolder } from '../../commands/masks';
import { calledOf } from '../../inspector/called';

interface ChoiceProps {
  label: string;
  keys?: string;
  on: boolean;
  onChange: (on: boolean) => void;
}

const Choice = ({ label, keys, on, onChange }: ChoiceProps) => (
  <label
    className={`flex min-w-0 items-center gap-2 rounded-md border px-2.5 py-1.5 ${on ? 'border-sky bg-sky-2' : 'border-line bg-paper'}`}
  >
    <input type="checkbox" className="size-4" checked={on} onChange={(event) => onChange(event.target.checked)} />
    <span className="truncate">{label}</span>
    {keys && <kbd className="text-xs text-ink-2">{keys}</kbd>}
  </label>
);

/** While a shape is about to be drawn over a selected drawing: whether it becomes a mask of that, or a card of what is open. */
export const DrawAs = () => {
  const editor = useEditor();
  const { tool, drawsAs } = useSlice((s) => ({
    doc: s.doc,
    selection: s.selection,
    tool: toolOf(s.mode),
    drawsAs: s.drawsAs,
  }));
  const layer = drawnOn(editor);
  if (!layer || tool === 'select' || tool === 'text' || tool === 'brush') return null;
  const open = openHolder(editor);
  return (
    <div
      className="absolute bottom-2 left-2 flex max-w-[50%] flex-col items-start gap-1"
      onPointerDown={(event) => event.stopPropagation()}
    >
      {open && (
        <Choice
          label={`Into the open “${calledOf(open.card)}”`}
          on={holderNext(editor, tool) !== null}
          onChange={(on) => editor.set({ drawsAs: on ? 'card' : 'layer' })}
        />
      )}
      <Choice
        label={`As a mask of “${layer.name}”`}
        keys="Shift+M"
        on={drawsAs === 'mask'}
        onChange={(on) => editor.set({ drawsAs: on ? 'mask' : 'layer' })}
      />
    </div>
  );
};
