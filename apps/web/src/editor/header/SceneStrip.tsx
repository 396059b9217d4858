import { ChevronDown, Plus } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { addScene, duplicateScene, moveScene, removeScene, setScene } from '@kite/core/edits/scenes';
import type { Assets, Id, Scene } from '@kite/core/document/types';
import { wholeScene } from '@kite/core/scene/whole';
import { Button, IconButton } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { nestScene } from '../commands/nesting';
import { Menu } from '../../ui/Menu';
import { RenameField } from '../../ui/RenameField';
import { SizeForm } from '../../pages/projects/SizeForm';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';

const HEIGHT = 20;
const NARROWEST = 10;
const WIDEST = 36;
/** So long a scene must be left alone until its poster is drawn again, in ms. */
const REST = 400;

/** A scene's poster, as it was a moment ago. */
const Poster = ({ id }: { id: Id }) => {
  const editor = useEditor();
  const canvas = useRef<HTMLCanvasElement>(null);
  /** What the poster that shows was drawn from. */
  const drawn = useRef<{ readonly scene: Scene; readonly assets: Assets } | null>(null);
  const { width, height, background } = useSlice((s) => {
    // A card may be asked once more after its scene is gone.
    const { width = 1, height = 1, background = null } = s.doc.scenes[id] ?? {};
    return { width, height, background };
  });
  // The document at rest: what a gesture or playing goes through is not looked at.
  const doc = useSlice((s) => (s.playing || s.gesturing ? null : s.doc));
  // With those that it nests: another scene for every edit that can be seen in it.
  const scene = useMemo(() => {
    const own = doc?.scenes[id];
    return doc && own ? wholeScene(own, doc) : null;
  }, [doc, id]);
  const assets = doc?.assets;
  useEffect(() => {
    if (!scene || !assets || (drawn.current?.scene === scene && drawn.current.assets === assets)) return;
    let gone = false;
    const timer = setTimeout(() => {
      const ratio = window.devicePixelRatio;
      const height = Math.round(HEIGHT * ratio);
      const width = Math.max(1, Math.round((height * scene.width) / scene.height));
      void editor.preview.poster(id, width, height).then((poster) => {
        const element = canvas.current;
        if (gone || !poster || !element) {
          poster?.close();
          return;
        }
        element.width = width;
        element.height = height;
        element.getContext('bitmaprenderer')?.transferFromImageBitmap(poster);
        element.dataset.drawn = String(scene.poster);
        drawn.current = { scene, assets };
      });
    }, REST);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [editor, id, scene, assets]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      className="h-5 shrink-0 rounded-sm border border-line object-cover"
      style={{
        width: Math.min(WIDEST, Math.max(NARROWEST, (HEIGHT * width) / height)),
        background: background ?? 'repeating-conic-gradient(#c8c8c4 0 25%, #efefec 0 50%) 0 0 / 8px 8px',
      }}
    />
  );
};

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
        <Poster id={id} />
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
  const [adding, setAdding] = useState(false);
  return (
    <nav aria-label="Scenes" className="flex min-w-0 items-center gap-1.5">
      <div className="flex min-w-0 items-center gap-1.5 overflow-x-auto p-0.5 [scrollbar-width:none]">
        {order.map((id, i) => (
          <Card key={id} id={id} index={i} />
        ))}
      </div>
      <IconButton label="New scene" className="border border-line" onClick={() => setAdding(true)}>
        <Plus size={15} />
      </IconButton>
      {adding && (
        <Dialog open onClose={() => setAdding(false)} title="New scene" width={560}>
          <SizeForm
            name="Scene name"
            suggested="Scene"
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
