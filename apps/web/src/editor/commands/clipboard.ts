/** Layers copied, with the files they use, or keyframes: kept in the browser, so that they can go to another scene, project or tab. */
import { together } from '@kite/core/document/patches';
import type { Asset, Id, Layer } from '@kite/core/document/types';
import { addAsset } from '@kite/core/edits/assets';
import { linkedInto, namesRead } from '@kite/core/edits/formulas';
import { addLayers, copiesOf, layersOf, moveLayers } from '@kite/core/edits/layers';
import { withMembers } from '@kite/core/scene/groups';
import { joinPoses } from '@kite/core/edits/poses';
import { joinRoutines } from '@kite/core/edits/routines';
import { joinSets } from '@kite/core/edits/sets';
import { slideLayers } from '@kite/core/edits/timing';
import { removeKeys } from '@kite/core/edits/keyframes';
import { needsOf, relinked } from '@kite/core/recipe/needs';
import { assetsOf, wouldRecurse } from '@kite/core/scene/whole';
import { toast } from '../../ui/toast';
import { copySelectedKeys, pasteCopiedKeys } from './keying';
import { removeLayersAsking } from './formulas';
import { type Editor, makeId } from '../store/editor';

const CLIPBOARD = 'kite-clipboard';

/** What comes along with layers that were copied. */
interface Come {
  readonly assets?: readonly Asset[];
  /** What the layers’ formulas read, by name. */
  readonly names?: Parameters<typeof linkedInto>[2];
  /** The scene that they were copied from. */
  readonly from?: Id;
}

interface Kept {
  readonly layers?: Layer[];
  readonly assets?: Asset[];
  readonly names?: Come['names'];
  readonly scene?: Id;
  readonly keys?: Parameters<typeof pasteCopiedKeys>[1];
  /** What the system's clipboard has for it; null where it has what it had before. */
  readonly words?: string | null;
}
/** Null for what cannot be read. */
const kept = (): Kept | null => {
  try {
    return JSON.parse(localStorage.getItem(CLIPBOARD) ?? '{}') as Kept;
  } catch {
    return null;
  }
};

/**
 * Puts words into the system's clipboard for what was copied here, so that what was copied elsewhere before is not pasted instead.
 * False where the browser does not let it.
 */
