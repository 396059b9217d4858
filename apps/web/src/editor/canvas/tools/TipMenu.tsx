import { BRUSH_TIPS } from '@kite/core/document/limits';
import type { BrushTip } from '@kite/core/document/types';
import { brushOutlines } from '@kite/core/geometry/brush';
import { dataOf } from '@kite/core/geometry/trace';
import { ChevronDown } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Panel } from '../../../ui/Panel';

export const TIP_NAMES: { readonly [T in BrushTip]: string } = {
  round: 'Round',
  flat: 'Flat',
  chalk: 'Chalk',
  charcoal: 'Charcoal',
  pencil: 'Pencil',
  bristles: 'Dry bristles',
  sponge: 'Sponge',
  spatter: 'Spatter',
  own: 'Picture',
};

const [WIDTH, HEIGHT, SIZE] = [96, 26, 13];
/** A wave that is pressed harder in its middle. */
const WAVE = Array.from({ length: 13 }, (_, i) => [
  8 + (i * (WIDTH - 16)) / 12,
  HEIGHT / 2 + 5 * Math.sin((i / 12) * 2 * Math.PI),
  0.25 + 0.6 * Math.sin((i / 12) * Math.PI),
]).flat();

const HOW = { points: WAVE, color: '#000000', size: SIZE, thins: 0.5, taper: 0, erases: false };
const samples = new Map<BrushTip, string>();
/** What a tip draws, as it will: worked out once it is asked for. */
const sampleOf = (tip: BrushTip): string => {
  const known = samples.get(tip) ?? dataOf(brushOutlines({ ...HOW, tip }));
  samples.set(tip, known);
  return known;
};

const Sample = ({ tip }: { tip: BrushTip }) => (
  <svg width={WIDTH} height={HEIGHT} aria-hidden className="max-w-full shrink fill-ink">
    <path d={sampleOf(tip)} />
  </svg>
);

const CHOICE = 'flex h-9 items-center gap-2 rounded-md px-2 text-left text-sm aria-checked:bg-sky-2';

/** One of several tips, in a row of its own. */
export const TipChoice = (props: { label: string; on: boolean; onPick: () => void; children: ReactNode }) => (
  <button
    type="button"
    role="radio"
    aria-checked={props.on}
    onClick={props.onPick}
    className={`${CHOICE} ${props.on ? '' : 'hover:bg-paper-2'}`}
  >
    <span className="flex w-24 shrink-0 justify-center">{props.children}</span>
    {props.label}
  </button>
);

interface TipMenuProps {
  label: string;
  /** null where several are not the same. */
  value: BrushTip | null;
  onChange: (tip: BrushTip) => void;
  /** Tips out of pictures, and how one gets there. */
  children?: ReactNode;
}

/** The tips of a brush, each by what it draws. */
export const TipMenu = ({ label, value, onChange, children }: TipMenuProps) => {
  const [open, setOpen] = useState(false);
  return (
    <Panel
      label={label}
      side="bottom"
      align="start"
      open={open}
      onOpenChange={setOpen}
      className="w-60 p-1.5"
      opener={
        <button
          type="button"
          aria-label={label}
          className="flex h-7 items-center gap-1 rounded-md bg-paper-2 px-2 text-sm hover:text-ink"
        >
          {value === null ? 'Several' : TIP_NAMES[value]}
          <ChevronDown size={13} className="text-ink-2" />
        </button>
      }
    >
      <div role="radiogroup" aria-label={label} className="flex max-h-[60vh] flex-col overflow-y-auto">
        {BRUSH_TIPS.filter((tip) => tip !== 'own').map((tip) => (
          <TipChoice
            key={tip}
            label={TIP_NAMES[tip]}
            on={tip === value}
            onPick={() => {
              onChange(tip);
              setOpen(false);
            }}
          >
            <Sample tip={tip} />
          </TipChoice>
        ))}
        {children}
      </div>
    </Panel>
  );
};
