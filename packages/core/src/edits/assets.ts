/** Edits to a project's assets. */
import type { Edit } from '../document/patches';
import type { Asset, Id, Layer } from '../document/types';
import { needsOf } from '../recipe/needs';
import { NotFound } from './find';

export const addAsset = (asset: Asset): Edit => ({
  label: `Import ${asset.name}`,
  change: (draft) => {
    draft.assets[asset.id] = asset as (typeof draft.assets)[string];
  },
});

/** Another file for an asset, wherever it is used: places and animation stay. */
export const swapAsset = (id: Id, file: Asset): Edit => ({
  label: 'Swap a file',
  change: (draft) => {
    const old = draft.assets[id];
    if (!old || old.kind !== file.kind) throw new NotFound(`${file.kind} asset`, id);
    draft.assets[id] = { ...file, id } as (typeof draft.assets)[string];
  },
});

export const renameAsset = (id: Id, name: string): Edit => ({
  label: 'Rename a file',
  change: (draft) => {
    const asset = draft.assets[id];
    if (!asset) throw new NotFound('asset', id);
    asset.name = name;
  },
});

/** Takes away an asset that no layer shows. */
export const removeAsset = (id: Id): Edit => ({
  label: 'Remove a file',
  change: (draft) => {
    for (const scene of Object.values(draft.scenes)) {
      const user = Object.values(scene.layers).find((layer) => needsOf(layer as Layer).assets.has(id));
      if (user) throw new RangeError(`it is shown by “${user.name}” in “${scene.name}”`);
    }
    delete draft.assets[id];
  },
});
