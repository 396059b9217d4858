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
import type { DrawingLayer, Id, Item } from '@kite/core/document/types';
import { groupOf, listOf, moveItem, setItem } from '@kite/core/edits/recipe';
import { soleSource } from '@kite/core/recipe/needs';
import { kindOf } from '@kite/core/recipe/table';
import { holdsCards, holdsSettings } from '@kite/core/recipe/types';
import { cardsBox } from '@kite/core/scene/bounds';
import { ChevronDown, ChevronRight, EllipsisVertical, Eye, EyeOff, GripVertical, ListOrdered } from 'lucide-react';
import { memo, useEffect, useRef, useState } from 'react';
import { Menu } from '../../../ui/Menu';
import { RenameField } from '../../../ui/RenameField';
import { useEditor, useSlice } from '../../store/context';
import { called, calledOf } from '../called';
import { applies } from '../fields/applies';
import { ParamField } from '../fields/ParamField';
import { PivotGrid } from '../PivotGrid';
import { AddCard } from './AddCard';
import { Card } from '../cards/Card';
import { cardMenu } from './cardMenu';
import { CardPicture } from './CardPicture';
import { idleReason } from './idle';
import { NestSettings } from './NestSettings';

/** Cards of a drawing up to which all of them show, those in groups too. */
const MOST_UNFOLDED = 40;
/** Cards of one list that show before more are asked for. */
const MOST_LISTED = 50;

/** Whether a card stands somewhere in a group. */
const isWithin = (items: DrawingLayer['items'], group: Id, card: Id | null): boolean => {
  for (let at = card; at !== null; at = groupOf(items, at)) if (at === group) return at !== card;
  return false;
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
          entries={cardMenu(editor, layer, item, group, index)}
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
            .filter(([, param]) => applies(param, values, kind.params))
            .map(([key, param]) => (
              <ParamField key={key} param={param} refs={[{ ...ref, key }]} />
            ))}
          {item.kind === 'group' && (
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
  // The one that is open, or stands in one of these, is among those that show.
  const open = useSlice((s) =>
    list.findIndex((id) => id === s.selection.card || isWithin(layer.items, id, s.selection.card)),
  );
  const count = all ? list.length : Math.min(list.length, Math.max(MOST_LISTED, open + 1));
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
            {list.slice(0, count).map((id, i) => {
              const item = layer.items[id];
              return item && <ItemCard key={id} layer={layer} item={item} group={group} index={i} />;
            })}
          </ol>
        </SortableContext>
      </DndContext>
      {count < list.length && (
        <button
          type="button"
          className="h-7 rounded-md px-1.5 text-left text-sky underline"
          onClick={() => setAll(true)}
        >
          Show all {list.length} cards
        </button>
      )}
      {list.length === 0 && <p className="py-1 text-ink-2">Nothing here yet: a source gives it outlines.</p>}
      <AddCard layer={layer} group={group} />
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
