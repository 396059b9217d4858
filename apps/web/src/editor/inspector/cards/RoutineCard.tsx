import type { Id } from '@kite/core/document/types';
import { removeRoutine, setRoutine } from '@kite/core/edits/routines';
import { roundLength } from '@kite/core/moves/routine';
import {
  type Routine,
  ROUTINE_ORDERS,
  type RoutineOrder,
  type RoutineStep,
  STEP_KINDS,
  type StepKind,
} from '@kite/core/document/moves';
import { ArrowDown, ArrowUp, ListOrdered, Plus, Trash2, X } from 'lucide-react';
import { Button, IconButton } from '../../../ui/Button';
import { CheckField } from '../../../ui/CheckField';
import { ColorField } from '../../../ui/ColorField';
import { Menu } from '../../../ui/Menu';
import { NumberField } from '../../../ui/NumberField';
import { RenameField } from '../../../ui/RenameField';
import { Select } from '../../../ui/Select';
import { newStep } from '../../commands/moves';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import { Card } from './Card';
import { EaseSelect } from '../ease/EaseSelect';
import { NAME_AND_FIELD } from '../row';

const LABELS: { readonly [K in StepKind]: string } = {
  move: 'Move by',
  grow: 'Grow to',
  turn: 'Turn by',
  turnX: 'Turn x by',
  turnY: 'Turn y by',
  away: 'Away by',
  fade: 'Fade to',
  colour: 'Colour to',
  trim: 'Trim to',
};
/** Units of what is no share. */
const MEASURES: { readonly [K in StepKind]?: string } = { turn: '°', turnX: '°', turnY: '°', away: 'px' };
const ICON = 13;

/** As a stagger calls them. */
const ORDERS: { readonly [O in RoutineOrder]: string } = {
  list: 'One after another',
  reversed: 'From the last',
  centre: 'From the middle',
  edges: 'From the ends',
  random: 'At random',
};

interface RoutineNumber {
  readonly key: 'start' | 'stagger' | 'rounds' | 'speed' | 'seed';
  readonly label: string;
  readonly unit: string;
  readonly min: number;
  readonly factor?: number;
  readonly when?: (routine: Routine) => boolean;
}
const NUMBERS: readonly RoutineNumber[] = [
  { key: 'start', label: 'First frame', unit: 'f', min: 0 },
  { key: 'speed', label: 'Speed', unit: '%', min: 1, factor: 100 },
  { key: 'stagger', label: 'Each later by', unit: 'f', min: -1_000 },
  { key: 'seed', label: 'Seed', unit: '', min: 0, when: ({ order }) => order === 'random' },
  { key: 'rounds', label: 'Rounds', unit: '×', min: 1, when: ({ forever }) => !forever },
];
const SWITCHES = [
  ['forever', 'For ever'],
  ['pingpong', 'Every second round backwards'],
] as const;

/** Layers that the menu of players offers; any are let in by selecting them. */
const MOST_OFFERED = 40;

interface Gesture {
  onStart: () => void;
  onEnd: () => void;
}

/** What a step goes to, by its kind. */
const StepValue = ({
  step,
  onChange,
  ...gesture
}: { step: RoutineStep; onChange: (value: RoutineStep['value']) => void } & Gesture) => {
  if (step.kind === 'colour') {
    return <ColorField label="Colour of the step" value={step.value as string} onChange={onChange} {...gesture} />;
  }
  if (step.kind === 'move') {
    const [x, y] = step.value as readonly [number, number];
    return (
      <span className="flex min-w-0 gap-1">
        <NumberField
          label="Move by x"
          before={<span className="text-xs text-ink-2">x</span>}
          value={x}
          className="flex-1"
          onChange={(v) => onChange([v, y])}
          {...gesture}
        />
        <NumberField
          label="Move by y"
          before={<span className="text-xs text-ink-2">y</span>}
          value={y}
          className="flex-1"
          onChange={(v) => onChange([x, v])}
          {...gesture}
        />
      </span>
    );
  }
  const measure = MEASURES[step.kind];
  const least = measure ? -36_000 : 0;
  const most = measure ? 36_000 : step.kind === 'grow' ? 2_000 : 100;
  const factor = measure ? 1 : 100;
  return (
    <NumberField
      label={LABELS[step.kind]}
      unit={measure ?? '%'}
      min={least}
      max={most}
      value={(step.value as number) * factor}
      onChange={(v) => onChange(v / factor)}
      {...gesture}
    />
  );
};

