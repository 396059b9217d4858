import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

export interface MenuEntry {
  readonly label: string;
  readonly icon?: ReactNode;
  readonly shortcut?: string;
  readonly disabled?: boolean;
  readonly danger?: boolean;
  readonly onSelect: () => void;
}

interface MenuProps {
  /** The button that opens it. */
  trigger: ReactNode;
  entries: readonly (MenuEntry | null)[];
  align?: 'start' | 'end';
}

/** null between entries is a line. */
export const Menu = ({ trigger, entries, align = 'end' }: MenuProps) => (
  <DropdownMenu.Root modal={false}>
    <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align={align}
        sideOffset={4}
        onClick={(event) => event.stopPropagation()}
        className="z-50 min-w-44 rounded-md border border-line bg-paper p-1 shadow-lg"
      >
        {entries.map((entry, i) =>
          entry === null ? (
            <DropdownMenu.Separator key={i} className="my-1 h-px bg-line" />
          ) : (
            <DropdownMenu.Item
              key={entry.label}
              disabled={entry.disabled}
              onSelect={entry.onSelect}
              className={`flex h-7 items-center gap-2 rounded-[5px] px-2 outline-none data-[disabled]:opacity-40 data-[highlighted]:bg-sky-2 ${entry.danger ? 'text-kite' : 'text-ink'}`}
            >
              {entry.icon}
              <span className="flex-1">{entry.label}</span>
              {entry.shortcut && <span className="pl-4 text-xs text-ink-2">{entry.shortcut}</span>}
            </DropdownMenu.Item>
          ),
        )}
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  </DropdownMenu.Root>
);
