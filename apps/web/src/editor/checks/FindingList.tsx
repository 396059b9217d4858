import type { Finding } from '@kite/core/proof/types';
import { FindingRow } from './FindingRow';

/** More than this nobody reads. */
const MOST = 100;

interface FindingListProps {
  findings: readonly Finding[];
  onShow?: () => void;
}

export const FindingList = ({ findings, onShow }: FindingListProps) => (
  <ul>
    {findings.slice(0, MOST).map((finding) => (
      <FindingRow
        key={[finding.check, finding.scene, finding.layer, finding.delivery, finding.message].join('/')}
        finding={finding}
        {...(onShow && { onShow })}
      />
    ))}
    {findings.length > MOST && <li className="px-2 py-1.5 text-ink-2">And {findings.length - MOST} more.</li>}
  </ul>
);
