/** Cards that are as large as a box of their own. */
import type { Point } from '@kite/core/document/types';
import { chart } from '@kite/core/recipe/sources/chart';
import { ellipse } from '@kite/core/recipe/sources/ellipse';
import { rectangle } from '@kite/core/recipe/sources/rectangle';
import { text } from '@kite/core/recipe/sources/text';
import type { EditedCard } from './editedCard';

/** By kind: the parameter that is the middle of its box. */
const MIDDLES: Readonly<Record<string, string>> = {
  [rectangle.kind]: 'centre',
  [ellipse.kind]: 'centre',
  [chart.kind]: 'centre',
  [text.kind]: 'place',
};

export interface CardBox {
  readonly width: number;
  readonly height: number;
  readonly middle: Point;
  /** The parameter that `middle` is. */
  readonly key: string;
}

/** The box of an open card, in its own pixels; null where it has none. */
export const cardBox = (card: EditedCard | null): CardBox | null => {
  const key = card && MIDDLES[card.item.kind];
  if (!key || (card.item.kind === text.kind && card.values.frame !== 'box')) return null;
  const { width, height, [key]: middle } = card.values as { width: number; height: number; [key: string]: unknown };
  return { width, height, middle: middle as Point, key };
};
