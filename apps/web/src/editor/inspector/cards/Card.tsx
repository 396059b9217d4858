import type { ReactNode } from 'react';

interface CardProps {
  title: string;
  icon: ReactNode;
  aside?: ReactNode;
  children: ReactNode;
}

/** A card of the inspector. */
export const Card = ({ title, icon, aside, children }: CardProps) => (
  <section aria-label={title} className="rounded-md border border-line bg-paper">
    <header className="flex h-9 items-center gap-2 px-2.5">
      <span className="text-ink-2">{icon}</span>
      <h2 className="font-semibold">{title}</h2>
      <span className="ml-auto min-w-0 truncate text-sm text-ink-2">{aside}</span>
    </header>
    <div className="flex flex-col gap-1.5 px-2.5 pb-2.5">{children}</div>
  </section>
);