const markClipboard = (words: string): boolean => {
  const put = (event: ClipboardEvent) => {
    event.clipboardData?.setData('text/plain', words);
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  window.addEventListener('copy', put, { capture: true, once: true });
  // The other way takes its time, and a paste may come first.
  const done = document.execCommand('copy');
  window.removeEventListener('copy', put, true);
  return done;
};

/** Keeps what is copied, and what the system's clipboard has for it. */
const keep = (copied: Omit<Kept, 'words'>, words: string): void => {
  const kept: Kept = { ...copied, words: markClipboard(words) ? words : null };
  localStorage.setItem(CLIPBOARD, JSON.stringify(kept));
};

const lines = (text: string): string => text.replaceAll('\r\n', '\n');

/** Whether a text in the system's clipboard stands for what was copied here last. */
export const copiedHere = (text: string): boolean => {
  const words = kept()?.words;
  return words === null || (words !== undefined && lines(words) === lines(text));
};

/** The selected layers, with the members of the groups among them. */
const chosenLayers = (editor: Editor) =>
  layersOf(editor.scene, withMembers(editor.scene, editor.state.selection.layers));

/** Copies the selected keyframes, or the selected layers. */
export const copySelection = (editor: Editor): boolean => {
  const keys = copySelectedKeys(editor);
  if (keys) {
    keep(keys, `${editor.state.selection.keys.length} keyframes`);
    return true;
  }
  const layers = chosenLayers(editor);
  if (layers.length === 0) return false;
  const { assets } = editor.state.doc;
  const used = assetsOf(layers, assets);
  const names = namesRead(editor.scene, layers);
  keep({ layers, assets: used, names, scene: editor.scene.id }, layers.map(({ name }) => name).join('\n'));
  return true;
};

/** Assets that come from another project are taken in; files that are here already are used as they are. */
const insertCopies = (
  editor: Editor,
  layers: readonly Layer[],
  label: string,
  { assets = [], names = {}, from = editor.scene.id }: Come = {},
): void => {
  const { scene } = editor;
  const here = Object.values(editor.state.doc.assets);
  const instead = new Map(assets.map((a) => [a.id, here.find((own) => own.sha === a.sha)?.id ?? a.id]));
  const fresh = assets.filter((a) => instead.get(a.id) === a.id && !editor.state.doc.assets[a.id]);
  // A nest needs its scene, and must not play the scene that it comes into.
  const { doc } = editor.state;
  const fits = (l: Layer) =>
    [...needsOf(l).scenes].every((id) => doc.scenes[id] && !wouldRecurse(doc.scenes, id, scene.id));
  const left = layers.filter((l) => !fits(l));
  if (left.length > 0)
    toast.info(
      `Left out: ${left.map((l) => `“${l.name}”`).join(', ')}. The scene it plays is not here, or would play itself.`,
    );
  const originals = layers.filter(fits);
  const copies = copiesOf(originals, makeId).map((layer) => relinked(layer, 'asset', (id) => instead.get(id) ?? id));
  // A parent that was not copied along, and is not in this scene, is left behind.
  const known = new Set([...scene.order, ...copies.map((c) => c.id)]);
  const free = copies.map((c) => (c.parent !== null && !known.has(c.parent) ? { ...c, parent: null } : c));
  const { layers: sound, lost } = linkedInto(scene, free, names);
  if (lost.length > 0) {
    toast.warning(
      `Not linked, since it is not in this scene: ${lost.map((name) => `“${name}”`).join(', ')}. The formulas keep the names, and work once there are such layers.`,
      { duration: 10_000 },
    );
  }
  const pairs = new Map(originals.map((l, i) => [l.id, sound[i]?.id ?? l.id]));
  const at = scene.order.find((id) => editor.state.selection.layers.includes(id));
  editor.edit(
    together(label, [
      ...fresh.map(addAsset),
      addLayers(scene.id, sound, at),
      ...(from === scene.id
        ? [joinSets(scene.id, pairs, makeId), joinRoutines(scene.id, pairs), joinPoses(scene.id, pairs)]
        : []),
    ]),
  );
  editor.select({ layers: sound.map((l) => l.id) });
};

/** Pastes what was copied last: layers, or keyframes at the playhead. */
export const pasteCopied = (editor: Editor): void => {
  const copied = kept();
  if (!copied) {
    toast.error('What was copied cannot be read.');
    return;
  }
  const { layers = [], assets = [], names = {}, scene, keys } = copied;
  if (keys) pasteCopiedKeys(editor, keys);
  else if (layers.length > 0) {
    insertCopies(editor, layers, 'Paste', { assets, names, ...(scene !== undefined && { from: scene }) });
  }
};

export const duplicateLayers = (editor: Editor): void => {
  const layers = chosenLayers(editor);
  if (layers.length > 0) insertCopies(editor, layers, layers.length === 1 ? 'Duplicate a layer' : 'Duplicate layers');
};

/** So many copies of some layers, each run of them a step later than the one before; all of them are selected. */
export const makeCopies = (editor: Editor, ids: readonly Id[], count: number, step: number): void => {
  const { scene } = editor;
  const layers = layersOf(scene, withMembers(scene, ids));
  const runs = Array.from({ length: count }, () => copiesOf(layers, makeId));
  const first = layers[0]?.id;
  const edits = [
    addLayers(scene.id, runs.flat(), first),
    ...runs.map((run) => joinSets(scene.id, new Map(layers.map((l, i) => [l.id, run[i]?.id ?? l.id])), makeId)),
    // The list reads in the order of time: the layers themselves, then run after run.
    moveLayers(scene.id, ids, first === undefined ? 0 : scene.order.indexOf(first)),
    ...runs.map((run, i) =>
      slideLayers(
        scene.id,
        run.map((l) => l.id),
        Math.round(step * (i + 1)),
      ),
    ),
  ];
  editor.edit(together('Make copies', edits));
  editor.select({ layers: [...ids, ...runs.flat().map((l) => l.id)] });
};

export const cutSelection = (editor: Editor): void => {
  const { keys, layers } = editor.state.selection;
  if (!copySelection(editor)) return;
  if (keys.length > 0) editor.edit({ ...removeKeys(keys), label: 'Cut' });
  else removeLayersAsking(editor, layers, 'Cut');
};
