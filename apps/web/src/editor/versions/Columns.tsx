import type { Project, VersionColumn } from '@kite/core/document/types';
import { columnsOffered } from '@kite/core/edits/versionOffers';
import { addColumns } from '@kite/core/edits/versions';
import { Image, Palette, Plus, Type } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Button } from '../../ui/Button';
import { useEditor } from '../store/context';
import { makeId } from '../store/editor';

export const KIND_ICONS = { words: Type, swatch: Palette, picture: Image } as const;

const HEADS = { words: 'Words', swatch: 'Colours', picture: 'Pictures' } as const;

const scenesOf = (column: VersionColumn): string => {
  if (column.kind !== 'words') return '';
  const count = new Set(column.places.map(({ scene }) => scene)).size;
  return count > 1 ? `in ${count} scenes` : '';
};

/** What may be another in each version and has no column yet, to be chosen from: words that are the same stand once. */
export const Offers = ({ doc, onDone }: { doc: Project; onDone?: () => void }) => {
  const editor = useEditor();
  const offered = useMemo(() => columnsOffered(doc, makeId), [doc]);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  if (offered.length === 0) {
    return <p className="text-ink-2">All words, swatches and pictures of the project have their columns.</p>;
  }
  const picked = offered.filter(({ id }) => chosen.has(id));
  const add = () => {
    editor.edit(addColumns(picked));
    setChosen(new Set());
    onDone?.();
  };
  return (
    <div className="flex min-h-0 flex-col gap-3">
      <div className="flex min-h-0 flex-col gap-3 overflow-y-auto">
        {(Object.keys(HEADS) as VersionColumn['kind'][]).map((kind) => {
          const own = offered.filter((column) => column.kind === kind);
          return own.length === 0 ? null : (
            <fieldset key={kind} className="flex flex-col gap-1">
              <legend className="mb-1 text-sm font-semibold text-ink-2">{HEADS[kind]}</legend>
              {own.map((column) => (
                <label key={column.id} className="flex items-center gap-2 rounded-md px-1 py-0.5 hover:bg-paper-2">
                  <input
                    type="checkbox"
                    className="size-4 shrink-0"
                    checked={chosen.has(column.id)}
                    onChange={({ target: { checked } }) => {
                      const next = new Set(chosen);
                      if (checked) next.add(column.id);
                      else next.delete(column.id);
                      setChosen(next);
                    }}
                  />
                  <span className="min-w-0 flex-1 truncate">{column.name}</span>
                  <span className="text-sm text-ink-2">{scenesOf(column)}</span>
                </label>
              ))}
            </fieldset>
          );
        })}
      </div>
      <Button look="primary" icon={<Plus size={15} />} disabled={picked.length === 0} onClick={add}>
        {picked.length > 1 ? `Add ${picked.length} columns` : 'Add the column'}
      </Button>
    </div>
  );
};
