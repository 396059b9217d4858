import { ClipboardCheck, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { Panel } from '../../ui/Panel';
import { CheckList } from '../later';
import { useSlice } from '../store/context';
import { useProofs } from './useProofs';

/** What should be looked at before anything leaves, of every scene and delivery: how much it is stands in the header. */
export const ChecksMenu = () => {
  useProofs();
  const [open, setOpen] = useState(false);
  const findings = useSlice((s) => s.findings);
  const count = findings?.length ?? 0;
  return (
    <Panel
      label="Checks"
      open={open}
      onOpenChange={setOpen}
      side="bottom"
      align="end"
      className="max-h-[70vh] w-[420px]"
      opener={
        <button
          type="button"
          data-testid="checks"
          aria-label={count > 0 ? `${count} to look at` : findings ? 'Checks: nothing to look at' : 'Checks: looking'}
          className={`ml-1 inline-flex h-[30px] items-center gap-1.5 rounded-md px-2.5 whitespace-nowrap ${count > 0 ? 'bg-sun-2 text-sun' : 'text-ink-2 hover:bg-paper-2'}`}
        >
          {count > 0 ? <TriangleAlert size={15} /> : <ClipboardCheck size={15} />} {findings ? count : '…'}
        </button>
      }
    >
      <CheckList onLeave={() => setOpen(false)} />
    </Panel>
  );
};
