import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import type { DrawingLayer, Id, Item, SavedEffects } from '@kite/core/document/types';
import { addItem, groupOf, moveItem, removeItem, setItem, within } from '@kite/core/edits/recipe';
import { REVEAL_NAME } from '@kite/core/edits/reveal';
import { effectsIn, putEffects } from '@kite/core/edits/effects';
import { together } from '@kite/core/document/patches';
import type { Program } from '@kite/core/scene/compile';
import { mask } from '@kite/core/recipe/covers/mask';
import { text } from '@kite/core/recipe/sources/text';
import { letters } from '@kite/core/recipe/steps/letters';
import { soleSource } from '@kite/core/recipe/needs';
import { isEffect } from '@kite/core/recipe/shown';
import { holdsCards, holdsSettings, type Kind } from '@kite/core/recipe/types';
import { KINDS, kindOf } from '@kite/core/recipe/table';
import {
  ChevronDown,
  ChevronRight,
  EllipsisVertical,
  Eye,
  EyeOff,
  GripVertical,
  ListOrdered,
  Plus,
} from 'lucide-react';
import { memo, useEffect, useRef, useState } from 'react';
import { Menu, type MenuEntry } from '../../../ui/Menu';
import { RenameField } from '../../../ui/RenameField';
import { turnIntoPath } from '@kite/core/edits/paths';
import { newCard, splitTextLayer } from '../../commands/layers';
import { makeId } from '../../store/editor';
import { useEditor, useSlice } from '../../store/context';
import { removePartAsking } from '../../commands/formulas';
import { copyCards, hasCopiedCards, pasteCopiedCards } from '../../commands/cards';
import { freeMask } from '../../commands/masks';
import { cardsBox } from '@kite/core/scene/bounds';
import { called, calledOf } from '../called';
import { PivotGrid } from '../PivotGrid';
import { Card } from './Card';
import { NestSettings } from './NestSettings';
import { CardPicture } from './CardPicture';
import { EffectsStrip } from './EffectsStrip';
import { applies } from '../fields/applies';
import { ParamField } from '../fields/ParamField';

const ROLES = [
  ['source', 'Sources'],
  ['step', 'Steps'],
  ['paint', 'Paints'],
  ['cover', 'Covers'],
  ['group', 'Groups'],
] as const;

const listOf = (layer: DrawingLayer, group: Id | null): readonly Id[] => {
  if (group !== null) return layer.items[group]?.children ?? [];
  return layer.recipe;
};

const MOST_UNFOLDED = 40;
/** Cards of one list that show before more are asked for. */
const MOST_LISTED = 50;

/** Whether a card stands somewhere in a group. */
const isWithin = (items: DrawingLayer['items'], group: Id, card: Id | null): boolean => {
  for (let at = card; at !== null; at = groupOf(items, at)) if (at === group) return at !== card;
  return false;
};

const AddMenu = ({ layer, group }: { layer: DrawingLayer; group: Id | null }) => {
  const editor = useEditor();
  const list = listOf(layer, group);
  const open = useSlice((s) => s.selection.card);
  const add = (kind: string) => {
    const item = newCard(kind);
    // Below the open card, else what gives or changes outlines goes above the first paint, and the rest at the end.
    const paints = list.findIndex((id) => kindOf(layer.items[id]?.kind ?? 'group').role === 'paint');
    const after = open !== null && list.includes(open) ? list.indexOf(open) + 1 : list.length;
    const index = open === null && worksOnOutlines(kindOf(kind)) && paints >= 0 ? paints : after;
    editor.edit(addItem(editor.scene.id, layer.id, item, group, index));
    editor.select({ layers: [layer.id], card: item.id });
  };
  const where = open !== null && list.includes(open) ? list.indexOf(open) + 1 : list.length;
  const use = (saved: SavedEffects) => editor.edit(putEffects(editor.scene.id, layer, saved, group, where, makeId));
  const paste: (MenuEntry | null)[] = hasCopiedCards()
    ? [{ label: 'Paste what was copied', onSelect: () => pasteCopiedCards(editor, layer.id, group, where) }, null]
    : [];
  const kinds = ROLES.flatMap(([role], i): (MenuEntry | null)[] => [
    ...(i > 0 ? [null] : []),
    ...[...KINDS.values()]
      .filter((k) => k.role === role && !isEffect(k))
      .map((k) => ({ label: k.label, onSelect: () => add(k.kind) })),
  ]);
  const above = open !== null && list.includes(open) ? list.slice(0, list.indexOf(open) + 1) : list;
  return (
    <div className="flex flex-wrap gap-x-1">
      <Menu
        align="start"
        columns={2}
        entries={[...paste, ...kinds]}
        trigger={
          <button
            type="button"
            className="flex h-7 items-center gap-1.5 rounded-md px-1.5 text-ink-2 hover:bg-paper-2 hover:text-ink"
          >
            <Plus size={14} /> {group === null ? 'Add a card' : 'Add a card to the group'}
          </button>
        }
      />
      <EffectsStrip
        label={group === null ? 'Add an effect' : 'Add an effect to the group'}
        layer={layer}
        cards={list}
        above={above}
        onAdd={add}
        onUse={use}
      />
    </div>
  );
};

