/** What is checked, in the order in which it is told. */
import type { MakeId } from '../document/make';
import type { Edit } from '../document/patches';
import type { Project } from '../document/types';
import { bannerBorder } from './checks/bannerBorder';
import { bannerClick } from './checks/bannerClick';
import { bannerFallback } from './checks/bannerFallback';
import { bannerLoops } from './checks/bannerLoops';
import { bannerTime } from './checks/bannerTime';
import { contrast } from './checks/contrast';
import { cut } from './checks/cut';
import { early } from './checks/early';
import { endsEarly } from './checks/endsEarly';
import { enlarged } from './checks/enlarged';
import { flashes } from './checks/flashes';
import { lateKeys } from './checks/lateKeys';
import { loop } from './checks/loop';
import { reading } from './checks/reading';
import { safeArea } from './checks/safeArea';
import { textSize } from './checks/textSize';
import { weight } from './checks/weight';
import { working } from './checks/working';
import type { CheckKind, Finding } from './types';

export const CHECKS: readonly CheckKind[] = [
  working,
  reading,
  textSize,
  contrast,
  safeArea,
  cut,
  early,
  endsEarly,
  lateKeys,
  enlarged,
  flashes,
  bannerTime,
  bannerLoops,
  bannerClick,
  weight,
  bannerFallback,
  bannerBorder,
  loop,
];

/** What a press does about a finding; null where nothing can be done by a press. */
export const mendOf = (finding: Finding, project: Project, makeId: MakeId): Edit | null =>
  finding.mend === undefined
    ? null
    : (CHECKS.find(({ kind }) => kind === finding.check)?.mend?.(finding, project, makeId) ?? null);
