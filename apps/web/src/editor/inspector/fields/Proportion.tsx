/** Whether two numbers that belong together are kept in proportion: chosen once, for every layer. */
import { Link2, Link2Off } from 'lucide-react';
import { useEditor, useSlice } from '../../store/context';

/** Under the key of the first of them; `first` is how it is until it was chosen. */
export const useProportion = (key: string, first: boolean): boolean => useSlice((s) => s.proportions[key] ?? first);

/** The other of two numbers, when one of them becomes `value`: both keep their ratio, where they have one. */
export const inProportion = (value: number, before: number, other: number): number =>
  before === 0 ? value : (other * value) / before;

export const ProportionSwitch = ({ of, label, linked }: { of: string; label: string; linked: boolean }) => {
  const editor = useEditor();
  return (
    <button
      type="button"
      aria-label={`${label}: keep in proportion`}
      title={linked ? 'In proportion: press to change each alone' : 'Each alone: press to keep them in proportion'}
      aria-pressed={linked}
      className={`shrink-0 ${linked ? 'text-sky' : 'text-ink-2'}`}
      onClick={() => editor.set({ proportions: { ...editor.state.proportions, [of]: !linked } })}
    >
      {linked ? <Link2 size={13} /> : <Link2Off size={13} />}
    </button>
  );
};
