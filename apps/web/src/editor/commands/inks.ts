/** A gradient begins as large as what it fills. */
import type { Edit } from '@kite/core/document/patches';
import type { Point, PropertyRef, Value } from '@kite/core/document/types';
import { setValue } from '@kite/core/edits/properties';
import { cardsAbove } from '@kite/core/edits/recipe';
import { FIRST_COLORS } from '@kite/core/document/colors';
import type { Box } from '@kite/core/geometry/bounds';
import { isGradient } from '@kite/core/recipe/paints/ink';
import { kindOf } from '@kite/core/recipe/table';
import { cardsBox } from '@kite/core/scene/bounds';
import type { Editor } from '../store/editor';

/** From where to where: down a linear one, from the middle to the nearer edge of the others. */
export const waysOf = (style: string, { left, top, right, bottom }: Box): readonly [from: Point, to: Point] => {
  const [x, y] = [(left + right) / 2, (top + bottom) / 2].map(Math.round) as [number, number];
  if (style === 'linear')
    return [
      [x, Math.round(top)],
      [x, Math.round(bottom)],
    ];
  return [
    [x, y],
    [Math.round(x + Math.min(right - left, bottom - top) / 2), y],
  ];
};

/** What goes along with a paint that becomes a gradient for the first time: where it begins and ends, and from which colour. */
export const gradientsBegun = (
  editor: Editor,
  writes: readonly (readonly [ref: PropertyRef, value: Value])[],
): Edit[] =>
  writes.flatMap(([ref, style]) => {
    const layer = editor.state.doc.scenes[ref.scene]?.layers[ref.layer];
    const item = layer?.kind === 'drawing' && ref.item !== undefined ? layer.items[ref.item] : undefined;
    if (layer?.kind !== 'drawing' || !item || ref.key !== 'style' || style === 'solid') return [];
    if (kindOf(item.kind).role !== 'paint' || item.params.from || item.params.to) return [];
    const at = (key: string, value: Value) => setValue({ ...ref, key }, value, editor.writing);
    const { color } = item.params;
    const own = color && 'value' in color && !item.params.gradient ? (color.value as string) : null;
    const stops = [
      { at: 0, color: own ?? FIRST_COLORS[0] },
      { at: 1, color: FIRST_COLORS.find((known) => known !== own) as string },
    ];
    const begun = own === null ? [] : [at('gradient', { stops })];
    if (!isGradient(style)) return begun;
    const box = cardsBox(editor.program, layer.id, cardsAbove(layer, item.id), editor.state.frame);
    if (!box) return [];
    const [from, to] = waysOf(style as string, box);
    return [at('from', from), at('to', to), ...begun];
  });
