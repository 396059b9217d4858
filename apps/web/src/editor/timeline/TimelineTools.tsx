import { ChartSpline, CircleDot, Flag, Layers2, ListFilter, Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { memo } from 'react';
import { IconButton } from '../../ui/Button';
import { Menu } from '../../ui/Menu';
import { CommandButton } from '../commands/CommandButton';
import { keyPlace } from '../commands/keying';
import { entryOf } from '../commands/table';
import { useEditor, useSlice } from '../store/context';

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
  const { curves, whole, several, allScenes, onlyAnimated } = useSlice((s) => ({
    curves: s.curves,
    whole: s.timeReach === null,
    several: s.doc.order.length > 1,
    allScenes: s.allScenes,
    onlyAnimated: s.onlyAnimated,
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
          entryOf(editor, 'keyAnimated'),
          ...KEYED.map(({ label, keys }) => ({ label, onSelect: () => keyPlace(editor, keys) })),
          entryOf(editor, 'keyCorners'),
          null,
          entryOf(editor, 'selectKeys'),
          entryOf(editor, 'repeatFirst'),
        ]}
      />
      <CommandButton
        command="mark"

        size="small"
      >
        <Flag size={ICON} />
      </CommandButton>
      <CommandButton
        command="curves"

        size="small"
        pressed={curves}
      >
        <ChartSpline size={ICON} />
      </CommandButton>
      <IconButton
        label={several ? 'Ribbons of the other scenes too' : 'Ribbons of other scenes: there is only this one'}
        size="small"
        disabled={!several}
        pressed={allScenes}
        onClick={() => editor.set({ allScenes: !allScenes })}
      >
        <Layers2 size={ICON} />
      </IconButton>
      <IconButton
        label="Only layers that are animated"
        size="small"
        pressed={onlyAnimated}
        onClick={() => editor.set({ onlyAnimated: !onlyAnimated })}
      >
        <ListFilter size={ICON} />
      </IconButton>
      <span className="flex-1" />
      <CommandButton command="timeMore" size="small">
        <ZoomOut size={ICON} />
      </CommandButton>
      <CommandButton command="timeLess" size="small">
        <ZoomIn size={ICON} />
      </CommandButton>
      <CommandButton
        command="timeWhole"

        size="small"
        disabled={whole}
      >
        <Maximize2 size={ICON - 1} />
      </CommandButton>
    </div>
  );
});
TimelineTools.displayName = 'TimelineTools';
