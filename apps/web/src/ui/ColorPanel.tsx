import { Link2, Link2Off, Pipette, Plus } from 'lucide-react';
import { type ReactNode, useContext } from 'react';
import { HexAlphaColorPicker, HexColorInput } from 'react-colorful';
import { Swatch, type SwatchLink } from './ColorField';
import { ColorToolsContext, recentColors } from './colorTools';

/** `#RRGGBB`, or with alpha where it is not full. */
const tidy = (hex: string): string => {
  const long = hex.length <= 5 ? `#${[...hex.slice(1)].map((c) => c + c).join('')}` : hex;
  return (/^#[0-9a-f]{6}ff$/i.test(long) ? long.slice(0, 7) : long).toUpperCase();
};

interface DotsProps {
  title: string;
  colors: readonly { readonly key: string; readonly color: string; readonly name: string }[];
  onChoose: (color: string, key: string) => void;
  onRemove?: (key: string) => void;
  children?: ReactNode;
}

const Dots = ({ title, colors, onChoose, onRemove, children }: DotsProps) => (
  <div className="flex flex-col gap-1">
    <span className="text-xs text-ink-2">{title}</span>
    <span className="flex flex-wrap items-center gap-1">
      {colors.map(({ key, color, name }) => (
        <button
          key={key}
          type="button"
          aria-label={name}
          title={onRemove ? `${name}; Alt-click removes it` : name}
          className="rounded-sm"
          onClick={(event) => (event.altKey && onRemove ? onRemove(key) : onChoose(color, key))}
        >
          <Swatch color={color} />
        </button>
      ))}
      {children}
    </span>
  </div>
);

interface ColorPanelProps {
  label: string;
  value: string | null;
  onChange: (value: string) => void;
  onSample: () => void;
  link?: SwatchLink;
  /** The swatch that the colour is taken from. */
  linked?: { readonly name: string };
}

/** Where a colour field's colour is chosen: by its shade, as hex, from the canvas, from swatches and what was used lately. */
export const ColorPanel = ({ label, value, onChange, onSample, link, linked }: ColorPanelProps) => {
  const tools = useContext(ColorToolsContext);
  return (
    <>
      <HexAlphaColorPicker
        color={value ?? '#000000'}
        onChange={(hex) => tidy(hex) !== value?.toUpperCase() && onChange(tidy(hex))}
        style={{ width: '100%', height: 150 }}
      />
      <span className="flex gap-1.5">
        <HexColorInput
          aria-label={`${label}, as hex`}
          prefixed
          alpha
          color={value ?? '#000000'}
          onChange={(hex) => onChange(tidy(hex))}
          className="tabular h-[26px] min-w-0 flex-1 rounded-md bg-paper-2 px-2"
        />
        {tools && (
          <button
            type="button"
            aria-label="Take a colour from the canvas"
            title="Take a colour from the canvas"
            onClick={onSample}
            className="grid size-[26px] place-items-center rounded-md bg-paper-2 text-ink-2 hover:text-ink"
          >
            <Pipette size={14} />
          </button>
        )}
      </span>
      {linked && (
        <span className="flex items-center gap-1.5 text-sm">
          <Link2 size={12} className="shrink-0 text-sky" />
          <span className="min-w-0 flex-1 truncate" title={linked.name}>
            {linked.name}
          </span>
          <button
            type="button"
            title="The colour stays, and follows the swatch no more"
            className="flex shrink-0 items-center gap-1 text-ink-2 hover:text-ink"
            onClick={link?.detach}
          >
            <Link2Off size={12} /> Detach
          </button>
        </span>
      )}
      {tools && (
        <Dots
          title="Swatches"
          colors={tools.swatches.map((s) => ({ key: s.id, color: s.color, name: s.name }))}
          onChoose={(color, id) => (link ? link.take(id) : onChange(color))}
          onRemove={tools.removeSwatch}
        >
          <button
            type="button"
            aria-label="Add to the swatches"
            title="Add to the swatches"
            disabled={!value}
            onClick={() => {
              const id = value && tools.addSwatch(value.toUpperCase());
              if (id) link?.take(id);
            }}
            className="grid size-4 place-items-center rounded-sm border border-dashed border-line text-ink-2 hover:text-ink"
          >
            <Plus size={11} />
          </button>
        </Dots>
      )}
      {recentColors().length > 0 && (
        <Dots
          title="Used lately"
          colors={recentColors().map((color) => ({ key: color, color, name: color }))}
          onChoose={onChange}
        />
      )}
    </>
  );
};
