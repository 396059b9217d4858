/** Edits to the formulas of properties. Texts are as they are stored: references by id. */
import type { Edit } from '../document/patches';
import { type Formula, isApart, type Keyframe, type Layer, type PropertyRef, type Scene } from '../document/types';
import { type Here, readsOf, type Target } from '../formula/refs';
import { formulaKey } from '../formula/wiring';
import { takenApart } from '../motion/parting';
import { holderOf, NotFound, paramAt, partOf } from './find';
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

/** A formula of a scene and what it reads. */
export interface Reading {
  readonly by: PropertyRef;
  readonly reads: readonly Target[];
}

/** Every formula that works in a scene, with what it reads. */
export const readingsIn = (scene: Scene): Reading[] =>
  Object.values(scene.layers).flatMap((layer) => {
    const parts = layer.kind === 'drawing' ? layer.items : layer.kind === 'controller' ? layer.knobs : {};
    const holders = [
      [undefined, layer.formulas] as const,
      ...Object.values(parts).map((p) => [p.id, p.formulas] as const),
    ];
    return holders.flatMap(([item, formulas]) =>
      Object.entries<Formula>(formulas ?? {}).flatMap(([name, { text, on }]): Reading[] => {
        if (!on) return [];
        const part = name.endsWith('.x') ? 0 : name.endsWith('.y') ? 1 : undefined;
        const key = part === undefined ? name : name.slice(0, -2);
        const here: Here = { layer: layer.id, key, ...(item !== undefined && { item }) };
        const by = { scene: scene.id, ...here, ...(part !== undefined && { part }) } as PropertyRef;
        return [{ by, reads: readsOf(text, here) }];
      }),
    );
  });

/** The formulas on other layers that read something of these. */
export const readersOf = (scene: Scene, layers: readonly string[]): Reading[] => {
  const gone = new Set(layers);
  return readingsIn(scene).filter(({ by, reads }) => !gone.has(by.layer) && reads.some((r) => gone.has(r.layer)));
};
