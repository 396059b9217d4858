import { clsx } from 'clsx';
import { Moon, Sun } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link, NavLink } from 'react-router';
import { useTheme } from '../app/theme';
import { IconButton } from '../ui/Button';

const PAGES = [
  ['/', 'Projects'],
  ['/renders', 'Renders'],
  ['/help', 'Help'],
] as const;

export const PageHeader = ({ children }: { children?: ReactNode }) => {
  const { theme, toggle } = useTheme();
  return (
    <header className="flex h-11 shrink-0 items-center gap-4 border-b border-line bg-paper px-4">
      <Link to="/" className="flex items-center gap-2 rounded-md font-semibold">
        <img src="/kite.svg" alt="" className="size-6" /> Agile Kite
      </Link>
      <nav aria-label="Pages" className="flex gap-1">
        {PAGES.map(([to, label]) => (
          <NavLink
            key={to}
            to={to}
            end={to === '/'}
            className={({ isActive }) =>
              clsx('rounded-md px-2.5 py-1', isActive ? 'bg-sky-2 font-medium text-sky' : 'text-ink-2 hover:text-ink')
            }
          >
            {label}
          </NavLink>
        ))}
      </nav>
      <div className="ml-auto flex items-center gap-2">
        {children}
        <IconButton label={theme === 'day' ? 'Dusk colours' : 'Daylight colours'} onClick={toggle}>
          {theme === 'day' ? <Moon size={15} /> : <Sun size={15} />}
        </IconButton>
      </div>
    </header>
  );
};
