import { together } from '@kite/core/document/patches';
import type { Param } from '@kite/core/document/params';
import type { DrawingLayer } from '@kite/core/document/types';
import { setItem } from '@kite/core/edits/recipe';
import { type CommonCard, commonCards } from '@kite/core/recipe/common';
import { kindOf } from '@kite/core/recipe/table';
import { ChevronDown, ChevronRight, Eye, EyeOff, Layers } from 'lucide-react';
import { useState } from 'react';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import { ParamField } from '../fields/ParamField';
import { called } from '../called';
import { applies } from '../fields/applies';
import { Card } from '../cards/Card';

/** What each drawing has of its own, and no field for several can say. */
const ITS_OWN: readonly Param['kind'][] = ['path', 'cutout', 'mesh', 'growth', 'strokes'];

const CommonRow = ({ card, open, onOpen }: { card: CommonCard; open: boolean; onOpen: () => void }) => {
  const editor = useEditor();
  const { scene, frame } = useSlice((s) => ({ scene: sceneOf(s), frame: s.playing ? 0 : s.frame }));
  const kind = kindOf(card.kind);
  const items = card.cards.flatMap(({ layer, item }) => {
    const own = scene.layers[layer];
    return own?.kind === 'drawing' && own.items[item] ? [own.items[item]] : [];
  });
  const on = items.some((item) => item.on);
  const names = new Set(items.map((item) => item.name ?? kind.label));
  const name = `${names.size === 1 ? [...names].join() : kind.label}${card.nth > 0 ? ` ${card.nth + 1}` : ''}`;
  const values = card.cards.map(({ layer, item }) => editor.program.cardAt(layer, item, frame)?.values ?? {});
  const summaries = new Set(values.map((v) => kind.summary(v as never, (id) => called(editor, id))));
  const refs = card.cards.map((ref) => ({ ...ref, scene: scene.id }));
  return (
    <li aria-label={`Card ${name} of all`} className={`rounded-md border ${open ? 'border-sky' : 'border-line'}`}>
      <div className={`flex h-9 items-center gap-1.5 px-1.5 ${on ? '' : 'opacity-50'}`}>
        <button
          type="button"
          aria-expanded={open}
          aria-label={`${open ? 'Close' : 'Open'} ${name}`}
          className="flex min-w-0 flex-1 items-center gap-1.5 text-left"
          onClick={onOpen}
        >
          {open ? <ChevronDown size={13} className="shrink-0" /> : <ChevronRight size={13} className="shrink-0" />}
          <span className="font-medium">{name}</span>
          <span className="min-w-0 flex-1 truncate text-sm text-ink-2">
            {summaries.size === 1 ? [...summaries].join() : <i>mixed</i>}
          </span>
        </button>
        <button
          type="button"
          aria-label={`Switch ${name} ${on ? 'off' : 'on'}`}
          aria-pressed={!on}
          className="grid size-5 shrink-0 place-items-center text-ink-2 hover:text-ink"
          onClick={() =>
            editor.edit(
              together(
                `Switch ${name} ${on ? 'off' : 'on'}`,
                refs.map((ref) => setItem(ref, { on: !on })),
              ),
            )
          }
        >
          {on ? <Eye size={13} /> : <EyeOff size={13} />}
        </button>
      </div>
      {open && (
        <div className="flex flex-col gap-1.5 border-t border-line p-2">
          {Object.entries(kind.params)
            .filter(([, param]) => !ITS_OWN.includes(param.kind) && values.some((v) => applies(param, v, kind.params)))
            .map(([key, param]) => (
              <ParamField key={key} param={param} refs={refs.map((ref) => ({ ...ref, key }))} />
            ))}
        </div>
      )}
    </li>
  );
};

/** The cards that several selected drawings have in common, and their values for all of them at once. */
interface CommonCardsProps {
  layers: readonly DrawingLayer[];
  title?: string;
}

export const CommonCards = ({ layers, title = 'Common cards' }: CommonCardsProps) => {
  const cards = commonCards(layers);
  const [open, setOpen] = useState<string | null>(null);
  if (cards.length === 0) return null;
  return (
    <Card title={title} icon={<Layers size={15} />} aside={`${layers.length} layer${layers.length === 1 ? '' : 's'}`}>
      <ol className="flex flex-col gap-1.5">
        {cards.map((card) => {
          const name = `${card.kind} ${card.nth}`;
          return (
            <CommonRow
              key={name}
              card={card}
              open={open === name}
              onOpen={() => setOpen(open === name ? null : name)}
            />
          );
        })}
      </ol>
    </Card>
  );
};
