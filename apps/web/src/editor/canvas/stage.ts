/** The canvas area as tools, handles and what is drawn over the picture see it. */
import type { Point } from '@kite/core/document/types';
import type { EditorState } from '../store/state';
import type { View } from '../store/workspace';

export interface Stage {
  readonly view: View;
  /** Where a pointer is, in CSS pixels of the area. */
  readonly pointOf: (event: { clientX: number; clientY: number }) => Point;
}

/*
 * What is drawn over the picture renders again for another frame only while something of it shows: these are the frame
 * then, and null else.
 */
export const frameOfLayers = (s: EditorState): number | null =>
  s.playing || s.selection.layers.length === 0 ? null : s.frame;
export const frameOfCard = (s: EditorState): number | null => (s.playing || s.selection.card === null ? null : s.frame);
export const frameOfCompare = (s: EditorState): number | null => (s.compare === null ? null : s.frame);