interface StepRowProps extends Gesture {
  step: RoutineStep;
  index: number;
  count: number;
  onChange: (step: RoutineStep) => void;
  onMove: (by: -1 | 1) => void;
  onRemove: () => void;
}

const StepRow = ({ step, index, count, onChange, onMove, onRemove, ...gesture }: StepRowProps) => {
  return (
    <li aria-label={`Step ${index + 1}`} className="flex flex-col gap-1 rounded-md border border-line p-1.5">
      <span className="flex items-center gap-1">
        <Select
          aria-label="What the step does"
          value={step.kind}
          options={STEP_KINDS.map((value) => ({ value, label: LABELS[value] }))}
          onChange={(kind) =>
            onChange({ ...newStep(kind as StepKind), frames: step.frames, gap: step.gap, ease: step.ease })
          }
          className="min-w-0 flex-1"
        />
        <IconButton label="Earlier" size="small" disabled={index === 0} onClick={() => onMove(-1)}>
          <ArrowUp size={ICON} />
        </IconButton>
        <IconButton label="Later" size="small" disabled={index === count - 1} onClick={() => onMove(1)}>
          <ArrowDown size={ICON} />
        </IconButton>
        <IconButton label="Remove the step" size="small" onClick={onRemove}>
          <X size={ICON} />
        </IconButton>
      </span>
      <StepValue step={step} onChange={(value) => onChange({ ...step, value })} {...gesture} />
      <span className="grid grid-cols-[1fr_1fr_1fr] gap-1">
        <NumberField
          label="Frames of the step"
          unit="f"
          min={1}
          max={10_000}
          decimals={0}
          value={step.frames}
          onChange={(v) => onChange({ ...step, frames: Math.round(v) })}
          {...gesture}
        />
        <NumberField
          label="Gap before the step"
          before={<span className="text-xs text-ink-2">gap</span>}
          min={-10_000}
          max={10_000}
          decimals={0}
          value={step.gap}
          onChange={(v) => onChange({ ...step, gap: Math.round(v) })}
          {...gesture}
        />
        <EaseSelect label="Ease of the step" value={step.ease} onChange={(ease) => onChange({ ...step, ease })} />
      </span>
    </li>
  );
};

