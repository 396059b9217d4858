import { useState } from 'react';
import { Dialog } from '../../ui/Dialog';
import { SearchField } from '../later';
import { useEditor } from '../store/context';

/** Everything that can be done, by what it is called or might be. It begins anew each time. */
export const SearchDialog = () => {
  const editor = useEditor();
  const [text, setText] = useState('');
  const close = () => editor.set({ searching: false });
  return (
    <Dialog open onClose={close} title="Search" width={560}>
      <SearchField text={text} onText={setText} onDone={close} />
    </Dialog>
  );
};
