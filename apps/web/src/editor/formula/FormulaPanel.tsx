import type { Param } from '@kite/core/document/params';
import type { PropertyRef } from '@kite/core/document/types';
import { formulaIn, removeFormula, turnFormula } from '@kite/core/edits/formulas';
import { together } from '@kite/core/document/patches';
import { partParam } from '@kite/core/motion/apart';
import { pathsFor } from '@kite/core/formula/refs';
import { CircleHelp, Diamond, Power, Trash2, WandSparkles, X } from 'lucide-react';
import { useRef, useState } from 'react';
import { IconButton } from '../../ui/Button';
import { Menu } from '../../ui/Menu';
import { Segments } from '../../ui/Segments';
import { useEditor, useSlice } from '../store/context';
import { shownValue } from '../timeline/ribbons';
import { bakeFormulas, formulaTyped, readyFor, shownFormula, targetOf } from '../commands/formulas';
import { Connections } from './Connections';
import { useComputed } from './useComputed';
import { useTypedFormula, wrongIn } from './useTypedFormula';
import { later } from '../../ui/later';
import { Panel } from '../../ui/Panel';
import { PlainFormula } from './PlainFormula';

const ICON = 14;

/** In the units of the property, what thinned keyframes may be off. */
const toleranceOf = (param: Param): number =>
  (param.kind === 'number' || param.kind === 'point') && param.unit === 'percent' ? 0.002 : 0.25;

// Large, and many never need it: it comes when it is shown.
const FormulaCode = later(
  async () => (await import('./FormulaCode')).FormulaCode,
  (props) => <PlainFormula {...props} />,
);

const PARTS = [
  { value: 'whole', label: 'Both' },
  { value: 'x', label: 'x alone' },
  { value: 'y', label: 'y alone' },
] as const;
const partOf = (which: string): 0 | 1 | undefined => (which === 'x' ? 0 : which === 'y' ? 1 : undefined);

const ReadyMenu = ({ refTo, onChoose }: { refTo: PropertyRef; onChoose: (text: string) => void }) => {
  const editor = useEditor();
  const [open, setOpen] = useState(false);
  return (
    <Panel
      label="Ready formulas"
      align="start"
      open={open}
      onOpenChange={setOpen}
      className="w-72 p-1"
      opener={
        <IconButton label="Ready formulas">
          <WandSparkles size={ICON} />
        </IconButton>
      }
    >
      {open &&
        readyFor(editor, refTo).map(({ name, says, sketch, text }) => (
          <button
            key={name}
            type="button"
            className="flex items-center gap-2.5 rounded-[5px] px-2 py-1 text-left hover:bg-tail-2 focus-visible:bg-tail-2"
            onClick={() => {
              setOpen(false);
              onChoose(text);
            }}
          >
            <svg aria-hidden viewBox="0 0 32 16" className="h-5 w-10 shrink-0 rounded-sm bg-paper-2">
              <path d={sketch} fill="none" stroke="var(--tail)" strokeWidth={1.5} strokeLinejoin="round" />
            </svg>
            <span className="min-w-0">
              <span className="block font-medium">{name}</span>
              <span className="block text-sm text-ink-2">{says}</span>
            </span>
          </button>
        ))}
    </Panel>
  );
};

interface EditingProps {
  refs: readonly PropertyRef[];
  param: Param;
  label: string;
  onClose: () => void;
}

