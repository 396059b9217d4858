import { choice } from '../../document/params';
import { areaOf, combined, intricacyOf, outlinesOf } from '../../geometry/polygons';
import { workOfLooking } from '../room';
import { type Shape, step } from '../types';

const LABELS = { union: 'Union', intersect: 'Intersect', subtract: 'Subtract', exclude: 'Exclude' } as const;

/** One shape from all those above: joined, what all share, the first without the others, or what an odd number covers. */
export const combine = step({
  kind: 'combine',
  label: 'Combine',
  params: {
    operation: choice(
      'How',
      [
        { value: 'union', label: LABELS.union },
        { value: 'intersect', label: LABELS.intersect },
        { value: 'subtract', label: LABELS.subtract },
        { value: 'exclude', label: LABELS.exclude },
      ],
      'union',
    ),
  },
  summary: (v) => LABELS[v.operation],
  apply: (above, { operation }) => {
    const flow = above.at(above.frame);
    const seen = flow.shapes.filter((s) => s.outlines.length > 0);
    const [first] = seen;
    if (!first) return flow;
    const all = seen.flatMap((s) => s.outlines);
    if (!above.take(0, workOfLooking(all)) || !above.takeAreas(intricacyOf(all))) return flow;
    const outlines = outlinesOf(
      combined(
        operation,
        seen.map((s) => areaOf(s.outlines)),
      ),
    );
    const shapes: Shape[] = outlines.length > 0 ? [{ outlines, alpha: first.alpha }] : [];
    return { ...flow, shapes };
  },
});
