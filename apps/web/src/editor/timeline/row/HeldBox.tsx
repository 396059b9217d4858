import type { Edit } from '@kite/core/document/patches';
import type { PointerEvent, ReactNode } from 'react';
import { followPointer } from '../../../ui/drag';
import { type MenuEntry, PressMenu } from '../../../ui/Menu';
import { useEditor } from '../../store/context';
import { useScale } from '../scaleContext';

/** Narrower ones show no picture. */
const [PICTURE, EDGE] = [18, 6];

/** Where what is dragged goes: before the first of the others whose middle lies beyond its own; -1 behind them all. */
export const nextOf = (spans: readonly (readonly [from: number, to: number])[], own: number, middle: number): number =>
  spans.findIndex(([from, to], i) => i !== own && (from + to) / 2 >= middle);

interface HeldBoxProps {
  /** What it is, before how long it stays. */
  label: string;
  testId: string;
  /** The frames that it stays: before the second one. */
  from: number;
  to: number;
  shown: boolean;
  chosen?: boolean;
  locked?: boolean;
  entries: () => (MenuEntry | null)[];
  /** Drawn no wider than this. */
  picture: (widest: number) => ReactNode;
  onPick: (event: Pick<PointerEvent, 'shiftKey' | 'ctrlKey'>) => void;
  hold: (frames: number) => Edit;
  /** Dropped so that its middle lies at a frame. */
  onDrop: (middle: number) => void;
}

/** A picture that stays for some frames, in its time: pressed it is picked, dragged it changes places, by its edge it stays longer. */
export const HeldBox = ({
  label,
  testId,
  from,
  to,
  shown,
  chosen = false,
  locked = false,
  entries,
  picture,
  onPick,
  hold,
  onDrop,
}: HeldBoxProps) => {
  const editor = useEditor();
  const scale = useScale();
  const frames = to - from;
  const [left, width] = [scale.x(from), scale.x(to) - scale.x(from)];

  const onHold = (event: PointerEvent) => {
    if (event.button !== 0 || locked) return;
    event.stopPropagation();
    followPointer(event, {
      onStart: () => editor.begin(),
      onMove: ({ dx }) => editor.edit(hold(Math.max(1, Math.round(frames + scale.frames(dx))))),
      onEnd: (_drag, moved) => moved && editor.end(),
      onCancel: () => editor.abandon(),
    });
  };
  const onMove = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    onPick(event);
    if (locked) return;
    followPointer(event, {
      onMove: () => undefined,
      onEnd: ({ dx }, moved) => moved && onDrop((from + to) / 2 + scale.frames(dx)),
    });
  };
  if (left + width < 0 || left > scale.width) return null;
  return (
    <PressMenu entries={entries}>
      <div
        role="button"
        tabIndex={0}
        aria-label={`${label}, held ${frames} frame${frames === 1 ? '' : 's'}`}
        aria-pressed={shown}
        data-testid={testId}
        data-chosen={chosen}
        className={`absolute inset-y-0.5 overflow-hidden rounded-sm border bg-paper ${shown ? 'border-kite' : 'border-line'} ${chosen ? 'ring-1 ring-sky ring-inset' : ''}`}
        style={{ left, width: Math.max(3, width - 1), background: editor.scene.background ?? undefined }}
        onPointerDown={onMove}
        onClick={(event) => event.stopPropagation()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') onPick(event);
          else if (event.key === '+') editor.edit(hold(frames + 1));
          else if (event.key === '-') editor.edit(hold(Math.max(1, frames - 1)));
          else return;
          event.stopPropagation();
        }}
      >
        {width >= PICTURE && picture(Math.floor(width) - 2)}
        {chosen && <span className="pointer-events-none absolute inset-0 bg-sky/20" />}
        <span
          data-testid={`${testId}-edge`}
          title="Drag to hold it for longer"
          className="absolute inset-y-0 right-0 cursor-ew-resize"
          style={{ width: Math.min(EDGE, width / 3) }}
          onPointerDown={onHold}
        />
      </div>
    </PressMenu>
  );
};
