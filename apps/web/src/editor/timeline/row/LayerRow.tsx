import {
  ArrowDownLeft,
  ArrowUpRight,
  ChevronDown,
  ChevronRight,
  Clapperboard,
  Crosshair,
  Eye,
  EyeOff,
  Focus,
  FolderClosed,
  FolderOpen,
  Image,
  Link2,
  Lock,
  LockOpen,
  Type,
  Video,
} from 'lucide-react';
import { memo, type PointerEvent, useState } from 'react';
import type { Id, Layer } from '@kite/core/document/types';
import { moveLayers, setLayers } from '@kite/core/edits/layers';
import { groupsAround, withMembers } from '@kite/core/scene/groups';
import { soleSource } from '@kite/core/recipe/needs';
import { followPointer } from '../../../ui/drag';
import { PressMenu } from '../../../ui/Menu';
import { RenameField } from '../../../ui/RenameField';
import { hangFrom, selectTag, soloLayers } from '../../commands/arrange';
import { textOf } from '../../commands/layers';
import { connectionsOf } from '../../commands/formulas';
import { useLinkDrag } from '../../linking/useLinkDrag';
import { ColumnSwitch, useColumnDrag } from './ColumnSwitch';
import { MatteLink } from './MatteLink';
import { type Choose, LayerBar } from './LayerBar';
import { layerMenu } from '../../commands/layerMenu';
import { Badge } from '../../people/Badge';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import { NAMES_WIDTH, ROW, rowButton } from '../scale';

/** How far the members of a group stand in, in CSS pixels, and how deep that is shown. */
const INDENT = 14;
const MOST_DEPTH = 4;

interface LayerRowProps {
  layer: Layer;
  /** Of the row among all rows. */
  index: number;
  /** How many layers stand above a row, without those that move. */
  layersBefore: (row: number, moving: ReadonlySet<Id>) => number;
  open: boolean;
}

/** While a formula is open: whether it reads this row’s layer, or is read by it. */
const Wire = ({ layer }: { layer: Id }) => {
  const wire = useSlice((s) => {
    if (!s.formulaAt || s.formulaAt.layer === layer) return null;
    const { reads, readBy } = connectionsOf(sceneOf(s), s.formulaAt);
    const [is, has] = [reads.some((r) => r.layer === layer), readBy.some((r) => r.layer === layer)];
    return is ? (has ? 'both' : 'read') : has ? 'reads' : null;
  });
  if (!wire) return null;
  const says = { read: 'The open formula reads it', reads: 'It reads the open property', both: 'They read each other' };
  return (
    <span title={says[wire]} aria-label={says[wire]} className="shrink-0 text-tail">
      {wire === 'reads' ? <ArrowDownLeft size={13} /> : <ArrowUpRight size={13} />}
    </span>
  );
};

/** Who else has chosen it. */
const Chosen = ({ layer }: { layer: Id }) => {
  const others = useSlice((s) => s.others.filter(({ scene, layers }) => scene === s.sceneId && layers.includes(layer)));
  return others.map((here) => <Badge key={here.tab} here={here} small />);
};

