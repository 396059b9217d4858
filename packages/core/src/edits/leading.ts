/** Formulas that lead elsewhere, since what they read is in another layer now. */
import { plain } from '../document/patches';
import type { Formulas, Id, Layer } from '../document/types';
import { retargeted, type Target } from '../formula/refs';
import type { LayerDraft, SceneDraft } from './find';

/** Where a reference leads from now on. */
export type Lead = (target: Target) => Target;

const led = <H extends { readonly formulas?: Formulas }>(holder: H, from: Id, to: Id, lead: Lead): H => {
  if (!holder.formulas) return holder;
  const formulas = Object.entries(holder.formulas).map(([key, formula]) => {
    const text = retargeted(
      formula.text,
      (target, own) => lead(own ? { ...target, layer: from } : target),
      { layer: from, key: '' },
      { layer: to, key: '' },
    );
    return [key, text === formula.text ? formula : { ...formula, text }] as const;
  });
  const same = formulas.every(([key, formula]) => formula === holder.formulas?.[key]);
  return same ? holder : { ...holder, formulas: Object.fromEntries(formulas) };
};

const ledAll = <H extends { readonly formulas?: Formulas }>(
  holders: { readonly [id: Id]: H },
  from: Id,
  to: Id,
  lead: Lead,
): { readonly [id: Id]: H } => {
  const next = Object.entries(holders).map(([id, holder]) => [id, led(holder, from, to, lead)] as const);
  return next.some(([id, holder]) => holder !== holders[id]) ? Object.fromEntries(next) : holders;
};

/** A layer with all its formulas led elsewhere; they were written in the layer `from`. */
export const layerLed = <L extends Layer>(layer: L, lead: Lead, from = layer.id): L => {
  const own = led(layer as Layer, from, layer.id, lead);
  if (own.kind === 'drawing') {
    const items = ledAll(own.items, from, layer.id, lead);
    return (items === own.items ? own : { ...own, items }) as L;
  }
  const knobs = ledAll(own.knobs, from, layer.id, lead);
  return (knobs === own.knobs ? own : { ...own, knobs }) as L;
};

/** Leads the formulas of all layers of a scene elsewhere. */
export const leadAll = (scene: SceneDraft, lead: Lead): void => {
  for (const id of Object.keys(scene.layers)) {
    const before = plain<Layer>(scene.layers[id] as LayerDraft);
    const after = layerLed(before, lead);
    if (after !== before) scene.layers[id] = after as LayerDraft;
  }
};
