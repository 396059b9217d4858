import type { FontChoice, PropertyRef } from '@kite/core/document/types';
import { choosable, type FontFeature, readFeatures, withFeature } from '@kite/core/type/features';
import { ChevronDown } from 'lucide-react';
import { alike } from '../../../ui/alike';
import { Panel } from '../../../ui/Panel';
import { valueAt } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';

interface FeaturesFieldProps {
  label: string;
  /** The list of each text that the field is for. */
  values: readonly string[];
  refs: readonly PropertyRef[];
  /** Writes a list for each. */
  write: (...lists: readonly string[]) => void;
}

/** OpenType features of the font that the first card has, each put on or off in all of them; what else a card has stays. */
export const FeaturesField = ({ label, values, refs, write }: FeaturesFieldProps) => {
  const editor = useEditor();
  useSlice((s) => ({ doc: s.doc, frame: s.frame, fontsCame: s.fontsCame }));
  const [ref] = refs;
  const font = ref && (valueAt(editor, { ...ref, key: 'font' }) as FontChoice);
  const own = font && editor.library.fonts.find(font)?.face.facts?.features;
  const known = own ?? choosable(new Set(), () => '');
  const said = values.map(readFeatures);
  /** null where they differ. */
  const isOn = ({ tag, given }: FontFeature): boolean | null => alike(said.map((list) => list.get(tag) ?? given));
  const tags = [...new Set(said.flatMap((list) => [...list.keys()]))];
  const others = tags
    .filter((tag) => known.every((one) => one.tag !== tag))
    .map((tag): FontFeature => ({ tag, label: tag, given: said[0]?.get(tag) === false }));
  const told = [...known, ...others]
    .filter((one) => isOn(one) !== one.given)
    .map((one) => (isOn(one) ? one.label : `No ${one.label.toLowerCase()}`));
  const summary = alike(values) === null ? 'mixed' : told.join(', ') || 'As in the font';
  const row = (feature: FontFeature, about: string) => (
    <label key={feature.tag} className="flex items-center gap-2 rounded-md px-2 py-1 hover:bg-paper-2">
      <input
        type="checkbox"
        className="size-4 shrink-0"
        checked={isOn(feature) ?? false}
        ref={(box) => {
          if (box) box.indeterminate = isOn(feature) === null;
        }}
        onChange={(event) => write(...values.map((list) => withFeature(list, feature, event.target.checked)))}
      />
      <span className="min-w-0 flex-1 truncate">{feature.label}</span>
      <span className="text-xs text-ink-2">{about}</span>
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
      {known.map((feature) => row(feature, feature.tag))}
      {others.map((feature) => row(feature, 'not in this font'))}
    </Panel>
  );
};
