/** What layers need besides themselves, told by the kinds of their cards' parameters: the one place where it is collected. */
import { remembered } from '../document/remembered';
import { paramsOfKnob } from '../document/knobs';
import type {
  ControllerLayer,
  DrawingLayer,
  FontChoice,
  Id,
  Item,
  Knob,
  Layer,
  Properties,
  Property,
  Scene,
  Value,
} from '../document/types';
import { isApart, isKeyed } from '../document/types';
import type { Param, Params } from '../document/params';
import { type Asks, asksOf, kindOf, paramsOf } from './table';

export interface Needs {
  /** Files that cards show. */
  readonly assets: ReadonlySet<Id>;
  /** Scenes that cards play. */
  readonly scenes: ReadonlySet<Id>;
  /** Layers of the same scene that cards name. */
  readonly layers: ReadonlySet<Id>;
  readonly fonts: readonly FontChoice[];
  /** What its cards are handed, whether they name one yet or not. */
  readonly asks: Asks;
}

type Link = 'asset' | 'scene' | 'layer';
const isLink = (kind: Param['kind']): kind is Link => kind === 'asset' || kind === 'scene' || kind === 'layer';

/** Every value that a property has of its own, at whatever frame. */
export const valuesOf = (property: Property | undefined, otherwise: Value): readonly Value[] => {
  if (property === undefined || isApart(property)) return [otherwise];
  return isKeyed(property) ? property.keys.map((k) => k.value) : [property.value];
};

/** A card or a knob: its values, and what its parameters are. */
interface Part {
  readonly params: Params;
  readonly values: Properties;
}

const gathered = (parts: readonly Part[], asked: readonly Asks[]): Needs => {
  const links: { readonly [L in Link]: Set<Id> } = { asset: new Set(), scene: new Set(), layer: new Set() };
  const fonts = new Map<string, FontChoice>();
  for (const { params, values } of parts) {
    for (const [key, param] of Object.entries(params)) {
      if (param.kind !== 'font' && !isLink(param.kind)) continue;
      for (const value of valuesOf(values[key], param.default)) {
        if (param.kind === 'font') fonts.set(JSON.stringify(value), value as FontChoice);
        else if (value !== '') links[param.kind].add(value as Id);
      }
    }
  }
  const some = (what: keyof Asks) => asked.some((a) => a[what]);
  const asks = { assets: some('assets'), scenes: some('scenes'), layers: some('layers'), behind: some('behind') };
  return {
    assets: links.asset,
    scenes: links.scene,
    layers: links.layer,
    fonts: [...fonts.values()],
    asks,
  };
};

const ofCards = remembered((items: DrawingLayer['items']) =>
  gathered(
    Object.values(items).map(({ kind, params }) => ({ params: paramsOf(kind), values: params })),
    Object.values(items).map(({ kind }) => asksOf(kind)),
  ),
);
const ofKnobs = remembered((knobs: ControllerLayer['knobs']) =>
  gathered(
    Object.values(knobs).map((knob) => ({ params: paramsOfKnob(knob), values: knob.params })),
    [],
  ),
);

/** All that a layer may need at any frame, its cards on or off: by those, or by its knobs; what else it has asks for nothing. */
export const needsOf = (layer: Layer): Needs =>
  layer.kind === 'drawing' ? ofCards(layer.items) : ofKnobs(layer.knobs);

/** How many layers of some scenes show each file. */
export const usesOfAssets = (scenes: readonly Pick<Scene, 'layers'>[]): ReadonlyMap<Id, number> => {
  const uses = new Map<Id, number>();
  for (const layer of scenes.flatMap(({ layers }) => Object.values(layers))) {
    for (const id of needsOf(layer).assets) uses.set(id, (uses.get(id) ?? 0) + 1);
  }
  return uses;
};

/** A layer whose cards or knobs name other things of a kind instead of some, as those among which it is copied. */
export const relinked = (layer: Layer, kind: Link, instead: (id: Id) => Id): Layer => {
  const named = needsOf(layer)[`${kind}s`];
  if (![...named].some((id) => instead(id) !== id)) return layer;
  const other = (value: Value): Value => (value === '' ? value : instead(value as Id));
  const linkedPart = <T extends Item | Knob>(params: Params, part: T): T => {
    const links = Object.entries(params).filter(([key, p]) => p.kind === kind && part.params[key]);
    const linked = links.map(([key]): [string, Property] => {
      const property = part.params[key] as Property;
      if (isApart(property)) return [key, property];
      if (!isKeyed(property)) return [key, { value: other(property.value) }];
      return [key, { ...property, keys: property.keys.map((k) => ({ ...k, value: other(k.value) })) }];
    });
    return { ...part, params: { ...part.params, ...Object.fromEntries(linked) } };
  };
  const each = <T extends Item | Knob>(parts: { readonly [id: Id]: T }, params: (part: T) => Params) =>
    Object.fromEntries(Object.entries(parts).map(([id, part]) => [id, linkedPart(params(part), part)]));
  return layer.kind === 'drawing'
    ? { ...layer, items: each(layer.items, (item) => paramsOf(item.kind)) }
    : { ...layer, knobs: each(layer.knobs, paramsOfKnob) };
};

/** The kind of a layer's only source, where it has one alone: what the layer is, to a person. */
export const soleSource = (layer: Layer): string | null => {
  const kinds = layer.kind === 'drawing' ? Object.values(layer.items).map((item) => item.kind) : [];
  const sources = kinds.filter((kind) => kindOf(kind).role === 'source');
  return sources.length === 1 ? (sources[0] as string) : null;
};
