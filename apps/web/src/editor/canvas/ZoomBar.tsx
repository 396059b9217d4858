import type { Size } from '@kite/core/geometry/size';
import { Box, Maximize, ZoomIn, ZoomOut } from 'lucide-react';
import { IconButton } from '../../ui/Button';
import { CommandButton } from '../commands/CommandButton';
import { useEditor, useSlice } from '../store/context';
import type { View } from '../store/workspace';
import { AidsMenu } from './looks/AidsMenu';
import { LooksMenu } from './looks/LooksMenu';
import { zoomed } from './view';

/** Looks and aids, and how large the picture is shown. */
export const ZoomBar = ({ view, size, hidden }: { view: View; size: Size; hidden: boolean }) => {
  const editor = useEditor();
  const aside = useSlice((s) => s.aside !== null);
  const zoomBy = (factor: number) => zoomed(view, factor, [size.width / 2, size.height / 2]);
  const actual = () => {
    const whole = zoomBy(1 / view.zoom);
    editor.set({ view: { zoom: 1, x: Math.round(whole.x), y: Math.round(whole.y) } });
  };
  return (
    <div
      hidden={hidden}
      className="absolute right-2 bottom-2 flex items-center gap-0.5 rounded-md border border-line bg-paper p-0.5"
    >
      <LooksMenu />
      <AidsMenu />
      <CommandButton command="aside" label="Second view" side="top" pressed={aside}>
        <Box size={15} />
      </CommandButton>
      <IconButton label="Zoom out" side="top" onClick={() => editor.set({ view: zoomBy(1 / 1.25) })}>
        <ZoomOut size={15} />
      </IconButton>
      <button
        type="button"
        aria-label="Zoom to 100 %"
        className="tabular h-7 w-12 rounded-md text-sm hover:bg-paper-2"
        onClick={actual}
      >
        {Math.round(view.zoom * 100)} %
      </button>
      <IconButton label="Zoom in" side="top" onClick={() => editor.set({ view: zoomBy(1.25) })}>
        <ZoomIn size={15} />
      </IconButton>
      <CommandButton command="fit" label="Fit" side="top">
        <Maximize size={15} />
      </CommandButton>
    </div>
  );
};
