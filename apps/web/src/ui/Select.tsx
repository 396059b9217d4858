import { clsx } from 'clsx';
import { ChevronDown } from 'lucide-react';
import { type SelectHTMLAttributes, useState } from 'react';

interface SelectProps extends Omit<SelectHTMLAttributes<HTMLSelectElement>, 'onChange'> {
  options: readonly { readonly value: string; readonly label: string }[];
  onChange: (value: string) => void;
}

/** Of more than so many choices only the chosen one is there until somebody comes to the list: all layers of a large scene. */
const MANY = 60;

/** The browser's own list: it works with every keyboard and reader there is. */
export const Select = ({ options, onChange, className, ...rest }: SelectProps) => {
  const [here, setHere] = useState(false);
  const shown = here || options.length <= MANY ? options : options.filter(({ value }) => value === rest.value);
  return (
    <span className={clsx('relative inline-flex min-w-0', className)}>
      <select
        onPointerDown={() => setHere(true)}
        onFocus={() => setHere(true)}
        onBlur={() => setHere(false)}
        className="h-[26px] w-full min-w-0 appearance-none truncate rounded-md bg-paper-2 pr-6 pl-2 text-ink"
        onChange={(event) => onChange(event.target.value)}
        {...rest}
      >
        {shown.map(({ value, label }) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </select>
      <ChevronDown size={13} className="pointer-events-none absolute top-1.5 right-1.5 text-ink-2" />
    </span>
  );
};
