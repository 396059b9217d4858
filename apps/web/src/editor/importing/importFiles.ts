/** Files brought into a project: pictures and fonts are sent to the server, SVG is read here. */
import { ASSETS } from '@kite/api/library';
import { newPicture } from '@kite/core/document/make';
import { together } from '@kite/core/document/patches';
import type { Asset, Layer, PictureAsset, Point } from '@kite/core/document/types';
import { addAsset } from '@kite/core/edits/assets';
import { addLayers } from '@kite/core/edits/layers';
import { toast } from 'sonner';
import { ask } from '../../api/client';
import { type Editor, makeId } from '../store/editor';

export const MOST_BYTES = 50 * 2 ** 20;
export const ACCEPTED = '.png,.jpg,.jpeg,.webp,.gif,.svg,.ttf,.otf,.woff,.woff2';

const isSvg = (file: File): boolean => file.type === 'image/svg+xml' || /\.svg$/i.test(file.name);

const nameOf = (file: File): string => file.name.replace(/\.[^.]+$/, '') || file.name;

/** A layer for a picture, made to fit the scene where it is larger. */
export const pictureLayer = (editor: Editor, asset: PictureAsset, at?: Point): Layer => {
  const { scene } = editor;
  const fit = Math.min(1, scene.width / asset.width, scene.height / asset.height);
  const layer = newPicture(scene, makeId(), asset.name, asset.id, { tag: 'blue', ...(at && { position: at }) });
  const scale = Math.round(fit * 1e4) / 1e4;
  return fit < 1 ? { ...layer, params: { ...layer.params, scale: { value: [scale, scale] } } } : layer;
};

const ORDER = 'kite-import-order';
export type ImportOrder = 'first-in-front' | 'first-behind';
export const importOrder = (): ImportOrder | null => localStorage.getItem(ORDER) as ImportOrder | null;
export const rememberImportOrder = (order: ImportOrder): void => localStorage.setItem(ORDER, order);

/** Sends files one after another, so that they stay in their order; tells of each that is refused. */
const send = async (files: readonly File[]): Promise<Asset[]> => {
  const assets: Asset[] = [];
  const note = files.length > 1 ? toast.loading(`Importing 1 of ${files.length} …`) : undefined;
  for (const [i, file] of files.entries()) {
    if (note !== undefined) toast.loading(`Importing ${i + 1} of ${files.length} …`, { id: note });
    if (file.size > MOST_BYTES) {
      toast.error(`“${file.name}” is ${Math.round(file.size / 2 ** 20)} MB; files of up to 50 MB can be imported.`);
      continue;
    }
    try {
      assets.push({ ...(await ask(ASSETS.add, { name: nameOf(file) }, file)) });
    } catch (error) {
      toast.error(`${error instanceof Error ? error.message : String(error)} Nothing was changed.`);
    }
  }
  if (note !== undefined) toast.dismiss(note);
  return assets;
};

/** Brings files in, in the order given. Pictures become layers, at a point or in the middle; fonts are there to be chosen. */
export const importFiles = async (editor: Editor, files: readonly File[], at?: Point): Promise<void> => {
  const drawings = files.filter(isSvg);
  const assets = await send(files.filter((f) => !isSvg(f)));
  if (drawings.length > 0) editor.set({ importing: { files: drawings, at: at ?? null } });
  if (assets.length === 0) return;
  const pictures = assets.filter((a): a is PictureAsset => a.kind === 'picture');
  if (pictures.length > 1 && importOrder() === null) {
    editor.set({ ordering: { assets, at: at ?? null } });
    return;
  }
  placeAssets(editor, assets, importOrder() ?? 'first-in-front', at);
};

/** Puts imported files into the document in one step. */
export const placeAssets = (editor: Editor, assets: readonly Asset[], order: ImportOrder, at?: Point): void => {
  const pictures = assets.filter((a): a is PictureAsset => a.kind === 'picture');
  const layers = pictures.map((asset) => pictureLayer(editor, asset, at));
  if (order === 'first-behind') layers.reverse();
  const fonts = assets.filter((a) => a.kind === 'font');
  const edits = assets.map(addAsset);
  if (layers.length > 0) edits.push(addLayers(editor.scene.id, layers, editor.state.selection.layers[0]));
  editor.edit(together(assets.length === 1 ? `Import ${assets[0]?.name}` : `Import ${assets.length} files`, edits));
  if (layers.length > 0) editor.select({ layers: layers.map((l) => l.id) });
  for (const font of fonts) toast.success(`The font ${font.family} can be chosen now.`);
};
