/** Edits to a project's colours, and to what takes its colour from one of them. */
import type { Param } from '../document/params';
import { remembered } from '../document/remembered';
import { type Edit, type ProjectDraft, plain, together } from '../document/patches';
import {
  type Color,
  type Gradient,
  type Id,
  isApart,
  isKeyed,
  type Layer,
  type Project,
  type Properties,
  type Property,
  type PropertyRef,
  type Scene,
  type Swatch,
  type Value,
} from '../document/types';
import type { Writing } from '../motion/keys';
import { followsStrip, writtenIn } from '../moves/poseStrip';
import { refKey } from '../properties/find';
import type { MakeId } from '../document/make';
import { holdersOf, layerIn, NotFound, sceneIn } from './find';
import { change, setValue } from './properties';

/** A colour and the swatch that it is taken from. */
interface Dyed {
  readonly color: Color;
  readonly swatch?: Id;
}
/** What becomes of a colour that is taken from a swatch: the same object where it stays. */
type Dye = (dyed: Required<Dyed>) => Dyed;

const dyedGradient = (gradient: Gradient, dye: Dye): Gradient => {
  const stops = gradient.stops.map((stop) => {
    if (stop.swatch === undefined) return stop;
    const next = dye(stop as Required<Dyed>);
    return next === stop ? stop : { at: stop.at, ...next };
  });
  return stops.some((stop, i) => stop !== gradient.stops[i]) ? { ...gradient, stops } : gradient;
};

/** Whether the values of a parameter may be taken from swatches. */
export const holdsColors = ({ kind }: Param): boolean => kind === 'color' || kind === 'gradient';

const isGradient = (value: Value): value is Gradient => typeof value === 'object' && 'stops' in value;

/** A value with the swatch that it is taken from, as a property or a keyframe holds it. */
interface Held {
  readonly value: Value;
  readonly swatch?: Id;
}

const dyedValue = <H extends Held>(held: H, dye: Dye): H => {
  if (isGradient(held.value)) {
    const value = dyedGradient(held.value, dye);
    return value === held.value ? held : { ...held, value };
  }
  if (held.swatch === undefined) return held;
  const before = { color: held.value as Color, swatch: held.swatch };
  const { color, swatch } = dye(before);
  if (color === before.color && swatch === before.swatch) return held;
  const { swatch: _gone, ...rest } = held;
  return { ...rest, value: color, ...(swatch !== undefined && { swatch }) } as unknown as H;
};

const dyedProperty = (property: Property, dye: Dye): Property => {
  if (isApart(property)) return property;
  if (!isKeyed(property)) return dyedValue(property, dye);
  const keys = property.keys.map((key) => dyedValue(key, dye));
  return keys.some((key, i) => key !== property.keys[i]) ? { ...property, keys } : property;
};

/** Properties with the colours changed that are taken from swatches: the same object where none is. */
const dyedProperties = (params: Properties, dye: Dye): Properties => {
  const next = Object.entries(params).map(([key, property]) => [key, dyedProperty(property, dye)] as const);
  return next.some(([key, property]) => property !== params[key]) ? Object.fromEntries(next) : params;
};

/** The cards or the knobs of a layer. */
const partsOf = (layer: Layer): readonly { params: Properties }[] =>
  Object.values(layer.kind === 'drawing' ? layer.items : layer.knobs);

/** The swatches of a value, and of the stops of a gradient. */
const linksOf = ({ value, swatch }: Held): (Id | undefined)[] =>
  isGradient(value) ? value.stops.map((stop) => stop.swatch) : [swatch];

const linksIn = (parts: readonly { readonly params: Properties }[]): ReadonlySet<Id> => {
  const properties = parts.flatMap(({ params }) => Object.values(params));
  const held = properties.flatMap((p): readonly Held[] => (isApart(p) ? [] : isKeyed(p) ? p.keys : [p]));
  return new Set(held.flatMap(linksOf).filter((id) => id !== undefined));
};

/** The swatches that a layer takes colours from. */
const swatchesIn = remembered((layer: Layer) => linksIn(partsOf(layer)));

/** How many layers take a colour from each swatch. */
export const usesOfSwatches = ({ scenes }: Pick<Project, 'scenes'>): ReadonlyMap<Id, number> => {
  const uses = new Map<Id, number>();
  for (const layer of Object.values(scenes).flatMap((scene) => Object.values(scene.layers))) {
    for (const id of swatchesIn(layer)) uses.set(id, (uses.get(id) ?? 0) + 1);
  }
  return uses;
};

/** Changes the colours that are taken from a swatch, in every layer and kept effect. Only what names it is looked into. */
const dyeAll = (draft: ProjectDraft, id: Id, to: (color: Color) => Dyed): void => {
  const dye: Dye = (dyed) => (dyed.swatch === id ? to(dyed.color) : dyed);
  const dyeParts = (parts: readonly { params: Properties }[]): void => {
    for (const part of parts) {
      const before = plain<Properties>(part.params);
      const after = dyedProperties(before, dye);
      if (after !== before) part.params = after;
    }
  };
  for (const scene of Object.values(plain<Project['scenes']>(draft.scenes))) {
    for (const layer of Object.values(scene.layers)) {
      if (swatchesIn(layer).has(id)) dyeParts(partsOf(layerIn(sceneIn(draft, scene.id), layer.id) as Layer));
    }
  }
  for (const { cards } of draft.effects) dyeParts(cards as unknown as { params: Properties }[]);
};

