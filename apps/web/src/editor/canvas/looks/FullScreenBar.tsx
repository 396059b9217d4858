import { Pause, Play, X } from 'lucide-react';
import { IconButton } from '../../../ui/Button';
import { CommandButton } from '../../commands/CommandButton';
import { useEditor, useSlice } from '../../store/context';
import { leaveFullScreen } from './fullScreen';
import { drawnAs } from '../../store/clock';

/** The little there is beside the picture while it fills the screen. */
export const FullScreenBar = () => {
  const editor = useEditor();
  const { frame, playing, drawnRate, coarse } = useSlice((s) => ({
    frame: s.frame,
    playing: s.playing,
    drawnRate: s.drawnRate,
    coarse: s.coarse,
  }));
  return (
    <div className="absolute bottom-3 left-1/2 flex -translate-x-1/2 items-center gap-2 rounded-md border border-line bg-paper p-1 opacity-40 hover:opacity-100">
      <CommandButton command="play" label={playing ? 'Pause the preview' : 'Play the preview'} side="top">
        {playing ? <Pause size={15} /> : <Play size={15} />}
      </CommandButton>
      <span className="tabular text-sm whitespace-nowrap text-ink-2">
        frame {frame}
        {drawnRate !== null && ` · ${drawnAs({ drawnRate, coarse })}`}
      </span>
      <IconButton label="Back to the editor" shortcut="Esc" side="top" onClick={() => leaveFullScreen(editor)}>
        <X size={15} />
      </IconButton>
    </div>
  );
};
