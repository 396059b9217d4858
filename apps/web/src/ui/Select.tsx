import { clsx } from 'clsx';
import { ChevronDown } from 'lucide-react';
import type { SelectHTMLAttributes } from 'react';

interface SelectProps extends Omit<SelectHTMLAttributes<HTMLSelectElement>, 'onChange'> {
  options: readonly { readonly value: string; readonly label: string }[];
  onChange: (value: string) => void;
}

/** The browser's own list: it works with every keyboard and reader there is. */
export const Select = ({ options, onChange, className, ...rest }: SelectProps) => (
  <span className={clsx('relative inline-flex min-w-0', className)}>
    <select
      className="h-[26px] w-full min-w-0 appearance-none truncate rounded-md bg-paper-2 pr-6 pl-2 text-ink"
      onChange={(event) => onChange(event.target.value)}
      {...rest}
    >
      {options.map(({ value, label }) => (
        <option key={value} value={value}>
          {label}
        </option>
      ))}
    </select>
    <ChevronDown size={13} className="pointer-events-none absolute top-1.5 right-1.5 text-ink-2" />
  </span>
);
