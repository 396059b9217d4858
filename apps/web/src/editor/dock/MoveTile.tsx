import type { Point } from '@kite/core/document/types';
import { samplerOf } from '@kite/core/motion/sampler';
import type { Move } from '@kite/core/document/moves';
import { isDrawing, isSliding } from '@kite/core/edits/moves';
import { AT_REST, MOVED, type MovedKey, writtenBy } from '@kite/core/moves/write';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';

const W = 104;
const H = 46;
const SIDE = 16;
/** Frames of a passage in its tile, and the pause after each run. */
const LENGTH = 60;
const PAUSE = 14;
const REST = { ...AT_REST, position: [W / 2, H / 2] as Point };

/** A move made small enough for its tile. */
const small = (move: Move): Move => {
  if (move.kind === 'emphasis') return move.form === 'shake' ? { ...move, strength: move.strength / 4 } : move;
  const distance = move.distance === 0 ? 0 : 34;
  return move.kind === 'passage' ? { ...move, distance, drift: 12, frames: LENGTH / 4 } : { ...move, distance };
};

const stateAt = (move: Move, frame: number) => {
  const to = move.kind === 'passage' ? LENGTH : move.frames;
  // What is drawn needs a trim to be drawn by, and what slides a wipe: any will do.
  const applied = { id: '', move: small(move), from: 0, to, away: W / 2 + SIDE, trims: [''], wipe: '' };
  const written = writtenBy(applied, REST);
  const at = <K extends MovedKey>(key: K) => {
    const keys = written[key];
    return keys ? samplerOf(MOVED[key], { keys }).at(frame) : REST[key];
  };
  return {
    position: at('position') as Point,
    scale: at('scale') as Point,
    rotation: at('rotation') as number,
    opacity: at('opacity') as number,
    start: at('start') as number,
    end: at('end') as number,
    shown: at('shown') as number,
    // A square so small is turned in depth as if there were no perspective.
    across: Math.cos(((at('turnY') as number) * Math.PI) / 180),
    down: Math.cos(((at('turnX') as number) * Math.PI) / 180),
  };
};

/** The share of a move that its tile shows at rest: one by which it is told from others. */
const stillAt = (move: Move): number => (move.kind === 'exit' ? 0.6 : isSliding(move) ? 0.15 : 0.35);

const still = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

interface MoveTileProps {
  move: Move;
  onChoose: () => void;
  onForget?: () => void;
}

/** A move as it looks: under the pointer it plays. */
export const MoveTile = ({ move, onChoose, onForget }: MoveTileProps) => {
  const length = move.kind === 'passage' ? LENGTH : move.frames;
  const [frame, setFrame] = useState<number | null>(null);
  const [over, setOver] = useState(false);
  useEffect(() => {
    if (!over || still()) return;
    let tick = 0;
    const start = performance.now();
    const run = (now: number) => {
      setFrame(Math.min(length, (((now - start) / 1000) * 30) % (length + PAUSE)));
      tick = requestAnimationFrame(run);
    };
    tick = requestAnimationFrame(run);
    return () => {
      cancelAnimationFrame(tick);
      setFrame(null);
    };
  }, [over, length]);
  const shown = stateAt(move, frame ?? length * stillAt(move));
  const side = SIDE / 2;
  // Behind its edge it is so far from where it rests, and seen in that place alone.
  const angle = 'angle' in move ? (move.angle * Math.PI) / 180 : 0;
  const hidden = (1 - shown.shown) * SIDE;
  const [right, down] = [Math.cos(angle) * hidden, Math.sin(angle) * hidden];
  const [x, y, width, height] = isSliding(move) ? [W / 2 - side, H / 2 - side, SIDE, SIDE] : [0, 0, W, H];
  return (
    <div className="relative">
      <button
        type="button"
        onClick={onChoose}
        onPointerEnter={() => setOver(true)}
        onPointerLeave={() => setOver(false)}
        onFocus={() => setOver(true)}
        onBlur={() => setOver(false)}
        className="flex w-full flex-col items-center gap-0.5 rounded-md border border-line bg-paper pb-1 hover:border-sky"
      >
        <svg aria-hidden width={W} height={H} className="overflow-hidden">
          <rect
            x={W / 2 - side}
            y={H / 2 - side}
            width={SIDE}
            height={SIDE}
            rx={3}
            fill="none"
            stroke="var(--ink-2)"
            strokeDasharray="2 2"
            opacity={0.6}
          />
          <svg x={x} y={y} width={width} height={height} viewBox={`${x} ${y} ${width} ${height}`}>
            <g
              transform={`translate(${shown.position[0] + right} ${shown.position[1] + down}) rotate(${shown.rotation}) scale(${shown.scale[0] * shown.across} ${shown.scale[1] * shown.down})`}
              opacity={shown.opacity}
            >
              <rect
                x={-side}
                y={-side}
                width={SIDE}
                height={SIDE}
                rx={3}
                {...(isDrawing(move)
                  ? {
                      fill: 'none',
                      stroke: 'var(--kite)',
                      strokeWidth: 3,
                      pathLength: 1,
                      strokeDasharray: `${shown.end - shown.start} 1`,
                      strokeDashoffset: -shown.start,
                    }
                  : { fill: 'var(--kite)' })}
              />
            </g>
          </svg>
        </svg>
        <span className="max-w-full truncate text-sm">{move.name}</span>
      </button>
      {onForget && (
        <button
          type="button"
          aria-label={`Forget ${move.name}`}
          className="absolute top-0.5 right-0.5 rounded-sm p-0.5 text-ink-2 hover:bg-paper-2 hover:text-kite"
          onClick={onForget}
        >
          <X size={11} />
        </button>
      )}
    </div>
  );
};
