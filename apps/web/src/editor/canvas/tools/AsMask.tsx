import { useEditor, useSlice } from '../../store/context';
import { toolOf } from '../../store/workspace';
import { drawnOn } from '../../commands/masks';

/** While a shape is about to be drawn over a selected drawing: whether it becomes a mask of that. */
export const AsMask = () => {
  const editor = useEditor();
  const { tool, on } = useSlice((s) => ({
    doc: s.doc,
    layers: s.selection.layers,
    tool: toolOf(s.mode),
    on: s.drawsMasks,
  }));
  const layer = drawnOn(editor);
  if (!layer || tool === 'select' || tool === 'text') return null;
  return (
    <label
      className={`absolute bottom-2 left-2 flex max-w-[50%] items-center gap-2 rounded-md border px-2.5 py-1.5 ${on ? 'border-sky bg-sky-2' : 'border-line bg-paper'}`}
      onPointerDown={(event) => event.stopPropagation()}
    >
      <input
        type="checkbox"
        className="size-4"
        checked={on}
        onChange={(event) => editor.set({ drawsMasks: event.target.checked })}
      />
      <span className="truncate">As a mask of “{layer.name}”</span>
      <kbd className="text-xs text-ink-2">Shift+M</kbd>
    </label>
  );
};
