import { Command } from 'cmdk';
import { useDeferredValue } from 'react';
import { useNavigate } from 'react-router';
import { useEditor } from '../store/context';
import { found, type SearchEntry } from './entries';
import { INPUT, LIST, PLACEHOLDER, type SearchProps } from './PlainSearch';

/** At least as many as the list has room for: they are there at once, while the rest is made. */
const IN_SIGHT = 40;

/** What is searched for, and what was found. */
export const SearchField = ({ text, onText, onDone }: SearchProps) => {
  const editor = useEditor();
  const navigate = useNavigate();
  const isWhole = useDeferredValue(true, false);
  const choose = (entry: SearchEntry) => {
    onDone();
    // Once the dialog has given the focus back.
    setTimeout(() => entry.run(editor, (to) => void navigate(to)), 0);
  };
  return (
    <Command label="Search" loop shouldFilter={false}>
      <Command.Input autoFocus value={text} onValueChange={onText} placeholder={PLACEHOLDER} className={INPUT} />
      <Command.List className={LIST}>
        <Command.Empty className="px-2 py-6 text-center text-ink-2">
          Nothing is called that. Try what it does: “loop”, “grid”, “soft”.
        </Command.Empty>
        {found(text)
          .slice(0, isWhole ? undefined : IN_SIGHT)
          .map((entry) => (
            <Command.Item
              key={entry.id}
              value={entry.id}
              data-also={entry.also}
              onSelect={() => choose(entry)}
              className="flex h-8 cursor-pointer items-center gap-3 rounded-md px-2 data-[selected=true]:bg-sky-2"
            >
              <span className="mr-auto truncate">{entry.label}</span>
              {entry.keys && <kbd className="rounded-sm bg-paper-2 px-1.5 font-sans text-sm">{entry.keys}</kbd>}
              <span className="w-32 shrink-0 text-right text-sm text-ink-2">{entry.group}</span>
            </Command.Item>
          ))}
      </Command.List>
    </Command>
  );
};
