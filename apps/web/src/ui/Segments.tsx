import { clsx } from 'clsx';
import { ToggleGroup } from 'radix-ui';

interface SegmentsProps<V extends string> {
  label: string;
  value: V | null;
  options: readonly { readonly value: V; readonly label: string }[];
  onChange: (value: V) => void;
  className?: string;
}

/** One of a few, all in view. */
export const Segments = <V extends string>({ label, value, options, onChange, className }: SegmentsProps<V>) => (
  <ToggleGroup.Root
    type="single"
    aria-label={label}
    value={value ?? ''}
    onValueChange={(next) => next && onChange(next as V)}
    className={clsx('inline-flex rounded-md bg-paper-2 p-0.5', className)}
  >
    {options.map((o) => (
      <ToggleGroup.Item
        key={o.value}
        value={o.value}
        className="h-6 flex-1 rounded-[5px] px-2.5 text-sm whitespace-nowrap text-ink-2 hover:text-ink data-[state=on]:bg-paper data-[state=on]:font-medium data-[state=on]:text-ink data-[state=on]:shadow-sm"
      >
        {o.label}
      </ToggleGroup.Item>
    ))}
  </ToggleGroup.Root>
);
