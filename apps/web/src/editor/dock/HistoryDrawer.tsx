import { clsx } from 'clsx';
import { useEditor, useSlice } from '../store/context';
import { DrawerFrame } from './DrawerFrame';

/** Every step since the project was opened; a click goes there. */
export const HistoryDrawer = () => {
  const editor = useEditor();
  const { past, future } = useSlice((s) => ({ past: s.past, future: s.future }));
  const labels = ['Opened', ...past.map((s) => s.label), ...future.toReversed().map((s) => s.label)];
  return (
    <DrawerFrame title="History">
      <ol className="flex flex-col-reverse">
        {labels.map((label, i) => (
          <li key={i}>
            <button
              type="button"
              aria-current={i === past.length}
              onClick={() => editor.goTo(i)}
              className={clsx(
                'w-full truncate rounded-md px-2 py-1 text-left',
                i === past.length ? 'bg-sky-2 font-medium' : 'hover:bg-paper-2',
                i > past.length && 'text-ink-2 italic',
              )}
            >
              {label}
            </button>
          </li>
        ))}
      </ol>
    </DrawerFrame>
  );
};
