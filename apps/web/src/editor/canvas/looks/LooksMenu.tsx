import { Columns2, Ghost, Scissors } from 'lucide-react';
import { IconButton } from '../../../ui/Button';
import { NumberField } from '../../../ui/NumberField';
import { Segments } from '../../../ui/Segments';
import type { CutPart } from '../../store/workspace';
import { CanvasPopover } from './CanvasPopover';
import { ONION } from './onion';
import { useEditor, useSlice } from '../../store/context';

const CUT_PARTS: readonly { value: CutPart; label: string }[] = [
  { value: 'gone', label: 'Gone' },
  { value: 'faint', label: 'Faint' },
  { value: 'whole', label: 'There' },
];

/** Frames seen through the one at the playhead, or beside it. */
export const LooksMenu = () => {
  const editor = useEditor();
  const { onion, compare, cutPart } = useSlice((s) => ({ onion: s.onion, compare: s.compare, cutPart: s.cutPart }));
  return (
    <>
      <CanvasPopover label="Masks" icon={<Scissors size={15} />} pressed={cutPart !== 'gone'}>
        What masks and mattes cut away, or has not grown
        <Segments
          label="What masks cut away"
          value={cutPart}
          options={CUT_PARTS}
          onChange={(how) => editor.set({ cutPart: how })}
        />
        <p className="text-sm text-ink-2">Of the selected layers, while nothing plays. Renders cut it always.</p>
      </CanvasPopover>
      <CanvasPopover label="Onion skin" icon={<Ghost size={15} />} pressed={onion !== null}>
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
      </CanvasPopover>
      <IconButton
        label={compare ? 'Stop comparing' : 'Compare this frame with others'}
        side="top"
        pressed={compare !== null}
        onClick={() => editor.set({ compare: compare ? null : { frame: editor.state.frame, split: 0.5 } })}
      >
        <Columns2 size={15} />
      </IconButton>
    </>
  );
};
