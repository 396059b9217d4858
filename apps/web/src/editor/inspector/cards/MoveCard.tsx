import type { Ease, Id } from '@kite/core/document/types';
import {
  changeMove,
  isSliding,
  keepMove,
  type MoveChange,
  removeMove,
  seenBeside,
  trimToMove,
} from '@kite/core/edits/moves';
import type { AppliedMove, Move } from '@kite/core/document/moves';
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp, Trash2, Wind } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../../ui/Button';
import { KeepField } from '../../../ui/KeepField';
import { NumberField } from '../../../ui/NumberField';
import { awayFrom } from '../../commands/moves';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import { makeId } from '../../store/editor';
import { Card } from './Card';
import { EaseFields } from '../ease/EaseFields';
import { EaseTile } from '../ease/EaseTile';
import { PRESETS, standsFor } from '../ease/presets';
import { NAME_AND_FIELD } from '../row';

const SIDES = [
  { angle: 180, label: 'Left', icon: <ArrowLeft size={14} /> },
  { angle: 0, label: 'Right', icon: <ArrowRight size={14} /> },
  { angle: -90, label: 'Top', icon: <ArrowUp size={14} /> },
  { angle: 90, label: 'Bottom', icon: <ArrowDown size={14} /> },
];

interface Field {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  /** What a stored number is multiplied by to be shown. */
  readonly factor: number;
  readonly whole?: true;
}

const FRAMES: Field = { key: 'frames', label: 'Frames', unit: 'f', min: 1, max: 10_000, factor: 1, whole: true };
const FADE: Field = { key: 'fade', label: 'Opacity there', unit: '%', min: 0, max: 100, factor: 100 };
const DISTANCE: Field = { key: 'distance', label: 'Distance', unit: 'px', min: -20_000, max: 20_000, factor: 1 };
const ANGLE: Field = { key: 'angle', label: 'Angle', unit: '°', min: -3600, max: 3600, factor: 1 };

const DRAWN: Field = { key: 'drawn', label: 'Drawn there', unit: '%', min: 0, max: 100, factor: 100 };
const BEHIND: Field = { key: 'behind', label: 'Behind there', unit: '%', min: 0, max: 100, factor: 100 };

const SIDE: readonly Field[] = [
  ANGLE,
  DISTANCE,
  FADE,
  { key: 'scale', label: 'Size there', unit: '%', min: 0, max: 2_000, factor: 100 },
  { key: 'turn', label: 'Turn there', unit: '°', min: -3600, max: 3600, factor: 1 },
  { key: 'turnX', label: 'Turn x there', unit: '°', min: -3600, max: 3600, factor: 1 },
  { key: 'turnY', label: 'Turn y there', unit: '°', min: -3600, max: 3600, factor: 1 },
  { key: 'z', label: 'Away there', unit: 'px', min: -20_000, max: 20_000, factor: 1 },
  DRAWN,
  BEHIND,
];

/** The numbers of each kind of move. */
const FIELDS: { readonly [K in Move['kind']]: readonly Field[] } = {
  entrance: SIDE,
  exit: SIDE,
  passage: [ANGLE, DISTANCE, FADE, { key: 'drift', label: 'Drift', unit: 'px', min: -5_000, max: 5_000, factor: 1 }],
  emphasis: [
    { key: 'strength', label: 'Strength', unit: '%', min: 0, max: 100, factor: 100 },
    { key: 'times', label: 'Times', unit: '×', min: 1, max: 50, factor: 1, whole: true },
  ],
};

/** Whether a move that has a direction goes nowhere. */
const isStill = (move: Move): boolean => 'angle' in move && move.distance === 0 && !move.outside && !isSliding(move);

interface MoveCardProps {
  applied: AppliedMove;
  layers: readonly Id[];
}

