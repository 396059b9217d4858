import type { Id, Point, PropertyRef } from '@kite/core/document/types';
import { PLACE } from '@kite/core/document/params';
import { MoveDiagonal, MoveHorizontal, MoveVertical } from 'lucide-react';
import type { PointerEvent } from 'react';
import { shownSampler } from '../../formula/useComputed';
import { WRITES, writesAt, writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import type { Stage } from '../stage';
import { editGesture } from './editGesture';

/** Degrees for each pixel of the screen that a handle is dragged. */
const PER_PIXEL = 0.5;

/** What each handle is for, which way it is dragged, and what a pixel of that changes: the nearer side follows the pointer. */
const HANDLES = [
  {
    key: 'turnY',
    title: 'Turn about y',
    Icon: MoveHorizontal,
    by: (dx: number) => dx * PER_PIXEL,
    unit: '°',
    steps: 15,
  },
  {
    key: 'turnX',
    title: 'Turn about x',
    Icon: MoveVertical,
    by: (_dx: number, dy: number) => -dy * PER_PIXEL,
    unit: '°',
    steps: 15,
  },
  {
    key: 'z',
    title: 'z: away from the eye',
    Icon: MoveDiagonal,
    by: (dx: number, dy: number) => dx - dy,
    unit: ' px',
    steps: 10,
  },
] as const;

const SIZE = 20;
const GAP = 6;

interface DepthHandlesProps extends Pick<Stage, 'pointOf'> {
  layer: Id;
  /** The middle of its lower edge, in the canvas area's pixels. */
  under: Point;
}

/** Handles of a layer in depth: turns about x and y, and z. */
export const DepthHandles = ({ layer, under: [x, y], pointOf }: DepthHandlesProps) => {
  const editor = useEditor();
  const ref = (key: string): PropertyRef => ({ scene: editor.scene.id, layer, key });
  const hasDepth = useSlice((s) => shownSampler(editor, s, ref('depth'), PLACE.depth).at(s.frame) === true);
  if (!hasDepth) return null;

  const onDrag =
    ({ key, by, unit, steps }: (typeof HANDLES)[number]) =>
    (event: PointerEvent) => {
      const at = ref(key);
      const start = shownSampler(editor, editor.state, at, PLACE[key]).at(editor.state.frame) as number;
      const writes = writesAt(editor.state, [at]);
      editGesture(editor, event, {
        first: 'picture',
        move: ({ dx, dy, event: now }) => {
          const to = start + by(dx, dy);
          const value = now.shiftKey ? Math.round(to / steps) * steps : Math.round(to * 2) / 2;
          writeValues(editor, [[at, value]], PLACE[key].label);
          const text = `${PLACE[key].label} ${value}${unit}${writes ? ` · ${WRITES[writes].short}` : ''}`;
          editor.set({ readout: { at: pointOf(now), text } });
        },
      });
    };

  const left = x - (HANDLES.length * (SIZE + GAP) - GAP) / 2;
  return (
    <g>
      {HANDLES.map((handle, i) => (
        <g
          key={handle.key}
          data-testid={`handle-${handle.key}`}
          transform={`translate(${left + i * (SIZE + GAP)} ${y + 12})`}
          style={{ pointerEvents: 'all', cursor: 'grab' }}
          onPointerDown={onDrag(handle)}
        >
          <title>{`${handle.title}: drag; Shift keeps to steps of ${handle.steps}`}</title>
          <rect width={SIZE} height={SIZE} rx={5} fill="var(--paper)" stroke="var(--sky)" strokeWidth={1.25} />
          <handle.Icon x={4} y={4} width={12} height={12} color="var(--ink)" />
        </g>
      ))}
    </g>
  );
};
