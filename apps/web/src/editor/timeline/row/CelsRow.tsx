import type { DrawingLayer, Id } from '@kite/core/document/types';
import {
  addCel,
  celFrames,
  celsIn,
  celShown,
  clearCels,
  holdCels,
  hurryCels,
  repeatCels,
  reverseCels,
} from '@kite/core/edits/cels';
import { listOf, moveItem, removeItem, within } from '@kite/core/edits/recipe';
import { samplerOf } from '@kite/core/motion/sampler';
import { cels as celsKind } from '@kite/core/recipe/cels';
import type { PointerEvent } from 'react';
import { followPointer } from '../../../ui/drag';
import { type MenuEntry, PressMenu } from '../../../ui/Menu';
import { useEditor, useSlice } from '../../store/context';
import { type Editor, makeId } from '../../store/editor';
import { CardPicture } from '../../inspector/recipe/CardPicture';
import { NAMES_WIDTH, ROW } from '../scale';
import { useScale } from '../scaleContext';

/** Narrower ones show no picture. */
const [PICTURE, EDGE] = [26, 6];

const menuOf = (editor: Editor, layer: DrawingLayer, cels: Id, id: Id): (MenuEntry | null)[] => {
  const ref = { scene: editor.scene.id, layer: layer.id, item: cels };
  const list = celsIn(layer, cels);
  return [
    { label: 'Go on from this one', onSelect: () => editor.edit(addCel(ref, id, makeId, { begins: 'copy' })) },
    { label: 'Empty one after it', onSelect: () => editor.edit(addCel(ref, id, makeId, { begins: 'empty' })) },
    null,
    { label: 'All on ones', onSelect: () => editor.edit(holdCels(ref, list, 1)) },
    { label: 'All on twos', onSelect: () => editor.edit(holdCels(ref, list, 2)) },
    { label: 'Reverse all', onSelect: () => editor.edit(reverseCels(ref)) },
    { label: 'All once more', onSelect: () => editor.edit(repeatCels(ref, list, false, makeId)) },
    { label: 'Faster from here: every second after it', onSelect: () => editor.edit(hurryCels(ref, id)) },
    { label: 'All back again', onSelect: () => editor.edit(repeatCels(ref, list, true, makeId)) },
    null,
    { label: 'Clear', onSelect: () => editor.edit(clearCels(ref, [id])) },
    {
      label: 'Remove',
      danger: true,
      disabled: list.length === 1,
      onSelect: () => editor.edit(removeItem({ ...ref, item: id })),
    },
  ];
};

const stamps = new WeakMap<object, number>();
let count = 0;
/** What stands for things: the same as long as they are the same objects. */
const stampOf = (things: readonly object[]): string =>
  things
    .map((thing) => {
      const known = stamps.get(thing) ?? ++count;
      stamps.set(thing, known);
      return known;
    })
    .join();

interface CelBoxProps {
  layer: DrawingLayer;
  cels: Id;
  id: Id;
  index: number;
  /** When each of them begins, and the end of the last. */
  frames: readonly number[];
  shown: boolean;
}

