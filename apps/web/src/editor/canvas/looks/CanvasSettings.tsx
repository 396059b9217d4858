import type { ComponentType } from 'react';
import { NumberField } from '../../../ui/NumberField';
import { Segments } from '../../../ui/Segments';
import { useEditor, useSlice } from '../../store/context';
import type { CutPart } from '../../store/workspace';
import { type Aids, setAids, useAids } from './aids';
import { ONION } from './onion';

const CUT_PARTS: readonly { value: CutPart; label: string }[] = [
  { value: 'gone', label: 'Gone' },
  { value: 'faint', label: 'Faint' },
  { value: 'whole', label: 'There' },
];

const MasksSettings = () => {
  const editor = useEditor();
  const cutPart = useSlice((s) => s.cutPart);
  return (
    <>
      What masks and mattes cut away, or has not grown
      <Segments
        label="What masks cut away"
        value={cutPart}
        options={CUT_PARTS}
        onChange={(how) => editor.set({ cutPart: how })}
      />
      <p className="text-sm text-ink-2">Of the selected layers, while nothing plays. Renders cut it always.</p>
    </>
  );
};

const OnionSettings = () => {
  const editor = useEditor();
  const onion = useSlice((s) => s.onion);
  return (
    <>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={onion !== null}
          onChange={(event) => editor.set({ onion: event.target.checked ? ONION : null })}
        />
        Onion skin
      </label>
      {(['count', 'step'] as const).map((key) => (
        <label key={key} className="grid grid-cols-[1fr_80px] items-center gap-2 text-ink-2">
          {key === 'count' ? 'Frames each side' : 'Frames apart'}
          <NumberField
            label={key === 'count' ? 'Frames each side' : 'Frames apart'}
            min={1}
            max={key === 'count' ? 8 : 100}
            decimals={0}
            value={(onion ?? ONION)[key]}
            onChange={(v) => editor.set({ onion: { ...(onion ?? ONION), [key]: Math.round(v) } })}
          />
        </label>
      ))}
      <p className="text-sm text-ink-2">
        Of the selected layers, or of all that move while none is selected. Earlier frames are warm, later ones cold.
      </p>
    </>
  );
};

const SWITCHES: readonly { readonly key: Exclude<keyof Aids, 'gridSize' | 'snap'>; readonly label: string }[] = [
  { key: 'rulers', label: 'Rulers' },
  { key: 'guides', label: 'Guides' },
  { key: 'thirds', label: 'Thirds' },
  { key: 'safe', label: 'Safe areas' },
  { key: 'grid', label: 'Grid' },
];

const AidsSettings = () => {
  const aids = useAids();
  return (
    <>
      {SWITCHES.map(({ key, label }) => (
        <label key={key} className="flex items-center gap-2">
          <input type="checkbox" checked={aids[key]} onChange={(event) => setAids({ [key]: event.target.checked })} />
          {label}
        </label>
      ))}
      <label className="grid grid-cols-[1fr_80px] items-center gap-2 text-ink-2">
        Grid every
        <NumberField
          label="Grid every"
          unit="px"
          min={2}
          max={2000}
          decimals={0}
          value={aids.gridSize}
          onChange={(gridSize) => setAids({ gridSize: Math.round(gridSize) })}
        />
      </label>
      <p className="text-sm text-ink-2">Drag guides out of the rulers; off the scene they go.</p>
    </>
  );
};

const SETTINGS = { masks: MasksSettings, onion: OnionSettings, aids: AidsSettings } satisfies Record<
  string,
  ComponentType
>;

/** What a panel of the canvas's bar sets. */
export const CanvasSettings = ({ of }: { of: keyof typeof SETTINGS }) => {
  const Settings = SETTINGS[of];
  return <Settings />;
};
