import type { Params, Values } from '../document/params';
import type { Outline } from '../geometry/outline';
import { workOf } from './room';
import { type Above, type Shape, step, type StepKind } from './types';

/** A step that changes each shape by itself. One of which nothing is left keeps its place among them. */
export const shapeStep = <P extends Params>(
  kind: Omit<StepKind<P>, 'role' | 'apply'> & {
    readonly each: (
      outlines: readonly Outline[],
      values: Values<P>,
      at: Pick<Above, 'frame' | 'take' | 'takeAreas'> & { readonly index: number },
    ) => readonly Outline[];
  },
) => {
  const { each, ...rest } = kind;
  return step<P>({
    ...rest,
    apply: (above, values) => {
      const flow = above.at(above.frame);
      const shapes: Shape[] = [];
      for (const [index, shape] of flow.shapes.entries()) {
        const outlines = each(shape.outlines, values, { ...above, index });
        if (!above.take(0, workOf(outlines))) break;
        shapes.push({ ...shape, outlines });
      }
      return { ...flow, shapes };
    },
  });
};
