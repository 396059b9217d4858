/** The keyboard: keys looked up in the table of commands. */
import type { Editor } from '../store/editor';
import { type Command, LISTED } from './table';

const NAMES: Readonly<Record<string, string>> = { ' ': 'Space' };

/** With Alt a key may write another sign: then it is known by where it stands. */
const BY_PLACE: Readonly<Record<string, string>> = { Comma: ',', Period: '.' };
const placed = (code: string): string => /^Key([A-Z])$/.exec(code)?.[1] ?? BY_PLACE[code] ?? code;

type Pressed = Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>;
/** The keys of an event as the table writes them. */
export const pressed = (event: Pressed): string => {
  const ctrl = event.ctrlKey || event.metaKey ? 'Ctrl+' : '';
  if (event.altKey) return `${ctrl}Alt+${event.shiftKey ? 'Shift+' : ''}${placed(event.code)}`;
  const name = NAMES[event.key] ?? (event.key.length === 1 ? event.key.toUpperCase() : event.key);
  // Shift is part of what a sign such as ? is; for letters and named keys it is a modifier.
  const shift = event.shiftKey && /^[A-Z]$|^\w{2,}$/.test(name) ? 'Shift+' : '';
  return ctrl + shift + name;
};

const byKeys = new Map(LISTED.flatMap((command) => (command.keys ?? []).map((keys) => [keys, command])));

export const takesText = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || target.matches('textarea, select, input:not([type=checkbox], [type=radio])'));

/** Runs the command of a key event, if it is one of those that may be; true if there is one. */
export const runPressed = (editor: Editor, event: KeyboardEvent, among: readonly Command[] = LISTED): boolean => {
  if (event.defaultPrevented || takesText(event.target)) return false;
  if (event.target instanceof Element) {
    // A menu or dialog has its own keys; a button that was reached by keyboard is pressed by Space.
    if (event.target.closest('[role=dialog],[role=menu]')) return false;
    if (event.key === ' ' && event.target.matches('button:focus-visible,a:focus-visible')) return false;
    if (event.key.startsWith('Arrow') && event.target.closest('[role=radiogroup]')) return false;
  }
  const command = byKeys.get(pressed(event));
  if (!command || !among.includes(command)) return false;
  event.preventDefault();
  command.run(editor);
  return true;
};
