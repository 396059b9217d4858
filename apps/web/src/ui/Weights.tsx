import type { Part } from '@kite/core/delivery/types';
import { weight } from './units';

const TONES = ['bg-sky', 'bg-tail', 'bg-sun', 'bg-kite'] as const;
const toneOf = (part: number) => TONES[part % TONES.length];

/** What a file weighs by part, as shares of the whole or of its budget. */
export const Weights = ({ parts, bytes, budget }: { parts: readonly Part[]; bytes: number; budget: number }) => {
  const whole = Math.max(bytes, budget);
  const over = budget > 0 && bytes > budget;
  return (
    <div className="flex flex-col gap-1.5">
      <div className="flex h-2 overflow-hidden rounded-sm bg-line" aria-hidden>
        {parts.map(({ name, bytes: own }, i) => (
          <div key={name} className={toneOf(i)} style={{ width: `${(100 * own) / whole}%` }} />
        ))}
      </div>
      <p className="tabular text-sm">
        <span className={over ? 'font-medium text-kite' : 'font-medium'}>
          {weight(bytes)}
          {budget > 0 && ` of ${weight(budget)}`}
        </span>
        {parts.map(({ name, bytes: own }, i) => (
          <span key={name} className="ml-3 whitespace-nowrap text-ink-2">
            <span className={`mr-1 inline-block size-2 rounded-sm ${toneOf(i)}`} />
            {name} {weight(own)}
          </span>
        ))}
      </p>
    </div>
  );
};
