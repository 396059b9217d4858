import { ASSETS } from '@kite/api/library';
import type { Asset } from '@kite/core/document/types';
import { addLayers } from '@kite/core/edits/layers';
import { removeAsset, renameAsset, swapAsset } from '@kite/core/edits/assets';
import { EllipsisVertical, Type, Upload } from 'lucide-react';
import { useMemo, useRef } from 'react';
import { ask } from '../../api/client';
import { usesOfAssets } from '@kite/core/recipe/needs';
import { assetUrl } from '../../preview/materials';
import { Button } from '../../ui/Button';
import { FileInput } from '../../ui/FileInput';
import { Menu } from '../../ui/Menu';
import { RenameField } from '../../ui/RenameField';
import { sayUnchanged } from '../../ui/says';
import { ACCEPTED, nameOfFile } from '../importing/takenIn';
import { importFiles, pictureLayer, rememberImportOrder } from '../importing/importFiles';
import { useEditor, useSlice } from '../store/context';
import { DrawerFrame } from './DrawerFrame';

const size = (bytes: number): string =>
  bytes < 2 ** 20 ? `${Math.max(1, Math.round(bytes / 1024))} KB` : `${(bytes / 2 ** 20).toFixed(1)} MB`;

const about = (asset: Asset): string =>
  asset.kind === 'picture'
    ? `${asset.width} × ${asset.height}, ${size(asset.bytes)}`
    : `${asset.family} ${asset.weights ? asset.weights.join('–') : asset.weight}${asset.italic ? ' italic' : ''}`;

interface AssetRowProps {
  asset: Asset;
  uses: number;
  /** What a press on its picture does. */
  press?: 'add' | 'swap';
}

export const AssetRow = ({ asset, uses, press = 'add' }: AssetRowProps) => {
  const editor = useEditor();
  const file = useRef<HTMLInputElement>(null);
  const place = () => {
    if (asset.kind !== 'picture') return;
    const layer = pictureLayer(editor, asset);
    editor.edit(addLayers(editor.scene.id, [layer], editor.state.selection.layers[0]));
    editor.select({ layers: [layer.id] });
  };
  const swap = async (chosen: File) => {
    try {
      const next = await ask(ASSETS.add, { name: nameOfFile(chosen) }, chosen);
      if (next.kind !== asset.kind) throw new Error(`“${chosen.name}” is a ${next.kind}, and this is a ${asset.kind}.`);
      editor.edit(swapAsset(asset.id, next));
    } catch (error) {
      sayUnchanged(error);
    }
  };
  const swaps = press === 'swap';
  const adds = !swaps && asset.kind === 'picture';
  const does = swaps ? `Swap ${asset.name} for another file` : adds ? `Add ${asset.name} to the scene` : asset.name;
  return (
    <li data-testid="asset" className="flex items-center gap-2 rounded-md p-1 hover:bg-paper-2">
      <button
        type="button"
        aria-label={does}
        title={swaps || adds ? does : undefined}
        onClick={() => (swaps ? file.current?.click() : place())}
        className="grid size-12 shrink-0 place-items-center overflow-hidden rounded-md bg-paper-2"
      >
        {asset.kind === 'picture' ? (
          <img src={assetUrl(asset.sha)} alt="" className="max-h-full max-w-full" loading="lazy" />
        ) : (
          <Type size={18} className="text-ink-2" />
        )}
      </button>
      <span className="min-w-0 flex-1">
        <RenameField
          label="File name"
          value={asset.name}
          className="block leading-4 font-medium"
          onRename={(name) => editor.edit(renameAsset(asset.id, name))}
        />
        <span className="block truncate text-sm leading-4 text-ink-2">{about(asset)}</span>
        {asset.kind === 'picture' && (
          <span className="block text-sm leading-4 text-ink-2">
            {uses === 0 ? 'Not used' : `Used ${uses === 1 ? 'once' : `${uses} times`}`}
          </span>
        )}
      </span>
      <Menu
        entries={[
          ...(asset.kind === 'picture' ? [{ label: 'Add to the scene', onSelect: place }] : []),
          { label: 'Swap for another file …', onSelect: () => file.current?.click() },
          null,
          {
            label: 'Remove',
            danger: true,
            disabled: uses > 0,
            onSelect: () => editor.edit(removeAsset(asset.id)),
          },
        ]}
        trigger={
          <button
            type="button"
            aria-label={`${asset.name}: more`}
            className="grid size-6 place-items-center text-ink-2 hover:text-ink"
          >
            <EllipsisVertical size={14} />
          </button>
        }
      />
      <FileInput
        input={file}
        testId="swap-file"
        accept={ACCEPTED}
        onChoose={([chosen]) => chosen && void swap(chosen)}
      />
    </li>
  );
};

/** The files of the project: brought in here, by dropping them on the canvas, or by pasting. */
export const AssetsDrawer = () => {
  const editor = useEditor();
  const file = useRef<HTMLInputElement>(null);
  const { assets, scenes } = useSlice((s) => ({ assets: s.doc.assets, scenes: s.doc.scenes }));
  const list = Object.values(assets);
  const uses = useMemo(() => usesOfAssets(Object.values(scenes)), [scenes]);
  return (
    <DrawerFrame title="Pictures and fonts">
      <Button className="w-full" icon={<Upload size={14} />} onClick={() => file.current?.click()}>
        Import files
      </Button>
      <FileInput
        input={file}
        multiple
        testId="import-files"
        accept={ACCEPTED}
        onChoose={(files) => void importFiles(editor, files)}
      />
      {list.length === 0 ? (
        <p className="mt-3 text-ink-2">
          PNG, JPEG, WebP, GIF and SVG, and fonts as TTF, OTF, WOFF or WOFF2. They can be dropped on the canvas or
          pasted too, many at once.
        </p>
      ) : (
        <ul className="mt-2 flex flex-col gap-0.5">
          {list.map((asset) => (
            <AssetRow key={asset.id} asset={asset} uses={uses.get(asset.id) ?? 0} />
          ))}
        </ul>
      )}
      {list.length > 1 && (
        <label className="mt-3 flex flex-col gap-1 text-ink-2">
          Of several files, the first goes
          <select
            className="h-[26px] rounded-md bg-paper-2 px-2 text-ink"
            defaultValue={localStorage.getItem('kite-import-order') ?? 'first-in-front'}
            onChange={(event) => rememberImportOrder(event.target.value as 'first-in-front' | 'first-behind')}
          >
            <option value="first-in-front">in front</option>
            <option value="first-behind">behind</option>
          </select>
        </label>
      )}
    </DrawerFrame>
  );
};