/** Whether a card is to stand above the paints. */
const worksOnOutlines = (kind: Kind): boolean => kind.role === 'source' || (kind.role === 'step' && !kind.onDrawn);

/** Whether a card stands in a mask that cuts by outlines, where what is painted counts for nothing. */
const isInOutlines = (program: Program, { id, items }: DrawingLayer, card: Id, frame: number): boolean => {
  for (let at = groupOf(items, card); at !== null; at = groupOf(items, at)) {
    if (items[at]?.kind === mask.kind) return program.cardAt(id, at, frame)?.values.by === 'outlines';
  }
  return false;
};

/** Why a card does nothing where it stands; null where it does something. */
const idleReason = (program: Program, layer: DrawingLayer, item: Item, above: readonly Id[], frame: number) => {
  const kind = kindOf(item.kind);
  if ((kind.role === 'paint' || kind.role === 'cover') && isInOutlines(program, layer, item.id, frame)) {
    return 'The mask around it cuts by outlines: what is painted in it does not count.';
  }
  if (
    kind.kind === letters.kind &&
    !above.some((id) => within(layer.items, id).some((card) => card.kind === text.kind))
  ) {
    return 'It moves the letters of texts, and there is no text above it.';
  }
  if (kind.role === 'source' || kind.role === 'group' || (kind.role === 'step' && kind.copies)) return null;
  const { shapes, marks } = program.flowAt(layer.id, above, frame);
  if (kind.role !== 'cover') {
    if (shapes.length > 0 || marks.length === 0) return null;
    return 'It works on outlines. Above it there are pictures alone, which stay as they are.';
  }
  if (marks.length === 0) return 'It covers what is drawn above it, and nothing is yet.';
  if (!kind.holds || item.params.by) return null;
  if (program.flowAt(layer.id, item.children ?? [], frame).shapes.length > 0) return null;
  return 'It cuts by the outlines of what is in it, and there are none.';
};

