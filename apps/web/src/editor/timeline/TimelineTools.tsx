import { ChartSpline, CircleDot, Flag, Layers2, Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { memo } from 'react';
import { IconButton } from '../../ui/Button';
import { Menu } from '../../ui/Menu';
import { keyAnimated, keyPlace, markPlayhead, selectAllKeys } from '../keying';
import { useEditor, useSlice } from '../store/context';
import { zoomTime } from './zoomTime';

const KEYED = [
  { label: 'Key position', keys: ['position'] },
  { label: 'Key scale', keys: ['scale'] },
  { label: 'Key turn', keys: ['rotation'] },
  { label: 'Key opacity', keys: ['opacity'] },
  { label: 'Key all four', keys: ['position', 'scale', 'rotation', 'opacity'] },
];

const ICON = 15;

/** Beside the ruler: keys for several layers at once, markers, curves, zoom. */
export const TimelineTools = memo(() => {
  const editor = useEditor();
  const { curves, whole, several, allScenes } = useSlice((s) => ({
    curves: s.curves,
    whole: s.timeReach === null,
    several: s.doc.order.length > 1,
    allScenes: s.allScenes,
  }));
  return (
    <div className="flex h-6 items-center gap-0.5 px-1.5">
      <Menu
        align="start"
        trigger={
          <IconButton label="Keyframes at the playhead" size="small">
            <CircleDot size={ICON} />
          </IconButton>
        }
        entries={[
          { label: 'Key all that is animated', shortcut: 'K', onSelect: () => keyAnimated(editor) },
          ...KEYED.map(({ label, keys }) => ({ label, onSelect: () => keyPlace(editor, keys) })),
          null,
          { label: 'Select all keyframes', shortcut: 'Ctrl+Shift+A', onSelect: () => selectAllKeys(editor) },
        ]}
      />
      <IconButton
        label="Marker at the playhead"
        shortcut="M"

        size="small"
        onClick={() => markPlayhead(editor)}
      >
        <Flag size={ICON} />
      </IconButton>
      <IconButton
        label="Curves of what is selected"
        shortcut="C"
        size="small"
        pressed={curves}
        onClick={() => editor.set({ curves: !curves })}
      >
        <ChartSpline size={ICON} />
      </IconButton>
      <IconButton
        label={several ? 'Ribbons of the other scenes too' : 'Ribbons of other scenes: there is only this one'}
        size="small"
        disabled={!several}
        pressed={allScenes}
        onClick={() => editor.set({ allScenes: !allScenes })}
      >
        <Layers2 size={ICON} />
      </IconButton>
      <span className="flex-1" />
      <IconButton label="Show more of the time" shortcut="-" size="small" onClick={() => zoomTime(editor, 1 / 1.5)}>
        <ZoomOut size={ICON} />
      </IconButton>
      <IconButton label="Show less of the time" shortcut="=" size="small" onClick={() => zoomTime(editor, 1.5)}>
        <ZoomIn size={ICON} />
      </IconButton>
      <IconButton
        label="Show the whole time"
        shortcut="Shift+F"

        size="small"
        disabled={whole}
        onClick={() => editor.set({ timeReach: null })}
      >
        <Maximize2 size={ICON - 1} />
      </IconButton>
    </div>
  );
});
TimelineTools.displayName = 'TimelineTools';
