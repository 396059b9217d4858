import { urlOf } from '@kite/api/call';
import { RENDERS, type Render } from '@kite/api/renders';
import { formatOf } from '@kite/core/delivery/formats/table';
import { Download, ExternalLink } from 'lucide-react';
import { useState } from 'react';
import { deliveredUrl } from '../../api/client';
import { buttonLook } from '../../ui/Button';
import { Segments } from '../../ui/Segments';
import { Select } from '../../ui/Select';
import { timeOf, weight } from '../../ui/units';
import { Weights } from '../../ui/Weights';
import { Compared } from './Compared';
import { showsDifference } from './comparable';
import { Player } from './Player';
import { titleOf } from './useRenders';

interface DetailProps {
  render: Render;
  /** Those that it may be compared with. */
  others: readonly Render[];
}

const nameOf = ({ fileName, createdAt }: Render): string => `${fileName}, ${timeOf(createdAt)}`;

/** In bytes; 0 is none. */
const budgetOf = ({ settings }: Render): number => ('budget' in settings ? settings.budget * 1024 : 0);

export const Detail = ({ render, others }: DetailProps) => {
  const { result } = render;
  const [how, setHow] = useState<'alone' | 'beside' | 'difference'>('alone');
  const [against, setAgainst] = useState('');
  const other = others.find(({ id }) => id === against) ?? others[0];
  const compared = other && how !== 'alone' && (how === 'beside' || showsDifference(render, other));
  return (
    <section aria-label="Result" className="flex min-h-0 min-w-0 flex-1 flex-col">
      {other && (
        <header className="flex items-center gap-3 border-b border-line bg-paper px-4 py-1.5">
          <Segments
            label="Shown"
            value={how}
            options={[
              { value: 'alone', label: 'Alone' },
              { value: 'beside', label: 'Side by side' },
              ...(showsDifference(render, other) ? [{ value: 'difference' as const, label: 'Difference' }] : []),
            ]}
            onChange={setHow}
          />
          {how !== 'alone' && (
            <>
              <span className="text-ink-2">with</span>
              <Select
                aria-label="Compared with"
                className="max-w-80 flex-1"
                value={other.id}
                options={others.map((o) => ({ value: o.id, label: nameOf(o) }))}
                onChange={setAgainst}
              />
            </>
          )}
          {how === 'difference' && <span className="text-sm text-ink-2">What is black is the same in both.</span>}
        </header>
      )}
      <div className="grid min-h-0 flex-1 place-items-center overflow-auto bg-surround p-5">
        {compared ? (
          <Compared render={render} other={other} names={[nameOf(render), nameOf(other)]} how={how} />
        ) : result ? (
          <Player render={render} />
        ) : (
          <p className="max-w-md rounded-md bg-paper px-4 py-3 text-center">
            {render.status === 'failed'
              ? `This render failed. ${render.error ?? ''} The project is as it was; try again once that is mended.`
              : render.status === 'cancelled'
                ? 'This render was cancelled. It can be tried again.'
                : 'What comes of this render will play here.'}
          </p>
        )}
      </div>
      <footer className="flex items-center gap-4 border-t border-line bg-paper px-4 py-2.5">
        <div className="min-w-0 flex-1">
          <p className="truncate font-medium">
            {render.projectName} · {titleOf(render)}
          </p>
          {result && (
            <p className="tabular truncate text-sm text-ink-2">
              {render.fileName}.{formatOf(render.settings.format).extension} · {result.width} × {result.height} px
              {result.seconds > 0 && ` · ${result.frames} frames · ${result.seconds.toFixed(2)} s`} ·{' '}
              {weight(result.bytes)}
            </p>
          )}
          {result?.parts && <Weights parts={result.parts} bytes={result.bytes} budget={budgetOf(render)} />}
          {result?.notes.map((note) => (
            <p key={note} className="text-sm text-sun">
              {note}
            </p>
          ))}
        </div>
        {result && formatOf(render.settings.format).shownAs !== 'file' && (
          <a href={deliveredUrl(render)} target="_blank" rel="noreferrer" className={buttonLook('outline', 'mr-2')}>
            <ExternalLink size={15} /> Open as delivered
          </a>
        )}
        {result && (
          <a href={urlOf(RENDERS.file, { id: render.id, download: '' })} className={buttonLook('primary')}>
            <Download size={15} /> Download
          </a>
        )}
      </footer>
    </section>
  );
};
