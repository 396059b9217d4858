import { clsx } from 'clsx';
import { Check, X } from 'lucide-react';
import { Link } from 'react-router';
import { IconButton } from '../../ui/Button';
import { areLeft, FIRST_STEPS, type FirstStep, putAway, useProgress } from './steps';

/** Frames a part of the editor for a moment. */
const pointAt = (area: FirstStep['area']): void => {
  const part = document.querySelector(`[data-area="${area}"]`);
  part?.animate([{ boxShadow: 'inset 0 0 0 3px var(--sky)' }, { boxShadow: 'inset 0 0 0 3px transparent' }], {
    duration: 1_600,
    easing: 'ease-in',
  });
};

/** What to try first; each goes once it was done, and all of them at a press. */
export const FirstSteps = () => {
  const done = useProgress((s) => s.done);
  if (!areLeft(done)) return null;
  const next = FIRST_STEPS.find(({ id }) => !done.includes(id));
  return (
    <section aria-label="First steps" className="shrink-0 rounded-md border border-sky bg-paper p-3">
      <header className="mb-1.5 flex items-center">
        <h2 className="mr-auto font-semibold">First steps</h2>
        <IconButton label="Put the first steps away" size="small" onClick={putAway}>
          <X size={13} />
        </IconButton>
      </header>
      <ol className="flex flex-col gap-0.5">
        {FIRST_STEPS.map((step) => {
          const taken = done.includes(step.id);
          return (
            <li key={step.id}>
              <button
                type="button"
                title="Show where"
                onClick={() => pointAt(step.area)}
                className={clsx(
                  'flex w-full items-start gap-2 rounded-md px-1 py-0.5 text-left hover:bg-paper-2',
                  taken && 'text-ink-2 line-through',
                  step === next && 'font-medium',
                )}
              >
                <span className="mt-0.5 grid size-4 shrink-0 place-items-center rounded-full border border-line">
                  {taken && <Check size={11} className="text-tail" />}
                </span>
                {step.text}
              </button>
            </li>
          );
        })}
      </ol>
      <Link to="/help" target="_blank" className="mt-1.5 ml-7 inline-block text-sky underline">
        The guide, in short pages
      </Link>
    </section>
  );
};
