import { Link2 } from 'lucide-react';
import { useContext, useState } from 'react';
import { ColorToolsContext, rememberColor } from './colorTools';
import { later } from './later';
import { useLasting } from './useLasting';
import { Panel } from './Panel';

export const ColorPanel = later(async () => (await import('./ColorPanel')).ColorPanel, <div className="h-56" />);

interface ColorFieldProps {
  label: string;
  value: string | null;
  onStart?: () => void;
  onChange: (value: string) => void;
  onEnd?: () => void;
  /** How the colour is taken from a swatch, where it can be: it follows that. */
  link?: SwatchLink;
}

export interface SwatchLink {
  /** The swatch that it is taken from. */
  readonly id: string | undefined;
  readonly take: (id: string) => void;
  readonly detach: () => void;
}

export const Swatch = ({ color }: { color: string | null }) => (
  <span
    className="block size-4 shrink-0 rounded-sm border border-line"
    style={{
      background: color
        ? `linear-gradient(${color}, ${color}), repeating-conic-gradient(#ccc 0 25%, #fff 0 50%) 0 0 / 8px 8px`
        : 'none',
    }}
  />
);

export const ColorField = ({ label, value, onStart, onChange, onEnd, link }: ColorFieldProps) => {
  const [open, setOpen] = useState(false);
  const tools = useContext(ColorToolsContext);
  const choosing = useLasting(onStart, onEnd);
  const linked = tools?.swatches.find(({ id }) => id === link?.id);
  const change = (next: boolean) => {
    setOpen(next);
    if (next) choosing.start();
    else {
      if (value) rememberColor(value.toUpperCase());
      choosing.end();
    }
  };
  const sample = () => {
    change(false);
    tools?.sample((color) => {
      onStart?.();
      onChange(color);
      onEnd?.();
    });
  };
  return (
    <Panel
      label={label}
      open={open}
      onOpenChange={change}
      className="w-56 gap-2 p-3"
      opener={
        <button
          type="button"
          aria-label={label}
          className="tabular flex h-[26px] w-full min-w-0 items-center gap-2 rounded-md bg-paper-2 px-2 text-left"
        >
          <Swatch color={value} />
          <span className="min-w-0 flex-1 truncate">{linked?.name ?? value?.toUpperCase() ?? 'mixed'}</span>
          {linked && <Link2 size={12} className="shrink-0 text-sky" aria-label="From a swatch" />}
        </button>
      }
    >
      <ColorPanel
        label={label}
        value={value}
        onChange={onChange}
        onSample={sample}
        {...(link && { link })}
        {...(linked && { linked })}
      />
    </Panel>
  );
};
