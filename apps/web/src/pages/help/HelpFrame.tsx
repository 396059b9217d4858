import { clsx } from 'clsx';
import { type ReactNode, useEffect, useRef } from 'react';
import { NavLink, useLocation } from 'react-router';
import { PageHeader } from '../PageHeader';
import { GUIDE, MADE } from './guide';

/** A page of the help, beside the list of all of them. */
export const HelpFrame = ({ title, children }: { title: string; children: ReactNode }) => {
  const { pathname } = useLocation();
  const page = useRef<HTMLElement>(null);
  useEffect(() => {
    document.title = `${title} · Help · Agile Kite`;
    page.current?.scrollTo(0, 0);
  }, [title, pathname]);
  const link = ({ slug, title: name }: { slug: string; title: string }) => (
    <li key={slug}>
      <NavLink
        to={`/help/${slug}`}
        className={({ isActive }) =>
          clsx('block rounded-md px-2 py-0.5', isActive ? 'bg-sky-2 font-medium text-sky' : 'text-ink-2 hover:text-ink')
        }
      >
        {name}
      </NavLink>
    </li>
  );
  return (
    <div className="flex h-full flex-col">
      <PageHeader />
      <div className="flex min-h-0 flex-1">
        <nav aria-label="Help" className="w-60 shrink-0 overflow-y-auto border-r border-line bg-paper-2 p-3">
          <ul>{GUIDE.map(link)}</ul>
          <p className="mt-3 mb-1 px-2 text-sm font-semibold">To look up</p>
          <ul>{MADE.map(link)}</ul>
        </nav>
        <main ref={page} tabIndex={0} className="min-w-0 flex-1 overflow-y-auto bg-paper">
          <div className="flex max-w-3xl flex-col gap-5 px-8 py-6 leading-relaxed">
            <h1 className="text-xl font-semibold">{title}</h1>
            {children}
          </div>
        </main>
      </div>
    </div>
  );
};
