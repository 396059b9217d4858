import { LIMITS } from '@kite/core/document/limits';
import type { GrowthValue } from '@kite/core/document/types';
import { type DrawnStroke, growthPoint, keptStroke, withStroke } from '@kite/core/edits/growth';
import { grow } from '@kite/core/recipe/covers/grow';
import { type PointerEvent, useState } from 'react';
import { allOf, followPointer } from '../../../ui/drag';
import { writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { SELECTING } from '../../store/workspace';
import { editedCard } from '../handles/editedCard';
import { Hint } from '../looks/Hint';
import { frameOfCard, type Stage } from '../stage';
import { toScene } from '../view';

const HINTS = {
  root: 'Press where it grows from · Esc ends',
  wait: 'Press a branch where it is to wait · Esc ends',
  stroke: 'Draw where it grows, as fast as it is to go · Esc ends',
} as const;

/** While an open growth is given roots, places to wait at, or strokes to follow: presses and strokes on the canvas are those. */
export const SowTool = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  const { sowing } = useSlice((s) => ({
    sowing: s.mode.kind === 'sowing' ? s.mode : null,
    selection: s.selection,
    frame: frameOfCard(s),
    doc: s.doc,
  }));
  const [line, setLine] = useState('');
  const card = sowing && editedCard(editor, view);
  if (!sowing || card?.item.kind !== grow.kind) return null;
  const value = card.values.from as GrowthValue;
  const write = (next: GrowthValue, label: string) => writeValues(editor, [[card.ref('from'), next]], label);

  const draw = (event: PointerEvent) => {
    const drawn: [x: number, y: number, time: number][] = [];
    const shown: string[] = [];
    const add = (now: { clientX: number; clientY: number; timeStamp: number }) => {
      const at = pointOf(now);
      shown.push(at.join());
      drawn.push([...card.fromScene(toScene(view, at)), now.timeStamp]);
    };
    add(event.nativeEvent);
    followPointer(event, {
      onMove: ({ event: now }) => {
        for (const own of allOf(now)) add(own);
        setLine(`M${shown.join('L')}`);
      },
      onEnd: (_drag, moved) => {
        setLine('');
        if (moved) keep(drawn);
      },
      onCancel: () => setLine(''),
    });
  };
  const keep = (drawn: DrawnStroke) => {
    const stroke = keptStroke(drawn);
    const { instead } = sowing;
    if (instead === undefined) write({ ...value, strokes: [...value.strokes, stroke] }, 'Draw a stroke to grow along');
    else {
      write(withStroke(value, instead, stroke), 'Draw a stroke again');
      editor.set({ mode: SELECTING });
    }
  };

  const onPointerDown = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    if (sowing.what === 'stroke') {
      if (value.strokes.length < LIMITS.growthStrokes || sowing.instead !== undefined) draw(event);
      return;
    }
    if (value.points.length >= LIMITS.growthPoints) return;
    const at = card.fromScene(toScene(view, pointOf(event)));
    const isRoot = sowing.what === 'root';
    const point = growthPoint(at, isRoot);
    write({ ...value, points: [...value.points, point] }, isRoot ? 'Add a root' : 'Add a place to wait at');
  };
  return (
    <div data-testid="sow" className="absolute inset-0 cursor-crosshair" onPointerDown={onPointerDown}>
      <Hint>{HINTS[sowing.what]}</Hint>
      <svg className="pointer-events-none size-full" aria-hidden>
        <path d={line} fill="none" stroke="var(--paper)" strokeWidth={5} />
        <path d={line} fill="none" stroke="var(--tail)" strokeWidth={2.5} />
      </svg>
    </div>
  );
};
