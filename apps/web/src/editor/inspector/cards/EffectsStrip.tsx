import type { DrawingLayer, Id } from '@kite/core/document/types';
import { isPictured, shownBy } from '@kite/core/recipe/shown';
import { KINDS } from '@kite/core/recipe/table';
import { Sparkles } from 'lucide-react';
import { useState } from 'react';
import { Panel } from '../../../ui/Panel';
import { useEditor } from '../../store/context';
import { CardPicture } from './CardPicture';

const EFFECTS = [...KINDS.values()].filter(isPictured);

interface EffectsStripProps {
  layer: DrawingLayer;
  /** What the button says. */
  label: string;
  /** The cards that the new one would stand below. */
  above: readonly Id[];
  onAdd: (kind: string) => void;
}

/** Effects as pictures of what they would make of this very drawing. */
export const EffectsStrip = ({ label, layer, above, onAdd }: EffectsStripProps) => {
  const editor = useEditor();
  const [open, setOpen] = useState(false);
  const { program, state } = editor;
  const flow = () => program.flowAt(layer.id, above, state.frame);
  return (
    <Panel
      label="Effects"
      open={open}
      onOpenChange={setOpen}
      align="end"
      className="grid w-[336px] !grid-cols-4 gap-1 p-2"
      opener={
        <button
          type="button"
          className="flex h-7 items-center gap-1.5 rounded-md px-1.5 text-ink-2 hover:bg-paper-2 hover:text-ink"
        >
          <Sparkles size={14} /> {label}
        </button>
      }
    >
      {open && flow().marks.length === 0 && (
        <p className="col-span-4 p-1 text-sm text-ink-2">
          An effect changes what is drawn above it, and nothing is at this frame.
        </p>
      )}
      {EFFECTS.map((kind) => (
        <button
          key={kind.kind}
          type="button"
          className="flex flex-col items-center gap-1 rounded-md p-1 hover:bg-paper-2"
          onClick={() => {
            setOpen(false);
            onAdd(kind.kind);
          }}
        >
          <span className="grid h-[52px] w-full place-items-center rounded-sm bg-surround">
            <CardPicture
              flow={() => shownBy(kind, flow())}
              from={[program, above.join(), state.frame, kind]}
              width={70}
              height={50}
            />
          </span>
          <span className="text-xs leading-4">{kind.label}</span>
        </button>
      ))}
    </Panel>
  );
};