/** One cel in its time: pressed the playhead goes there, dragged it changes places, by its edge it is held for longer. */
const CelBox = ({ layer, cels, id, index, frames, shown }: CelBoxProps) => {
  const editor = useEditor();
  const scale = useScale();
  const [from, to] = [frames[index] as number, frames[index + 1] as number];
  const hold = to - from;
  const [left, width] = [scale.x(from), scale.x(to) - scale.x(from)];
  const ref = { scene: editor.scene.id, layer: layer.id, item: cels };

  const onHold = (event: PointerEvent) => {
    if (event.button !== 0 || layer.locked) return;
    event.stopPropagation();
    followPointer(event, {
      onStart: () => editor.begin(),
      onMove: ({ dx }) => editor.edit(holdCels(ref, [id], Math.max(1, Math.round(hold + scale.frames(dx))))),
      onEnd: (_drag, moved) => moved && editor.end(),
      onCancel: () => editor.abandon(),
    });
  };
  const onMove = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    editor.select({ layers: [layer.id], card: id });
    editor.seek(from);
    if (layer.locked) return;
    followPointer(event, {
      onMove: () => undefined,
      onEnd: ({ dx }, moved) => {
        if (!moved) return;
        // Before the first of the others whose middle lies beyond its own.
        const at = (from + to) / 2 + scale.frames(dx);
        const next = frames.findIndex(
          (own, i) => i !== index && i < frames.length - 1 && (own + frames[i + 1]!) / 2 >= at,
        );
        const rest = listOf(layer, cels).filter((other) => other !== id);
        const before = next < 0 ? undefined : celsIn(layer, cels)[next];
        editor.edit(moveItem({ ...ref, item: id }, cels, before === undefined ? rest.length : rest.indexOf(before)));
      },
    });
  };
  const nudge = (by: -1 | 1) => editor.edit(holdCels(ref, [id], hold + by));
  if (left + width < 0 || left > scale.width) return null;
  return (
    <PressMenu entries={() => menuOf(editor, layer, cels, id)}>
      <div
        role="button"
        tabIndex={0}
        aria-label={`Cel ${index + 1}, held ${hold} frame${hold === 1 ? '' : 's'}`}
        aria-pressed={shown}
        data-testid="cel"
        className={`absolute inset-y-0.5 overflow-hidden rounded-sm border bg-paper ${shown ? 'border-kite' : 'border-line'}`}
        style={{ left, width: Math.max(3, width - 1), background: editor.scene.background ?? undefined }}
        onPointerDown={onMove}
        onClick={(event) => event.stopPropagation()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') editor.seek(from);
          else if (event.key === '+') nudge(1);
          else if (event.key === '-') nudge(-1);
          else return;
          event.stopPropagation();
        }}
      >
        {width >= PICTURE && (
          <CardPicture
            flow={() => editor.program.flowAt(layer.id, [id], from)}
            from={[stampOf(within(layer.items, id))]}
            width={Math.min(34, Math.floor(width) - 2)}
            height={ROW - 6}
          />
        )}
        <span
          data-testid="cel-edge"
          title="Drag to hold it for longer"
          className="absolute inset-y-0 right-0 cursor-ew-resize"
          style={{ width: Math.min(EDGE, width / 3) }}
          onPointerDown={onHold}
        />
      </div>
    </PressMenu>
  );
};

/** The cels of a drawing as small pictures, each as long as it is held. */
export const CelsRow = ({ layer, cels }: { layer: DrawingLayer; cels: Id }) => {
  const editor = useEditor();
  const item = layer.items[cels];
  const list = celsIn(layer, cels);
  const start = item ? samplerOf(celsKind.params.start, item.params.start).at(0) : 0;
  const shown = useSlice((s) => {
    const values = editor.program.cardAt(layer.id, cels, s.frame)?.values;
    return values ? celShown(layer, cels, values as unknown as Parameters<typeof celShown>[2], s.frame) : null;
  });
  const frames = celFrames(layer, cels, Number(start));
  return (
    <div
      role="group"
      aria-label={`Cels of ${layer.name}`}
      data-testid="cels-row"
      className="flex border-b border-line bg-paper-2"
      style={{ height: ROW }}
    >
      <div
        style={{ width: NAMES_WIDTH }}
        className="flex shrink-0 items-center border-r border-line pr-2 pl-[38px] text-ink-2"
      >
        <span className="min-w-0 flex-1 truncate">{item?.name ?? celsKind.label}</span>
        <span className="tabular text-sm">{list.length}</span>
      </div>
      <div className="relative min-w-0 flex-1 overflow-hidden">
        {list.map((id, i) => (
          <CelBox key={id} id={id} layer={layer} cels={cels} index={i} frames={frames} shown={id === shown} />
        ))}
      </div>
    </div>
  );
};
