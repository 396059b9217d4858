import { Check, ChevronDown, ChevronsUpDown, Plus } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { addScene, duplicateScene, moveScene, removeScene, setScene } from '@kite/core/edits/scenes';
import type { Id } from '@kite/core/document/types';
import { Button, IconButton } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { nestScene } from '../commands/nesting';
import { Menu } from '../../ui/Menu';
import { RenameField } from '../../ui/RenameField';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';
import { Poster } from './Poster';
import { SizeForm } from '../later';

const Card = ({ id, index }: { id: Id; index: number }) => {
  const editor = useEditor();
  // What the card shows of its scene; the scene itself changes with every edit in it.
  const scene = useSlice((s) => {
    // A card may be asked once more after its scene is gone.
    const { name = '' } = s.doc.scenes[id] ?? {};
    return { id, name };
  });
  const { current, count } = useSlice((s) => ({ current: s.sceneId === id, count: s.doc.order.length }));
  const [renaming, setRenaming] = useState(false);
  return (
    <div
      className={`flex h-8 max-w-44 min-w-0 shrink-0 items-center gap-1.5 rounded-md border pl-1 ${current ? 'border-sky bg-paper ring-1 ring-sky' : 'border-line bg-paper-2'}`}
    >
      <button
        type="button"
        aria-current={current}
        aria-label={`Scene ${scene.name}`}
        className="flex min-w-0 items-center gap-2 rounded-sm"
        onClick={() => editor.showScene(scene.id)}
      >
        <Poster id={id} height={20} widest={36} className="object-cover" />
        <RenameField
          label="Scene name"
          value={scene.name}
          editing={renaming}
          onDone={() => setRenaming(false)}
          onRename={(name) => editor.edit(setScene(scene.id, { name }))}
        />
      </button>
      <Menu
        trigger={
          <button
            type="button"
            aria-label={`Scene ${scene.name}: more`}
            className="h-7 rounded-sm px-1 text-ink-2 hover:text-ink"
          >
            <ChevronDown size={13} />
          </button>
        }
        align="start"
        entries={[
          { label: 'Rename', onSelect: () => setTimeout(() => setRenaming(true), 0) },
          {
            label: 'Duplicate',
            onSelect: () => {
              const copy = makeId();
              editor.edit(duplicateScene(scene.id, copy));
              editor.showScene(copy);
            },
          },
          { label: 'Move left', disabled: index === 0, onSelect: () => editor.edit(moveScene(scene.id, index - 1)) },
          {
            label: 'Move right',
            disabled: index === count - 1,
            onSelect: () => editor.edit(moveScene(scene.id, index + 1)),
          },
          null,
          {
            label: 'Nest in the open scene',
            disabled: scene.id === editor.state.sceneId,
            onSelect: () => nestScene(editor, scene.id),
          },
          {
            label: 'Delete',
            danger: true,
            disabled: count === 1,
            onSelect: () => void editor.edit(removeScene(scene.id)),
          },
        ]}
      />
    </div>
  );
};

export const SceneStrip = () => {
  const editor = useEditor();
  const order = useSlice((s) => s.doc.order);
  const names = useSlice((s) => s.doc.order.map((id) => s.doc.scenes[id]?.name ?? ''));
  const strip = useRef<HTMLDivElement>(null);
  const open = useSlice((s) => s.sceneId);
  // The open one is in sight, wherever it was opened from.
  useEffect(() => {
    strip.current
      ?.querySelector('[aria-current=true]')
      ?.parentElement?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [open, order]);
  const [adding, setAdding] = useState(false);
  return (
    <nav aria-label="Scenes" className="flex min-w-0 items-center gap-1.5">
      <div ref={strip} className="flex min-w-0 items-center gap-1.5 overflow-x-auto p-0.5 [scrollbar-width:none]">
        {order.map((id, i) => (
          <Card key={id} id={id} index={i} />
        ))}
      </div>
      {order.length > 1 && (
        <Menu
          align="start"
          entries={order.map((id, i) => ({
            label: names[i] ?? '',
            ...(id === open && { icon: <Check size={13} /> }),
            onSelect: () => editor.showScene(id),
          }))}
          trigger={
            <button
              type="button"
              aria-label="All scenes"
              title="All scenes"
              className="flex h-7 shrink-0 items-center gap-1 rounded-md px-1 text-sm text-ink-2 hover:bg-paper-2 hover:text-ink"
            >
              {order.length}
              <ChevronsUpDown size={13} />
            </button>
          }
        />
      )}
      <IconButton label="New scene" className="border border-line" onClick={() => setAdding(true)}>
        <Plus size={15} />
      </IconButton>
      {adding && (
        <Dialog open onClose={() => setAdding(false)} title="New scene" width={560}>
          <SizeForm
            name="Scene name"
            suggested="Scene"
            size={editor.scene}
            submit={(isBusy) => (
              <Button type="submit" look="primary" disabled={isBusy}>
                Add the scene
              </Button>
            )}
            onSubmit={(name, size) => {
              const id = makeId();
              editor.edit(addScene(id, name, size, editor.state.sceneId));
              editor.showScene(id);
              setAdding(false);
            }}
          />
        </Dialog>
      )}
    </nav>
  );
};
