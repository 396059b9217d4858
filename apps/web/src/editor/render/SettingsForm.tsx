/** The settings of a render: of any format, for a scene or a film. */
import { checkSettings } from '@kite/core/check/settings';
import { type Format, formatOf, FORMATS, type RenderSettings } from '@kite/core/delivery/formats/table';
import { defaultSettings, isStill, planRender } from '@kite/core/delivery/settings';
import type { RenderPlan } from '@kite/core/delivery/types';
import type { Param } from '@kite/core/document/params';
import type { Scene, Value } from '@kite/core/document/types';
import { COMMON_RATES, framesPerSecond, parseRate, rateLabel } from '@kite/core/time/rate';
import { type ReactNode, useContext } from 'react';
import { COMMON_SIZES } from '../../pages/projects/sizes';
import { Button } from '../../ui/Button';
import { ColorToolsContext } from '../../ui/colorTools';
import { NumberField } from '../../ui/NumberField';
import { Segments } from '../../ui/Segments';
import { Select } from '../../ui/Select';
import { applies } from '../inspector/fields/applies';
import type { FieldProps } from '../inspector/fields/props';
import { useSlice } from '../store/context';
import { WeightBefore } from './WeightBefore';
import { fieldOf } from '../inspector/fields/table';

export const Row = ({ label, children }: { label: string; children: ReactNode }) => (
  <div className="grid grid-cols-[128px_1fr] items-center gap-3">
    <span className="text-ink-2">{label}</span>
    <span className="flex min-w-0 items-center gap-2">{children}</span>
  </div>
);

interface FrameFieldProps {
  label: string;
  value: number;
  /** The first and the last that it may be. */
  among: readonly [first: number, last: number];
  onChange: (frame: number) => void;
}

const FrameField = ({ label, value, among: [min, max], onChange }: FrameFieldProps) => (
  <NumberField
    label={label}
    className="w-24"
    value={value}
    min={min}
    max={max}
    decimals={0}
    onChange={(v) => onChange(Math.round(v))}
  />
);

type Gesture = FieldProps['gesture'];

/** The colours of swatches as a palette is written; nothing where there are too few. */
const inksOf = (swatches: readonly { readonly color: string }[]): string => {
  const colors = [...new Set(swatches.map(({ color }) => color.slice(0, 7)))].slice(0, 255);
  return colors.length < 2 ? '' : colors.join(' ');
};

/** Each setting is a change by itself, unless it is told otherwise. */
const AT_ONCE: Gesture = { onStart: () => undefined, onEnd: () => undefined };

/** A frame is one of the scene's. */
const inScene = (param: Param, { length }: Scene): Param =>
  param.kind === 'number' && param.unit === 'frames' ? { ...param, max: Math.min(param.max, length - 1) } : param;

