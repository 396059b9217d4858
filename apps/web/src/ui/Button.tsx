import { clsx } from 'clsx';
import { Tooltip } from 'radix-ui';
import type { ButtonHTMLAttributes, ReactNode } from 'react';

type Look = 'plain' | 'outline' | 'primary' | 'danger';

const LOOKS: Record<Look, string> = {
  plain: 'text-ink hover:bg-paper-2',
  outline: 'border border-line bg-paper text-ink hover:bg-paper-2',
  primary: 'bg-kite font-semibold text-kite-ink hover:brightness-95',
  danger: 'border border-line bg-paper text-kite hover:bg-paper-2',
};

/** How a button looks, for links that stand among buttons. */
export const buttonLook = (look: Look, className?: string): string =>
  clsx(
    'inline-flex h-[30px] shrink-0 items-center justify-center gap-1.5 rounded-md px-3 whitespace-nowrap disabled:opacity-45',
    LOOKS[look],
    className,
  );

interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: Look;
  icon?: ReactNode;
}

export const Button = ({ look = 'outline', icon, className, children, type = 'button', ...rest }: ButtonProps) => (
  <button type={type} className={buttonLook(look, className)} {...rest}>
    {icon}
    {children}
  </button>
);

interface IconButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  label: string;
  shortcut?: string;
  pressed?: boolean;
  size?: 'small' | 'medium' | 'large';
  side?: 'top' | 'right' | 'bottom' | 'left';
}

const SIZES = { small: 'size-5', medium: 'size-7', large: 'size-[34px]' };

/** An icon alone: its name and shortcut stand in its tooltip. */
export const IconButton = ({
  label,
  shortcut,
  pressed,
  size = 'medium',
  side = 'bottom',
  className,
  children,
  ...rest
}: IconButtonProps) => (
  <Tooltip.Root>
    <Tooltip.Trigger asChild>
      <button
        type="button"
        aria-label={label}
        aria-pressed={pressed}
        className={clsx(
          'inline-flex shrink-0 items-center justify-center rounded-md disabled:opacity-40',
          SIZES[size],
          pressed ? 'bg-sky-2 text-sky' : 'text-ink-2 hover:bg-paper-2 hover:text-ink',
          className,
        )}
        {...rest}
      >
        {children}
      </button>
    </Tooltip.Trigger>
    <Tooltip.Portal>
      <Tooltip.Content
        side={side}
        sideOffset={6}
        className="z-50 flex items-center gap-2 rounded-md bg-ink px-2 py-1 text-sm text-paper"
      >
        {label}
        {shortcut && (
          <kbd className="rounded-sm border border-current px-1 font-sans text-xs opacity-70">{shortcut}</kbd>
        )}
      </Tooltip.Content>
    </Tooltip.Portal>
  </Tooltip.Root>
);
