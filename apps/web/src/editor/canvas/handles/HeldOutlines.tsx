import { frameOfLayers, type Stage } from '../stage';
import type { DrawingLayer, Id } from '@kite/core/document/types';
import { throughBoth } from '@kite/core/geometry/through';
import { dataOf } from '@kite/core/geometry/trace';
import { outlinesThrough } from '@kite/core/recipe/bent';
import { mask } from '@kite/core/recipe/covers/mask';
import { along } from '@kite/core/recipe/steps/along';
import { useEditor, useSlice } from '../../store/context';
import type { Editor } from '../../store/editor';
import type { View } from '../../store/workspace';
import { viewMatrix } from '../view';

/** Cards that use the outlines of those in them, which show nowhere by themselves. */
const BY_OUTLINES: readonly string[] = [mask.kind, along.kind];

/** One after another, so that those of a layer are told from each other. */
const COLORS = ['var(--kite)', 'var(--tail)', 'var(--sky)', 'var(--sun)'] as const;

/** The outlines in a card in the canvas area's pixels, as path data; by how much a mask is grown is left out. */
const outlineOf = (editor: Editor, layer: DrawingLayer, card: Id, view: View): string | null => {
  const { program } = editor;
  const { frame } = editor.state;
  const shown = program.cardAt(layer.id, card, frame);
  if (!shown) return null;
  const through = throughBoth(viewMatrix(view), shown.through);
  const { shapes } = program.flowAt(layer.id, layer.items[card]?.children ?? [], frame);
  return dataOf(shapes.flatMap(({ outlines }) => outlinesThrough(through, outlines)));
};

/** What the masks of the selected layers cut by, and what they are laid along. */
export const HeldOutlines = ({ view }: Stage) => {
  const editor = useEditor();
  const { layers, playing } = useSlice((s) => ({
    doc: s.doc,
    layers: s.selection.layers,
    frame: frameOfLayers(s),
    fontsCame: s.fontsCame,
    playing: s.playing,
  }));
  if (playing) return null;
  return (
    <g style={{ pointerEvents: 'none' }} fill="none" strokeWidth={1.5}>
      {layers.flatMap((id) => {
        const layer = editor.scene.layers[id];
        if (layer?.kind !== 'drawing') return [];
        const holders = Object.values(layer.items).filter((item) => item.on && BY_OUTLINES.includes(item.kind));
        return holders.map(({ id: holder }, i) => {
          const d = outlineOf(editor, layer, holder, view);
          return d && <path key={holder} data-testid="held-outline" d={d} stroke={COLORS[i % COLORS.length]} />;
        });
      })}
    </g>
  );
};