const problemOf = (settings: RenderSettings): string | null => {
  try {
    checkSettings(settings);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
};

/** The plan of a render, or why there is none. */
export const planned = (scene: Scene, settings: RenderSettings): RenderPlan | string => {
  const problem = problemOf(settings);
  if (problem) return problem;
  try {
    return planRender(scene, settings);
  } catch (error) {
    return (error as Error).message;
  }
};

const VIDEO_SIZES = [
  { label: 'HD', width: 1280, height: 720 },
  { label: 'Ultra HD', width: 3840, height: 2160 },
];

/** By the scale that gives them: parts of the scene's own size, and sizes in use that have its proportions. */
const sizesFor = ({ width, height }: Scene) => [
  ...[1, 0.5, 2].map((scale) => ({
    value: String(scale),
    label: `${scale === 1 ? 'As the scene' : scale === 2 ? 'Twice' : 'Half'}, ${Math.round(width * scale)} × ${Math.round(height * scale)}`,
  })),
  ...[...COMMON_SIZES, ...VIDEO_SIZES]
    .filter((size) => {
      const scale = size.width / width;
      const fits = Math.abs(height * scale - size.height) <= 1;
      return fits && ![1, 0.5, 2].includes(scale);
    })
    .map(({ label, width: wide, height: tall }) => ({
      value: String(wide / width),
      label: `${label}, ${wide} × ${tall}`,
    })),
];

const ownSize = (scale: number) => ({ value: String(scale), label: 'A size of its own' });

/** What of a scene is in a range. */
const rangeShown = ({ from, to }: { readonly from: number; readonly to: number }, { length }: Scene) =>
  from === 0 && to === length ? 'whole' : to === from + 1 ? 'one' : 'part';

interface SettingsFormProps {
  scene: Scene;
  settings: RenderSettings;
  onChange: (settings: RenderSettings) => void;
  /** The frame that a still shows at first, and that a button puts there. */
  playhead: number;
  /** Frames that are played, where they are not the whole scene. */
  range: readonly [from: number, to: number] | null;
  /** What is typed into one field is one change. */
  gesture?: Gesture;
}

export const SettingsForm = ({
  scene,
  settings,
  onChange,
  playhead: frame,
  range,
  gesture = AT_ONCE,
}: SettingsFormProps) => {
  const set = (part: Partial<Record<string, unknown>>) => onChange({ ...settings, ...part } as RenderSettings);
  const chooseFormat = (format: Format) => {
    const next = defaultSettings(format, scene);
    const kept = { scale: settings.scale };
    onChange(
      isStill(next)
        ? { ...next, ...kept, frame }
        : isStill(settings)
          ? { ...next, ...kept }
          : { ...next, ...kept, rate: settings.rate, from: settings.from, to: settings.to },
    );
  };
  const kind = formatOf(settings.format);
  const values = settings as unknown as { readonly [key: string]: Value };
  const idle = kind.idle?.(scene) ?? [];
  const own = Object.entries(kind.params).filter(
    ([key, param]) => !idle.includes(key) && applies(param, values, kind.params),
  );
  const plan = planned(scene, settings);
  const sizes = sizesFor(scene);
  // A film is no scene of the project.
  const isOwn = useSlice((state) => scene.id in state.doc.scenes);
  const inks = inksOf(useContext(ColorToolsContext)?.swatches ?? []);
  const [from, to] = range ?? [Math.max(1, frame), scene.length];
  const ranges = {
    whole: { from: 0, to: scene.length },
    part: { from, to },
    one: { from: frame, to: frame + 1 },
  };
  return (
    <div className="flex flex-col gap-2.5">
      <Segments
        label="Format"
        value={settings.format}
        options={FORMATS.map(({ format, label }) => ({ value: format, label }))}
        onChange={chooseFormat}
        className="mb-1 !grid grid-cols-4"
      />
      <Row label="Size">
        <NumberField
          label="Scale"
          className="w-24"
          value={settings.scale * 100}
          min={1}
          max={800}
          unit="%"
          onChange={(v) => set({ scale: v / 100 })}
        />
        <Select
          aria-label="Sizes in use"
          className="w-64"
          value={String(settings.scale)}
          options={
            sizes.some(({ value }) => value === String(settings.scale)) ? sizes : [ownSize(settings.scale), ...sizes]
          }
          onChange={(scale) => set({ scale: Number(scale) })}
        />
      </Row>
      {isStill(settings) ? (
        <Row label="Frame">
          <FrameField
            label="Frame to render"
            value={settings.frame}
            among={[0, scene.length - 1]}
            onChange={(to) => set({ frame: to })}
          />
          <Button className="!h-[26px] !px-2 text-sm" onClick={() => set({ frame })}>
            At the playhead
          </Button>
        </Row>
      ) : (
        <>
          <Row label="Frames a second">
            <Select
              aria-label="Frames a second"
              className="w-44"
              value={settings.rate ? rateLabel(settings.rate) : ''}
              options={[
                { value: '', label: `The scene’s own (${rateLabel(scene.rate)})` },
                ...COMMON_RATES.filter((r) => rateLabel(r) !== rateLabel(scene.rate)).map((r) => ({
                  value: rateLabel(r),
                  label: rateLabel(r),
                })),
              ]}
              onChange={(text) => set({ rate: text === '' ? null : parseRate(text) })}
            />
          </Row>
          <Row label="Range">
            <Segments
              label="Range"
              value={rangeShown(settings, scene)}
              options={[
                { value: 'whole', label: 'Whole scene' },
                { value: 'part', label: range ? `Play range, ${from} to ${to - 1}` : 'From here on' },
                { value: 'one', label: 'One frame' },
              ]}
              onChange={(which) => set(ranges[which])}
            />
          </Row>
          <Row label="First and last">
            <FrameField
              label="First frame to render"
              value={settings.from}
              among={[0, settings.to - 1]}
              onChange={(first) => set({ from: first })}
            />
            <FrameField
              label="Last frame to render"
              value={settings.to - 1}
              among={[settings.from, scene.length - 1]}
              onChange={(last) => set({ to: last + 1 })}
            />
          </Row>
        </>
      )}
      {own.map(([key, param]) => {
        const { Field } = fieldOf(param);
        return (
          <Row key={key} label={param.label}>
            <div className={param.kind === 'number' ? 'w-24' : 'min-w-0 grow'}>
              <Field
                param={inScene(param, scene)}
                values={[values[key] ?? param.default]}
                refs={[]}
                gesture={gesture}
                write={(value) => set({ [key]: value })}
              />
            </div>
            {param.hint !== undefined && <span className="shrink-0 text-ink-2">{param.hint}</span>}
            {param.kind === 'text' && param.form === 'colors' && inks !== '' && (
              <Button className="!h-[26px] !px-2 text-sm" onClick={() => set({ [key]: inks })}>
                The swatches
              </Button>
            )}
          </Row>
        );
      })}
      {typeof plan !== 'string' && isOwn && (
        <WeightBefore key={JSON.stringify(settings)} scene={scene.id} settings={settings} />
      )}
      <div className="mt-1 rounded-md bg-paper-2 p-2.5 text-sm" role="status">
        {typeof plan === 'string' ? (
          <span className="text-kite">{plan}</span>
        ) : (
          <>
            <span className="tabular font-medium">
              {plan.width} × {plan.height} px
              {!isStill(settings) &&
                ` · ${plan.frames.length} ${plan.frames.length === 1 ? 'frame' : 'frames'} at ${rateLabel(plan.rate)} a second · ${(plan.frames.length / framesPerSecond(plan.rate)).toFixed(2)} s`}
            </span>
            {plan.notes.map((note) => (
              <span key={note} className="mt-1 block text-sun">
                {note}
              </span>
            ))}
          </>
        )}
      </div>
    </div>
  );
};
