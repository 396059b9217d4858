import { tenthsOf } from '@kite/core/document/fitting';
import type { Point, PropertyRef, Value } from '@kite/core/document/types';
import { boxAbout } from '@kite/core/geometry/bounds';
import { applyThrough, nearestMatrix } from '@kite/core/geometry/through';
import { cornersThrough } from '@kite/core/scene/bounds';
import type { PointerEvent } from 'react';
import { WRITES, writesAt, writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { Snapping } from '../snapping';
import { frameOfCard, type Stage } from '../stage';
import { toScene } from '../view';
import { type CardBox, cardBox } from './cardBox';
import { editedCard } from './editedCard';
import { editGesture } from './editGesture';
import { Grip } from './Grip';
import { cursorOf, gripAt, GRIPS } from './grips';

/** How long a box is along an axis once one of its sides, or neither, is at `to`. */
const lengthTo = (side: number, to: number, length: number, middle: number, about: boolean): number => {
  if (side === 0) return length;
  return Math.max(1, about ? 2 * Math.abs(to - middle) : side * (to - middle) + length / 2);
};

/** A box with one of its handles dragged to a point; both sides keep their ratio if wanted, or the middle stays. */
const dragged = (box: CardBox, grip: Point, to: Point, { even, about }: { even: boolean; about: boolean }): CardBox => {
  const { width, height, middle } = box;
  const [wide, high] = [
    lengthTo(grip[0], to[0], width, middle[0], about),
    lengthTo(grip[1], to[1], height, middle[1], about),
  ];
  const factor = even && grip[0] !== 0 && grip[1] !== 0 ? Math.max(wide / (width || 1), high / (height || 1)) : null;
  const next = tenthsOf(factor === null ? [wide, high] : [width * factor, height * factor]);
  const shift = about ? 0 : 0.5;
  return {
    ...box,
    width: next[0],
    height: next[1],
    middle: [middle[0] + grip[0] * shift * (next[0] - width), middle[1] + grip[1] * shift * (next[1] - height)],
  };
};

/**
 * The box of an open card: its sides and corners change its size, and nothing else of it, the far side staying where it is. Alt
 * keeps the middle, Shift the ratio of the sides.
 */
export const BoxHandles = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  useSlice((s) => ({ doc: s.doc, selection: s.selection, frame: frameOfCard(s), fontsCame: s.fontsCame }));
  const card = editedCard(editor, view);
  const box = cardBox(card);
  if (!card || !box) return null;
  const sides = boxAbout(box.middle, box);
  const [a, b] = nearestMatrix(card.toArea, box.middle);

  const onGrip = (grip: Point) => (event: PointerEvent) => {
    const snapping = new Snapping(editor, [card.layer.id], view.zoom);
    const writes = writesAt(editor.state, [card.ref('width'), card.ref('height')]);
    editGesture(editor, event, {
      first: 'picture',
      move: ({ event: now }) => {
        const to = card.fromScene(snapping.point(toScene(view, pointOf(now)), now));
        const next = dragged(box, grip, to, { even: now.shiftKey, about: now.altKey });
        const all: readonly (readonly [PropertyRef, Value])[] = [
          [card.ref('width'), next.width],
          [card.ref('height'), next.height],
          [card.ref(box.key), next.middle],
        ];
        // What stays as it is gets no keyframe.
        const changed = [
          next.width !== box.width,
          next.height !== box.height,
          next.middle.join() !== box.middle.join(),
        ];
        writeValues(
          editor,
          all.filter((_, i) => changed[i]),
          'Change a size',
        );
        const keyed = writes ? ` · ${WRITES[writes].short}` : '';
        editor.set({ readout: { at: pointOf(now), text: `${next.width} × ${next.height} px${keyed}` } });
      },
    });
  };

  return (
    <g>
      <polygon
        points={cornersThrough(card.toArea, sides)
          .map((p) => p.join())
          .join(' ')}
        fill="none"
        stroke="var(--tail)"
        strokeWidth={1.5}
      />
      {GRIPS.map((grip) => (
        <Grip
          key={grip.join()}
          at={applyThrough(card.toArea, gripAt(sides, grip))}
          of="card"
          cursor={cursorOf(grip, Math.atan2(b, a))}
          testId={`size-${grip.join('/')}`}
          onPointerDown={onGrip(grip)}
        />
      ))}
    </g>
  );
};