export const LayerRow = memo(({ layer, index, layersBefore, open }: LayerRowProps) => {
  const editor = useEditor();
  const { selected, soloed, anySolo } = useSlice((s) => ({
    selected: s.selection.layers.includes(layer.id),
    soloed: s.solo.includes(layer.id),
    anySolo: s.solo.length > 0,
  }));
  const isGroup = layer.kind === 'controller' && layer.group;
  const { depth, folded, outside } = useSlice((s) => {
    const around = groupsAround(sceneOf(s), layer.id);
    return { depth: around.length, folded: s.folded.has(layer.id), outside: around.some((group) => group.hidden) };
  });
  const parentName = useSlice((s) => (layer.parent === null ? null : (sceneOf(s).layers[layer.parent]?.name ?? null)));
  const [renaming, setRenaming] = useState(false);
  const [drop, setDrop] = useState<number | null>(null);
  const { id } = layer;
  const setOf = (ids: readonly Id[], fields: Parameters<typeof setLayers>[2]) =>
    editor.edit(setLayers(editor.scene.id, ids, fields));

  const chosen = () => (selected ? editor.state.selection.layers : [id]);

  const choose: Choose = (event) => {
    const { layers } = editor.state.selection;
    const last = layers.at(-1);
    if (event.shiftKey && last !== undefined) {
      const { order } = editor.scene;
      const [a, b] = [order.indexOf(last), order.indexOf(id)].sort((x, y) => x - y);
      editor.select({ layers: [...new Set([...layers, ...order.slice(a, (b ?? 0) + 1)])] });
    } else if (event.ctrlKey || event.metaKey) editor.toggleLayer(id);
    else editor.select({ layers: [id] });
  };

  /** Dragging a name up or down reorders the selected layers. */
  const onName = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const keep = selected && !event.shiftKey && !event.ctrlKey && !event.metaKey;
    if (!keep) choose(event);
    // The rows before which layers can be put, as far as the pointer went.
    const target = (dy: number): number => Math.max(0, Math.round(index + 0.5 + dy / ROW));
    followPointer(event, {
      onMove: ({ dy }) => setDrop(target(dy)),
      onEnd: ({ dy }, moved) => {
        setDrop(null);
        if (!moved) {
          if (keep) choose(event);
          return;
        }
        const ids = withMembers(editor.scene, editor.state.selection.layers);
        const moving = new Set<Id>(ids);
        editor.edit(moveLayers(editor.scene.id, ids, layersBefore(target(dy), moving)));
      },
      onCancel: () => setDrop(null),
    });
  };

  /** Dragged onto another layer, or onto nothing, the link makes that the parent. */
  const parenting = useLinkDrag((found) => {
    const ids = chosen();
    if (found && ids.includes(found.layer)) return;
    hangFrom(editor, ids, found?.layer ?? null);
  });

  const menu = () => layerMenu(editor, layer, () => setTimeout(() => setRenaming(true), 0));

  const tag = `var(--tag-${layer.tag})`;
  const shown = soleSource(layer);
  return (
    <PressMenu entries={menu}>
      <div
        role="group"
        aria-label={`Layer ${layer.name}`}
        data-testid="layer-row"
        data-layer={id}
        tabIndex={-1}
        className={`relative flex border-b border-line ${selected ? 'bg-sky-2' : ''}`}
        style={{ height: ROW }}
      >
        <div
          style={{ width: NAMES_WIDTH, paddingLeft: 6 + INDENT * Math.min(depth, MOST_DEPTH) }}
          className="flex shrink-0 touch-none items-center gap-1.5 border-r border-line pr-2 select-none"
          onPointerDown={onName}
        >
          <button
            type="button"
            aria-label={`${open ? 'Close' : 'Open'} ${layer.name}`}
            aria-expanded={open}
            className={`${rowButton} text-ink-2`}
            onPointerDown={(event) => event.stopPropagation()}
            onClick={() => editor.setOpened(chosen(), !open)}
          >
            {open ? <ChevronDown size={13} /> : <ChevronRight size={13} />}
          </button>
          <button
            type="button"
            aria-label={`Tag of ${layer.name}: ${layer.tag}`}
            title={`Tag ${layer.tag}: press to select all that have it, drag up or down to give it to more`}
            className="flex h-5 w-2.5 shrink-0 items-center justify-center"
            onPointerDown={useColumnDrag(
              () => [id],
              (ids) => setOf(withMembers(editor.scene, ids), { tag: layer.tag }),
            )}
            onClick={() => selectTag(editor, layer.tag)}
          >
            <span className="h-3.5 w-1 rounded-full" style={{ background: tag }} />
          </button>
          {isGroup && (
            <button
              type="button"
              aria-label={`${folded ? 'Show' : 'Put away'} the members of ${layer.name}`}
              aria-expanded={!folded}
              title={folded ? 'Its members have no rows: press to show them' : 'Press to put its members away'}
              className={`${rowButton} text-ink-2`}
              onPointerDown={(event) => event.stopPropagation()}
              onClick={() => editor.fold(id, !folded)}
            >
              {folded ? <FolderClosed size={13} /> : <FolderOpen size={13} />}
            </button>
          )}
          {layer.kind === 'controller' &&
            !isGroup &&
            (layer.params.camera ? (
              <Video size={12} className="shrink-0 text-ink-2" />
            ) : (
              <Crosshair size={12} className="shrink-0 text-ink-2" />
            ))}
          {shown === 'nest' && <Clapperboard size={12} className="shrink-0 text-ink-2" />}
          {shown === 'picture' && <Image size={12} className="shrink-0 text-ink-2" />}
          {textOf(layer) !== null && <Type size={12} className="shrink-0 text-ink-2" />}
          <RenameField
            label="Layer name"
            value={layer.name}
            editing={renaming}
            onDone={() => setRenaming(false)}
            className={`min-w-0 flex-1 ${layer.hidden || outside ? 'text-ink-2 line-through' : ''} ${anySolo && !soloed ? 'opacity-50' : ''} ${layer.tucked ? 'italic' : ''}`}
            onRename={(name) => setOf([id], { name })}
          />
          <Chosen layer={id} />
          <Wire layer={id} />
          <button
            type="button"
            aria-label={`Parent of ${layer.name}: ${parentName ?? 'none'}`}
            title={
              parentName ? `Hangs from ${parentName}; drag to another layer` : 'Drag to the layer it is to hang from'
            }
            className={`${rowButton} relative cursor-grab ${layer.parent === null ? 'text-ink-2 opacity-60' : 'text-tail'}`}
            onPointerDown={parenting.onPointerDown}
          >
            <Link2 size={13} />
            {parenting.line}
          </button>
          <MatteLink layer={layer} chosen={chosen} />
          <ColumnSwitch
            layer={layer}
            on={soloed}
            label={soloed ? 'Show with the others' : 'Show alone'}
            chosen={chosen}
            set={(ids) => soloLayers(editor, ids, !soloed)}
            icon={<Focus size={13} className={soloed ? '' : 'opacity-60'} />}
          />
          <ColumnSwitch
            layer={layer}
            on={layer.hidden}
            label={layer.hidden ? 'Show' : 'Hide'}
            chosen={chosen}
            set={(ids) => setOf(ids, { hidden: !layer.hidden })}
            icon={layer.hidden ? <EyeOff size={13} /> : <Eye size={13} />}
          />
          <ColumnSwitch
            layer={layer}
            on={layer.locked}
            label={layer.locked ? 'Unlock' : 'Lock'}
            chosen={chosen}
            set={(ids) => setOf(withMembers(editor.scene, ids), { locked: !layer.locked })}
            icon={layer.locked ? <Lock size={13} /> : <LockOpen size={13} />}
          />
        </div>
        <LayerBar layer={layer} selected={selected} ticks={!open} choose={choose} />
        {drop !== null && (
          <div
            className="pointer-events-none absolute left-0 z-20 h-0.5 bg-sky"
            style={{ top: (drop - index) * ROW - 1, width: NAMES_WIDTH }}
          />
        )}
      </div>
    </PressMenu>
  );
});
LayerRow.displayName = 'LayerRow';
