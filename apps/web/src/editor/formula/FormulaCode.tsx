import { autocompletion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { type Extension, Prec, StateEffect, StateField } from '@codemirror/state';
import { Decoration, type DecorationSet, EditorView, keymap, MatchDecorator, ViewPlugin } from '@codemirror/view';
import { NAMES } from '@kite/core/formula/compile';
import { FUNCTIONS } from '@kite/core/formula/functions/table';
import type { Span } from '@kite/core/formula/types';
import { useEffect, useLayoutEffect, useRef } from 'react';
import type { FormulaFieldProps } from './PlainFormula';

const REFERENCE = /\{(?:[^{}"]|"(?:[^"\\]|\\.)*")*\}/g;
const chips = new MatchDecorator({ regexp: REFERENCE, decoration: Decoration.mark({ class: 'formula-chip' }) });
const references = ViewPlugin.fromClass(
  class {
    decorations: DecorationSet;
    constructor(view: EditorView) {
      this.decorations = chips.createDeco(view);
    }
    update(update: Parameters<MatchDecorator['updateDeco']>[0]) {
      this.decorations = chips.updateDeco(update, this.decorations);
    }
  },
  { decorations: (plugin) => plugin.decorations },
);

const setWrong = StateEffect.define<Span | null>();
const wrongField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (marks, transaction) => {
    for (const effect of transaction.effects) {
      if (!effect.is(setWrong)) continue;
      const length = transaction.newDoc.length;
      const [from, to] = effect.value ?? [0, 0];
      // An error at the end underlines the last character.
      const start = Math.max(0, Math.min(from, length - 1));
      const end = Math.min(Math.max(to, start + 1), length);
      if (!effect.value || end <= start) return Decoration.none;
      return Decoration.set([Decoration.mark({ class: 'formula-wrong' }).range(start, end)]);
    }
    return transaction.docChanged ? Decoration.none : marks;
  },
  provide: (field) => EditorView.decorations.from(field),
});

/** How far before others what fits stands: a name that is typed in full is the first all the same. */
const FITTING = 50;

const completing =
  (paths: FormulaFieldProps['paths']) =>
  (context: CompletionContext): CompletionResult | null => {
    const open = context.matchBefore(/\{[^{}]*/);
    if (open) {
      return {
        from: open.from,
        options: paths().map(({ path, fits }) => ({
          label: `{${path}}`,
          boost: fits ? FITTING : 0,
          displayLabel: path,
          type: 'variable',
          apply: (view: EditorView, { label }: { label: string }, from: number, to: number) => {
            // A brace that was closed already is not closed twice.
            const end = view.state.sliceDoc(to, to + 1) === '}' ? to + 1 : to;
            view.dispatch({ changes: { from, to: end, insert: label }, selection: { anchor: from + label.length } });
          },
        })),
        validFor: /^\{[^{}]*$/,
      };
    }
    const word = context.matchBefore(/[a-z]\w*/i);
    if (!word && !context.explicit) return null;
    return {
      from: word?.from ?? context.pos,
      options: [
        ...[...FUNCTIONS.values()].map((f) => ({
          label: f.name,
          detail: `(${f.takes})`,
          info: f.says,
          type: 'function',
          apply: `${f.name}(`,
        })),
        ...[...NAMES.values()].map((n) => ({ label: n.name, info: n.says, type: 'constant' })),
        { label: '{', detail: 'a property by its name', type: 'keyword', apply: '{' },
      ],
      validFor: /^\w*$/,
    };
  };

/** A field for a formula: references look like chips, names are completed, what is wrong is underlined. */
export const FormulaCode = ({
  label,
  value,
  wrong,
  paths,
  caretRef,
  onChange,
  onDone,
  onCancel,
}: FormulaFieldProps) => {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const latest = useRef({ paths, onChange, onDone, onCancel });
  useEffect(() => {
    latest.current = { paths, onChange, onDone, onCancel };
  });
  // In the same breath in which it takes the place of the plain field: a key pressed then is for it.
  useLayoutEffect(() => {
    if (!place.current) return;
    const keys: Extension = Prec.low(
      keymap.of([
        { key: 'Enter', run: () => (latest.current.onDone(), true) },
        { key: 'Escape', run: () => (latest.current.onCancel(), true) },
        ...defaultKeymap,
        ...historyKeymap,
      ]),
    );
    // What was typed meanwhile is completed as what is typed here: its last character comes in anew.
    // The text may be another by now: given up, or changed by somebody else.
    const caret = caretRef.current;
    const at = Math.min(typeof caret === 'number' ? caret : value.length, value.length);
    const last = typeof caret === 'number' ? value.slice(0, at).slice(-1) : '';
    const from = at - last.length;
    const made = new EditorView({
      parent: place.current,
      doc: value.slice(0, from) + value.slice(at),
      extensions: [
        history(),
        EditorView.lineWrapping,
        references,
        wrongField,
        autocompletion({ override: [completing(() => latest.current.paths())], icons: false }),
        keys,
        EditorView.contentAttributes.of({ 'aria-label': label, 'aria-multiline': 'true' }),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) latest.current.onChange(update.state.doc.toString());
        }),
      ],
    });
    view.current = made;
    // Who went elsewhere meanwhile, as to the ready ones, stays there.
    if (caret !== 'left') made.focus();
    made.dispatch({ changes: { from, insert: last }, selection: { anchor: at }, userEvent: 'input.type' });
    return () => made.destroy();
    // Made once: later texts and errors are told to it below.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  useEffect(() => {
    const now = view.current;
    if (now && now.state.doc.toString() !== value) {
      now.dispatch({ changes: { from: 0, to: now.state.doc.length, insert: value } });
    }
  }, [value]);
  const [from, to] = wrong ?? [-1, -1];
  useEffect(() => {
    view.current?.dispatch({ effects: setWrong.of(from < 0 ? null : [from, to]) });
  }, [from, to, value]);
  return <div ref={place} className="formula-code" onKeyDown={(event) => event.stopPropagation()} />;
};
