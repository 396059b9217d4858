import type { Id, Layer } from '@kite/core/document/types';
import { needsOf } from '@kite/core/recipe/needs';
import { layersCutBy } from '@kite/core/scene/follows';
import { Scissors } from 'lucide-react';
import { toast } from '../../../ui/toast';
import { cutLayers } from '../../commands/mattes';
import { useLinkDrag } from '../../linking/useLinkDrag';
import { useEditor, useSlice } from '../../store/context';
import { sceneOf } from '../../store/state';
import { listed } from '../../../ui/units';
import { rowButton } from '../scale';

/** What a layer is cut by and what it cuts; dragged to a layer's row or picture, that cuts it too. */
export const MatteLink = ({ layer, chosen }: { layer: Layer; chosen: () => readonly Id[] }) => {
  const editor = useEditor();
  const { by, cuts } = useSlice((s) => {
    const scene = sceneOf(s);
    const cutting = [...needsOf(layer).layers].map((id) => scene.layers[id]?.name ?? 'a layer that is gone');
    return { by: listed(cutting), cuts: listed(layersCutBy(scene, layer.id).map((l) => l.name)) };
  });
  const { onPointerDown, line } = useLinkDrag((found) => {
    if (found) cutLayers(editor, chosen(), found.layer);
  });
  /** Pressed, it shows what it stands for: the layers at the other ends. */
  const onClick = () => {
    const { scene } = editor;
    const ends = by
      ? [...needsOf(layer).layers].filter((id) => scene.layers[id])
      : layersCutBy(scene, layer.id).map(({ id }) => id);
    if (ends.length > 0) editor.select({ layers: ends });
    else toast.info('Drag the scissors to the row or the picture of the layer that is to cut this one.');
  };
  const says = [by && `is cut by ${by}`, cuts && `cuts ${cuts}`].filter(Boolean).join(', ');
  const look = by ? 'text-tail' : cuts ? 'text-kite' : 'text-ink-2 opacity-60';
  if (layer.kind !== 'drawing') return <span className="size-5" />;
  return (
    <button
      type="button"
      aria-label={`Mattes of ${layer.name}: ${says || 'none'}`}
      title={
        says
          ? `${layer.name} ${says}; press to select it, drag to a layer that is to cut it`
          : 'Drag to the layer that is to cut it'
      }
      className={`${rowButton} cursor-grab ${look}`}
      onPointerDown={onPointerDown}
      onClick={onClick}
    >
      <Scissors size={13} className={cuts && !by ? '-scale-x-100' : ''} />
      {line}
    </button>
  );
};
