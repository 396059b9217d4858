import { clsx } from 'clsx';
import { useEffect, useRef, useState } from 'react';

interface RenameFieldProps {
  label: string;
  value: string;
  onRename: (value: string) => void;
  className?: string;
  /** Asked for from outside, by a menu. */
  editing?: boolean;
  onDone?: () => void;
}

/** A name; a double click or Enter makes it a field. */
export const RenameField = ({ label, value, onRename, className, editing = false, onDone }: RenameFieldProps) => {
  const [own, setOwn] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const active = own || editing;
  useEffect(() => {
    if (active) input.current?.select();
  }, [active]);
  if (!active) {
    return (
      <span
        className={clsx('truncate', className)}
        title={value}
        onDoubleClick={(event) => {
          event.stopPropagation();
          setOwn(true);
        }}
      >
        {value}
      </span>
    );
  }
  const end = (save: boolean) => {
    const next = input.current?.value.trim() ?? '';
    setOwn(false);
    onDone?.();
    if (save && next && next !== value) onRename(next);
  };
  return (
    <input
      ref={input}
      aria-label={label}
      autoFocus
      maxLength={200}
      defaultValue={value}
      className={clsx('min-w-0 rounded-sm bg-paper px-1 ring-2 ring-sky outline-none', className)}
      onClick={(event) => event.stopPropagation()}
      onPointerDown={(event) => event.stopPropagation()}
      onBlur={() => end(true)}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') end(true);
        if (event.key === 'Escape') end(false);
      }}
    />
  );
};
