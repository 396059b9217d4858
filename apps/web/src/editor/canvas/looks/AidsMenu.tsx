import { Grid3x3, Magnet } from 'lucide-react';
import { IconButton } from '../../../ui/Button';
import { NumberField } from '../../../ui/NumberField';
import { CanvasPopover } from './CanvasPopover';
import { type Aids, setAids, useAids } from './aids';

const SWITCHES: readonly { readonly key: Exclude<keyof Aids, 'gridSize' | 'snap'>; readonly label: string }[] = [
  { key: 'rulers', label: 'Rulers' },
  { key: 'guides', label: 'Guides' },
  { key: 'thirds', label: 'Thirds' },
  { key: 'safe', label: 'Safe areas' },
  { key: 'grid', label: 'Grid' },
];

/** Snapping, and what is shown over the scene. */
export const AidsMenu = () => {
  const aids = useAids();
  return (
    <>
      <IconButton
        label={aids.snap ? 'Snapping is on (Ctrl lets go)' : 'Snapping is off'}
        side="top"
        pressed={aids.snap}
        onClick={() => setAids({ snap: !aids.snap })}
      >
        <Magnet size={15} />
      </IconButton>
      <CanvasPopover label="Rulers, guides and grid" icon={<Grid3x3 size={15} />}>
        {SWITCHES.map(({ key, label }) => (
          <label key={key} className="flex items-center gap-2">
            <input type="checkbox" checked={aids[key]} onChange={(event) => setAids({ [key]: event.target.checked })} />
            {label}
          </label>
        ))}
        <label className="grid grid-cols-[1fr_80px] items-center gap-2 text-ink-2">
          Grid every
          <NumberField
            label="Grid every"
            unit="px"
            min={2}
            max={2000}
            decimals={0}
            value={aids.gridSize}
            onChange={(gridSize) => setAids({ gridSize: Math.round(gridSize) })}
          />
        </label>
        <p className="text-sm text-ink-2">Drag guides out of the rulers; off the scene they go.</p>
      </CanvasPopover>
      <span className="mx-0.5 h-5 w-px bg-line" />
    </>
  );
};
