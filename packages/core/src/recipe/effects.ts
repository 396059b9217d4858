/** Effects: covers that change the pixels of what is drawn above them. */
import type { Params, Values } from '../document/params';
import { cover, type CoverKind, type Effect } from './types';

type EffectKind<P extends Params> = Omit<CoverKind<P>, 'role' | 'holds' | 'cover'> & {
  /** What is done for values; null for nothing. */
  readonly effect: (values: Values<P>) => Effect | null;
};

/** A cover card that has an effect on all that is above it, as one picture. */
export const effect = <P extends Params>({ effect: effectOf, ...kind }: EffectKind<P>) =>
  cover<P>({
    ...kind,
    cover: (marks, values) => {
      const by = effectOf(values);
      return by ? [{ op: 'group', marks, alpha: 1, blend: 'normal', effect: { by, scale: 1 } }] : marks;
    },
  });
