/** Layers copied, with the files they use: kept in the browser, so that they can go to another scene, project or tab. */
import { together } from '@kite/core/document/patches';
import type { Asset, Layer } from '@kite/core/document/types';
import { addAsset } from '@kite/core/edits/assets';
import { addLayers, copiesOf, layersOf, removeLayers } from '@kite/core/edits/layers';
import { fontsOf } from '@kite/core/type/wanted';
import { toast } from 'sonner';
import { type Editor, makeId } from './store/editor';

const CLIPBOARD = 'kite-clipboard';

export const copyLayers = (editor: Editor): boolean => {
  const layers = layersOf(editor.scene, editor.state.selection.layers);
  if (layers.length === 0) return false;
  const { assets } = editor.state.doc;
  const families = new Set(layers.flatMap((l) => (l.kind === 'drawing' ? fontsOf(l).map((f) => f.family) : [])));
  const used = Object.values(assets).filter((a) =>
    a.kind === 'font' ? families.has(a.family) : layers.some((l) => l.kind === 'picture' && l.asset === a.id),
  );
  localStorage.setItem(CLIPBOARD, JSON.stringify({ layers, assets: used }));
  return true;
};

/** Assets that come from another project are taken in; files that are here already are used as they are. */
const insertCopies = (editor: Editor, layers: readonly Layer[], label: string, assets: readonly Asset[] = []): void => {
  const { scene } = editor;
  const here = Object.values(editor.state.doc.assets);
  const instead = new Map(assets.map((a) => [a.id, here.find((own) => own.sha === a.sha)?.id ?? a.id]));
  const fresh = assets.filter((a) => instead.get(a.id) === a.id && !editor.state.doc.assets[a.id]);
  const copies = copiesOf(layers, makeId).map((layer) =>
    layer.kind === 'picture' ? { ...layer, asset: instead.get(layer.asset) ?? layer.asset } : layer,
  );
  // A parent that was not copied along, and is not in this scene, is left behind.
  const known = new Set([...scene.order, ...copies.map((c) => c.id)]);
  const sound = copies.map((c) => (c.parent !== null && !known.has(c.parent) ? { ...c, parent: null } : c));
  const at = scene.order.find((id) => editor.state.selection.layers.includes(id));
  editor.edit(together(label, [...fresh.map(addAsset), addLayers(scene.id, sound, at)]));
  editor.select({ layers: sound.map((l) => l.id) });
};

export const pasteLayers = (editor: Editor): void => {
  try {
    const kept = JSON.parse(localStorage.getItem(CLIPBOARD) ?? '{}') as { layers?: Layer[]; assets?: Asset[] };
    const { layers = [], assets = [] } = kept;
    if (layers.length > 0) insertCopies(editor, layers, 'Paste', assets);
  } catch {
    toast.error('What was copied cannot be read.');
  }
};

export const duplicateLayers = (editor: Editor): void => {
  const layers = layersOf(editor.scene, editor.state.selection.layers);
  if (layers.length > 0) insertCopies(editor, layers, layers.length === 1 ? 'Duplicate a layer' : 'Duplicate layers');
};

export const cutLayers = (editor: Editor): void => {
  if (copyLayers(editor))
    editor.edit({ ...removeLayers(editor.scene.id, editor.state.selection.layers), label: 'Cut' });
};