/** One formula: its text, what it comes to or what is wrong with it, and what can be done with it. */
const Editing = ({ refs, param, label, onClose }: EditingProps) => {
  const editor = useEditor();
  const first = refs[0] as PropertyRef;
  const formula = useSlice((s) => formulaIn(s.doc.scenes[first.scene]?.layers[first.layer], first));
  const computed = useComputed(first);
  const frame = useSlice((s) => s.frame);
  const shown = useSlice(() => shownFormula(editor, first));
  const { typing, type, keep, giveUp } = useTypedFormula(refs);
  const caretRef = useRef<number | 'left' | null>(null);
  const text = typing?.text ?? shown;
  const wrong = typing ? typing.wrong : computed?.error ? wrongIn(editor, first, shown) : null;
  const problem = wrong ? null : (computed?.problemAt(frame) ?? null);
  return (
    <>
      <div className="flex items-center">
        <span className="min-w-0 flex-1 truncate text-sm font-medium text-tail">{label}</span>
        <ReadyMenu refTo={first} onChoose={(ready) => editor.edit(formulaTyped(editor, refs, ready))} />
        <IconButton
          label={formula?.on === false ? 'Let it live again' : 'Turn off: play the keyframes'}
          pressed={formula?.on === false}
          disabled={!formula}
          onClick={() =>
            editor.edit(
              together(
                formula?.on ? 'Turn a formula off' : 'Turn a formula on',
                refs.map((ref) => turnFormula(ref, !formula?.on)),
              ),
            )
          }
        >
          <Power size={ICON} />
        </IconButton>
        <Menu
          entries={[
            { label: 'A keyframe at every frame', onSelect: () => bakeFormulas(editor, refs, null) },
            { label: 'As few keyframes as will do', onSelect: () => bakeFormulas(editor, refs, toleranceOf(param)) },
          ]}
          trigger={
            <IconButton label="Bake to keyframes" disabled={!formula?.on || computed?.error !== null}>
              <Diamond size={ICON} />
            </IconButton>
          }
        />
        <IconButton
          label="Remove the formula"
          disabled={!formula}
          onClick={() => editor.edit(together('Remove a formula', refs.map(removeFormula)))}
        >
          <Trash2 size={ICON} />
        </IconButton>
        <a
          href="/help/formulas"
          target="_blank"
          rel="noreferrer"
          aria-label="Help with formulas"
          title="Help with formulas"
          className="inline-flex size-7 items-center justify-center rounded-md text-ink-2 hover:bg-paper-2 hover:text-ink"
        >
          <CircleHelp size={ICON} />
        </a>
        <IconButton label="Close the formula" onClick={onClose}>
          <X size={ICON} />
        </IconButton>
      </div>
      <div
        onBlur={(event) => {
          if (!event.currentTarget.contains(event.relatedTarget)) keep();
        }}
      >
        <FormulaCode
          label={`Formula of ${label.toLowerCase()}`}
          value={text}
          wrong={wrong?.at ?? null}
          paths={() => pathsFor(editor.scene, targetOf(first), param)}
          caretRef={caretRef}
          onChange={(next) => next !== text && type(next)}
          onDone={keep}
          onCancel={typing ? giveUp : onClose}
        />
      </div>
      {wrong ? (
        <p role="alert" className="text-sm text-kite">
          {wrong.message} {typing ? 'Esc gives it up.' : formula?.on && 'Its keyframes play meanwhile.'}
        </p>
      ) : problem ? (
        <p role="alert" className="text-sm text-sun">
          At this frame it {problem}.
        </p>
      ) : formula && computed ? (
        <p className="tabular text-sm text-ink-2">
          = <output className="text-ink">{shownValue(param, computed.at(frame))}</output> at frame {Math.round(frame)}
          {typing && '. Esc gives it up.'}
        </p>
      ) : formula ? (
        <p className="text-sm text-ink-2">It is off: the keyframes play.</p>
      ) : (
        <p className="text-sm text-ink-2">
          Type a formula, choose a ready one, or drag <span className="text-tail">ƒ</span> to another property.{' '}
          <code>{'{'}</code> lists all properties.
        </p>
      )}
    </>
  );
};

/** The formula of a property, of one or of several layers: below its field. */
export const FormulaPanel = ({ refs, param }: { refs: readonly PropertyRef[]; param: Param }) => {
  const editor = useEditor();
  const first = refs[0] as PropertyRef;
  const apart = useSlice((s) => {
    const layer = s.doc.scenes[first.scene]?.layers[first.layer];
    const one = ([0, 1] as const).find((part) => formulaIn(layer, { ...first, part }));
    return one === undefined ? 'whole' : 'xy'.charAt(one);
  });
  const [chosen, setChosen] = useState<string | null>(null);
  const which = param.kind === 'point' ? (chosen ?? apart) : 'whole';
  const part = partOf(which);
  const of = part === undefined ? param : partParam(param as Extract<Param, { kind: 'point' }>, part);
  const at = refs.map((ref): PropertyRef => (part === undefined ? ref : { ...ref, part }));
  return (
    <section
      aria-label={`Formula of ${param.label.toLowerCase()}`}
      className="mb-1 flex flex-col gap-1 rounded-md border border-tail/50 bg-tail-2/40 p-1.5"
    >
      {param.kind === 'point' && (
        <Segments label="Formula for" value={which} options={PARTS} onChange={(value) => setChosen(value)} />
      )}
      <Editing key={which} refs={at} param={of} label={of.label} onClose={() => editor.set({ formulaAt: null })} />
      <Connections refTo={first} />
    </section>
  );
};
