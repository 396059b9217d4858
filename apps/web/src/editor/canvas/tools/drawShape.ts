/** Drawing a shape by dragging: Shift keeps its sides equal, Alt draws from its centre. */
import { SELECTING } from '../../store/workspace';
import type { Point, Value } from '@kite/core/document/types';
import { kindOf } from '@kite/core/recipe/table';
import { followPointer } from '../../../ui/drag';
import { addShape } from '../../commands/layers';
import { takerNext } from '../../commands/masks';
import { Snapping } from '../snapping';
import type { ToolName } from '../../store/workspace';
import type { Press } from './press';

export const SHAPE_TOOLS = [
  'rectangle',
  'ellipse',
  'wedge',
  'polygon',
  'star',
  'line',
] as const satisfies readonly ToolName[];
export type ShapeTool = (typeof SHAPE_TOOLS)[number];

const round = (n: number) => Math.round(n);

/** A shape that fills a rectangle from `a` to `b`: where its layer stands, and its values. */
const shapeIn = (tool: ShapeTool, a: Point, b: Point): { at: Point; values: { [key: string]: Value } } => {
  const [w, h] = [Math.abs(b[0] - a[0]), Math.abs(b[1] - a[1])];
  const at: Point = [round((a[0] + b[0]) / 2), round((a[1] + b[1]) / 2)];
  const radius = Math.max(1, round(Math.min(w, h) / 2));
  switch (tool) {
    case 'rectangle':
    case 'ellipse':
      return { at, values: { width: Math.max(1, round(w)), height: Math.max(1, round(h)) } };
    case 'wedge':
    case 'polygon':
      return { at, values: { radius } };
    case 'star':
      return { at, values: { outer: radius, inner: round(radius * 0.45) } };
    case 'line': {
      const half: Point = [(b[0] - a[0]) / 2, (b[1] - a[1]) / 2];
      return { at, values: { from: [round(-half[0]), round(-half[1])], to: [round(half[0]), round(half[1])] } };
    }
  }
};

/** The other end of a drag, under its modifiers. */
const ends = (
  start: Point,
  now: Point,
  event: { shiftKey: boolean; altKey: boolean },
  line: boolean,
): [Point, Point] => {
  let [dx, dy] = [now[0] - start[0], now[1] - start[1]];
  if (event.shiftKey && line) {
    const step = Math.round(Math.atan2(dy, dx) / (Math.PI / 4)) * (Math.PI / 4);
    const length = Math.hypot(dx, dy);
    [dx, dy] = [length * Math.cos(step), length * Math.sin(step)];
  } else if (event.shiftKey) {
    const side = Math.max(Math.abs(dx), Math.abs(dy));
    [dx, dy] = [side * (Math.sign(dx) || 1), side * (Math.sign(dy) || 1)];
  }
  const from: Point = event.altKey ? [start[0] - dx, start[1] - dy] : start;
  return [from, [start[0] + dx, start[1] + dy]];
};

export const pressForShape =
  (tool: ShapeTool) =>
  ({
    editor,
    event: down,
    stage: {
      view: { zoom },
      pointOf,
    },
    start,
  }: Press): void => {
    const { label } = kindOf(tool);
    // As it stands when it is pressed: what is drawn is selected and open itself from then on.
    const into = takerNext(editor, tool);
    const snapping = new Snapping(editor, [], zoom);
    const from = snapping.point(start, down);
    const draw = (now: Point, event: { shiftKey: boolean; altKey: boolean }) => {
      const { at, values } = shapeIn(tool, ...ends(from, now, event, tool === 'line'));
      addShape(editor, tool, label, values, at, into);
    };
    followPointer(down, {
      onStart: () => editor.begin(),
      onMove: ({ dx, dy, event }) => {
        const to = snapping.point([start[0] + dx / zoom, start[1] + dy / zoom], event);
        draw(to, event);
        const [[ax, ay], [bx, by]] = ends(from, to, event, tool === 'line');
        const text = `${round(Math.abs(bx - ax))} × ${round(Math.abs(by - ay))}`;
        editor.set({ readout: { at: pointOf(event), text } });
      },
      onEnd: (_drag, moved) => {
        editor.set({ snapped: null, readout: null });
        // A click draws the shape at its usual size.
        if (moved) editor.end();
        else addShape(editor, tool, label, {}, [round(start[0]), round(start[1])], into);
        editor.set({ mode: SELECTING, drawsAs: null });
      },
      onCancel: () => {
        editor.set({ snapped: null, readout: null });
        editor.abandon();
      },
    });
  };
