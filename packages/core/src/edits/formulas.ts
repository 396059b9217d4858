/** Edits to the formulas of properties. Texts are as they are stored: references by id. */
import { formulasOf } from '../scene/follows';
import type { Edit } from '../document/patches';
import {
  type Formula,
  type Formulas,
  isApart,
  type Keyframe,
  type Layer,
  type PropertyRef,
  type Scene,
} from '../document/types';
import { referencesIn, withNames } from '../formula/parse';
import { type Here, pathOf, referenceOf, storedText, withReferences } from '../formula/refs';
import { formulaKey } from '../document/formulas';
import { takenApart } from '../motion/parting';
import { holderOf, NotFound } from './find';
import { paramAt, partOf } from '../properties/find';
import { change } from './properties';

/** The formula of a property, or of one part of a point; undefined where it has none. */
export const formulaIn = (layer: Layer | undefined, ref: PropertyRef): Formula | undefined => {
  const holder = ref.item === undefined ? layer : partOf(layer, ref.item);
  return holder?.formulas?.[formulaKey(ref)];
};

const write = (ref: PropertyRef, how: (formulas: { [key: string]: Formula }) => void): Edit['change'] => {
  return (draft) => {
    const holder = holderOf(draft, ref);
    const formulas = { ...holder.formulas };
    how(formulas);
    if (Object.keys(formulas).length > 0) holder.formulas = formulas;
    else delete holder.formulas;
  };
};

/** Gives a property a formula. One for the whole of a point replaces those of its parts. */
export const setFormula = (ref: PropertyRef, text: string): Edit => ({
  label: 'Change a formula',
  change: write(ref, (formulas) => {
    if (ref.part === undefined) {
      delete formulas[`${ref.key}.x`];
      delete formulas[`${ref.key}.y`];
    }
    formulas[formulaKey(ref)] = { text, on: true };
  }),
});

export const removeFormula = (ref: PropertyRef): Edit => ({
  label: 'Remove a formula',
  change: write(ref, (formulas) => {
    delete formulas[formulaKey(ref)];
  }),
});

/** The keys of all formulas that a property may have: its own, and those of its parts. */
const keysOf = ({ key }: PropertyRef) =>
  ([undefined, 0, 1] as const).map((part) => formulaKey({ key, ...(part !== undefined && { part }) }));

/** The formulas of a property and of its parts, to be given back by {@link resetFormulas}. */
export const formulasAt = (layer: Layer | undefined, ref: PropertyRef): Formulas => {
  const { formulas = {} } = (ref.item === undefined ? layer : partOf(layer, ref.item)) ?? {};
  return Object.fromEntries(keysOf(ref).flatMap((key) => (formulas[key] ? [[key, formulas[key]]] : [])));
};

/** Gives a property and its parts the formulas that they had. */
export const resetFormulas = (ref: PropertyRef, had: Formulas): Edit => ({
  label: 'Change a formula',
  change: write(ref, (formulas) => {
    for (const key of keysOf(ref)) delete formulas[key];
    Object.assign(formulas, had);
  }),
});

/** Lets a formula work, or lets its property play its keyframes meanwhile. */
export const turnFormula = (ref: PropertyRef, on: boolean): Edit => ({
  label: on ? 'Turn a formula on' : 'Turn a formula off',
  change: write(ref, (formulas) => {
    const formula = formulas[formulaKey(ref)];
    if (!formula) throw new NotFound('formula', ref.key);
    formulas[formulaKey(ref)] = { ...formula, on };
  }),
});

/** Writes what a formula gave as keyframes. The formula is kept and turned off: turned on it lives again. */
export const bakeFormula = (ref: PropertyRef, keys: readonly Keyframe[]): Edit => ({
  label: 'Bake a formula',
  change: (draft) => {
    const { part, ...whole } = ref;
    const param = paramAt(draft, whole);
    if (part !== undefined && param?.kind === 'point') {
      change(draft, whole, (property) => (isApart(property) ? property : takenApart(param, property)));
    }
    change(draft, ref, () => (keys.length === 1 && keys[0] ? { value: keys[0].value } : { keys }));
    turnFormula(ref, false).change(draft);
  },
});

/** The names of everything that the formulas of some layers read, by their references as they are stored. */
export const namesRead = (scene: Scene, layers: readonly Layer[]): { readonly [path: string]: string } =>
  Object.fromEntries(
    layers
      .flatMap((layer) => formulasOf(scene.id, layer))
      .flatMap(({ by, formula }) =>
        referencesIn(formula.text).flatMap(({ path }) => {
          const to = referenceOf(path, scene, by);
          const name = typeof to !== 'string' && to.kind === 'property' ? pathOf(to.to, scene) : null;
          return name === null ? [] : [[path, name]];
        }),
      ),
  );

/** A layer with each text of its formulas changed. */
const withTexts = <L extends Layer>(layer: L, change: (text: string, here: Here) => string): L => {
  const changed = <T extends { readonly formulas?: Formulas }>(holder: T, item?: string): T => {
    if (!holder.formulas) return holder;
    const entries = Object.entries(holder.formulas).map(([key, formula]) => {
      const here = { layer: layer.id, key, ...(item !== undefined && { item }) };
      return [key, { ...formula, text: change(formula.text, here) }] as const;
    });
    return { ...holder, formulas: Object.fromEntries(entries) };
  };
  const parts = <T extends { readonly formulas?: Formulas }>(map: { readonly [id: string]: T }) =>
    Object.fromEntries(Object.entries(map).map(([id, part]) => [id, changed(part, id)]));
  const own = changed(layer);
  if (own.kind === 'drawing') return { ...own, items: parts(own.items) };
  return own.kind === 'controller' ? { ...own, knobs: parts(own.knobs) } : own;
};

/** A layer whose formulas have its rank in its set for a number: what is split off a follower goes on as it was. */
export const withRank = <L extends Layer>(layer: L, scene: Pick<Scene, 'sets'>, original: string): L => {
  const set = scene.sets.find((s) => s.members.includes(original));
  if (!set) return layer;
  const rank = { order: String(set.members.indexOf(original)), count: String(set.members.length) };
  // Above a repeater they are the numbers of its copies.
  const repeats = layer.kind === 'drawing' && Object.values(layer.items).some((item) => item.kind === 'repeater');
  return withTexts(layer, (text, here) => (here.item !== undefined && repeats ? text : withNames(text, rank)));
};

/**
 * Layers that come into a scene, with their formulas linked there: what they read of layers that are not here is looked for
 * by its names. What is not found stands in the formula as it was called, and in `lost`.
 */
export const linkedInto = (
  scene: Scene,
  layers: readonly Layer[],
  names: { readonly [path: string]: string },
): { readonly layers: Layer[]; readonly lost: readonly string[] } => {
  const coming = Object.fromEntries(layers.map((l) => [l.id, l]));
  const whole: Scene = {
    ...scene,
    layers: { ...scene.layers, ...coming },
    order: [...layers.map((l) => l.id), ...scene.order],
  };
  const lost = new Set<string>();
  const linked = layers.map((layer) =>
    withTexts(layer, (text, here) =>
      withReferences(text, (path) => {
        const to = referenceOf(path, whole, here);
        if (typeof to === 'string' || to.kind === 'ease' || whole.layers[to.to.layer]) return null;
        const name = names[path];
        if (name === undefined) return null;
        const found = storedText(`{${name}}`, whole, here);
        if (!found.startsWith('{@')) lost.add(name);
        return found.slice(1, -1);
      }),
    ),
  );
  return { layers: linked, lost: [...lost] };
};
