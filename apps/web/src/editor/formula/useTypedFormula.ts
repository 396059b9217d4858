/** A formula while it is typed. */
import type { Edit } from '@kite/core/document/patches';
import type { PropertyRef } from '@kite/core/document/types';
import { formulaIn, formulasAt, resetFormulas } from '@kite/core/edits/formulas';
import { parse } from '@kite/core/formula/parse';
import { spanIn } from '@kite/core/formula/refs';
import { FormulaError, type Span } from '@kite/core/formula/types';
import { useState } from 'react';
import { useLasting } from '../../ui/useLasting';
import { formulaTyped, ofEach } from '../commands/formulas';
import { useEditor } from '../store/context';
import type { Editor } from '../store/editor';

/** What keeps a formula from working, and where in its text as it is shown. */
export interface Wrong {
  readonly message: string;
  readonly at: Span;
}

/** What keeps the formula of a property from working, with the text that is shown for it. */
export const wrongIn = (editor: Editor, ref: PropertyRef, shown: string): Wrong | null => {
  const stored = formulaIn(editor.scene.layers[ref.layer], ref)?.text;
  const error = editor.ownProgram.wiring.computed(ref)?.error;
  // Places of what the scene says are in the stored text.
  return error && stored !== undefined ? { message: error.message, at: spanIn(shown, stored, error.at) } : null;
};

interface Begun {
  /** Gives back what was there when somebody began to type. */
  readonly back: Edit;
  /** What was typed last that works: it stands while what is typed does not. */
  readonly stands: Edit;
}
interface Typing extends Begun {
  readonly text: string;
  readonly wrong: Wrong | null;
}

/**
 * What is typed is written as soon as it works, so that the picture shows it; while it does not, the last that did stands. What is
 * typed until it rests, or the field is left, is one step.
 */
export const useTypedFormula = (refs: readonly PropertyRef[]) => {
  const editor = useEditor();
  const [typing, setTyping] = useState<Typing | null>(null);
  const lasting = useLasting(
    () => editor.begin(),
    () => editor.end(),
  );

  const begun = (): Begun => {
    const back = ofEach(refs, (ref) => resetFormulas(ref, formulasAt(editor.scene.layers[ref.layer], ref)));
    lasting.start();
    return { back, stands: back };
  };
  const written = (text: string, before: Begun): Typing => {
    if (text.trim() === '') {
      editor.edit(before.back);
      return { ...before, text, wrong: null, stands: before.back };
    }
    const tree = parse(text);
    if (tree instanceof FormulaError) return { ...before, text, wrong: tree };
    const stands = formulaTyped(editor, refs, text);
    editor.edit(stands);
    const wrong = refs.map((ref) => wrongIn(editor, ref, text)).find((found) => found !== null);
    if (!wrong) return { ...before, text, wrong: null, stands };
    editor.edit(before.stands);
    return { ...before, text, wrong };
  };
  const leave = (as: Edit) => {
    editor.edit(as);
    lasting.end();
    setTyping(null);
  };
  return {
    typing,
    type: (text: string) => setTyping(written(text, typing ?? begun())),
    /** What was typed stays, whether it works or not. */
    keep: () => {
      if (typing?.wrong) leave(formulaTyped(editor, refs, typing.text));
      else if (typing) leave(typing.stands);
    },
    giveUp: () => typing && leave(typing.back),
  };
};