export const addSwatch = (swatch: Swatch): Edit => ({
  label: 'Add a swatch',
  change: (draft) => {
    draft.swatches.push({ ...swatch });
  },
});

export const addSwatches = (swatches: readonly Swatch[]): Edit => together('Add swatches', swatches.map(addSwatch));

/** Another name or colour for a swatch: all that is taken from it follows, in every scene, nest, knob and kept effect. */
export const setSwatch = (id: Id, fields: Partial<Omit<Swatch, 'id'>>): Edit => ({
  label: fields.color === undefined ? 'Rename a swatch' : 'Change a swatch',
  change: (draft) => {
    const swatch = draft.swatches.find((s) => s.id === id);
    if (!swatch) throw new NotFound('swatch', id);
    Object.assign(swatch, fields);
    const { color } = fields;
    if (color !== undefined) dyeAll(draft, id, () => ({ color, swatch: id }));
  },
});

/** Takes a swatch away; what is taken from it keeps its colour. */
export const removeSwatch = (id: Id): Edit => ({
  label: 'Remove a swatch',
  change: (draft) => {
    draft.swatches = draft.swatches.filter((s) => s.id !== id);
    dyeAll(draft, id, (color) => ({ color }));
  },
});

/** Sets a colour to that of a swatch, which it follows from then on: all of the keyframes that this writes. */
export const takeSwatch = (ref: PropertyRef, { id, color }: Swatch, how: Writing): Edit => ({
  label: 'Take a swatch',
  change: (draft) => {
    setValue(ref, color, how).change(draft);
    change(draft, ref, (property) => {
      if (!property || isApart(property)) return property ?? { value: color };
      if (!isKeyed(property)) return { ...property, swatch: id };
      const here = property.keys.some(({ frame }) => frame === how.frame);
      const keys = property.keys.map((key) =>
        key.value === color && (!here || key.frame === how.frame) ? { ...key, swatch: id } : key,
      );
      return { ...property, keys };
    });
  },
});

/** A colour, or the colours of a gradient, with the swatch of each that has one. */
const swatched = <H extends Held>(held: H, swatchOf: (color: Color) => Id): H => {
  if (!isGradient(held.value)) return { ...held, swatch: swatchOf(held.value as Color) };
  const stops = held.value.stops.map((stop) => ({ ...stop, swatch: swatchOf(stop.color) }));
  return { ...held, value: { ...held.value, stops } };
};

/**
 * Makes the colours of layers swatches, from which they are taken from then on. Those that are swatches already stay those, and keyframes
 * that follow poses go on doing so: their colours are the poses' own.
 */
export const swatchesOfLayers = (sceneId: Id, ids: readonly Id[], makeId: MakeId): Edit => ({
  label: 'Colours to swatches',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const known = new Map(draft.swatches.map(({ id, color }) => [color, id]));
    const swatchOf = (color: Color): Id => {
      const own = known.get(color) ?? makeId();
      if (!known.has(color)) draft.swatches.push({ id: own, name: color, color });
      known.set(color, own);
      return own;
    };
    const posed = writtenIn(plain<Scene>(scene));
    for (const id of ids) {
      const layer = layerIn(scene, id);
      for (const [holder, params, item] of holdersOf(layer)) {
        for (const [key, property] of Object.entries(plain<Properties>(holder.params))) {
          const param = params[key];
          if (!param || !holdsColors(param) || isApart(property)) continue;
          const written = posed.get(refKey({ scene: sceneId, layer: id, ...(item !== undefined && { item }), key }));
          if (written && isKeyed(property) && followsStrip(written, property)) continue;
          const next: Property = isKeyed(property)
            ? { ...property, keys: property.keys.map((k) => swatched(k, swatchOf)) }
            : swatched(property, swatchOf);
          holder.params[key] = next as (typeof holder.params)[string];
        }
      }
    }
  },
});

/** Lets colours go from the swatches that they are taken from; they stay as they are. */
export const detachSwatches = (refs: readonly PropertyRef[]): Edit => ({
  label: 'Detach from a swatch',
  change: (draft) => {
    for (const ref of refs) {
      change(draft, ref, (property) => dyedProperty(property ?? { value: '#000000' }, ({ color }) => ({ color })));
    }
  },
});

/** The swatch from which a colour is taken at a frame; undefined for none. */
export const swatchAt = (property: Property | undefined, frame: number): Id | undefined => {
  if (!property || isApart(property)) return undefined;
  if (!isKeyed(property)) return property.swatch;
  const before = property.keys.filter((key) => key.frame <= frame).at(-1) ?? property.keys[0];
  const only = property.keys.every(({ swatch }) => swatch === property.keys[0]?.swatch);
  return before?.frame === frame || only ? before?.swatch : undefined;
};

/** A property that is taken from swatches only where it has their colours: what was changed since goes its own way. */
export const withTrueSwatches = (property: Property, swatches: readonly Swatch[]): Property =>
  dyedProperty(property, (dyed) =>
    swatches.some(({ id, color }) => id === dyed.swatch && color === dyed.color) ? dyed : { color: dyed.color },
  );
