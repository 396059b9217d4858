/** Edits to a project's assets. */
import { type Edit, plain, type ProjectDraft } from '../document/patches';
import type { Asset, Id, Layer, Property } from '../document/types';
import { mappedValues } from '../motion/keys';
import { fittedValue } from '../motion/kinds/table';
import { needsOf } from '../recipe/needs';
import { picture } from '../recipe/sources/picture';
import { NotFound } from './find';

export const addAsset = (asset: Asset): Edit => ({
  label: `Import ${asset.name}`,
  change: (draft) => {
    draft.assets[asset.id] = asset as (typeof draft.assets)[string];
  },
});

/** Makes the pictures that show a file so many times as large; one that shows others too, at other times, stays as it is. */
const resize = (draft: ProjectDraft, id: Id, by: number): void => {
  const { size } = picture.params;
  for (const layer of Object.values(draft.scenes).flatMap((scene) => Object.values(scene.layers))) {
    for (const item of layer.kind === 'drawing' ? Object.values(layer.items) : []) {
      const shown = item.params.asset && plain<Property>(item.params.asset);
      if (item.kind !== picture.kind || !shown || !('value' in shown) || shown.value !== id) continue;
      const now = item.params.size && plain<Property>(item.params.size);
      item.params.size = mappedValues(now, size.default, (v) =>
        fittedValue(size, (v as number) * by),
      ) as (typeof item.params)[string];
    }
  }
};

/** Another file for an asset, wherever it is used: places and animation stay, and a picture fills as much as the one before. */
export const swapAsset = (id: Id, file: Asset): Edit => ({
  label: 'Swap a file',
  change: (draft) => {
    const old = draft.assets[id];
    if (!old || old.kind !== file.kind) throw new NotFound(`${file.kind} asset`, id);
    if (old.kind === 'picture' && file.kind === 'picture') {
      const by = Math.min(old.width / file.width, old.height / file.height);
      if (by !== 1) resize(draft, id, by);
    }
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

/** Takes away an asset that no layer shows, in no version either. */
export const removeAsset = (id: Id): Edit => ({
  label: 'Remove a file',
  change: (draft) => {
    for (const scene of Object.values(draft.scenes)) {
      const user = Object.values(scene.layers).find((layer) => needsOf(layer as Layer).assets.has(id));
      if (user) throw new RangeError(`it is shown by “${user.name}” in “${scene.name}”`);
    }
    const named = draft.versions.rows.find(({ values }) => Object.values(values).includes(id));
    if (named) throw new RangeError(`it is shown in the version “${named.name}”`);
    delete draft.assets[id];
  },
});
