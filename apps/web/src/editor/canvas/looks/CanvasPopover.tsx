import type { ReactNode } from 'react';
import { Panel } from '../../../ui/Panel';

interface CanvasPopoverProps {
  label: string;
  icon: ReactNode;
  /** Whether what it sets is on; left out where it sets several things. */
  pressed?: boolean;
  children: ReactNode;
}

/** A button of the canvas's bar that opens a panel of settings above it. */
export const CanvasPopover = ({ label, icon, pressed, children }: CanvasPopoverProps) => (
  <Panel
    label={label}
    side="top"
    align="end"
    className="w-56 gap-1.5 p-3"
    opener={
      <button
        type="button"
        aria-label={label}
        aria-pressed={pressed}
        title={label}
        className={`inline-flex size-7 items-center justify-center rounded-md ${pressed ? 'bg-sky-2 text-sky' : 'text-ink-2 hover:bg-paper-2 hover:text-ink'}`}
      >
        {icon}
      </button>
    }
  >
    {children}
  </Panel>
);
