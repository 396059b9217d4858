import { frameOfLayers, type Stage } from '../stage';
import type { DrawingLayer, Id } from '@kite/core/document/types';
import { throughBoth } from '@kite/core/geometry/through';
import { dataOf } from '@kite/core/geometry/trace';
import { outlinesThrough } from '@kite/core/recipe/bent';
import { isCut } from '@kite/core/scene/uncut';
import { useEditor, useSlice } from '../../store/context';
import type { Editor } from '../../store/editor';
import type { View } from '../../store/workspace';
import { viewMatrix } from '../view';

/** One after another, so that masks of a layer are told from each other. */
const COLORS = ['var(--kite)', 'var(--tail)', 'var(--sky)', 'var(--sun)'] as const;

/** The outlines of a mask in the canvas area's pixels, as path data; by how much it is grown is left out. */
const outlineOf = (editor: Editor, layer: DrawingLayer, mask: Id, view: View): string | null => {
  const { program } = editor;
  const { frame } = editor.state;
  const shown = program.cardAt(layer.id, mask, frame);
  if (!shown) return null;
  const through = throughBoth(viewMatrix(view), shown.through);
  const { shapes } = program.flowAt(layer.id, layer.items[mask]?.children ?? [], frame);
  return dataOf(shapes.flatMap(({ outlines }) => outlinesThrough(through, outlines)));
};

/** What the masks of the selected layers cut by. */
export const MaskOutlines = ({ view }: Stage) => {
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
        if (!isCut(layer)) return [];
        const masks = Object.values(layer.items).filter((item) => item.kind === 'mask' && item.on);
        return masks.map((mask, i) => {
          const d = outlineOf(editor, layer, mask.id, view);
          return d && <path key={mask.id} data-testid="mask-outline" d={d} stroke={COLORS[i % COLORS.length]} />;
        });
      })}
    </g>
  );
};
