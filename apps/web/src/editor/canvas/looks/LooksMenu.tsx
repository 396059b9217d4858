import { Columns2, Ghost, Scissors } from 'lucide-react';
import { IconButton } from '../../../ui/Button';
import { CanvasSettings } from '../../later';
import { useEditor, useSlice } from '../../store/context';
import { CanvasPopover } from './CanvasPopover';

/** Frames seen through the one at the playhead, or beside it. */
export const LooksMenu = () => {
  const editor = useEditor();
  const { onion, compare, cutPart } = useSlice((s) => ({ onion: s.onion, compare: s.compare, cutPart: s.cutPart }));
  return (
    <>
      <CanvasPopover label="Masks" icon={<Scissors size={15} />} pressed={cutPart !== 'gone'}>
        <CanvasSettings of="masks" />
      </CanvasPopover>
      <CanvasPopover label="Onion skin" icon={<Ghost size={15} />} pressed={onion !== null}>
        <CanvasSettings of="onion" />
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
