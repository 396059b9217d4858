import { Crosshair, History, Keyboard, MousePointer2, PenTool, Shapes } from 'lucide-react';
import { useEffect, useState } from 'react';
import { IconButton } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { addController } from '../commands';
import { SHORTCUTS } from '../shortcuts';
import { useEditor, useSlice } from '../store/context';
import type { Drawer } from '../store/state';
import { HistoryDrawer } from './HistoryDrawer';
import { ShapesDrawer } from './ShapesDrawer';

const Line = () => <span className="my-1 h-px w-6 bg-line" />;

const ShortcutsDialog = ({ onClose }: { onClose: () => void }) => (
  <Dialog open onClose={onClose} title="Keyboard" width={640}>
    <dl className="grid grid-cols-2 gap-x-8 gap-y-1">
      {SHORTCUTS.map(({ keys, label }) => (
        <div key={keys} className="flex items-baseline justify-between gap-3 border-b border-line py-0.5">
          <dt className="min-w-0 truncate" title={label}>
            {label}
          </dt>
          <dd className="shrink-0">
            <kbd className="rounded-sm bg-paper-2 px-1.5 font-sans text-sm">{keys}</kbd>
          </dd>
        </div>
      ))}
    </dl>
    <p className="mt-3 text-ink-2">
      Wheel moves the canvas, Ctrl and wheel zooms, the middle button drags it. Number fields are dragged sideways, take
      sums such as 1920/3, and step with the arrow keys.
    </p>
  </Dialog>
);

export const Dock = () => {
  const editor = useEditor();
  const { tool, drawer } = useSlice((s) => ({ tool: s.tool, drawer: s.drawer }));
  const [help, setHelp] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '?' && !(event.target instanceof HTMLInputElement)) setHelp(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const toggle = (which: Drawer) => editor.set({ drawer: drawer === which ? null : which });
  return (
    <>
      <nav
        aria-label="Tools"
        className="flex w-12 shrink-0 flex-col items-center gap-1 border-r border-line bg-paper py-2"
      >
        <IconButton
          size="large"
          side="right"
          label="Select"
          shortcut="S"
          pressed={tool === 'select'}
          onClick={() => editor.set({ tool: 'select' })}
        >
          <MousePointer2 size={18} />
        </IconButton>
        <IconButton
          size="large"
          side="right"
          label="Draw a path"
          shortcut="D"
          pressed={tool === 'path'}
          onClick={() => editor.set({ tool: 'path' })}
        >
          <PenTool size={18} />
        </IconButton>
        <Line />
        <IconButton
          size="large"
          side="right"
          label="Add a shape"
          pressed={drawer === 'shapes'}
          onClick={() => toggle('shapes')}
        >
          <Shapes size={18} />
        </IconButton>
        <IconButton size="large" side="right" label="Add a controller" onClick={() => addController(editor)}>
          <Crosshair size={18} />
        </IconButton>
        <Line />
        <IconButton
          size="large"
          side="right"
          label="History"
          pressed={drawer === 'history'}
          onClick={() => toggle('history')}
        >
          <History size={18} />
        </IconButton>
        <IconButton
          size="large"
          side="right"
          label="Keyboard"
          shortcut="?"
          className="mt-auto"
          onClick={() => setHelp(true)}
        >
          <Keyboard size={18} />
        </IconButton>
      </nav>
      {drawer === 'shapes' && <ShapesDrawer />}
      {drawer === 'history' && <HistoryDrawer />}
      {help && <ShortcutsDialog onClose={() => setHelp(false)} />}
    </>
  );
};
