import { tenthsOf } from '@kite/core/document/fitting';
import type { Point, PropertyRef } from '@kite/core/document/types';
import { isJoined, joinPoint, writesOfPoint } from '@kite/core/edits/joints';
import { applyThrough } from '@kite/core/geometry/through';
import { pin, PIN_CORNERS, type PinCorner } from '@kite/core/recipe/covers/pin';
import { type PointerEvent, useState } from 'react';
import { PressMenu } from '../../../ui/Menu';
import {
  cornerMenu,
  cornersBeside,
  type CornerShown,
  cornerToJoin,
  jointInWords,
  nameOfCorner,
} from '../../commands/joints';
import { WRITES, writesAt, writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { Snapping } from '../snapping';
import { frameOfCard, type Stage } from '../stage';
import { toArea, toScene } from '../view';
import { editedCard } from './editedCard';
import { editGesture } from './editGesture';

/** Screen pixels within which a corner is dropped on another. */
const JOINS_WITHIN = 9;

/**
 * The corners of an open corner pin: each is dragged by itself, snaps to what layers snap to, and is joined to a corner of another
 * that it is dropped on.
 */
export const PinHandles = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  useSlice((s) => ({ doc: s.doc, selection: s.selection, frame: frameOfCard(s), fontsCame: s.fontsCame }));
  const [over, setOver] = useState<PropertyRef | null>(null);
  const card = editedCard(editor, view);
  if (card?.item.kind !== pin.kind) return null;
  const { scene } = editor;
  const corners = PIN_CORNERS.map((key) => ({
    key,
    ref: card.ref(key),
    at: applyThrough(card.toArea, card.values[key] as Point),
  }));
  const beside = cornersBeside(editor, card.layer.id, card.item.id);

  const onCorner = (ref: PropertyRef) => (event: PointerEvent) => {
    const writes = writesAt(editor.state, [ref]);
    const snapping = new Snapping(editor, [ref.layer], view.zoom);
    let onto: CornerShown | null = null;
    editGesture(editor, event, {
      first: 'picture',
      move: ({ event: now }) => {
        const to = toScene(view, pointOf(now));
        onto = now.ctrlKey || now.metaKey ? null : cornerToJoin(editor, ref, beside, to, JOINS_WITHIN / view.zoom);
        setOver(onto?.ref ?? null);
        const value = tenthsOf(card.fromScene(onto?.at ?? snapping.point(to, now)));
        const all = writesOfPoint(editor.ownProgram, ref, value, editor.state.frame);
        writeValues(
          editor,
          all.map(([of, v]) => [of, tenthsOf(v)] as const),
          'Move a corner',
        );
        const text = onto ? `join with ${nameOfCorner(editor, onto.ref)}` : value.join(', ');
        editor.set({ readout: { at: pointOf(now), text: `${text}${writes ? ` · ${WRITES[writes].short}` : ''}` } });
      },
      drop: () => onto && editor.edit(joinPoint(ref, onto.ref)),
      end: () => setOver(null),
    });
  };
  const open = ({ layer, item }: PropertyRef) => editor.select({ layers: [layer], card: item ?? null });

  return (
    <g>
      <polygon
        points={corners.map(({ at }) => at.join()).join(' ')}
        fill="none"
        stroke="var(--tail)"
        strokeWidth={1.5}
      />
      {beside.map(({ ref, at }) => {
        const [x, y] = toArea(view, at);
        const isTarget = over?.layer === ref.layer && over.item === ref.item && over.key === ref.key;
        return (
          <circle
            key={`${ref.layer}/${ref.item}/${ref.key}`}
            data-testid="pin-beside"
            cx={x}
            cy={y}
            r={isTarget ? 10 : 4}
            fill={isTarget ? 'none' : 'var(--paper)'}
            stroke="var(--tail)"
            strokeWidth={isTarget ? 2.5 : 1.25}
            style={{ pointerEvents: isTarget ? 'none' : 'all', cursor: 'pointer' }}
            onPointerDown={(event) => {
              event.stopPropagation();
              open(ref);
            }}
          >
            <title>{`${nameOfCorner(editor, ref)}: press to open its pin, drop a corner on it to join them`}</title>
          </circle>
        );
      })}
      {corners.map(({ key, ref, at: [x, y] }) => {
        const joint = jointInWords(editor, ref);
        const joined = isJoined(scene, ref);
        return (
          <PressMenu key={key} entries={() => cornerMenu(editor, ref)}>
            <g
              data-testid={`pin-${key}`}
              data-joined={joined}
              style={{ pointerEvents: 'all', cursor: 'move' }}
              onPointerDown={onCorner(ref)}
            >
              <title>{titleOf(key, joint)}</title>
              {joined && <circle cx={x} cy={y} r={9} fill="none" stroke="var(--tail)" strokeWidth={1.5} />}
              <circle
                cx={x}
                cy={y}
                r={6}
                fill={joined ? 'var(--tail)' : 'var(--paper)'}
                stroke="var(--tail)"
                strokeWidth={2}
              />
            </g>
          </PressMenu>
        );
      })}
    </g>
  );
};

const titleOf = (key: PinCorner, joint: string | null): string => {
  const { label } = pin.params[key];
  return `${label}${joint ? ` ${joint}` : ''}: drag; on another layer’s corner it is joined; Ctrl does neither that nor snap`;
};
