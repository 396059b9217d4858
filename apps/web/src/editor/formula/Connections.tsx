import type { PropertyRef } from '@kite/core/document/types';
import { pathOf, type Target } from '@kite/core/formula/refs';
import { useMemo } from 'react';
import { useEditor, useSlice } from '../store/context';
import { sceneOf } from '../store/state';
import { connectionsOf } from '../commands/formulas';

const LINE = 22;
/** More than these are counted. */
const MOST = 8;

interface End {
  readonly key: string;
  readonly name: string;
  readonly to: Target;
}

const Names = ({ ends, more, side }: { ends: readonly End[]; more: number; side: 'left' | 'right' }) => {
  const editor = useEditor();
  return (
    <ul className={`min-w-0 flex-1 ${side === 'left' ? 'text-right' : ''}`}>
      {ends.map(({ key, name, to }) => (
        <li key={key} style={{ height: LINE }} className="flex items-center">
          <button
            type="button"
            title={name}
            className={`w-full truncate rounded-sm px-1 text-sm text-ink-2 hover:bg-paper-2 hover:text-ink ${side === 'left' ? 'text-right' : 'text-left'}`}
            onClick={() => {
              editor.select({ layers: [to.layer] });
              editor.set({ formulaAt: { scene: editor.scene.id, ...to } });
            }}
          >
            {name}
          </button>
        </li>
      ))}
      {more > 0 && <li className="px-1 text-sm text-ink-2">and {more} more</li>}
    </ul>
  );
};

/** What a property reads, on its left, and what reads it, on its right. */
export const Connections = ({ refTo }: { refTo: PropertyRef }) => {
  const scene = useSlice(sceneOf);
  const { reads, readBy } = useMemo(() => connectionsOf(scene, refTo), [scene, refTo]);
  if (reads.length + readBy.length === 0) return null;
  const named = (targets: readonly Target[]): End[] =>
    targets.slice(0, MOST).map(({ layer, item, key }) => {
      const to = { layer, key, ...(item !== undefined && { item }) };
      return { key: [layer, item, key].join('/'), name: pathOf(to, scene) ?? 'gone', to };
    });
  const [left, right] = [named(reads), named(readBy)];
  const height = Math.max(left.length, right.length, 1) * LINE;
  const middle = height / 2;
  const ys = (ends: readonly End[]) => ends.map((_, i) => i * LINE + LINE / 2);
  return (
    <figure aria-label="What it reads and what reads it" className="mt-1">
      <figcaption className="flex justify-between text-xs text-ink-2">
        <span>{left.length > 0 ? 'Reads' : ''}</span>
        <span>{right.length > 0 ? 'Read by' : ''}</span>
      </figcaption>
      <div className="flex items-start">
        {left.length > 0 && <Names ends={left} more={reads.length - left.length} side="left" />}
        <svg aria-hidden width={56} height={height} className="shrink-0">
          {ys(left).map((y) => (
            <path key={`l${y}`} d={`M0 ${y}C16 ${y} 12 ${middle} 28 ${middle}`} fill="none" stroke="var(--tail)" />
          ))}
          {ys(right).map((y) => (
            <path key={`r${y}`} d={`M28 ${middle}C44 ${middle} 40 ${y} 56 ${y}`} fill="none" stroke="var(--tail)" />
          ))}
          <circle cx={28} cy={middle} r={4} fill="var(--tail)" />
        </svg>
        {right.length > 0 && <Names ends={right} more={readBy.length - right.length} side="right" />}
      </div>
    </figure>
  );
};
