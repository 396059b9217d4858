import { Popover } from 'radix-ui';
import type { ReactElement, ReactNode } from 'react';

interface PanelProps {
  /** What it is called by those who do not see it. */
  label: string;
  /** The button that opens it. */
  opener: ReactElement;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
  side?: 'left' | 'top' | 'bottom';
  align?: 'start' | 'center' | 'end';
  /** Its width, and how its contents stand. */
  className: string;
  children: ReactNode;
}

/** A small panel beside the button that opens it. Keys typed in it are not the editor's. */
export const Panel = ({ label, opener, open, onOpenChange, side = 'left', align, className, children }: PanelProps) => (
  <Popover.Root open={open} onOpenChange={onOpenChange}>
    <Popover.Trigger asChild>{opener}</Popover.Trigger>
    <Popover.Portal>
      <Popover.Content
        aria-label={label}
        side={side}
        align={align}
        sideOffset={8}
        className={`z-50 flex flex-col rounded-md border border-line bg-paper shadow-lg ${className}`}
        onKeyDown={(event) => event.key !== 'Escape' && event.stopPropagation()}
      >
        {children}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
);