/** A routine that the selected layers play: what is changed here is changed on every layer that plays it. */
export const RoutineCard = ({ routine, selected }: { routine: Routine; selected: readonly Id[] }) => {
  const editor = useEditor();
  const scene = editor.scene.id;
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  const set = (fields: Parameters<typeof setRoutine>[2]) => editor.edit(setRoutine(scene, routine.id, fields));
  const setSteps = (steps: readonly RoutineStep[]) => set({ steps });
  const outside = selected.filter((id) => !routine.players.includes(id));
  const inside = selected.filter((id) => routine.players.includes(id));
  const { steps } = routine;
  const layers = useSlice((s) => sceneOf(s).layers);
  const others = editor.scene.order.filter((id) => !routine.players.includes(id) && !layers[id]?.locked);
  return (
    <Card
      title="Routine"
      icon={<ListOrdered size={15} />}
      aside={`${routine.players.length} layer${routine.players.length === 1 ? '' : 's'}, ${roundLength(routine)} frames`}
    >
      <div className={NAME_AND_FIELD}>
        <span className="text-ink-2">Name</span>
        <RenameField label="Routine name" value={routine.name} onRename={(name) => set({ name })} />
      </div>
      <ol className="flex flex-col gap-1">
        {steps.map((step, i) => (
          <StepRow
            key={i}
            step={step}
            index={i}
            count={steps.length}
            onChange={(next) => setSteps(steps.with(i, next))}
            onMove={(by) => setSteps(steps.with(i, steps[i + by] ?? step).with(i + by, step))}
            onRemove={() => setSteps(steps.toSpliced(i, 1))}
            {...gesture}
          />
        ))}
      </ol>
      <Menu
        align="start"
        entries={STEP_KINDS.map((kind) => ({
          label: LABELS[kind],
          onSelect: () => setSteps([...steps, newStep(kind)]),
        }))}
        trigger={
          <Button className="!h-6 self-start !px-2 text-sm" icon={<Plus size={ICON} />}>
            Step
          </Button>
        }
      />
      {NUMBERS.filter(({ when }) => !when || when(routine)).map(({ key, label, unit, min, factor = 1 }) => (
        <label key={key} className={NAME_AND_FIELD}>
          <span className="text-ink-2">{label}</span>
          <NumberField
            label={`${label} of the routine`}
            unit={unit}
            min={min}
            max={key === 'speed' ? 10_000 : 100_000}
            decimals={0}
            value={routine[key] * factor}
            onChange={(v) => set({ [key]: Math.round(v) / factor })}
            {...gesture}
          />
        </label>
      ))}
      <label className={NAME_AND_FIELD}>
        <span className="text-ink-2">Order</span>
        <Select
          aria-label="Order of the players"
          value={routine.order}
          options={ROUTINE_ORDERS.map((value) => ({ value, label: ORDERS[value] }))}
          onChange={(order) => set({ order: order as RoutineOrder })}
        />
      </label>
      {SWITCHES.map(([key, says]) => (
        <CheckField key={key} label={says} checked={routine[key]} onChange={(on) => set({ [key]: on })} />
      ))}
      <ul aria-label="Players" className="flex flex-wrap gap-1">
        {routine.players.map((id) => (
          <li key={id} className="flex max-w-full items-center rounded-full bg-paper-2 pl-2 text-sm">
            <span className="truncate" title={layers[id]?.name}>
              {layers[id]?.name}
            </span>
            <IconButton
              label={`Take ${layers[id]?.name ?? 'it'} out`}
              size="small"
              onClick={() => set({ players: routine.players.filter((player) => player !== id) })}
            >
              <X size={ICON} />
            </IconButton>
          </li>
        ))}
        {others.length > 0 && (
          <li>
            <Menu
              align="start"
              entries={others.slice(0, MOST_OFFERED).map((id) => ({
                label: layers[id]?.name ?? id,
                onSelect: () => set({ players: [...routine.players, id] }),
              }))}
              trigger={
                <Button className="!h-6 !px-2 text-sm" icon={<Plus size={ICON} />}>
                  Player
                </Button>
              }
            />
          </li>
        )}
      </ul>
      <div className="flex flex-wrap gap-1">
        {outside.length > 0 && (
          <Button
            className="!h-6 !px-2 text-sm"
            onClick={() =>
              set({ players: editor.scene.order.filter((id) => [...routine.players, ...outside].includes(id)) })
            }
          >
            Let the other {outside.length} play it
          </Button>
        )}
        {inside.length > 1 && routine.players.length > inside.length && (
          <Button
            className="!h-6 !px-2 text-sm"
            onClick={() => set({ players: routine.players.filter((id) => !inside.includes(id)) })}
          >
            Take these {inside.length} out
          </Button>
        )}
        <IconButton
          label="Take the routine and its keyframes away"
          size="small"
          className="ml-auto"
          onClick={() => editor.edit(removeRoutine(scene, routine.id))}
        >
          <Trash2 size={14} />
        </IconButton>
      </div>
    </Card>
  );
};
