import { clsx } from 'clsx';
import { type KeyboardEvent, type PointerEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { calculate } from './arithmetic';
import { useTyping } from './useTyping';

export interface NumberFieldProps {
  label: string;
  /** null shows that several things differ. */
  value: number | null;
  min?: number;
  max?: number;
  /** What one pixel of scrubbing, or one press of an arrow key, changes. */
  step?: number;
  unit?: string;
  decimals?: number;
  /** Changes that belong together (one scrub) come between onStart and onEnd. */
  onStart?: () => void;
  onChange: (value: number) => void;
  /** Where several differ: by how much each is to be another than when the gesture began. Without it they are only typed. */
  onShift?: (by: number) => void;
  onEnd?: () => void;
  before?: ReactNode;
  className?: string;
  disabled?: boolean;
}

const shown = (value: number | null, decimals: number) =>
  value === null ? 'mixed' : String(Number(value.toFixed(decimals)));

/** A number that is scrubbed by dragging, typed as a sum, or stepped by arrow keys (Shift for ten). */
export const NumberField = ({
  label,
  value,
  min = -Infinity,
  max = Infinity,
  step = 1,
  unit,
  decimals = 2,
  onStart,
  onChange,
  onShift,
  onEnd,
  before,
  className,
  disabled,
}: NumberFieldProps) => {
  const { text, typed, ...typing } = useTyping();
  const [wrong, setWrong] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const scrub = useRef<{ x: number; from: number | null; moving: boolean } | null>(null);
  /** How far those that differ are from where they were, while they are dragged. */
  const [shift, setShift] = useState<number | null>(null);

  /** The limit at which what was typed has stopped. */
  const [stopped, setStopped] = useState<string | null>(null);

  const clamp = (v: number) => Math.min(max, Math.max(min, v));
  const stop = (v: number) => {
    if (v === clamp(v)) setStopped(null);
    else setStopped(v > max ? `at most ${shown(max, decimals)}` : `at least ${shown(min, decimals)}`);
    return clamp(v);
  };
  useEffect(() => {
    if (stopped === null) return;
    // It has been read by the next press or key.
    const clear = () => setStopped(null);
    const events = ['pointerdown', 'keydown'] as const;
    for (const name of events) window.addEventListener(name, clear, true);
    return () => {
      for (const name of events) window.removeEventListener(name, clear, true);
    };
  }, [stopped]);
  const once = (v: number) => {
    onStart?.();
    onChange(stop(v));
    onEnd?.();
  };

  const finish = () => {
    const next = typed === null ? null : calculate(typed);
    if (next !== null && next !== value) once(next);
    typing.end();
    setWrong(false);
  };

  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    event.stopPropagation();
    if (event.key === 'Enter') {
      if (typed !== null && calculate(typed) === null) setWrong(true);
      else input.current?.blur();
    } else if (event.key === 'Escape') {
      typing.end();
      setWrong(false);
      requestAnimationFrame(() => input.current?.blur());
    } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault();
      const by = step * (event.shiftKey ? 10 : 1) * (event.key === 'ArrowUp' ? 1 : -1);
      typing.end();
      if (value !== null) return once(value + by);
      onStart?.();
      onShift?.(by);
      onEnd?.();
    }
  };

  const onPointerDown = (event: PointerEvent<HTMLInputElement>) => {
    if (text !== null || event.button !== 0 || disabled) return;
    event.preventDefault();
    scrub.current = { x: event.clientX, from: value, moving: false };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const onPointerMove = (event: PointerEvent<HTMLInputElement>) => {
    const s = scrub.current;
    if (!s) return;
    const dx = event.clientX - s.x;
    if (!s.moving) {
      if (Math.abs(dx) < 3 || (s.from === null && !onShift)) return;
      s.moving = true;
      onStart?.();
    }
    const by = dx * step * (event.altKey ? 0.1 : event.shiftKey ? 10 : 1);
    const tidy = (v: number) => Number(v.toFixed(decimals + 2));
    if (s.from !== null) return onChange(tidy(stop(s.from + by)));
    setShift(tidy(by));
    onShift?.(tidy(by));
  };
  const onPointerUp = () => {
    const s = scrub.current;
    scrub.current = null;
    if (!s) return;
    setStopped(null);
    setShift(null);
    if (s.moving) onEnd?.();
    else {
      input.current?.focus();
      input.current?.select();
    }
  };

  return (
    <span
      className={clsx(
        'relative flex h-[26px] min-w-0 items-center rounded-md bg-paper-2 focus-within:ring-2',
        // With a letter before it a negative number of four digits and two decimals has just the room that it needs.
        before === undefined ? 'gap-1 pr-1 pl-2' : 'gap-0.5 pr-0.5 pl-1',
        wrong ? 'ring-2 ring-kite' : 'ring-sky',
        disabled && 'opacity-50',
        className,
      )}
    >
      {before}
      <input
        ref={input}
        aria-label={label}
        aria-invalid={wrong}
        title={wrong ? 'Not a number or a sum' : undefined}
        disabled={disabled}
        className={clsx(
          'tabular w-full min-w-0 cursor-ew-resize bg-transparent outline-none focus:cursor-text',
          value === null && text === null && 'text-ink-2 italic',
        )}
        value={
          text ??
          (shift === null ? shown(value, decimals) : `${shift < 0 ? '−' : '+'}${shown(Math.abs(shift), decimals)}`)
        }
        onFocus={(event) => {
          typing.begin(value === null ? '' : shown(value, decimals));
          requestAnimationFrame(() => input.current === document.activeElement && event.target.select());
        }}
        onChange={(event) => {
          typing.type(event.target.value);
          setWrong(false);
        }}
        onBlur={finish}
        onKeyDown={onKeyDown}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
        onPointerCancel={onPointerUp}
      />
      {unit && <span className="shrink-0 text-xs text-ink-2">{unit}</span>}
      {stopped !== null && (
        <span
          role="status"
          className="pointer-events-none absolute top-full right-0 z-30 mt-0.5 rounded-sm bg-ink px-1.5 text-xs leading-4 whitespace-nowrap text-paper"
        >
          {stopped}
          {unit ? ` ${unit}` : ''}
        </span>
      )}
    </span>
  );
};