const ItemCard = ({
  layer,
  item,
  group,
  index,
}: {
  layer: DrawingLayer;
  item: Item;
  group: Id | null;
  index: number;
}) => {
  const editor = useEditor();
  const { frame, chosen, unfolded } = useSlice((s) => ({
    frame: s.playing ? 0 : s.frame,
    fontsCame: s.fontsCame,
    assets: s.doc.assets,
    chosen: s.selection.card === item.id,
    unfolded: s.selection.card === null && s.unfolded.get(layer.id) === item.id,
  }));
  // A picture or a nest by itself is what its layer is: there is nothing to choose first.
  const open = chosen || unfolded || (soleSource(layer) === item.kind && layer.recipe.length === 1);
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({ id: item.id });
  const row = useRef<HTMLLIElement>(null);
  // One that was open already stays where it is: a press on something in it is under way.
  const wasOpen = useRef(false);
  useEffect(() => {
    if (chosen && !wasOpen.current) row.current?.scrollIntoView({ block: 'nearest' });
    wasOpen.current = open;
  }, [chosen, open]);
  const kind = kindOf(item.kind);
  const ref = { scene: editor.scene.id, layer: layer.id, item: item.id };
  const { program } = editor;
  const values = program.cardAt(layer.id, item.id, frame)?.values ?? {};
  const list = listOf(layer, group);
  const above = list.slice(0, index + 1);
  const idle = open ? idleReason(program, layer, item, list.slice(0, index), frame) : null;
  // The cards of a large drawing show when their group is opened.
  const inside = useSlice((s) => isWithin(layer.items, item.id, s.selection.card));
  const showsInner = open || inside || Object.keys(layer.items).length <= MOST_UNFOLDED;
  const name = calledOf(item);
  const previous = layer.items[list[index - 1] ?? ''];
  const effects = effectsIn(layer, list);

  const wrap = () => {
    const box = newCard('group');
    editor.edit(together('Group cards', [addItem(ref.scene, layer.id, box, group, index), moveItem(ref, box.id, 0)]));
  };
  const entries: (MenuEntry | null)[] = [
    { label: 'Move up', disabled: index === 0, onSelect: () => editor.edit(moveItem(ref, group, index - 1)) },
    {
      label: 'Move down',
      disabled: index === list.length - 1,
      onSelect: () => editor.edit(moveItem(ref, group, index + 1)),
    },
    {
      label: 'Into the group above',
      disabled: !previous?.children || !holdsCards(kindOf(previous.kind)),
      onSelect: () => previous && editor.edit(moveItem(ref, previous.id, previous.children?.length ?? 0)),
    },
    {
      label: 'Out of its group',
      disabled: group === null,
      onSelect: () => {
        if (group === null) return;
        const outer = groupOf(layer.items, group);
        editor.edit(moveItem(ref, outer, listOf(layer, outer).indexOf(group) + 1));
      },
    },
    { label: 'Put in a new group', onSelect: wrap },
    { label: 'Copy', onSelect: () => copyCards(layer, [item.id]) },
    ...(isEffect(kind) && effects.length > 1
      ? [{ label: `Copy all ${effects.length} effects`, onSelect: () => copyCards(layer, effects) }]
      : []),
    {
      label: 'Paste below it',
      disabled: !hasCopiedCards(),
      onSelect: () => pasteCopiedCards(editor, layer.id, group, index + 1),
    },
    ...(item.kind === 'text'
      ? (['letters', 'words', 'lines'] as const).map((by) => ({
          label: `Split into ${by}`,
          onSelect: () => splitTextLayer(editor, layer.id, by),
        }))
      : []),
    {
      label: 'Turn into a path',
      disabled: !('outlines' in kind) || item.kind === 'path',
      onSelect: () => editor.edit(turnIntoPath(ref, editor.state.frame, editor.program, makeId)),
    },
    ...(item.name === REVEAL_NAME
      ? [{ label: 'Write on otherwise …', onSelect: () => editor.set({ revealing: [layer.id] }) }]
      : []),
    ...(item.kind === 'mask'
      ? [{ label: 'Make a layer of it', onSelect: () => freeMask(editor, layer, item.id) }]
      : []),
    null,
    { label: 'Delete', danger: true, onSelect: () => removePartAsking(editor, ref.layer, ref.item, removeItem(ref)) },
  ];

  return (
    <li
      ref={(element) => {
        setNodeRef(element);
        row.current = element;
      }}
      data-testid="recipe-card"
      aria-label={`Card ${name}`}
      style={{
        transform: transform ? `translate(0, ${transform.y}px)` : undefined,
        transition,
        zIndex: isDragging ? 10 : undefined,
      }}
      className={`relative rounded-md border bg-paper ${chosen ? 'border-sky' : 'border-line'} ${isDragging ? 'shadow-lg' : ''}`}
    >
      <div className={`flex h-11 items-center gap-1.5 pr-1 pl-1.5 ${item.on ? '' : 'opacity-50'}`}>
        <span className="grid h-8 w-11 shrink-0 place-items-center rounded-sm bg-paper-2">
          <CardPicture
            flow={() => program.flowAt(layer.id, above, frame)}
            from={[program, above.join(), frame]}
            width={40}
            height={30}
          />
        </span>
        <button
          type="button"
          aria-expanded={open}
          aria-label={`${open ? 'Close' : 'Open'} ${name}`}
          className="flex min-w-0 flex-1 items-center gap-1 rounded-sm text-left"
          onClick={() => editor.select({ layers: [layer.id], card: open ? null : item.id })}
        >
          <span className="min-w-0 flex-1">
            <RenameField
              label="Card name"
              value={name}
              className="block leading-4 font-medium"
              onRename={(next) => editor.edit(setItem(ref, { name: next }))}
            />
            <span className="block truncate text-sm leading-4 text-ink-2">
              {kind.summary(values as never, (id) => called(editor, id))}
            </span>
          </span>
          {open ? (
            <ChevronDown size={13} className="shrink-0 text-ink-2" />
          ) : (
            <ChevronRight size={13} className="shrink-0 text-ink-2" />
          )}
        </button>
        <button
          type="button"
          aria-label={`Switch ${name} ${item.on ? 'off' : 'on'}`}
          aria-pressed={!item.on}
          className="grid size-5 shrink-0 place-items-center text-ink-2 hover:text-ink"
          onClick={() => editor.edit(setItem(ref, { on: !item.on }))}
        >
          {item.on ? <Eye size={13} /> : <EyeOff size={13} />}
        </button>
        <Menu
          entries={entries}
          trigger={
            <button
              type="button"
              aria-label={`${name}: more`}
              className="grid size-5 shrink-0 place-items-center text-ink-2 hover:text-ink"
            >
              <EllipsisVertical size={13} />
            </button>
          }
        />
        <span
          {...attributes}
          {...listeners}
          aria-label={`Reorder ${name}`}
          className="grid h-8 w-4 shrink-0 cursor-grab touch-none place-items-center text-ink-2"
        >
          <GripVertical size={13} />
        </span>
      </div>
      {open && (
        <div
          className="flex flex-col gap-1.5 border-t border-line p-2"
          // A card that stayed open is chosen again, with its handles on the canvas, once something in it is used.
          onPointerDown={() => !chosen && editor.select({ layers: [layer.id], card: item.id })}
        >
          {idle && <p className="text-sm text-ink-2">{idle}</p>}
          {Object.entries(kind.params)
            .filter(([, param]) => applies(param, values))
            .map(([key, param]) => (
              <ParamField key={key} param={param} refs={[{ ...ref, key }]} />
            ))}
          {kind.role === 'group' && (
            <PivotGrid
              layer={layer.id}
              group={item.id}
              boxOf={() => cardsBox(editor.program, layer.id, item.children ?? [], editor.state.frame)}
            />
          )}
          {holdsSettings(kind) && <NestSettings card={ref} layer={layer} item={item} inner={String(values.scene)} />}
        </div>
      )}
      {item.children && holdsCards(kind) && showsInner && (
        <div className="border-t border-line p-1.5 pl-3">
          <ItemList layer={layer} group={item.id} />
        </div>
      )}
    </li>
  );
};

