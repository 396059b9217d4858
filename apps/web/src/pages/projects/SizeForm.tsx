import { yupResolver } from '@hookform/resolvers/yup';
import type { SceneSize } from '@kite/core/document/make';
import { COMMON_RATES, framesPerSecond, parseRate, rateLabel } from '@kite/core/time/rate';
import { LIMITS } from '@kite/core/check/schema';
import { clsx } from 'clsx';
import type { ReactNode } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import * as yup from 'yup';
import { Select } from '../../ui/Select';
import { SIZES } from './sizes';

const side = (label: string) =>
  yup
    .number()
    .typeError(`${label}: a whole number of pixels`)
    .integer(`${label}: a whole number of pixels`)
    .min(1, `${label}: at least 1`)
    .max(LIMITS.side, `${label}: at most ${LIMITS.side}`)
    .required();

const schema = yup.object({
  name: yup.string().trim().required('Give it a name').max(LIMITS.name, `At most ${LIMITS.name} characters`),
  width: side('Width'),
  height: side('Height'),
  rate: yup.string().required(),
  seconds: yup
    .number()
    .typeError('Seconds: a number')
    .moreThan(0, 'Seconds: more than 0')
    .max(3_600, 'Seconds: at most an hour')
    .required(),
  transparent: yup.boolean().required(),
  background: yup.string().required(),
});
type Fields = yup.InferType<typeof schema>;

interface SizeFormProps {
  /** The label of the name field. */
  name: string;
  suggested: string;
  submit: (busy: boolean) => ReactNode;
  onSubmit: (name: string, size: SceneSize) => void | Promise<void>;
}

/** A name and a size: picked by what it is for, or typed. */
export const SizeForm = ({ name, suggested, submit, onSubmit }: SizeFormProps) => {
  const { register, handleSubmit, setValue, control, formState } = useForm<Fields>({
    resolver: yupResolver(schema),
    defaultValues: {
      name: suggested,
      width: 1920,
      height: 1080,
      rate: '30',
      seconds: 4,
      transparent: false,
      background: '#1B1F4B',
    },
  });
  const [width, height, rate, transparent] = useWatch({ control, name: ['width', 'height', 'rate', 'transparent'] });
  const send = handleSubmit(async (f) => {
    const parsed = parseRate(f.rate) ?? { num: 30, den: 1 };
    await onSubmit(f.name, {
      width: f.width,
      height: f.height,
      rate: parsed,
      length: Math.max(1, Math.round(f.seconds * framesPerSecond(parsed))),
      background: f.transparent ? null : f.background.toUpperCase(),
    });
  });
  const error = Object.values(formState.errors)[0]?.message;
  const field = 'h-[28px] w-full rounded-md bg-paper-2 px-2';
  return (
    <form onSubmit={(event) => void send(event)} className="flex flex-col gap-4" noValidate>
      <label className="flex flex-col gap-1">
        <span className="text-ink-2">{name}</span>
        <input {...register('name')} autoFocus className={field} onFocus={(event) => event.target.select()} />
      </label>
      <fieldset>
        <legend className="mb-1 text-ink-2">Size, by what it is for</legend>
        <div className="grid grid-cols-4 gap-2">
          {SIZES.map((s) => {
            const on = Number(width) === s.width && Number(height) === s.height;
            const scale = 34 / Math.max(s.width, s.height);
            return (
              <button
                key={s.label}
                type="button"
                aria-pressed={on}
                onClick={() => {
                  setValue('width', s.width);
                  setValue('height', s.height);
                  setValue('rate', s.fps);
                  setValue('seconds', s.seconds);
                }}
                className={clsx(
                  'flex h-[98px] flex-col items-center justify-end gap-1 rounded-md border px-1 pb-2 text-center',
                  on ? 'border-sky bg-sky-2' : 'border-line hover:bg-paper-2',
                )}
              >
                <span className="grid h-9 place-items-center">
                  <span
                    className="border border-ink-2 bg-paper"
                    style={{ width: Math.max(4, s.width * scale), height: Math.max(4, s.height * scale) }}
                  />
                </span>
                <span className="text-sm leading-4">{s.label}</span>
                <span className="tabular text-xs leading-3 text-ink-2">
                  {s.width}×{s.height}
                </span>
              </button>
            );
          })}
        </div>
      </fieldset>
      <div className="grid grid-cols-4 gap-2">
        <label className="flex flex-col gap-1">
          <span className="text-ink-2">Width, px</span>
          <input {...register('width')} inputMode="numeric" className={`${field} tabular`} />
        </label>
        <label className="flex flex-col gap-1">
          <span className="text-ink-2">Height, px</span>
          <input {...register('height')} inputMode="numeric" className={`${field} tabular`} />
        </label>
        <label className="flex flex-col gap-1">
          <span className="text-ink-2">Frames a second</span>
          <Select
            aria-label="Frames a second"
            value={rate}
            options={COMMON_RATES.map((r) => ({ value: rateLabel(r), label: rateLabel(r) }))}
            onChange={(value) => setValue('rate', value)}
          />
        </label>
        <label className="flex flex-col gap-1">
          <span className="text-ink-2">Length, seconds</span>
          <input {...register('seconds')} inputMode="decimal" className={`${field} tabular`} />
        </label>
      </div>
      <div className="flex items-center gap-3">
        <span className="text-ink-2">Background</span>
        <input
          type="color"
          aria-label="Background colour"
          disabled={transparent}
          {...register('background')}
          className="h-7 w-10 disabled:opacity-40"
        />
        <label className="flex items-center gap-2">
          <input type="checkbox" {...register('transparent')} /> Transparent
        </label>
      </div>
      <div className="flex items-center justify-between gap-3">
        <p role="alert" className="text-kite">
          {error}
        </p>
        {submit(formState.isSubmitting)}
      </div>
    </form>
  );
};
