/** What panels, menus and drags do to formulas. */
import { type Edit, together } from '@kite/core/document/patches';
import type { Id, Layer, PropertyRef, Scene } from '@kite/core/document/types';
import { paramAt } from '@kite/core/properties/find';
import { bakeFormula, formulaIn, setFormula } from '@kite/core/edits/formulas';
import { withMembers } from '@kite/core/scene/groups';
import { layersCutBy, type Reading, readersOf, readersOfPart, readingsIn } from '@kite/core/scene/follows';
import { uniqueName } from '@kite/core/document/make';
import { removeLayers } from '@kite/core/edits/layers';
import { makeSet } from '@kite/core/edits/sets';
import { bakedFormula } from '@kite/core/formula/bake';
import { type Occasion, READY_FORMULAS } from '@kite/core/formula/ready';
import { shownText, storedText, type Target } from '@kite/core/formula/refs';
import { type Editor, makeId } from '../store/editor';

export const targetOf = ({ layer, item, key }: PropertyRef): Target => ({
  layer,
  key,
  ...(item !== undefined && { item }),
});

/** The formula of a property as it is shown, references by name; empty where it has none. */
export const shownFormula = (editor: Editor, ref: PropertyRef): string => {
  const formula = formulaIn(editor.scene.layers[ref.layer], ref);
  return formula ? shownText(formula.text, easesAlong(editor), targetOf(ref)) : '';
};

/** The scene with the project's eases, which references may name. */
export const easesAlong = (editor: Editor): Scene => ({ ...editor.scene, eases: editor.state.doc.eases });

/** One edit of each property's formulas as one step. */
export const ofEach = (refs: readonly PropertyRef[], edit: (ref: PropertyRef) => Edit): Edit => {
  const edits = refs.map(edit);
  return edits.length === 1 && edits[0] ? edits[0] : together('Change formulas', edits);
};

/** Gives each property the formula that was typed, by names. */
export const formulaTyped = (editor: Editor, refs: readonly PropertyRef[], typed: string): Edit => {
  const scene = easesAlong(editor);
  return ofEach(refs, (ref) => setFormula(ref, storedText(typed.trim(), scene, targetOf(ref))));
};

/** An edit that writes what a formula gives over the whole scene as keyframes; null where none works. */
export const baking = (editor: Editor, ref: PropertyRef, tolerance: number | null): Edit | null => {
  const param = paramAt(editor.state.doc, ref);
  const sampler = editor.ownProgram.wiring.sampler(ref);
  if (!param || !sampler || !formulaIn(editor.scene.layers[ref.layer], ref)) return null;
  return bakeFormula(ref, bakedFormula(param, sampler, 0, editor.scene.length - 1, tolerance));
};

export const bakeFormulas = (editor: Editor, refs: readonly PropertyRef[], tolerance: number | null): void => {
  const edits = refs.flatMap((ref) => baking(editor, ref, tolerance) ?? []);
  if (edits.length === 0) return;
  editor.edit(together('Bake a formula', edits));
};

/** The lead of a layer’s set, or else the layer beside it in the list. */
const leadOf = (scene: Scene, layer: Id): Id | null => {
  const set = scene.sets.find((s) => s.members.includes(layer));
  if (set && set.members[0] !== layer) return set.members[0] ?? null;
  const at = scene.order.indexOf(layer);
  return scene.order[at + 1] ?? scene.order[at - 1] ?? null;
};

/** The first text card of a layer, or of the scene. */
const textNear = (scene: Scene, layer: Id): Target | null => {
  for (const id of [layer, ...scene.order]) {
    const owner = scene.layers[id];
    const card = owner?.kind === 'drawing' && Object.values(owner.items).find((item) => item.kind === 'text');
    if (card) return { layer: id, item: card.id, key: 'text' };
  }
  return null;
};

/** The ready formulas that a property can have, as texts with names. */
export const readyFor = (editor: Editor, ref: PropertyRef) => {
  const { scene } = editor;
  const param = paramAt(editor.state.doc, ref);
  if (!param) return [];
  const here = targetOf(ref);
  const lead = leadOf(scene, ref.layer);
  const owner = lead === null ? undefined : scene.layers[lead];
  // The lead’s card that stands for the one here: the first of its kind.
  const own = scene.layers[ref.layer];
  const kind = own?.kind === 'drawing' && ref.item !== undefined ? own.items[ref.item]?.kind : undefined;
  const item =
    ref.item === undefined
      ? undefined
      : owner?.kind === 'drawing'
        ? Object.values(owner.items).find((i) => i.kind === kind)?.id
        : undefined;
  const same = lead !== null && (ref.item === undefined || item !== undefined);
  const occasion: Occasion = {
    param,
    here,
    lead: same ? { layer: lead, key: ref.key, ...(item !== undefined && { item }) } : null,
    leadPosition: lead === null ? null : { key: 'position', layer: lead },
    text: textNear(scene, ref.layer),
    inSet: scene.sets.some((s) => s.members.includes(ref.layer)),
  };
  return READY_FORMULAS.flatMap((ready) => {
    const text = ready.text(occasion);
    return text === null ? [] : [{ ...ready, text: shownText(text, easesAlong(editor), here) }];
  });
};

const samePlace = (a: Target, b: Target) => a.layer === b.layer && a.item === b.item && a.key === b.key;

/** What a property reads, and what reads it. */
export const connectionsOf = (
  scene: Scene,
  ref: PropertyRef,
): { readonly reads: readonly Target[]; readonly readBy: readonly PropertyRef[] } => {
  const target = targetOf(ref);
  const readings = readingsIn(scene);
  const own = readings.filter(({ by }) => samePlace(by, target)).flatMap(({ reads }) => reads);
  const unique = own.filter((t, i) => own.findIndex((other) => samePlace(other, t)) === i);
  const readBy = readings.filter(({ reads }) => reads.some((r) => samePlace(r, target))).map(({ by }) => by);
  return { reads: unique, readBy };
};

/** An edit that takes something away; where formulas read it, or layers are cut by it, it asks first. False for one that cannot be made, and is told. */
export const askingFirst = (
  editor: Editor,
  edit: Edit,
  readers: readonly Reading[],
  cut: readonly Layer[] = [],
): boolean => {
  if (readers.length + cut.length === 0) return editor.edit(edit);
  editor.set({ removing: { edit, readers, cut } });
  return true;
};

/** Deletes layers; where formulas of others read them, or others are cut by them, it asks first. */
export const removeLayersAsking = (editor: Editor, chosen: readonly Id[], label?: string): void => {
  const { scene } = editor;
  const ids = withMembers(scene, chosen);
  const removal = removeLayers(scene.id, ids);
  const cut = new Set(ids.flatMap((id) => layersCutBy(scene, id)).filter(({ id }) => !ids.includes(id)));
  askingFirst(editor, { ...removal, label: label ?? removal.label }, readersOf(scene, ids), [...cut]);
};

/** Removes a part of a layer, asking first where formulas read it. */
export const removePartAsking = (editor: Editor, layer: Id, item: Id, edit: Edit): boolean =>
  askingFirst(editor, edit, readersOfPart(editor.scene, layer, item));

/** A set of the selected layers in the order in which they were picked: the first leads. */
export const setOfSelection = (editor: Editor): void => {
  const { scene } = editor;
  const members = editor.state.selection.layers.filter((id) => scene.layers[id]);
  if (members.length < 2) return;
  const name = uniqueName(
    'Set',
    scene.sets.map((s) => s.name),
  );
  editor.edit(makeSet(scene.id, { id: makeId(), name, members }));
};
