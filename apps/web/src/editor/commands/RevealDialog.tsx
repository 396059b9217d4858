import { FIRST_COLORS } from '@kite/core/document/colors';
import type { Id } from '@kite/core/document/types';
import { FIRST_REVEAL, type Reveal, REVEAL_LIMITS, revealByStrokes, revealIn } from '@kite/core/edits/reveal';
import { type FormEvent, useState } from 'react';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { ColorField } from '../../ui/ColorField';
import { NumberField } from '../../ui/NumberField';
import { Segments } from '../../ui/Segments';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';

const ORDERS = [
  { value: 'in-turn', label: 'One after another' },
  { value: 'together', label: 'Together' },
] as const;

const Form = ({ layers }: { layers: readonly Id[] }) => {
  const editor = useEditor();
  const { scene, state } = editor;
  const first = scene.layers[layers[0] ?? ''];
  const known = first?.kind === 'drawing' ? revealIn(first, scene) : null;
  const [reveal, setReveal] = useState<Reveal>({ ...FIRST_REVEAL, ...(known && { ...known }) });
  const close = () => editor.set({ revealing: null });
  const write = (event: FormEvent) => {
    event.preventDefault();
    const from = known?.from ?? state.frame;
    // Shapes are taken as they show at the playhead.
    const edit = revealByStrokes(editor.program, layers, reveal, state.frame, from, makeId);
    if (editor.edit(edit)) close();
  };
  const field = (key: 'frames' | 'strength' | 'step', label: string, unit: string, factor = 1) => (
    <label className="grid grid-cols-[1fr_120px] items-center text-ink-2">
      {label}
      <NumberField
        label={label}
        unit={unit}
        decimals={0}
        min={REVEAL_LIMITS[key][0] * factor}
        max={REVEAL_LIMITS[key][1] * factor}
        value={reveal[key] * factor}
        onChange={(v) => setReveal((now) => ({ ...now, [key]: Math.round(v) / factor }))}
      />
    </label>
  );
  return (
    <form className="flex flex-col gap-2" onSubmit={write}>
      {field('frames', 'Frames', 'f')}
      {field('strength', 'Strength', '%', 100)}
      {layers.length > 1 && field('step', 'Each layer later by', 'f')}
      <span className="text-ink-2">Strokes of one layer</span>
      <Segments
        label="Strokes of one layer"
        value={reveal.order}
        options={ORDERS}
        onChange={(order) => setReveal((now) => ({ ...now, order }))}
      />
      <label className="grid grid-cols-[1fr_120px] items-center text-ink-2">
        A colour runs ahead
        <input
          type="checkbox"
          aria-label="A colour runs ahead"
          className="size-4"
          checked={reveal.ahead !== null}
          onChange={(event) =>
            setReveal((now) => ({ ...now, ahead: event.target.checked ? { color: FIRST_COLORS[1], frames: 4 } : null }))
          }
        />
      </label>
      {reveal.ahead && (
        <div className="grid grid-cols-[1fr_120px] items-center gap-2">
          <ColorField
            label="Its colour"
            value={reveal.ahead.color}
            onChange={(color) => setReveal((now) => ({ ...now, ahead: now.ahead && { ...now.ahead, color } }))}
          />
          <NumberField
            label="Frames ahead"
            unit="f"
            decimals={0}
            min={REVEAL_LIMITS.ahead[0]}
            max={REVEAL_LIMITS.ahead[1]}
            value={reveal.ahead.frames}
            onChange={(v) =>
              setReveal((now) => ({ ...now, ahead: now.ahead && { ...now.ahead, frames: Math.round(v) } }))
            }
          />
        </div>
      )}
      <p className="text-sm text-ink-2">
        Strokes run along the middle of the shape, wide enough to cover it, and show it as they are drawn
        {known ? '' : `, from frame ${state.frame} on`}. They are ordinary paths in a mask of the layer, to be moved,
        drawn anew and keyed.
      </p>
      <div className="mt-1 flex justify-end gap-2">
        <Button onClick={close}>Cancel</Button>
        <Button type="submit" look="primary">
          Write on
        </Button>
      </div>
    </form>
  );
};

/** How layers are written on. */
export const RevealDialog = () => {
  const editor = useEditor();
  const layers = useSlice((s) => s.revealing);
  if (!layers) return null;
  const [only] = layers;
  const what = layers.length === 1 ? `“${editor.scene.layers[only ?? '']?.name}”` : `${layers.length} layers`;
  return (
    <Dialog open onClose={() => editor.set({ revealing: null })} title={`Write ${what} on`} width={360}>
      <Form layers={layers} />
    </Dialog>
  );
};
