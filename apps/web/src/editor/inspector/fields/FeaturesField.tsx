import type { FontChoice, PropertyRef } from '@kite/core/document/types';
import { choosable, type FontFeature, readFeatures, withFeature } from '@kite/core/type/features';
import { ChevronDown } from 'lucide-react';
import { Panel } from '../../../ui/Panel';
import { valueAt } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';

interface FeaturesFieldProps {
  label: string;
  /** null shows that several things differ. */
  value: string | null;
  refs: readonly PropertyRef[];
  onChange: (list: string) => void;
}

/** OpenType features of the font that the same card has, each put on or off. */
export const FeaturesField = ({ label, value, refs, onChange }: FeaturesFieldProps) => {
  const editor = useEditor();
  useSlice((s) => ({ doc: s.doc, frame: s.frame, fontsCame: s.fontsCame }));
  const [ref] = refs;
  const font = ref && (valueAt(editor, { ...ref, key: 'font' }) as FontChoice);
  const own = font && editor.library.fonts.find(font)?.face.facts?.features;
  const known = own ?? choosable(new Set(), () => '');
  const said = readFeatures(value ?? '');
  const isOn = ({ tag, given }: FontFeature) => said.get(tag) ?? given;
  const others = [...said].filter(([tag]) => known.every((one) => one.tag !== tag));
  const told = [
    ...known.filter((one) => said.has(one.tag)).map((one) => (isOn(one) ? one.label : `No ${one.label.toLowerCase()}`)),
    ...others.map(([tag, on]) => (on ? tag : `no ${tag}`)),
  ];
  const summary = value === null ? 'mixed' : told.join(', ') || 'As in the font';
  const row = (feature: FontFeature, about?: string) => (
    <label key={feature.tag} className="flex items-center gap-2 rounded-md px-2 py-1 hover:bg-paper-2">
      <input
        type="checkbox"
        className="size-4 shrink-0"
        checked={isOn(feature)}
        onChange={(event) => onChange(withFeature(value ?? '', feature, event.target.checked))}
      />
      <span className="min-w-0 flex-1 truncate">{feature.label}</span>
      <span className="text-xs text-ink-2">{about ?? feature.tag}</span>
    </label>
  );
  return (
    <Panel
      label={label}
      className="max-h-80 w-64 overflow-y-auto p-1"
      opener={
        <button
          type="button"
          aria-label={label}
          title={summary}
          className="flex h-[26px] w-full min-w-0 items-center gap-1 rounded-md bg-paper-2 px-2 text-left"
        >
          <span className="min-w-0 flex-1 truncate">{summary}</span>
          <ChevronDown size={14} className="shrink-0 text-ink-2" />
        </button>
      }
    >
      {known.map((feature) => row(feature))}
      {others.map(([tag, on]) => row({ tag, label: tag, given: !on }, 'not in this font'))}
    </Panel>
  );
};
