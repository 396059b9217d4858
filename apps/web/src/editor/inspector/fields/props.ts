import { alike } from '../../../ui/alike';
import type { Param } from '@kite/core/document/params';
import type { PropertyRef, Value } from '@kite/core/document/types';

export interface FieldProps<P extends Param = Param> {
  param: P;
  /** Of each thing that the field is for. */
  values: readonly Value[];
  refs: readonly PropertyRef[];
  /** Writes one value for all of them, or one for each. */
  write: (...values: readonly Value[]) => void;
  /** Around a change that goes on for a while. */
  gesture: { readonly onStart: () => void; readonly onEnd: () => void };
}
/** The value that all have, which is one of the field's kind; null where they differ. */
export const common = <V extends Value>(values: readonly Value[]): V | null => alike(values) as V | null;
