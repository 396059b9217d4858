import type { DrawingLayer, Id, SavedEffects } from '@kite/core/document/types';
import { effectsIn, forgetEffects, keepEffects } from '@kite/core/edits/effects';
import type { Flow } from '@kite/core/recipe/types';
import { isEffect, shownBy } from '@kite/core/recipe/shown';
import { KINDS } from '@kite/core/recipe/table';
import { Sparkles } from 'lucide-react';
import { useState } from 'react';
import { KeepField } from '../../../ui/KeepField';
import { Panel } from '../../../ui/Panel';
import { useEditor, useSlice } from '../../store/context';
import { makeId } from '../../store/editor';
import { CardPicture } from './CardPicture';

const EFFECTS = [...KINDS.values()].filter(isEffect);

interface EffectsStripProps {
  layer: DrawingLayer;
  /** What the button says. */
  label: string;
  /** The cards of the list that it adds to. */
  cards: readonly Id[];
  /** Those that a new one would stand below. */
  above: readonly Id[];
  onAdd: (kind: string) => void;
  onUse: (saved: SavedEffects) => void;
}

interface TileProps {
  label: string;
  flow: () => Flow;
  /** What the flow is made from. */
  from: readonly unknown[];
  onChoose: () => void;
  /** Alt-click. */
  onRemove?: () => void;
}

const Tile = ({ label, flow, from, onChoose, onRemove }: TileProps) => (
  <button
    type="button"
    title={onRemove && `${label}; Alt-click forgets it`}
    className="flex min-w-0 flex-col items-center gap-1 rounded-md p-1 hover:bg-paper-2"
    onClick={(event) => (event.altKey && onRemove ? onRemove() : onChoose())}
  >
    <span className="grid h-[52px] w-full place-items-center rounded-sm bg-surround">
      <CardPicture flow={flow} from={from} width={70} height={50} />
    </span>
    <span className="line-clamp-2 w-full text-center text-xs leading-4">{label}</span>
  </button>
);

/** Effects as pictures of what they would make of this very drawing; those that are kept under names too. */
export const EffectsStrip = ({ label, layer, cards, above, onAdd, onUse }: EffectsStripProps) => {
  const editor = useEditor();
  const [open, setOpen] = useState(false);
  const kept = useSlice((s) => s.doc.effects);
  const { program, state } = editor;
  const flow = () => program.flowAt(layer.id, above, state.frame);
  const from = [program, above.join(), state.frame];
  const own = effectsIn(layer, cards);
  const choose = (act: () => void) => () => {
    setOpen(false);
    act();
  };
  return (
    <Panel
      label="Effects"
      open={open}
      onOpenChange={setOpen}
      align="end"
      className="w-[336px] gap-1 overflow-y-auto p-2 max-h-[var(--radix-popover-content-available-height)]"
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
        <p className="p-1 text-sm text-ink-2">
          An effect changes what is drawn above it, and nothing is at this frame.
        </p>
      )}
      <div className="grid grid-cols-4 gap-1">
        {EFFECTS.map((kind) => (
          <Tile
            key={kind.kind}
            label={kind.label}
            flow={() => shownBy(kind, flow())}
            from={[...from, kind]}
            onChoose={choose(() => onAdd(kind.kind))}
          />
        ))}
      </div>
      {kept.length > 0 && (
        <div role="group" aria-label="Kept effects" className="grid grid-cols-4 gap-1 border-t border-line pt-1">
          {kept.map((saved) => (
            <Tile
              key={saved.id}
              label={saved.name}
              flow={() =>
                program.flowAt(layer.id, [...above, ...saved.cards.map(({ id }) => id)], state.frame, saved.cards)
              }
              from={[...from, saved]}
              onChoose={choose(() => onUse(saved))}
              onRemove={() => editor.edit(forgetEffects(saved.id))}
            />
          ))}
        </div>
      )}
      {own.length > 0 && (
        <span className="flex">
          <KeepField
            label="Name for these effects"
            placeholder={own.length === 1 ? 'Keep the effect here as …' : `Keep the ${own.length} effects here as …`}
            onKeep={(name) => editor.edit(keepEffects(makeId(), name, layer, own))}
          />
        </span>
      )}
    </Panel>
  );
};
