import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
import { IconButton } from './Button';

interface DialogProps {
  open: boolean;
  onClose: () => void;
  title: string;
  about?: string;
  width?: number;
  /** Whether there is only text in it: it takes the focus, to be scrolled by keys. */
  reading?: boolean;
  children: ReactNode;
}

export const Dialog = ({ open, onClose, title, about, width = 520, reading, children }: DialogProps) => (
  <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
    <Radix.Portal>
      <Radix.Overlay className="fixed inset-0 z-30 bg-[rgb(16_19_46/0.35)]" />
      <Radix.Content
        {...(about ? {} : { 'aria-describedby': undefined })}
        // The dialog itself takes the focus, unless one of its fields asks for it.
        onOpenAutoFocus={(event) => {
          const content = event.currentTarget as HTMLElement;
          if (content.querySelector('[autofocus]') || content.contains(document.activeElement)) return;
          event.preventDefault();
          content.focus();
        }}
        // What is said in the corner meanwhile may be pressed.
        onInteractOutside={(event) => {
          if (event.target instanceof Element && event.target.closest('[data-sonner-toaster]')) event.preventDefault();
        }}
        style={{ width }}
        className="fixed top-1/2 left-1/2 z-40 flex max-h-[92vh] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 flex-col rounded-md border border-line bg-paper shadow-xl outline-none"
      >
        <header className="flex items-start justify-between gap-4 px-5 pt-4 pb-2">
          <div>
            <Radix.Title className="text-lg font-semibold">{title}</Radix.Title>
            {about && <Radix.Description className="text-ink-2">{about}</Radix.Description>}
          </div>
          <Radix.Close asChild>
            <IconButton label="Close" shortcut="Esc">
              <X size={16} />
            </IconButton>
          </Radix.Close>
        </header>
        <div {...(reading && { tabIndex: 0 })} className="min-h-0 overflow-y-auto px-5 pb-5">
          {children}
        </div>
      </Radix.Content>
    </Radix.Portal>
  </Radix.Root>
);
