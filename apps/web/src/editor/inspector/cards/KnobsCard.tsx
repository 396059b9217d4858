import { newKnob, paramsOfKnob } from '@kite/core/document/knobs';
import { type ControllerLayer, type Knob, KNOB_KINDS, type KnobKind } from '@kite/core/document/types';
import { uniqueName } from '@kite/core/document/make';
import { FAR, type Param } from '@kite/core/document/params';
import { addKnob, moveKnob, removeKnob, setKnob } from '@kite/core/edits/knobs';
import { EllipsisVertical, Plus, SlidersHorizontal } from 'lucide-react';
import { useState } from 'react';
import { Menu } from '../../../ui/Menu';
import { NumberField } from '../../../ui/NumberField';
import { RenameField } from '../../../ui/RenameField';
import { writeValues } from '../../commands/layers';
import { useShown } from '../../formula/useComputed';
import { useEditor, useSlice } from '../../store/context';
import { makeId } from '../../store/editor';
import { removePartAsking } from '../../commands/formulas';
import { Card } from './Card';
import { ParamField } from '../fields/ParamField';

const LABELS: { readonly [K in KnobKind]: string } = {
  number: 'Number',
  percent: 'Percent',
  angle: 'Angle',
  point: 'Point',
  color: 'Colour',
  switch: 'Switch',
  text: 'Text',
  font: 'Font',
  picture: 'Picture',
};

/** The limits of a knob, as they are shown. */
const Limits = ({ layer, knob }: { layer: ControllerLayer; knob: Knob }) => {
  const editor = useEditor();
  const factor = knob.kind === 'percent' ? 100 : 1;
  return (
    <div className="grid grid-cols-2 gap-2 pl-5">
      {(['min', 'max'] as const).map((end) => (
        <NumberField
          key={end}
          label={`${knob.name}: ${end === 'min' ? 'least' : 'greatest'}`}
          before={<span className="text-xs text-ink-2">{end === 'min' ? 'from' : 'to'}</span>}
          value={knob[end] * factor}
          onStart={() => editor.begin()}
          onChange={(v) => editor.edit(setKnob(editor.scene.id, layer.id, knob.id, { [end]: v / factor }))}
          onEnd={() => editor.end()}
        />
      ))}
    </div>
  );
};

/** A knob with limits is slid between them. */
const Slide = ({ layer, knob }: { layer: ControllerLayer; knob: Knob }) => {
  const editor = useEditor();
  const ref = { scene: editor.scene.id, layer: layer.id, item: knob.id, key: 'value' };
  const param = paramsOfKnob(knob).value as Param;
  const [sampler] = useShown([ref], param);
  const frame = useSlice((s) => (sampler?.constant ? 0 : s.frame));
  const end = () => editor.end();
  return (
    <input
      type="range"
      aria-label={`${knob.name}, slid`}
      className="ml-5 h-4 accent-[var(--tail)]"
      min={knob.min}
      max={knob.max}
      step={(knob.max - knob.min) / 200}
      value={Number(sampler?.at(frame) ?? 0)}
      onPointerDown={() => editor.begin()}
      onPointerUp={end}
      onKeyDown={(event) => event.stopPropagation()}
      onChange={(event) => writeValues(editor, [[ref, Number(event.target.value)]])}
    />
  );
};

const Row = ({ layer, knob, index }: { layer: ControllerLayer; knob: Knob; index: number }) => {
  const editor = useEditor();
  const [renaming, setRenaming] = useState(false);
  const [limits, setLimits] = useState(false);
  const scene = editor.scene.id;
  const measured = knob.kind === 'number' || knob.kind === 'percent' || knob.kind === 'angle';
  return (
    <li className="flex flex-col gap-1">
      <div className="flex items-center gap-1">
        <div className="min-w-0 flex-1">
          {renaming ? (
            <RenameField
              label="Knob name"
              value={knob.name}
              editing
              onDone={() => setRenaming(false)}
              onRename={(name) => editor.edit(setKnob(scene, layer.id, knob.id, { name }))}
            />
          ) : (
            <ParamField
              param={paramsOfKnob(knob).value as Param}
              refs={[{ scene, layer: layer.id, item: knob.id, key: 'value' }]}
            />
          )}
        </div>
        <Menu
          entries={[
            { label: 'Rename', onSelect: () => setTimeout(() => setRenaming(true), 0) },
            ...(measured ? [{ label: limits ? 'Hide limits' : 'Limits', onSelect: () => setLimits(!limits) }] : []),
            {
              label: 'Move up',
              disabled: index === 0,
              onSelect: () => editor.edit(moveKnob(scene, layer.id, knob.id, index - 1)),
            },
            {
              label: 'Move down',
              disabled: index === layer.panel.length - 1,
              onSelect: () => editor.edit(moveKnob(scene, layer.id, knob.id, index + 1)),
            },
            null,
            {
              label: 'Remove',
              danger: true,
              onSelect: () => removePartAsking(editor, layer.id, knob.id, removeKnob(scene, layer.id, knob.id)),
            },
          ]}
          trigger={
            <button
              type="button"
              aria-label={`${knob.name}: more`}
              className="grid size-5 shrink-0 place-items-center text-ink-2 hover:text-ink"
            >
              <EllipsisVertical size={13} />
            </button>
          }
        />
      </div>
      {measured && knob.max - knob.min < 2 * FAR && <Slide layer={layer} knob={knob} />}
      {limits && measured && <Limits layer={layer} knob={knob} />}
    </li>
  );
};

/** A controller's knobs: values by name, there to be keyed. */
export const KnobsCard = ({ layer, named = false }: { layer: ControllerLayer; named?: boolean }) => {
  const editor = useEditor();
  const add = (kind: KnobKind) => {
    const taken = Object.values(layer.knobs).map((k) => k.name);
    editor.edit(addKnob(editor.scene.id, layer.id, newKnob(makeId(), kind, uniqueName(LABELS[kind], taken))));
  };
  return (
    <Card
      title={named ? `Knobs of ${layer.name}` : 'Knobs'}
      icon={<SlidersHorizontal size={15} />}
      aside={layer.panel.length > 0 ? layer.panel.length : ''}
    >
      {layer.panel.length === 0 && (
        <p className="text-ink-2">
          Values by name, to be set and keyed in one place for everything that hangs from here.
        </p>
      )}
      <ul className="flex flex-col gap-1.5">
        {layer.panel.map((id, i) => {
          const knob = layer.knobs[id];
          return knob && <Row key={id} layer={layer} knob={knob} index={i} />;
        })}
      </ul>
      <Menu
        align="start"
        entries={KNOB_KINDS.map((kind) => ({ label: LABELS[kind], onSelect: () => add(kind) }))}
        trigger={
          <button
            type="button"
            className="flex h-7 items-center gap-1.5 self-start rounded-md px-1.5 text-ink-2 hover:bg-paper-2 hover:text-ink"
          >
            <Plus size={14} /> Add a knob
          </button>
        }
      />
    </Card>
  );
};
