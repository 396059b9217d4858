import type { PropertyRef } from '@kite/core/document/types';
import { together } from '@kite/core/document/patches';
import { paramAt, paramIn } from '@kite/core/properties/find';
import { setFormula } from '@kite/core/edits/formulas';
import { type Link, linkText } from '@kite/core/formula/ready';
import { allPaths, shownText, type Target } from '@kite/core/formula/refs';
import { useState } from 'react';
import { Button } from '../../ui/Button';
import { NumberField } from '../../ui/NumberField';
import { Segments } from '../../ui/Segments';
import { Select } from '../../ui/Select';
import { useEditor, useSlice } from '../store/context';
import type { Linking } from '../store/workspace';
import { easesAlong, targetOf } from '../commands/formulas';

const HOWS = [
  { value: 'same', label: 'Same' },
  { value: 'late', label: 'Late by' },
  { value: 'scaled', label: 'Scaled by' },
  { value: 'opposite', label: 'Opposite' },
] as const;
type How = (typeof HOWS)[number]['value'];

const keyOf = ({ item, key }: Target) => `${item ?? ''}/${key}`;
const WIDTH = 300;
const HEIGHT = 210;

/** Chooses how a property follows the one that its link was dragged to. */
const Choosing = ({ linking }: { linking: Linking }) => {
  const editor = useEditor();
  const { refs, to, at } = linking;
  const first = refs[0] as PropertyRef;
  const { scene } = editor;
  const inSet = scene.sets.some((s) => s.members.includes(first.layer));
  const paramOf = (target: Target) => paramIn(scene.layers[target.layer], { scene: scene.id, ...target });

  const textOf = (ref: PropertyRef, from: Target, link: Link): string | null => {
    const [own, other] = [paramAt(editor.state.doc, ref), paramOf(from)];
    if (!own || !other) return null;
    const end = { target: targetOf(ref), param: own, ...(ref.part !== undefined && { part: ref.part }) };
    return linkText(link, { target: from, param: other }, end, inSet);
  };
  const options = allPaths(scene, targetOf(first))
    .filter(({ to: target }) => target.layer === to.layer && textOf(first, target, { how: 'same' }) !== null)
    .filter(({ to: target }) => to.key === undefined || (target.key === to.key && target.item === to.item));
  // The same property of the other layer, or a knob, is what is meant most often.
  const knob = scene.layers[to.layer]?.kind === 'controller' ? options.find((o) => o.to.item !== undefined) : undefined;
  const [chosen, setChosen] = useState(
    () => (knob ?? options.find((o) => o.to.key === first.key) ?? options[0])?.to ?? null,
  );
  const [how, setHow] = useState<How>('same');
  const [late, setLate] = useState(0.1);
  const [scaled, setScaled] = useState(0.5);
  const link: Link = how === 'late' ? { how, by: late } : how === 'scaled' ? { how, by: scaled } : { how };
  const text = chosen && textOf(first, chosen, link);
  const close = () => editor.set({ linking: null });
  const apply = () => {
    if (!chosen) return;
    const edits = refs.flatMap((ref) => {
      const own = textOf(ref, chosen, link);
      return own === null ? [] : [setFormula(ref, own)];
    });
    editor.edit(together('Link a property', edits));
    editor.set({ linking: null, formulaAt: { scene: first.scene, ...targetOf(first) } });
  };
  const name = paramAt(editor.state.doc, first)?.label ?? '';
  return (
    <div
      className="fixed inset-0 z-40"
      onPointerDown={(event) => event.target === event.currentTarget && close()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') close();
      }}
    >
      <div
        role="dialog"
        aria-label={`Link ${name.toLowerCase()}`}
        className="absolute flex flex-col gap-2 rounded-md border border-line bg-paper p-3 shadow-lg"
        style={{
          width: WIDTH,
          left: Math.max(8, Math.min(at[0], window.innerWidth - WIDTH - 8)),
          top: Math.max(8, Math.min(at[1], window.innerHeight - HEIGHT - 8)),
        }}
      >
        {chosen === null ? (
          <p>
            “{scene.layers[to.layer]?.name}” has nothing that {name.toLowerCase()} could follow.
          </p>
        ) : (
          <>
            <span className="font-medium">{name} follows</span>
            <Select
              aria-label="The property it follows"
              value={keyOf(chosen)}
              options={options.map(({ to: target, path }) => ({ value: keyOf(target), label: path }))}
              onChange={(value) => setChosen(options.find((o) => keyOf(o.to) === value)?.to ?? chosen)}
            />
            <Segments label="How it follows" value={how} options={HOWS} onChange={setHow} />
            {how === 'late' && (
              <NumberField
                label="Seconds late"
                value={late}
                step={0.01}
                unit={inSet ? 's × order' : 's'}
                onChange={setLate}
              />
            )}
            {how === 'scaled' && (
              <NumberField
                label="Scaled by"
                value={scaled * 100}
                unit="%"
                onChange={(value) => setScaled(value / 100)}
              />
            )}
            <code className="truncate rounded-sm bg-paper-2 px-1.5 py-1 text-sm text-tail">
              {text === null
                ? 'These two cannot follow each other so.'
                : shownText(text, easesAlong(editor), targetOf(first))}
            </code>
          </>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={close}>Cancel</Button>
          <Button look="primary" autoFocus disabled={text === null} onClick={apply}>
            Link
          </Button>
        </div>
      </div>
    </div>
  );
};

export const LinkPopover = () => {
  const linking = useSlice((s) => s.linking);
  return linking && <Choosing linking={linking} />;
};
