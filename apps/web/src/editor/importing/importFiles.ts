/** Files brought into a project: pictures and fonts are sent to the server, SVG is read here. */
import { ASSETS } from '@kite/api/library';
import { newPicture } from '@kite/core/document/make';
import { together } from '@kite/core/document/patches';
import type { Asset, Layer, PictureAsset, Point } from '@kite/core/document/types';
import { addLayers } from '@kite/core/edits/layers';
import { setValue } from '@kite/core/edits/properties';
import { needsOf } from '@kite/core/recipe/needs';
import { toast } from '../../ui/toast';
import { ask } from '../../api/client';
import { newId } from '../../api/ids';
import { sayUnchanged } from '../../ui/says';
import { type Editor, makeId } from '../store/editor';
import { nameOfFile, takenIn } from './takenIn';

export const MOST_BYTES = 50 * 2 ** 20;

const isSvg = (file: File): boolean => file.type === 'image/svg+xml' || /\.svg$/i.test(file.name);

/** A layer for a picture, made to fit the scene where it is larger. */
export const pictureLayer = (editor: Editor, asset: PictureAsset, at?: Point, name = asset.name): Layer => {
  const { scene } = editor;
  const fit = Math.min(1, scene.width / asset.width, scene.height / asset.height);
  const layer = newPicture(scene, makeId(), name, asset.id, { tag: 'blue', ...(at && { position: at }) });
  const scale = Math.round(fit * 1e4) / 1e4;
  return fit < 1 ? { ...layer, params: { ...layer.params, scale: { value: [scale, scale] } } } : layer;
};

const ORDER = 'kite-import-order';
export type ImportOrder = 'first-in-front' | 'first-behind';
export const importOrder = (): ImportOrder | null => localStorage.getItem(ORDER) as ImportOrder | null;
export const rememberImportOrder = (order: ImportOrder): void => localStorage.setItem(ORDER, order);

/** Sends files one after another, so that they stay in their order; tells of each that is refused, for which there is null. */
export const send = async (files: readonly File[]): Promise<readonly (Asset | null)[]> => {
  const assets: (Asset | null)[] = [];
  const note = newId();
  for (const [i, file] of files.entries()) {
    if (files.length > 1) toast.loading(`Importing ${i + 1} of ${files.length} …`, { id: note });
    if (file.size > MOST_BYTES) {
      toast.error(`“${file.name}” is ${Math.round(file.size / 2 ** 20)} MB; files of up to 50 MB can be imported.`);
      assets.push(null);
      continue;
    }
    try {
      assets.push({ ...(await ask(ASSETS.add, { name: nameOfFile(file) }, file)) });
    } catch (error) {
      sayUnchanged(error);
      assets.push(null);
    }
  }
  if (files.length > 1) toast.dismiss(note);
  return assets;
};

/** Brings files in, in the order given. Pictures become layers, at a point or in the middle; fonts are there to be chosen. */
export const importFiles = async (editor: Editor, files: readonly File[], at?: Point): Promise<void> => {
  const drawings = files.filter(isSvg);
  const assets = (await send(files.filter((f) => !isSvg(f)))).filter((asset) => asset !== null);
  if (drawings.length > 0) editor.set({ importing: { files: drawings, at: at ?? null } });
  if (assets.length === 0) return;
  const pictures = assets.filter((a): a is PictureAsset => a.kind === 'picture');
  if (pictures.length > 1 && importOrder() === null) {
    editor.set({ ordering: { assets, at: at ?? null } });
    return;
  }
  placeAssets(editor, assets, importOrder() ?? 'first-in-front', at);
};

/** Says which pictures are shown smaller than they are, since the scene is smaller, and offers their own size. */
const sayShrunk = (editor: Editor, layers: readonly Layer[], pictures: readonly PictureAsset[]): void => {
  const shrunk = layers.filter((layer) => layer.params.scale);
  const [first] = shrunk;
  if (!first) return;
  const { scene } = editor;
  const asset = pictures.find(({ id }) => needsOf(first).assets.has(id));
  const says =
    shrunk.length === 1 && asset
      ? `“${first.name}” is ${asset.width} × ${asset.height}, larger than the scene`
      : `${shrunk.length} pictures are larger than the scene`;
  toast.info(`${says}: scaled to fit.`, {
    duration: 10_000,
    action: {
      label: 'Own size',
      onClick: () => {
        const there = shrunk.filter(({ id }) => editor.state.doc.scenes[scene.id]?.layers[id]);
        const refs = there.map(({ id }) => ({ scene: scene.id, layer: id, key: 'scale' }));
        editor.edit(
          together(
            'Own size',
            refs.map((ref) => setValue(ref, [1, 1], { write: 'curve', frame: 0 })),
          ),
        );
      },
    },
  });
};

/** Puts imported files into the document in one step; one that is there already is not there twice. */
export const placeAssets = (editor: Editor, sent: readonly Asset[], order: ImportOrder, at?: Point): void => {
  const { assets, edits: taken } = takenIn(editor.state.doc.assets, sent);
  const pictures = assets.filter((a): a is PictureAsset => a.kind === 'picture');
  // A layer is called by its own file.
  const layers = assets.flatMap((asset, i) =>
    asset.kind === 'picture' ? [pictureLayer(editor, asset, at, sent[i]?.name)] : [],
  );
  if (order === 'first-behind') layers.reverse();
  const fonts = assets.filter((a) => a.kind === 'font');
  const edits = [...taken];
  if (layers.length > 0) edits.push(addLayers(editor.scene.id, layers, editor.state.selection.layers[0]));
  editor.edit(together(assets.length === 1 ? `Import ${assets[0]?.name}` : `Import ${assets.length} files`, edits));
  if (layers.length > 0) editor.select({ layers: layers.map((l) => l.id) });
  const here = assets.length - taken.length;
  if (here > 0) {
    toast.info(`${here === 1 ? 'A file was' : `${here} files were`} here already: what is shown is the same.`);
  }
  sayShrunk(editor, layers, pictures);
  for (const font of fonts) toast.success(`The font ${font.family} can be chosen now.`);
};
