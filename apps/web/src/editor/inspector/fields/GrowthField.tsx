import { GROWTH_LIMITS } from '@kite/core/document/limits';
import type { GrowthPoint, GrowthValue, PropertyRef } from '@kite/core/document/types';
import { strokeLater, strokesAlong, withPoint, withStroke } from '@kite/core/edits/growth';
import { cardsAbove } from '@kite/core/edits/recipe';
import { shapesOf } from '@kite/core/edits/reveal';
import { middleOf } from '@kite/core/geometry/middle';
import { ArrowDown, ArrowUp, Hourglass, PenLine, Pencil, Spline, Sprout, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { toast } from '../../../ui/toast';
import { Button, IconButton } from '../../../ui/Button';
import { NumberField } from '../../../ui/NumberField';
import { useEditor, useSlice } from '../../store/context';
import { SELECTING, type Sowing } from '../../store/workspace';

const SORTS = [
  { what: 'root', label: 'Root', icon: <Sprout size={14} />, hint: 'Press where it grows from' },
  { what: 'wait', label: 'Wait', icon: <Hourglass size={14} />, hint: 'Press a branch where it is to wait' },
  { what: 'stroke', label: 'Stroke', icon: <PenLine size={14} />, hint: 'Draw where it grows, and how fast' },
] as const;

const Row = ({ name, children }: { name: ReactNode; children: ReactNode }) => (
  <li className="grid grid-cols-[64px_1fr] items-center gap-2">
    <span className="flex items-center gap-1 text-sm text-ink-2">{name}</span>
    <span className="flex min-w-0 items-center gap-1">{children}</span>
  </li>
);

interface GrowthFieldProps {
  value: GrowthValue;
  onChange: (value: GrowthValue) => void;
  refTo: PropertyRef;
  onStart: () => void;
  onEnd: () => void;
}

/** Where something grows from, where it waits, and the strokes that it follows: given on the canvas, listed here. */
export const GrowthField = ({ value, onChange: write, refTo, ...gesture }: GrowthFieldProps) => {
  const editor = useEditor();
  const sowing = useSlice((s) => (s.mode.kind === 'sowing' ? s.mode : null));
  const { points, strokes } = value;
  const sow = (next: Sowing) => {
    const same = sowing?.what === next.what && sowing.instead === next.instead;
    editor.set({ mode: same ? SELECTING : { kind: 'sowing', ...next } });
  };

  const followMiddle = () => {
    const layer = editor.scene.layers[refTo.layer];
    if (layer?.kind !== 'drawing' || refTo.item === undefined) return;
    try {
      const { marks } = editor.program.flowAt(layer.id, cardsAbove(layer, refTo.item), editor.state.frame);
      const middle = middleOf(shapesOf(layer.name, marks));
      if (middle) write({ ...value, strokes: strokesAlong(middle) });
      else toast.error(`“${layer.name}” has no outlines with a middle line.`);
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      toast.error(error.message);
    }
  };

  const set = (i: number, point: GrowthPoint, part: Partial<GrowthPoint>) =>
    write(withPoint(value, i, { ...point, ...part }));
  const pointRow = (point: GrowthPoint, i: number) => {
    const name = `${point.root ? 'Root' : 'Wait'} ${points.slice(0, i + 1).filter(({ root }) => root === point.root).length}`;
    const [, most] = GROWTH_LIMITS.wait;
    const [slowest, quickest] = GROWTH_LIMITS.pace;
    return (
      <Row key={i} name={name}>
        <NumberField
          label={`${name}, later by`}
          unit="px"
          value={point.wait}
          min={0}
          max={most}
          onChange={(wait) => set(i, point, { wait })}
          {...gesture}
        />
        <NumberField
          label={`${name}, pace`}
          unit="%"
          value={Math.round(point.pace * 1000) / 10}
          min={slowest * 100}
          max={quickest * 100}
          onChange={(pace) => set(i, point, { pace: pace / 100 })}
          {...gesture}
        />
        <IconButton label={`Remove ${name}`} size="small" onClick={() => write(withPoint(value, i, null))}>
          <X size={13} />
        </IconButton>
      </Row>
    );
  };
  const strokeRow = (_stroke: unknown, i: number) => {
    const name = `Stroke ${i + 1}`;
    return (
      <Row key={i} name={name}>
        <IconButton
          label={`${name} earlier`}
          size="small"
          disabled={i === 0}
          onClick={() => write(strokeLater(value, i, -1))}
        >
          <ArrowUp size={13} />
        </IconButton>
        <IconButton
          label={`${name} later`}
          size="small"
          disabled={i === strokes.length - 1}
          onClick={() => write(strokeLater(value, i, 1))}
        >
          <ArrowDown size={13} />
        </IconButton>
        <IconButton
          label={`Draw ${name} again`}
          size="small"
          pressed={sowing?.instead === i}
          onClick={() => sow({ what: 'stroke', instead: i })}
        >
          <Pencil size={13} />
        </IconButton>
        <span className="flex-1" />
        <IconButton label={`Remove ${name}`} size="small" onClick={() => write(withStroke(value, i, null))}>
          <X size={13} />
        </IconButton>
      </Row>
    );
  };

  return (
    <div className="flex flex-col gap-1.5">
      <div className="grid grid-cols-3 gap-1">
        {SORTS.map(({ what, label, icon, hint }) => {
          const pressed = sowing?.what === what && sowing.instead === undefined;
          return (
            <Button
              key={what}
              title={hint}
              aria-pressed={pressed}
              className={`!px-1 ${pressed ? '!bg-sky-2 text-sky' : ''}`}
              icon={icon}
              disabled={what !== 'stroke' && strokes.length > 0}
              onClick={() => sow({ what })}
            >
              {label}
            </Button>
          );
        })}
      </div>
      <div className="flex gap-1">
        <Button className="flex-1 !px-1" icon={<Spline size={14} />} onClick={followMiddle}>
          Along middle lines
        </Button>
        {strokes.length > 0 && <Button onClick={() => write({ ...value, strokes: [] })}>No strokes</Button>}
      </div>
      {strokes.length > 0 ? (
        <ol aria-label="Strokes" className="flex max-h-40 flex-col gap-1 overflow-y-auto">
          {strokes.map(strokeRow)}
        </ol>
      ) : points.length > 0 ? (
        <ol aria-label="Points" className="flex max-h-40 flex-col gap-1 overflow-y-auto">
          {points.map(pointRow)}
        </ol>
      ) : (
        <p className="text-sm text-ink-2">Grows from its foot, until it is given a root.</p>
      )}
    </div>
  );
};