const ItemList = ({ layer, group }: { layer: DrawingLayer; group: Id | null }) => {
  const editor = useEditor();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const [all, setAll] = useState(false);
  const list = listOf(layer, group);
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const item = String(active.id);
    editor.edit(moveItem({ scene: editor.scene.id, layer: layer.id, item }, group, list.indexOf(String(over.id))));
  };
  const nameOf = ({ id }: { id: string | number }) => {
    const item = layer.items[String(id)];
    return item ? calledOf(item) : 'The card';
  };
  const placeOf = ({ id }: { id: string | number }) => `place ${list.indexOf(String(id)) + 1} of ${list.length}`;
  // Told to those who do not see it.
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${nameOf(active)} picked up at ${placeOf(active)}.`,
    onDragOver: ({ active, over }) => (over ? `${nameOf(active)} over ${placeOf(over)}.` : undefined),
    onDragEnd: ({ active, over }) => `${nameOf(active)} put down at ${placeOf(over ?? active)}.`,
    onDragCancel: ({ active }) => `${nameOf(active)} stays at ${placeOf(active)}.`,
  };
  return (
    <>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={onDragEnd}
        accessibility={{ announcements }}
      >
        <SortableContext items={[...list]} strategy={verticalListSortingStrategy}>
          <ol className="flex flex-col gap-1.5">
            {list.slice(0, all ? list.length : MOST_LISTED).map((id, i) => {
              const item = layer.items[id];
              return item && <ItemCard key={id} layer={layer} item={item} group={group} index={i} />;
            })}
          </ol>
        </SortableContext>
      </DndContext>
      {!all && list.length > MOST_LISTED && (
        <button
          type="button"
          className="h-7 rounded-md px-1.5 text-left text-sky underline"
          onClick={() => setAll(true)}
        >
          Show all {list.length} cards
        </button>
      )}
      {list.length === 0 && <p className="py-1 text-ink-2">Nothing here yet: a source gives it outlines.</p>}
      <AddMenu layer={layer} group={group} />
    </>
  );
};

/** The recipe of one drawing: cards that work from top to bottom, each on what stands above it. Moving the layer about leaves it alone. */
export const RecipeCard = memo(
  ({ layer }: { layer: DrawingLayer }) => {
    const count = Object.values(layer.items).filter(({ kind }) => kindOf(kind).role !== 'setting').length;
    return (
      <Card
        title="Recipe"
        icon={<ListOrdered size={15} />}
        aside={`${count} card${count === 1 ? '' : 's'}, top to bottom`}
      >
        <ItemList layer={layer} group={null} />
      </Card>
    );
  },
  (a, b) => a.layer.id === b.layer.id && a.layer.items === b.layer.items && a.layer.recipe === b.layer.recipe,
);
RecipeCard.displayName = 'RecipeCard';
