import type { DrawingLayer, Id } from '@kite/core/document/types';
import {
  addCel,
  celFrames,
  celsIn,
  celShown,
  clearCels,
  holdCels,
  hurryCels,
  loopCels,
  repeatCels,
  reverseCels,
} from '@kite/core/edits/cels';
import { listOf, moveItem, removeItem, within } from '@kite/core/edits/recipe';
import { samplerOf } from '@kite/core/motion/sampler';
import { cels as celsKind } from '@kite/core/recipe/groups/cels';
import type { MenuEntry } from '../../../ui/Menu';
import { useEditor, useSlice } from '../../store/context';
import { type Editor, makeId } from '../../store/editor';
import { CardPicture } from '../../inspector/recipe/CardPicture';
import { NAMES_WIDTH, ROW } from '../scale';
import { HeldBox, nextOf } from './HeldBox';

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
    { label: 'Loop from here on', onSelect: () => editor.edit(loopCels(ref, layer, id)) },
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

const CelBox = ({ layer, cels, id, index, frames, shown }: CelBoxProps) => {
  const editor = useEditor();
  const ref = { scene: editor.scene.id, layer: layer.id, item: cels };
  const spans = frames.slice(0, -1).map((from, i) => [from, frames[i + 1] as number] as const);
  const [from, to] = spans[index] as readonly [number, number];
  return (
    <HeldBox
      label={`Cel ${index + 1}`}
      testId="cel"
      from={from}
      to={to}
      shown={shown}
      locked={layer.locked}
      entries={() => menuOf(editor, layer, cels, id)}
      picture={(widest) => (
        <CardPicture
          flow={() => editor.program.flowAt(layer.id, [id], from)}
          from={[stampOf(within(layer.items, id))]}
          width={Math.min(34, widest)}
          height={ROW - 6}
        />
      )}
      onPick={() => {
        editor.select({ layers: [layer.id], card: id });
        editor.seek(from);
      }}
      hold={(frames) => holdCels(ref, [id], frames)}
      onDrop={(middle) => {
        const before = celsIn(layer, cels)[nextOf(spans, index, middle)];
        const rest = listOf(layer, cels).filter((other) => other !== id);
        editor.edit(moveItem({ ...ref, item: id }, cels, before === undefined ? rest.length : rest.indexOf(before)));
      }}
    />
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
