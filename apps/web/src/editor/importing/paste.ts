/** What is pasted: layers or keyframes that were copied here, files, a drawing as it is copied by others, or words. */
import { copiedHere, pasteCopied } from '../commands/clipboard';
import { addWords } from '../commands/layers';
import { importFiles } from '../later';
import type { Editor } from '../store/editor';

/** Whether text is a drawing: its first element is an svg. */
const isDrawing = (text: string): boolean =>
  /^\s*(?:<\?[^>]*>\s*|<!--[\s\S]*?-->\s*|<!DOCTYPE[^>]*>\s*)*<svg[\s>]/i.test(text);

export const paste = (editor: Editor, data: DataTransfer | null): void => {
  const files = [...(data?.files ?? [])];
  if (files.length > 0) {
    void importFiles(editor, files);
    return;
  }
  const text = data?.getData('text/plain') ?? '';
  const drawing = data?.getData('image/svg+xml') || text;
  if (copiedHere(text)) pasteCopied(editor);
  else if (isDrawing(drawing)) {
    const file = new File([drawing], 'Pasted drawing.svg', { type: 'image/svg+xml' });
    editor.set({ importing: { files: [file], at: null } });
  } else if (text.trim() !== '') addWords(editor, text);
  else pasteCopied(editor);
};
