import { ContextMenu, DropdownMenu } from 'radix-ui';
import { type ReactNode, type SyntheticEvent, useState } from 'react';

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
  onOpen?: () => void;
}

const CONTENT = 'z-50 min-w-44 overflow-y-auto rounded-md border border-line bg-paper p-1 shadow-lg';
/** More entries than that are higher than a small window: they stand in two columns. */
const MOST_IN_ONE = 16;
const columnsOf = (entries: MenuProps['entries']): string => (entries.length > MOST_IN_ONE ? 'grid grid-cols-2' : '');

const ITEM =
  'flex h-7 items-center gap-2 rounded-[5px] px-2 outline-none data-[disabled]:opacity-40 data-[highlighted]:bg-sky-2';

/** In React's eyes a menu lies within what it was opened from, which is to hear nothing of it. */
const APART = {
  onClick: (event: SyntheticEvent) => event.stopPropagation(),
  onPointerDown: (event: SyntheticEvent) => event.stopPropagation(),
};

/** A field that an entry has opened keeps the focus, which else goes back to what the menu was opened from. */
const leaveField = (event: Event): void => {
  if (document.activeElement instanceof HTMLInputElement) event.preventDefault();
};

/** The two kinds of menu have the same parts. */
type Parts = Pick<typeof DropdownMenu, 'Item' | 'Separator'> | Pick<typeof ContextMenu, 'Item' | 'Separator'>;

const Entries = ({ of: { Item, Separator }, entries }: { of: Parts; entries: MenuProps['entries'] }) =>
  entries.map((entry, i) =>
    entry === null ? (
      <Separator key={i} className="col-span-full my-1 h-px bg-line" />
    ) : (
      <Item
        key={entry.label}
        disabled={entry.disabled}
        onSelect={entry.onSelect}
        className={`${ITEM} ${entry.danger ? 'text-kite' : 'text-ink'}`}
      >
        {entry.icon}
        <span className="flex-1">{entry.label}</span>
        {entry.shortcut && <span className="pl-4 text-xs text-ink-2">{entry.shortcut}</span>}
      </Item>
    ),
  );

/** null between entries is a line. */
export const Menu = ({ trigger, entries, align = 'end', onOpen }: MenuProps) => (
  <DropdownMenu.Root modal={false} onOpenChange={(open) => open && onOpen?.()}>
    <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align={align}
        sideOffset={4}
        {...APART}
        onCloseAutoFocus={leaveField}
        className={`${CONTENT} max-h-(--radix-dropdown-menu-content-available-height) ${columnsOf(entries)}`}
      >
        <Entries of={DropdownMenu} entries={entries} />
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  </DropdownMenu.Root>
);

interface PressMenuProps {
  children: ReactNode;
  /** Asked for when it opens. */
  entries: () => MenuProps['entries'];
  /** Whether the browser's own menu is left alone. */
  off?: boolean;
}

/** The menu of what is pressed with the right button, or for long with a finger. */
export const PressMenu = ({ children, entries, off = false }: PressMenuProps) => {
  const [shown, setShown] = useState<MenuProps['entries']>([]);
  return (
    <ContextMenu.Root modal={false} onOpenChange={(open) => setShown(open ? entries() : [])}>
      <ContextMenu.Trigger asChild disabled={off}>
        {children}
      </ContextMenu.Trigger>
      <ContextMenu.Portal>
        <ContextMenu.Content
          {...APART}
          onCloseAutoFocus={leaveField}
          className={`${CONTENT} max-h-(--radix-context-menu-content-available-height) ${columnsOf(shown)}`}
        >
          <Entries of={ContextMenu} entries={shown} />
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  );
};
