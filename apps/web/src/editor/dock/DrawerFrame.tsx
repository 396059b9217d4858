import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { IconButton } from '../../ui/Button';
import { useEditor } from '../store/context';

const PLACE = 'flex w-[248px] shrink-0 flex-col border-r border-line bg-paper';

/** Where a drawer will be: what is beside it stands still when it comes. */
export const DrawerPlace = () => <div className={PLACE} />;

export const DrawerFrame = ({ title, children }: { title: string; children: ReactNode }) => {
  const editor = useEditor();
  return (
    <section data-drawer aria-label={title} className={PLACE}>
      <header className="flex h-10 items-center justify-between pr-2 pl-3">
        <h2 className="font-semibold">{title}</h2>
        <IconButton label="Close" onClick={() => editor.set({ drawer: null })}>
          <X size={15} />
        </IconButton>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto px-3 pb-3">{children}</div>
    </section>
  );
};
