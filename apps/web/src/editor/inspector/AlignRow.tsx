import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceBetween,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceBetween,
  Frame,
} from 'lucide-react';
import { type ReactNode, useState } from 'react';
import type { Alignment } from '@kite/core/geometry/snap';
import { IconButton } from '../../ui/Button';
import { alignSelection, distributeSelection } from '../commands/arrange';
import { type CommandName, COMMANDS } from '../commands/table';
import { useEditor } from '../store/context';

const ALIGNMENTS: readonly { readonly how: Alignment; readonly command: CommandName; readonly icon: ReactNode }[] = [
  { how: 'left', command: 'alignLeft', icon: <AlignStartVertical size={14} /> },
  { how: 'centre', command: 'alignCentre', icon: <AlignCenterVertical size={14} /> },
  { how: 'right', command: 'alignRight', icon: <AlignEndVertical size={14} /> },
  { how: 'top', command: 'alignTop', icon: <AlignStartHorizontal size={14} /> },
  { how: 'middle', command: 'alignMiddle', icon: <AlignCenterHorizontal size={14} /> },
  { how: 'bottom', command: 'alignBottom', icon: <AlignEndHorizontal size={14} /> },
];

/** One layer is aligned with the scene, several with each other or with it. */
export const AlignRow = ({ count }: { count: number }) => {
  const editor = useEditor();
  const [scene, setScene] = useState(false);
  const whole = count === 1 || scene;
  const to = whole ? ' with the scene' : '';
  return (
    <div role="group" aria-label="Align" className="flex items-center justify-between">
      {ALIGNMENTS.map(({ how, command, icon }) => (
        <IconButton
          key={how}
          label={COMMANDS[command].label + to}
          onClick={() => alignSelection(editor, how, whole ? 'scene' : 'selection')}
        >
          {icon}
        </IconButton>
      ))}
      <span className="h-5 w-px bg-line" />
      <IconButton
        label={COMMANDS.gapsAcross.label}
        disabled={count < (whole ? 2 : 3)}
        onClick={() => distributeSelection(editor, 0, whole ? 'scene' : 'selection')}
      >
        <AlignHorizontalSpaceBetween size={14} />
      </IconButton>
      <IconButton
        label={COMMANDS.gapsDown.label}
        disabled={count < (whole ? 2 : 3)}
        onClick={() => distributeSelection(editor, 1, whole ? 'scene' : 'selection')}
      >
        <AlignVerticalSpaceBetween size={14} />
      </IconButton>
      {count > 1 && (
        <IconButton label="Align with the scene" pressed={scene} onClick={() => setScene(!scene)}>
          <Frame size={14} />
        </IconButton>
      )}
    </div>
  );
};
