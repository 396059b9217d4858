import { type SavedSize, SIZES } from '@kite/api/library';
import { yupResolver } from '@hookform/resolvers/yup';
import type { SceneSize } from '@kite/core/document/make';
import { COMMON_RATES, framesPerSecond, parseRate, rateLabel } from '@kite/core/time/rate';
import { LIMITS } from '@kite/core/document/limits';
import { clsx } from 'clsx';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import * as yup from 'yup';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { sayGone, sayWrong } from '../../ui/says';
import { Select } from '../../ui/Select';
import { COMMON_SIZES, type NamedSize } from './sizes';

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

const sizeOf = (f: Fields): SceneSize => {
  const rate = parseRate(f.rate) ?? { num: 30, den: 1 };
  return {
    width: f.width,
    height: f.height,
    rate,
    length: Math.max(1, Math.round(f.seconds * framesPerSecond(rate))),
    background: f.transparent ? null : f.background.toUpperCase(),
  };
};

const SizeCard = ({ label, width, height, on, onChoose }: NamedSize & { on: boolean; onChoose: () => void }) => {
  const scale = 34 / Math.max(width, height);
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onChoose}
      className={clsx(
        'flex h-[98px] flex-col items-center justify-end gap-1 rounded-md border px-1 pb-2 text-center',
        on ? 'border-sky bg-sky-2' : 'border-line hover:bg-paper-2',
      )}
    >
      <span className="grid h-9 place-items-center">
        <span
          className="border border-ink-2 bg-paper"
          style={{ width: Math.max(4, width * scale), height: Math.max(4, height * scale) }}
        />
      </span>
      <span className="text-sm leading-4">{label}</span>
      <span className="tabular text-xs leading-3 text-ink-2">{`${width}×${height}`}</span>
    </button>
  );
};

interface SizeFormProps {
  /** The label of the name field. */
  name: string;
  suggested: string;
  /** What it begins with; else the commonest size. */
  size?: SceneSize;
  submit: (busy: boolean) => ReactNode;
  onSubmit: (name: string, size: SceneSize) => void | Promise<void>;
}

const FIRST = { width: 1920, height: 1080, rate: '30', seconds: 4, transparent: false, background: '#FFFFFF' };

const secondsOf = ({ length, rate }: SceneSize): number => Number((length / framesPerSecond(rate)).toFixed(3));

const fieldsOf = (size: SceneSize): Omit<Fields, 'name'> => ({
  width: size.width,
  height: size.height,
  rate: rateLabel(size.rate),
  seconds: secondsOf(size),
  transparent: size.background === null,
  // Fields of colours know of no alpha.
  background: size.background?.slice(0, 7) ?? FIRST.background,
});

/** A name and a size: picked by what it is for, or typed. */
export const SizeForm = ({ name, suggested, size: own, submit, onSubmit }: SizeFormProps) => {
  const { register, handleSubmit, setValue, getValues, trigger, control, formState } = useForm<Fields>({
    resolver: yupResolver(schema),
    defaultValues: { name: suggested, ...(own ? fieldsOf(own) : FIRST) },
  });
  const [width, height, rate, transparent] = useWatch({ control, name: ['width', 'height', 'rate', 'transparent'] });
  const queries = useQueryClient();
  const sizes = useQuery({ queryKey: ['sizes'], queryFn: () => ask(SIZES.list) });
  const refresh = () => queries.invalidateQueries({ queryKey: ['sizes'] });
  const again = { onError: sayWrong, onSettled: refresh };
  const save = useMutation({ mutationFn: (kept: Omit<SavedSize, 'id'>) => ask(SIZES.keep, kept), ...again });
  const remove = useMutation({
    mutationFn: ({ id }: SavedSize) => ask(SIZES.remove, { id }),
    onSuccess: (_, { id, ...kept }) =>
      sayGone(`The size “${kept.name}” was removed.`, async () => {
        await ask(SIZES.keep, kept);
        await refresh();
      }),
    ...again,
  });
  const [sizeName, setSizeName] = useState('');
  const take = (s: NamedSize) => {
    setValue('width', s.width);
    setValue('height', s.height);
    setValue('rate', s.fps);
    setValue('seconds', s.seconds);
  };
  const takeSaved = (size: SceneSize) => {
    const { background, ...rest } = fieldsOf(size);
    for (const [key, value] of Object.entries(rest)) setValue(key as keyof typeof rest, value);
    if (size.background) setValue('background', background);
  };
  /** The size alone has to be right for that, not the name above it. */
  const keep = async () => {
    if (!(await trigger(['width', 'height', 'rate', 'seconds', 'background']))) return;
    save.mutate({ name: sizeName.trim(), size: sizeOf(schema.cast(getValues()) as Fields) });
    setSizeName('');
  };
  const send = handleSubmit((f) => onSubmit(f.name, sizeOf(f)));
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
          {COMMON_SIZES.map((s) => (
            <SizeCard
              key={s.label}
              {...s}
              on={Number(width) === s.width && Number(height) === s.height}
              onChoose={() => take(s)}
            />
          ))}
        </div>
        {(sizes.data ?? []).length > 0 && (
          <div className="mt-2 flex flex-wrap gap-1.5">
            {sizes.data?.map((own) => (
              <span key={own.id} className="flex h-7 items-center rounded-md border border-line">
                <button
                  type="button"
                  className="h-full rounded-md px-2 hover:bg-paper-2"
                  onClick={() => takeSaved(own.size)}
                >
                  {own.name}{' '}
                  <span className="tabular text-xs text-ink-2">{`${own.size.width}×${own.size.height}`}</span>
                </button>
                <button
                  type="button"
                  aria-label={`Remove the size ${own.name}`}
                  className="grid size-6 place-items-center text-ink-2 hover:text-ink"
                  onClick={() => remove.mutate(own)}
                >
                  <X size={12} />
                </button>
              </span>
            ))}
          </div>
        )}
        <div className="mt-2 flex items-center gap-1.5">
          <input
            aria-label="Name for this size"
            placeholder="Keep this size under a name"
            value={sizeName}
            maxLength={LIMITS.name}
            className="h-[26px] w-56 rounded-md bg-paper-2 px-2"
            onChange={(event) => setSizeName(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              event.preventDefault();
              void keep();
            }}
          />
          <Button className="!h-[26px] !px-2 text-sm" disabled={sizeName.trim() === ''} onClick={() => void keep()}>
            Keep
          </Button>
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
