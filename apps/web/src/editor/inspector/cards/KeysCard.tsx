import { CommandButton } from '../../commands/CommandButton';
import type { NumberParam, Param, PointParam } from '@kite/core/document/params';
import {
  isKeyed,
  type Keyframe,
  type Point,
  type Project,
  type PropertyRef,
  type Value,
} from '@kite/core/document/types';
import { paramAt, propertyAt } from '@kite/core/properties/find';
import {
  changeKey,
  choiceAt,
  type KeyChoice,
  moveKeys,
  reachOf,
  setEven,
  spin,
  stretchedTo,
  stretchKeys,
} from '@kite/core/edits/keyframes';
import { type Edit, together } from '@kite/core/document/patches';
import { ClipboardCopy, ClipboardPaste, ArrowLeftRight, Merge, Repeat1, Spline, Split, Waypoints } from 'lucide-react';
import { useState } from 'react';
import { IconButton } from '../../../ui/Button';
import { setApart } from '@kite/core/edits/properties';
import { ColorField } from '../../../ui/ColorField';
import { alike } from '../../../ui/alike';
import { CheckField } from '../../../ui/CheckField';
import { NumberField } from '../../../ui/NumberField';
import { SeveralNumbers } from '../../../ui/SeveralNumbers';
import { useEditor, useSlice } from '../../store/context';
import { Card } from './Card';
import { FlashFields } from '../fields/FlashFields';
import { factorOf, UNITS } from '../fields/units';
import { NAME_AND_FIELD } from '../row';

const ICON = 15;

interface ValueFieldProps {
  param: Param;
  /** Of each of the keyframes. */
  values: readonly Value[];
  /** Gives each another one. */
  onChange: (values: readonly Value[]) => void;
  onStart: () => void;
  onEnd: () => void;
}

const numberProps = (param: NumberParam | PointParam) => {
  const factor = factorOf(param.unit);
  const unit = UNITS[param.unit];
  return { factor, step: param.step * factor, ...(unit && { unit }) };
};

/** The value of one keyframe or of several, by number or colour; other kinds are edited at their frame. */
const ValueField = ({ param, values, onChange, ...gesture }: ValueFieldProps) => {
  if (param.kind === 'color') {
    const color = alike(values as readonly string[]);
    return (
      <ColorField
        label="Value of the keyframe"
        value={color}
        onChange={(v) => onChange(values.map(() => v))}
        {...gesture}
      />
    );
  }
  if (param.kind === 'number') {
    const { factor, ...rest } = numberProps(param);
    return (
      <SeveralNumbers
        label="Value of the keyframe"
        values={values.map((value) => (value as number) * factor)}
        min={param.min * factor}
        max={param.max * factor}
        {...rest}
        onChange={(each) => onChange(each.map((v) => v / factor))}
        {...gesture}
      />
    );
  }
  if (param.kind !== 'point') return <span className="text-ink-2">edited in its own field, at its frame</span>;
  const points = values as readonly Point[];
  const { factor, unit: _unit, ...rest } = numberProps(param);
  const field = (axis: 0 | 1) => (
    <SeveralNumbers
      label={`Value of the keyframe, ${axis === 0 ? 'x' : 'y'}`}
      before={<span className="text-xs text-ink-2">{axis === 0 ? 'x' : 'y'}</span>}
      values={points.map((p) => p[axis] * factor)}
      min={-param.limit * factor}
      max={param.limit * factor}
      className="flex-1"
      {...rest}
      onChange={(each) =>
        onChange(points.map((p, i) => p.with(axis, (each[i] as number) / factor) as unknown as Point))
      }
      {...gesture}
    />
  );
  return (
    <span className="flex min-w-0 gap-1">
      {field(0)}
      {field(1)}
    </span>
  );
};

/** A keyframe and what it is one of. */
interface Chosen {
  readonly ref: PropertyRef;
  readonly key: Keyframe;
}

/** The selected keyframes, where all are of properties that are called alike; else none. */
const alikeKeys = (doc: Project, keys: readonly KeyChoice[], param: Param): readonly Chosen[] => {
  const chosen = keys.map(({ ref, frames }): readonly Chosen[] => {
    const [own, property] = [paramAt(doc, ref), propertyAt(doc, ref)];
    if (own?.kind !== param.kind || own.label !== param.label || !isKeyed(property)) return [];
    return property.keys.filter((k) => frames.includes(k.frame)).map((key) => ({ ref, key }));
  });
  return chosen.every((list) => list.length > 0) ? chosen.flat() : [];
};

/** Whole turns of the span that starts at the selected keyframe of an angle. */
const TurnsField = ({ refTo, from, to }: { refTo: PropertyRef; from: Keyframe; to: Keyframe }) => {
  const editor = useEditor();
  return (
    <label className={NAME_AND_FIELD}>
      <span className="text-ink-2" title="Of this span. Negative ones turn the other way round.">
        Turns
      </span>
      <NumberField
        label="Turns of this span"
        value={((to.value as number) - (from.value as number)) / 360}
        min={-100}
        max={100}
        step={0.25}
        onChange={(turns) => editor.edit(spin(refTo, from.frame, turns))}
        onStart={() => editor.begin()}
        onEnd={() => editor.end()}
      />
    </label>
  );
};

