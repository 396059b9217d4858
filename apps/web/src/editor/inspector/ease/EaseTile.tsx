import type { Ease } from '@kite/core/document/types';
import { curveOf } from '@kite/core/motion/eases/table';
import { line } from 'd3-shape';
import { useEffect, useRef, useState } from 'react';

const W = 56;
const H = 30;
const x = (t: number) => 6 + t * (W - 12);
const y = (v: number) => H - 7 - v * (H - 16);
const pathOf = line<number>()
  .x((t) => x(t))
  .y(0);

interface EaseTileProps {
  name: string;
  ease: Ease;
  on: boolean;
  onChoose: () => void;
  /** Alt-click. */
  onRemove?: () => void;
}

const still = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

/** An ease as a small drawing: under the pointer a dot runs along it. */
export const EaseTile = ({ name, ease, on, onChoose, onRemove }: EaseTileProps) => {
  const dot = useRef<SVGCircleElement>(null);
  const [over, setOver] = useState(false);
  const curve = curveOf(ease);
  const d = pathOf.y((t) => y(curve(t)))(Array.from({ length: 61 }, (_, i) => i / 60)) ?? '';
  useEffect(() => {
    if (!over || still()) return;
    let frame = 0;
    const start = performance.now();
    const tick = (now: number) => {
      // A second there, and a rest.
      const t = Math.min(1, ((now - start) % 1400) / 1000);
      dot.current?.setAttribute('cx', String(x(t)));
      dot.current?.setAttribute('cy', String(y(curve(t))));
      frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [over, curve]);
  return (
    <button
      type="button"
      aria-pressed={on}
      aria-label={`Ease ${name}`}
      title={onRemove ? `${name}; Alt-click forgets it` : name}
      onPointerEnter={() => setOver(true)}
      onPointerLeave={() => setOver(false)}
      onClick={(event) => (event.altKey && onRemove ? onRemove() : onChoose())}
      className={`flex min-w-0 flex-col items-center rounded-md border pb-0.5 ${on ? 'border-sky bg-sky-2' : 'border-line hover:bg-paper-2'}`}
    >
      <svg viewBox={`0 0 ${W} ${H}`} className="w-full" aria-hidden>
        <path d={d} fill="none" stroke="var(--tail)" strokeWidth={1.5} />
        {over && <circle ref={dot} cx={x(0)} cy={y(0)} r={3} fill="var(--kite)" />}
      </svg>
      <span className="w-full truncate px-1 text-center text-xs leading-4">{name}</span>
    </button>
  );
};
