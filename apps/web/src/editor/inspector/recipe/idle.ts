import type { DrawingLayer, Id, Item } from '@kite/core/document/types';
import { groupOf, within } from '@kite/core/edits/recipe';
import { mask } from '@kite/core/recipe/covers/mask';
import { text } from '@kite/core/recipe/sources/text';
import { along } from '@kite/core/recipe/steps/along';
import { letters } from '@kite/core/recipe/steps/letters';
import { kindOf } from '@kite/core/recipe/table';
import type { Program } from '@kite/core/scene/program';

/** Whether a card stands in a mask that cuts by outlines, where what is painted counts for nothing. */
const isInOutlines = (program: Program, { id, items }: DrawingLayer, card: Id, frame: number): boolean => {
  for (let at = groupOf(items, card); at !== null; at = groupOf(items, at)) {
    if (items[at]?.kind === mask.kind) return program.cardAt(id, at, frame)?.values.by === 'outlines';
  }
  return false;
};

/** Why a card does nothing where it stands; null where it does something. */
export const idleReason = (
  program: Program,
  layer: DrawingLayer,
  item: Item,
  above: readonly Id[],
  frame: number,
): string | null => {
  const kind = kindOf(item.kind);
  if ((kind.role === 'paint' || kind.role === 'cover') && isInOutlines(program, layer, item.id, frame)) {
    return 'The mask around it cuts by outlines: what is painted in it does not count.';
  }
  if (
    kind.kind === letters.kind &&
    !above.some((id) => within(layer.items, id).some((card) => card.kind === text.kind))
  ) {
    return 'It moves the letters of texts, and there is no text above it.';
  }
  if (kind.kind === along.kind && program.flowAt(layer.id, item.children ?? [], frame).shapes.length === 0) {
    return 'It lays what is above along an outline in it, and there is none.';
  }
  if (kind.role === 'source' || kind.role === 'group' || (kind.role === 'step' && kind.copies)) return null;
  const { shapes, marks } = program.flowAt(layer.id, above, frame);
  if (kind.role !== 'cover') {
    if (shapes.length > 0 || marks.length === 0) return null;
    return 'It works on outlines. Above it there are pictures alone, which stay as they are.';
  }
  if (marks.length === 0) return 'It covers what is drawn above it, and nothing is yet.';
  if (!kind.holds || item.params.by) return null;
  if (program.flowAt(layer.id, item.children ?? [], frame).shapes.length > 0) return null;
  return 'It cuts by the outlines of what is in it, and there are none.';
};
