import { Popover } from 'radix-ui';
import { useState } from 'react';
import { HexAlphaColorPicker, HexColorInput } from 'react-colorful';

interface ColorFieldProps {
  label: string;
  value: string | null;
  onStart?: () => void;
  onChange: (value: string) => void;
  onEnd?: () => void;
}

/** `#RRGGBB`, or with alpha where it is not full. */
const tidy = (hex: string): string => {
  const long = hex.length <= 5 ? `#${[...hex.slice(1)].map((c) => c + c).join('')}` : hex;
  return (/^#[0-9a-f]{6}ff$/i.test(long) ? long.slice(0, 7) : long).toUpperCase();
};

export const Swatch = ({ color }: { color: string | null }) => (
  <span
    className="size-4 shrink-0 rounded-sm border border-line"
    style={{
      background: color
        ? `linear-gradient(${color}, ${color}), repeating-conic-gradient(#ccc 0 25%, #fff 0 50%) 0 0 / 8px 8px`
        : 'none',
    }}
  />
);

export const ColorField = ({ label, value, onStart, onChange, onEnd }: ColorFieldProps) => {
  const [open, setOpen] = useState(false);
  const change = (next: boolean) => {
    setOpen(next);
    if (next) onStart?.();
    else onEnd?.();
  };
  return (
    <Popover.Root open={open} onOpenChange={change}>
      <Popover.Trigger
        aria-label={label}
        className="tabular flex h-[26px] w-full min-w-0 items-center gap-2 rounded-md bg-paper-2 px-2 text-left"
      >
        <Swatch color={value} />
        <span className="truncate">{value?.toUpperCase() ?? 'mixed'}</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="left"
          sideOffset={8}
          className="z-50 flex w-56 flex-col gap-2 rounded-md border border-line bg-paper p-3 shadow-lg"
          onKeyDown={(event) => event.key !== 'Escape' && event.stopPropagation()}
        >
          <HexAlphaColorPicker
            color={value ?? '#000000'}
            onChange={(hex) => tidy(hex) !== value?.toUpperCase() && onChange(tidy(hex))}
            style={{ width: '100%', height: 150 }}
          />
          <HexColorInput
            aria-label={`${label}, as hex`}
            prefixed
            alpha
            color={value ?? '#000000'}
            onChange={(hex) => onChange(tidy(hex))}
            className="tabular h-[26px] rounded-md bg-paper-2 px-2"
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
};