/** Shown while keyframes are selected: when they are, and what is done to all of them at once. */
export const KeysCard = () => {
  const editor = useEditor();
  const { doc, keys } = useSlice((s) => ({ doc: s.doc, keys: s.selection.keys }));
  const [held, setHeld] = useState<{ keys: readonly KeyChoice[]; first: number; last: number } | null>(null);
  const ref = keys[0]?.ref;
  const param = ref && paramAt(doc, ref);
  const property = ref && propertyAt(doc, ref);
  if (!ref || !param || !isKeyed(property)) return null;
  const [first, last] = reachOf(keys);
  const count = keys.reduce((sum, c) => sum + c.frames.length, 0);
  const alike = alikeKeys(doc, keys, param);
  const key = alike.length === 1 ? (alike[0]?.key ?? null) : null;
  const gesture = { onStart: () => editor.begin(), onEnd: () => editor.end() };
  // While a field is scrubbed each step starts from the keyframes as they were.
  const start = held ?? { keys, first, last };
  const timing = {
    onStart: () => {
      setHeld({ keys, first, last });
      editor.begin();
    },
    onEnd: () => {
      setHeld(null);
      editor.end();
    },
  };
  const go = (edit: Edit, to: (frame: number) => number) => {
    editor.edit(edit);
    editor.select({ layers: editor.state.selection.layers, keys: choiceAt(start.keys, to) });
  };
  const move = (frame: number) => {
    const by = Math.round(frame) - start.first;
    go(moveKeys(start.keys, by), (f) => f + by);
  };
  const stretch = (frame: number) => {
    const to = Math.max(start.first + 1, Math.round(frame));
    go(stretchKeys(start.keys, start.first, start.last, to), stretchedTo(start.first, start.last, to));
  };
  const next = key && property.keys[property.keys.indexOf(key) + 1];
  const { part: _part, ...wholeRef } = ref;
  const whole = paramAt(doc, wholeRef);
  const path = ref.key === 'position' && param.kind === 'point';
  return (
    <Card title="Keyframes" icon={<Waypoints size={ICON} />} aside={`${count} selected`}>
      <div className="grid grid-cols-2 gap-2">
        <label className="flex flex-col gap-0.5 text-sm text-ink-2">
          {first === last ? 'At frame' : 'From frame'}
          <NumberField label="Frame of the keyframes" value={first} min={0} decimals={0} onChange={move} {...timing} />
        </label>
        {first !== last && (
          <label className="flex flex-col gap-0.5 text-sm text-ink-2">
            To, in proportion
            <NumberField
              label="Last frame of the keyframes"
              value={last}
              min={first + 1}
              decimals={0}
              onChange={stretch}
              {...timing}
            />
          </label>
        )}
      </div>
      {alike.length > 0 && (
        <div className={NAME_AND_FIELD}>
          <span className="truncate text-ink-2">{param.label}</span>
          <ValueField
            param={param}
            values={alike.map((own) => own.key.value)}
            onChange={(to) =>
              editor.edit(
                together(
                  alike.length === 1 ? 'Change a keyframe' : 'Change keyframes',
                  alike.map((own, i) => changeKey(own.ref, own.key.frame, { value: to[i] as Value })),
                ),
              )
            }
            {...gesture}
          />
        </div>
      )}
      {key && next && param.kind === 'number' && param.unit === 'deg' && (
        <TurnsField refTo={ref} from={key} to={next} />
      )}
      <div className="flex gap-0.5">
        <CommandButton command="reverse" label="Reverse">
          <ArrowLeftRight size={ICON} />
        </CommandButton>
        <CommandButton command="repeatFirst">
          <Repeat1 size={ICON} />
        </CommandButton>
        <CommandButton command="copy" label="Copy keyframes">
          <ClipboardCopy size={ICON} />
        </CommandButton>
        <CommandButton command="paste">
          <ClipboardPaste size={ICON} />
        </CommandButton>
        {path && (
          <>
            <CommandButton command="smooth">
              <Spline size={ICON} />
            </CommandButton>
            <CommandButton command="straighten">
              <Waypoints size={ICON} />
            </CommandButton>
          </>
        )}
        {whole?.kind === 'point' && (
          <IconButton
            label={ref.part === undefined ? 'Take x and y apart' : 'Bring x and y together'}
            onClick={() => editor.edit(setApart(wholeRef, ref.part === undefined))}
          >
            {ref.part === undefined ? <Split size={ICON} /> : <Merge size={ICON} />}
          </IconButton>
        )}
      </div>
      {path && (
        <CheckField
          label="One pace along the whole path"
          checked={property.even === true}
          onChange={(even) => editor.edit(setEven(ref, even))}
        />
      )}
      {param.kind === 'color' && <FlashFields refTo={ref} reach={[first, last]} />}
    </Card>
  );
};