/** A move of the selected layers, as long as its keyframes are as it wrote them. */
export const MoveCard = ({ applied, layers }: MoveCardProps) => {
  const editor = useEditor();
  const { id, move } = applied;
  // While it is scrubbed each step counts from where the move began.
  const [begin, setBegin] = useState<number | null>(null);
  const scene = editor.scene.id;
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  const change = (to: MoveChange) => editor.edit(changeMove(scene, layers, id, to, awayFrom(editor, id)));
  const set = (part: Partial<Record<string, number | boolean | string | Ease>>) =>
    change({ move: { ...move, ...part } as Move });
  const beside = useSlice((s) => seenBeside(sceneOf(s), layers, id).size);
  const numbers = move as unknown as Record<string, number>;
  return (
    <Card
      title={move.name}
      icon={<Wind size={15} />}
      aside={layers.length > 1 ? `${layers.length} layers` : `${applied.from} → ${applied.to}`}
    >
      {'angle' in move && (
        <div className={NAME_AND_FIELD}>
          <span className="text-ink-2">{move.kind === 'exit' ? 'Goes towards' : 'Comes from'}</span>
          <span className="flex items-center gap-0.5">
            {SIDES.map(({ angle, label, icon }) => (
              <IconButton
                key={label}
                label={label}
                size="small"
                pressed={move.angle === angle}
                onClick={() => set({ angle, ...(isStill(move) && { distance: 200 }) })}
              >
                {icon}
              </IconButton>
            ))}
            <label className="ml-1 flex items-center gap-1.5 text-sm" title="As far as it takes to be out of the scene">
              <input
                type="checkbox"
                checked={move.outside}
                onChange={(event) => set({ outside: event.target.checked })}
              />
              Outside
            </label>
          </span>
        </div>
      )}
      {[FRAMES, ...FIELDS[move.kind]]
        .filter((field) => !(field === DISTANCE && 'outside' in move && move.outside))
        .filter((field) => field !== DRAWN || applied.trims !== undefined)
        .filter((field) => field !== BEHIND || applied.wipe !== undefined)
        .map(({ key, label, unit, min, max, factor, whole }) => (
          <label key={key} className={NAME_AND_FIELD}>
            <span className="text-ink-2">{label}</span>
            <NumberField
              label={`${label} of the move`}
              unit={unit}
              min={min}
              max={max}
              {...(whole && { decimals: 0 })}
              value={(numbers[key] ?? 0) * factor}
              onChange={(v) => set({ [key]: (whole ? Math.round(v) : v) / factor })}
              {...gesture}
            />
          </label>
        ))}
      <label className={NAME_AND_FIELD}>
        <span className="text-ink-2">Begins at</span>
        <NumberField
          label="First frame of the move"
          unit="f"
          decimals={0}
          value={applied.from}
          onChange={(v) => change({ later: Math.round(v) - (begin ?? applied.from) })}
          onStart={() => {
            setBegin(applied.from);
            editor.begin();
          }}
          onEnd={() => {
            setBegin(null);
            editor.end();
          }}
        />
      </label>
      {beside > 0 && (
        <div className="flex items-center gap-2 text-sm text-sun">
          <span className="flex-1">
            {move.kind === 'exit' ? 'Goes on after it' : 'Seen before it'}
            {layers.length > 1 && `: ${beside} layer${beside === 1 ? '' : 's'}`}
          </span>
          <Button className="!h-6 !px-2 text-sm" onClick={() => editor.edit(trimToMove(scene, layers, id))}>
            {move.kind === 'exit' ? 'End the layer there' : 'Begin the layer there'}
          </Button>
        </div>
      )}
      <div role="group" aria-label="Ease of the move" className="grid grid-cols-4 gap-1">
        {PRESETS.filter((p) => p.ease.kind !== 'hold').map(({ name, ease }) => (
          <EaseTile
            key={name}
            name={name}
            ease={standsFor(ease, move.ease) ? move.ease : ease}
            on={standsFor(ease, move.ease)}
            onChoose={() => set({ ease })}
          />
        ))}
      </div>
      <EaseFields ease={move.ease} onChange={(ease) => set({ ease })} {...gesture} />
      <div className="flex gap-1">
        <KeepField
          label="Name for this move"
          onKeep={(name) => editor.edit(keepMove({ id: makeId(), move: { ...move, name } }))}
        />
        <IconButton
          label="Take this move and its keyframes away"
          size="small"
          onClick={() => editor.edit(removeMove(scene, layers, id))}
        >
          <Trash2 size={14} />
        </IconButton>
      </div>
    </Card>
  );
};
