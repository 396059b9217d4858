import type { Changed } from '@kite/core/properties/changed';

const MOST = 12;

/** What was changed, place by place. */
export const ChangedList = ({ changed }: { changed: readonly Changed[] }) => (
  <ul className="flex flex-col gap-0.5 text-sm">
    {changed.slice(0, MOST).map(({ where, what, from, to }) => (
      <li key={[...where, what].join('\0')} className="min-w-0 break-words">
        {where.length > 0 && <span className="text-ink-2">{where.join(' › ')} › </span>}
        {what}
        {(from !== null || to !== null) && (
          <span className="tabular text-ink-2">
            {' '}
            {from ?? 'as it was'} → {to ?? 'something else'}
          </span>
        )}
      </li>
    ))}
    {changed.length > MOST && <li className="text-ink-2">and {changed.length - MOST} more</li>}
  </ul>
);
