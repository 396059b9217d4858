import { Grid3x3, Magnet } from 'lucide-react';
import { IconButton } from '../../../ui/Button';
import { CanvasSettings } from '../../later';
import { setAids, useAids } from './aids';
import { CanvasPopover } from './CanvasPopover';

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
        <CanvasSettings of="aids" />
      </CanvasPopover>
      <span className="mx-0.5 h-5 w-px bg-line" />
    </>
  );
};
