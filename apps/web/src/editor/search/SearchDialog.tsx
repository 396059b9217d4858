import { Command } from 'cmdk';
import { useDeferredValue, useState } from 'react';
import { useNavigate } from 'react-router';
import { Dialog } from '../../ui/Dialog';
import { useEditor, useSlice } from '../store/context';
import { found, type SearchEntry } from './entries';

/** At least as many as the list has room for: they are there at once, while the rest is made. */
const IN_SIGHT = 40;

/** What is searched for; it begins anew each time. */
const Search = () => {
  const editor = useEditor();
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const isWhole = useDeferredValue(true, false);
  const close = () => editor.set({ searching: false });
  const choose = (entry: SearchEntry) => {
    close();
    // Once the dialog has given the focus back.
    setTimeout(() => entry.run(editor, (to) => void navigate(to)), 0);
  };
  return (
    <Dialog open onClose={close} title="Search" width={560}>
      <Command label="Search" loop shouldFilter={false}>
        <Command.Input
          autoFocus
          value={text}
          onValueChange={setText}
          placeholder="A command, card, move, setting or page, by any name"
          className="my-0.5 mb-2 h-9 w-full rounded-md bg-paper-2 px-3"
        />
        <Command.List className="h-[50vh] overflow-y-auto">
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
    </Dialog>
  );
};

/** Everything that can be done, by what it is called or might be. */
export const SearchDialog = () => {
  const open = useSlice((s) => s.searching);
  return open ? <Search /> : null;
};
