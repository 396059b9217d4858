import { tenths, tenthsOf } from '@kite/core/document/fitting';
import type { GrowthPoint, GrowthValue, GuideStroke, Point } from '@kite/core/document/types';
import { withPoint, withStroke } from '@kite/core/edits/growth';
import { applyThrough } from '@kite/core/geometry/through';
import { grow } from '@kite/core/recipe/covers/grow';
import type { PointerEvent } from 'react';
import { PressMenu } from '../../../ui/Menu';
import { WRITES, writesAt, writeValues } from '../../commands/layers';
import { useEditor, useSlice } from '../../store/context';
import { frameOfCard, type Stage } from '../stage';
import { toScene } from '../view';
import { type EditedCard, editedCard } from './editedCard';
import { editGesture } from './editGesture';

/** A root is round, a place to wait at stands on its corner. */
const RootMark = () => (
  <>
    <circle r={7} fill="var(--tail)" stroke="var(--paper)" strokeWidth={2} />
    <circle r={2} fill="var(--paper)" />
  </>
);
const WaitMark = () => (
  <rect
    x={-6}
    y={-6}
    width={12}
    height={12}
    transform="rotate(45)"
    fill="var(--paper)"
    stroke="var(--tail)"
    strokeWidth={2}
  />
);

const titleOf = ({ root, wait, pace }: GrowthPoint): string =>
  `${root ? 'Grows from here' : 'Waits here'}${wait > 0 ? `, ${tenths(wait)} px later` : ''}${pace === 1 ? '' : `, at ${Math.round(pace * 100)} %`}: drag; right button for more`;

const lineOf = (stroke: GuideStroke, card: EditedCard): readonly Point[] =>
  Array.from({ length: stroke.length / 3 }, (_, i) => applyThrough(card.toArea, [stroke[3 * i]!, stroke[3 * i + 1]!]));

/** The roots of an open growth and where it waits, each dragged by itself, and the strokes that it follows, by their numbers. */
export const GrowthHandles = ({ view, pointOf }: Stage) => {
  const editor = useEditor();
  useSlice((s) => ({ doc: s.doc, selection: s.selection, frame: frameOfCard(s), fontsCame: s.fontsCame }));
  const card = editedCard(editor, view);
  if (card?.item.kind !== grow.kind) return null;
  const ref = card.ref('from');
  const value = card.values.from as GrowthValue;
  const write = (next: GrowthValue, label: string) => writeValues(editor, [[ref, next]], label);

  const onPoint = (i: number, point: GrowthPoint) => (event: PointerEvent) => {
    const writes = writesAt(editor.state, [ref]);
    editGesture(editor, event, {
      first: 'picture',
      move: ({ event: now }) => {
        const at = tenthsOf(card.fromScene(toScene(view, pointOf(now))));
        write(withPoint(value, i, { ...point, at }), 'Move a point of a growth');
        const text = `${at.join(', ')}${writes ? ` · ${WRITES[writes].short}` : ''}`;
        editor.set({ readout: { at: pointOf(now), text } });
      },
    });
  };

  return (
    <g>
      {value.strokes.map((stroke, i) => {
        const line = lineOf(stroke, card);
        const [x, y] = line[0] as Point;
        const entries = () => [
          {
            label: 'Draw it again',
            onSelect: () => editor.set({ mode: { kind: 'sowing', what: 'stroke', instead: i } }),
          },
          { label: 'Remove', danger: true, onSelect: () => write(withStroke(value, i, null), 'Remove a stroke') },
        ];
        return (
          <PressMenu key={i} entries={entries}>
            <g data-testid={`stroke-${i + 1}`} style={{ pointerEvents: 'visiblePainted' }}>
              <title>{`Stroke ${i + 1}: right button for more`}</title>
              <path d={`M${line.map((p) => p.join()).join('L')}`} fill="none" stroke="var(--tail)" strokeWidth={1.75} />
              <circle cx={x} cy={y} r={8} fill="var(--tail)" />
              <text x={x} y={y + 3.5} textAnchor="middle" fontSize={10} fontWeight={600} fill="var(--paper)">
                {i + 1}
              </text>
            </g>
          </PressMenu>
        );
      })}
      {value.strokes.length === 0 &&
        value.points.map((point, i) => {
          const [x, y] = applyThrough(card.toArea, point.at);
          const remove = () => write(withPoint(value, i, null), 'Remove a point of a growth');
          return (
            <PressMenu key={i} entries={() => [{ label: 'Remove', danger: true, onSelect: remove }]}>
              <g
                data-testid={`${point.root ? 'root' : 'wait'}-${i + 1}`}
                transform={`translate(${x} ${y})`}
                style={{ pointerEvents: 'all', cursor: 'move' }}
                onPointerDown={onPoint(i, point)}
              >
                <title>{titleOf(point)}</title>
                {point.root ? <RootMark /> : <WaitMark />}
              </g>
            </PressMenu>
          );
        })}
    </g>
  );
};
