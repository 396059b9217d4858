/** Pictures one after another on a context that nothing else draws on: what is there already is not drawn again. */
import type { DisplayList } from '../scene/program';
import { type Frame, paint } from './canvas';
import type { Context2D } from './surface';
import type { Tools } from './target';

const isList = (v: object): v is ArrayLike<unknown> => Array.isArray(v) || v instanceof Float64Array;

/** Whether two values are the same all through: lists, outlines and plain objects; anything else has to be the very same. */
export const same = (a: unknown, b: unknown): boolean => {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b) return false;
  if (isList(a) && isList(b)) {
    if (a.length !== b.length) return false;
    for (let i = 0; i < a.length; i++) if (!same(a[i], b[i])) return false;
    return true;
  }
  if (a.constructor !== Object || b.constructor !== Object) return false;
  const [own, others] = [Object.entries(a), b as Readonly<Record<string, unknown>>];
  return own.length === Object.keys(b).length && own.every(([key, value]) => key in b && same(value, others[key]));
};

/** Whether two lists come to the same picture. */
export const showsTheSame = (a: DisplayList, b: DisplayList): boolean =>
  a.width === b.width && a.height === b.height && a.background === b.background && same(a.marks, b.marks);

/** Paints lists as `paint` does. Gives whether there was anything to paint: a list that shows what the one before did is passed over. */
export const repainting = (context: Context2D, tools: Tools): ((list: DisplayList, frame: Frame) => boolean) => {
  let there: { readonly list: DisplayList; readonly frame: Frame } | null = null;
  return (list, frame) => {
    if (there && same(there.frame, frame) && showsTheSame(there.list, list)) return false;
    // Nothing is there for certain where painting fails.
    there = null;
    paint(context, list, frame, tools);
    there = { list, frame };
    return true;
  };
};
