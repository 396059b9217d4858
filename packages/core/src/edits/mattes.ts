/** Mattes: what one layer shows cuts others. */
import { type MakeId, newItem } from '../document/make';
import { type Edit, plain } from '../document/patches';
import type { Id, Layer } from '../document/types';
import { matte } from '../recipe/covers/matte';
import { drawingIn, itemIn, type ItemDraft, layerIn, NotFound, type SceneDraft, sceneIn } from './find';
import type { CardRef } from './recipe';

/** What cuts is no longer seen by itself; it can be shown again. */
const asMatte = (scene: SceneDraft, by: Id): void => {
  const layer = layerIn(scene, by);
  if (layer.kind !== 'drawing') throw new RangeError(`“${layer.name}” shows nothing that could cut`);
  layer.hidden = true;
};

/** A matte at the end of the recipe of each target, by one layer, whose own picture is switched off. */
export const matteBy = (sceneId: Id, by: Id, targets: readonly Id[], makeId: MakeId): Edit => ({
  label: 'Cut by a layer',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    if (targets.length === 0 || targets.includes(by)) {
      throw new RangeError(`“${plain<Layer>(layerIn(scene, by)).name}” wants another layer to cut`);
    }
    asMatte(scene, by);
    for (const target of targets) {
      const layer = drawingIn(draft, sceneId, target);
      const card = newItem(makeId(), matte.kind, { layer: by });
      layer.items[card.id] = card as ItemDraft;
      layer.recipe = [...layer.recipe, card.id];
    }
  },
});

/** Another layer for a matte that is there. */
export const relinkMatte = ({ scene: sceneId, layer: layerId, item: itemId }: CardRef, by: Id): Edit => ({
  label: 'Cut by a layer',
  change: (draft) => {
    const item = itemIn(drawingIn(draft, sceneId, layerId), itemId);
    if (item.kind !== matte.kind) throw new NotFound('matte', itemId);
    asMatte(sceneIn(draft, sceneId), by);
    item.params.layer = { value: by };
  },
});
