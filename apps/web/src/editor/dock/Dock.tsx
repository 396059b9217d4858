import { toolOf, withTool } from '../store/workspace';
import {
  CircleHelp,
  ChartColumn,
  Crosshair,
  GalleryHorizontal,
  History,
  Images,
  Keyboard,
  Palette,
  Replace,
  Shapes,
  Sparkles,
  Video,
  Wind,
} from 'lucide-react';
import { type ComponentProps, type ReactNode, useEffect, useState } from 'react';
import { IconButton } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { KeyTable } from '../../ui/Keys';
import { COMMANDS } from '../commands/table';
import { SHORTCUTS } from '../commands/subjects';
import { TOOL_NAMES, TOOLS } from '../canvas/tools/table';
import { useEditor, useSlice } from '../store/context';
import type { Drawer } from '../store/workspace';
import { DRAWERS } from '../later';

const Line = () => <span className="my-1 h-px w-6 bg-line" />;

const ShortcutsDialog = ({ onClose }: { onClose: () => void }) => (
  <Dialog open onClose={onClose} title="Keyboard" width={760} reading>
    <KeyTable subjects={SHORTCUTS} />
    <p className="text-ink-2">
      Wheel moves the canvas, Ctrl and wheel zooms, the middle button drags it. Number fields are dragged sideways, take
      sums such as 1920/3, and step with the arrow keys.
    </p>
  </Dialog>
);

const OPENERS: readonly { drawer: Drawer; label: string; icon: ReactNode }[] = [
  { drawer: 'shapes', label: 'Add a shape', icon: <Shapes size={18} /> },
  { drawer: 'moves', label: 'Moves', icon: <Wind size={18} /> },
  { drawer: 'poses', label: 'Poses', icon: <GalleryHorizontal size={18} /> },
  { drawer: 'replace', label: 'Replace words, pictures and colours', icon: <Replace size={18} /> },
  { drawer: 'assets', label: 'Pictures and fonts', icon: <Images size={18} /> },
  { drawer: 'colours', label: 'Colours', icon: <Palette size={18} /> },
];

const DockButton = (props: ComponentProps<typeof IconButton>) => <IconButton size="large" side="right" {...props} />;

export const Dock = () => {
  const editor = useEditor();
  const { tool, drawer } = useSlice((s) => ({ tool: toolOf(s.mode), drawer: s.drawer }));
  const [help, setHelp] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '?' && !(event.target instanceof HTMLInputElement)) setHelp(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const Shown = drawer && DRAWERS[drawer];
  const toggle = (which: Drawer) => editor.set({ drawer: drawer === which ? null : which });
  return (
    <>
      <nav
        aria-label="Tools"
        data-area="tools"
        className="flex w-12 shrink-0 flex-col items-center gap-1 border-r border-line bg-paper py-2"
      >
        {TOOL_NAMES.map((own) => {
          const { label, keys, icon: Icon } = TOOLS[own];
          if (!Icon) return null;
          return (
            <DockButton
              key={own}
              label={label}
              {...(keys && { shortcut: keys })}
              pressed={tool === own}
              onClick={() => editor.set({ mode: withTool(own) })}
            >
              <Icon size={18} />
            </DockButton>
          );
        })}
        <Line />
        {OPENERS.map(({ drawer: own, label, icon }) => (
          <DockButton key={own} label={label} pressed={drawer === own} onClick={() => toggle(own)}>
            {icon}
          </DockButton>
        ))}
        <DockButton label={COMMANDS.addChart.label} onClick={() => COMMANDS.addChart.run(editor)}>
          <ChartColumn size={18} />
        </DockButton>
        <DockButton label={COMMANDS.addController.label} onClick={() => COMMANDS.addController.run(editor)}>
          <Crosshair size={18} />
        </DockButton>
        <DockButton label={COMMANDS.addCamera.label} onClick={() => COMMANDS.addCamera.run(editor)}>
          <Video size={18} />
        </DockButton>
        <DockButton label={COMMANDS.addCover.label} onClick={() => COMMANDS.addCover.run(editor)}>
          <Sparkles size={18} />
        </DockButton>
        <Line />
        <DockButton label="History" pressed={drawer === 'history'} onClick={() => toggle('history')}>
          <History size={18} />
        </DockButton>
        <DockButton label="Help" className="mt-auto" onClick={() => window.open('/help', '_blank', 'noopener')}>
          <CircleHelp size={18} />
        </DockButton>
        <DockButton label="Keyboard" shortcut="?" onClick={() => setHelp(true)}>
          <Keyboard size={18} />
        </DockButton>
      </nav>
      {Shown && <Shown />}
      {help && <ShortcutsDialog onClose={() => setHelp(false)} />}
    </>
  );
};
