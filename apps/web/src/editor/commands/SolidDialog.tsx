import type { Id } from '@kite/core/document/types';
import {
  makeSolid,
  newSolid,
  SIZE_LIMITS,
  SOLID_LABELS,
  SOLID_LIMITS,
  type Solid,
  type SolidForm,
  type SolidSize,
  SOLIDS,
} from '@kite/core/edits/solids';
import { layerBox } from '@kite/core/scene/bounds';
import { type FormEvent, useState } from 'react';
import { Button } from '../../ui/Button';
import { ColorField } from '../../ui/ColorField';
import { Dialog } from '../../ui/Dialog';
import { NumberField } from '../../ui/NumberField';
import { Segments } from '../../ui/Segments';
import { useEditor, useSlice } from '../store/context';
import { makeId } from '../store/editor';

const NAMES: { readonly [F in SolidForm]: string } = { box: 'Box', card: 'Card', fan: 'Fan', stack: 'Stack' };

const MEANS: { readonly [F in SolidForm]: string } = {
  box: 'Its front is the layer, or a new one. Five more faces, each a layer that anything can be put on, stand on a controller in its middle: turn that.',
  card: 'The layer is its front, and a layer of its size its back: turn the controller by 180° and the other side shows.',
  fan: 'Copies of the layer, held at its left edge, each turned a step further.',
  stack: 'Copies of the layer, each a step further away.',
};

type NumberKey = 'depth' | 'count' | 'angle' | 'gap';
const FIELDS: { readonly [F in SolidForm]: readonly NumberKey[] } = {
  box: ['depth'],
  card: [],
  fan: ['count', 'angle'],
  stack: ['count', 'gap'],
};
const LABELS: { readonly [K in NumberKey]: readonly [label: string, unit: string] } = {
  depth: ['Depth', 'px'],
  count: ['How many', ''],
  angle: ['Turned by', '°'],
  gap: ['Step', 'px'],
};

const SIZES = { width: 'Width', height: 'Height' } as const;

/** What thing in depth a layer is made into. */
export const SolidDialog = () => {
  const building = useSlice((s) => s.building);
  return building && <Building layer={building.layer} />;
};

/** Of a layer, or of sizes that are chosen. */
const Building = ({ layer }: { layer: Id | null }) => {
  const editor = useEditor();
  const { scene, program, state } = editor;
  const [solid, setSolid] = useState<Solid>(() => {
    const box = layer ? layerBox(program, layer, state.frame) : null;
    const depth = box ? Math.max(1, Math.round(Math.min(box.right - box.left, box.bottom - box.top))) : 100;
    return { form: 'box', depth, color: '#4F86B8', count: 5, angle: 15, gap: 60 };
  });
  const [size, setSize] = useState<SolidSize>({ width: 200, height: 200 });
  const close = () => editor.set({ building: null });
  const build = (event: FormEvent) => {
    event.preventDefault();
    const controller = makeId();
    // What cannot be made so is told, and can be put right.
    const edit =
      layer === null
        ? newSolid(scene, size, solid, state.frame, controller, makeId)
        : makeSolid(program, layer, solid, state.frame, controller, makeId);
    if (!editor.edit(edit)) return;
    close();
    editor.select({ layers: [controller] });
  };
  const colored = layer === null ? 'Colour' : solid.form === 'box' ? 'Other faces' : 'Back';
  const row = 'grid grid-cols-[1fr_140px] items-center text-ink-2';
  return (
    <Dialog
      open
      onClose={close}
      title={layer === null ? 'New in depth' : `In depth: “${scene.layers[layer]?.name}”`}
      width={360}
    >
      <form className="flex flex-col gap-2" onSubmit={build}>
        <Segments
          label="Made into"
          value={solid.form}
          options={SOLIDS.map((value) => ({ value, label: NAMES[value] }))}
          onChange={(form) => setSolid((now) => ({ ...now, form }))}
        />
        {layer === null &&
          (['width', 'height'] as const).map((key) => (
            <label key={key} className={row}>
              {SIZES[key]}
              <NumberField
                label={SIZES[key]}
                min={SIZE_LIMITS[0]}
                max={SIZE_LIMITS[1]}
                decimals={0}
                value={size[key]}
                unit="px"
                onChange={(v) => setSize((now) => ({ ...now, [key]: Math.round(v) }))}
              />
            </label>
          ))}
        {FIELDS[solid.form].map((key) => (
          <label key={key} className={row}>
            {LABELS[key][0]}
            <NumberField
              label={LABELS[key][0]}
              min={SOLID_LIMITS[key][0]}
              max={SOLID_LIMITS[key][1]}
              decimals={0}
              value={solid[key]}
              unit={LABELS[key][1]}
              onChange={(v) => setSolid((now) => ({ ...now, [key]: Math.round(v) }))}
            />
          </label>
        ))}
        {(layer === null || solid.form === 'box' || solid.form === 'card') && (
          <div className={row}>
            {colored}
            <ColorField
              label={colored}
              value={solid.color}
              onChange={(color) => setSolid((now) => ({ ...now, color }))}
            />
          </div>
        )}
        <p className="text-sm text-ink-2">{MEANS[solid.form]}</p>
        <div className="mt-1 flex justify-end gap-2">
          <Button onClick={close}>Cancel</Button>
          <Button type="submit" look="primary">
            {SOLID_LABELS[solid.form]}
          </Button>
        </div>
      </form>
    </Dialog>
  );
};
