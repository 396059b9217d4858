/** The open project: its document, what was done to it, and what is known of it. */
import type { Here } from '@kite/api/live';
import type { Id, Project } from '@kite/core/document/types';
import type { Problem } from '@kite/core/scene/program';
import type { Finding, Rules } from '@kite/core/proof/types';
import type { FrameRange } from '../../preview/frameCache';
import { keptRules } from './rules';
import type { SaveState } from './saver';
import { type Entry, NO_STEPS, type Steps } from './steps';

export interface Session extends Steps {
  readonly doc: Project;
  readonly sceneId: Id;
  /** What was done to the project, as far back as was asked for. */
  readonly log: readonly Entry[];
  /** Whether there is more of it before. */
  readonly moreBefore: boolean;
  /** Where others are in the project. */
  readonly others: readonly Here[];
  readonly gesturing: boolean;
  readonly saving: SaveState;
  readonly problems: readonly Problem[];
  /** What checks found in the document when it last came to rest; null before they are through. */
  readonly findings: readonly Finding[] | null;
  /** The document that they were found in: in another one a mend might be of something else. */
  readonly foundIn: Project | null;
  /** How strict they are: of this browser. */
  readonly rules: Rules;
  /** Frames that are drawn already. */
  readonly cached: readonly FrameRange[];
  /** Rises when a font comes in. */
  readonly fontsCame: number;
}
export const newSession = (doc: Project, sceneId: Id): Session => ({
  doc,
  sceneId,
  ...NO_STEPS,
  log: [],
  moreBefore: false,
  others: [],
  gesturing: false,
  saving: { kind: 'saved' },
  problems: [],
  findings: null,
  foundIn: null,
  rules: keptRules(),
  cached: [],
  fontsCame: 0,
});
