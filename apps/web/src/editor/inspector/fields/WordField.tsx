import type { Id, SplitWord } from '@kite/core/document/types';
import { setWord } from '@kite/core/edits/words';
import { textOfWord } from '@kite/core/properties/words';
import { text as textKind } from '@kite/core/recipe/sources/text';
import { compileScene } from '@kite/core/scene/compile';
import { wholeScene } from '@kite/core/scene/whole';
import { useState } from 'react';
import { useEditor } from '../../store/context';
import { makeId } from '../../store/editor';
import { TextField } from './TextField';

interface WordFieldProps {
  label: string;
  scene: Id;
  set: Id;
  word: SplitWord;
}

/** The text of a word that was split: it goes into the parts when it is finished. */
export const WordField = ({ label, scene, set, word }: WordFieldProps) => {
  const editor = useEditor();
  const text = textOfWord(word);
  const [draft, setDraft] = useState<string | null>(null);
  const finish = () => {
    setDraft(null);
    if (draft === null || draft === text) return;
    const { sceneId, frame, doc } = editor.state;
    const own = doc.scenes[scene];
    if (!own) return;
    const program = compileScene(wholeScene(own, doc), editor.library);
    editor.edit(setWord(scene, set, draft, scene === sceneId ? frame : own.poster, program, makeId));
  };
  return (
    <TextField
      label={label}
      value={draft ?? text}
      param={{ ...textKind.params.text, lines: text.includes('\n') ? 'many' : 'one' }}
      onStart={() => setDraft(text)}
      onChange={setDraft}
      onEnd={finish}
    />
  );
};
