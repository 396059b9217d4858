import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';

interface CanvasPopoverProps {
  label: string;
  icon: ReactNode;
  /** Whether what it sets is on; left out where it sets several things. */
  pressed?: boolean;
  children: ReactNode;
}

/** A button of the canvas's bar that opens a panel of settings above it. */
export const CanvasPopover = ({ label, icon, pressed, children }: CanvasPopoverProps) => (
  <Popover.Root>
    <Popover.Trigger asChild>
      <button
        type="button"
        aria-label={label}
        aria-pressed={pressed}
        title={label}
        className={`inline-flex size-7 items-center justify-center rounded-md ${pressed ? 'bg-sky-2 text-sky' : 'text-ink-2 hover:bg-paper-2 hover:text-ink'}`}
      >
        {icon}
      </button>
    </Popover.Trigger>
    <Popover.Portal>
      <Popover.Content
        side="top"
        align="end"
        sideOffset={6}
        className="z-50 flex w-56 flex-col gap-1.5 rounded-md border border-line bg-paper p-3 shadow-lg"
        onKeyDown={(event) => event.key !== 'Escape' && event.stopPropagation()}
      >
        {children}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
);
