import { wholeScene } from '@kite/core/scene/whole';
import { compileScene } from '@kite/core/scene/compile';
import { TriangleAlert } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useDeferredValue, useMemo, useState } from 'react';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';

/** Everything that does not work as it should, in every scene: a press goes there. Not there while all is well. */
export const ChecksMenu = () => {
  const editor = useEditor();
  const [open, setOpen] = useState(false);
  const { doc: newest, here, now } = useSlice((s) => ({ doc: s.doc, here: sceneOf(s).id, now: s.problems }));
  // While something is dragged the picture comes first.
  const doc = useDeferredValue(newest);
  const found = useMemo(() => {
    const lines = doc.order.flatMap((id) => {
      const scene = doc.scenes[id];
      if (!scene) return [];
      const all = compileScene(wholeScene(scene, doc), editor.library).problems;
      // What shows at this frame alone is known of the scene that is open.
      return [...all, ...(id === here ? now : [])].map(({ layer, message }) => ({ scene, layer, message }));
    });
    const keys = lines.map(({ scene, layer, message }) => `${scene.id}/${layer}/${message}`);
    return lines.filter((_, i) => keys.indexOf(keys[i] as string) === i);
  }, [doc, here, now, editor]);
  if (found.length === 0) return null;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button
          type="button"
          className="ml-1 inline-flex h-[30px] items-center gap-1.5 rounded-md bg-sun-2 px-2.5 whitespace-nowrap text-sun"
        >
          <TriangleAlert size={15} /> {found.length}
          <span className="sr-only">to look at</span>
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          aria-label="Checks"
          className="z-50 flex max-h-96 w-96 flex-col overflow-y-auto rounded-md border border-line bg-paper p-1 shadow-lg"
        >
          {found.slice(0, 200).map(({ scene, layer, message }) => (
            <button
              key={`${scene.id}/${layer}/${message}`}
              type="button"
              className="rounded-[5px] px-2 py-1.5 text-left hover:bg-sky-2"
              onClick={() => {
                setOpen(false);
                editor.showScene(scene.id);
                editor.select({ layers: [layer] });
              }}
            >
              <span className="block text-sm text-ink-2">{scene.name}</span>“{scene.layers[layer]?.name}” {message}
            </button>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
};
