/** What layers need besides themselves, told by the kinds of their cards' parameters: the one place where it is collected. */
import type { FontChoice, Id, Item, Layer, Property, Value } from '../document/types';
import { isApart, isKeyed } from '../document/types';
import type { Param } from '../document/params';
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

const NOBODY: ReadonlySet<Id> = new Set();
const NONE: Needs = {
  assets: NOBODY,
  scenes: NOBODY,
  layers: NOBODY,
  fonts: [],
  asks: { assets: false, scenes: false, layers: false },
};

type Link = 'asset' | 'scene' | 'layer';
const isLink = (kind: Param['kind']): kind is Link => kind === 'asset' || kind === 'scene' || kind === 'layer';

/** Every value that a property has of its own, at whatever frame. */
const valuesOf = (property: Property | undefined, otherwise: Value): readonly Value[] => {
  if (property === undefined || isApart(property)) return [otherwise];
  return isKeyed(property) ? property.keys.map((k) => k.value) : [property.value];
};

const known = new WeakMap<object, Needs>();

/** All that a layer may need at any frame, its cards on or off. */
export const needsOf = (layer: Layer): Needs => {
  if (layer.kind !== 'drawing') return NONE;
  const before = known.get(layer.items);
  if (before) return before;
  const links: { readonly [L in Link]: Set<Id> } = { asset: new Set(), scene: new Set(), layer: new Set() };
  const fonts = new Map<string, FontChoice>();
  for (const { kind, params } of Object.values(layer.items)) {
    for (const [key, param] of Object.entries(paramsOf(kind))) {
      if (param.kind !== 'font' && !isLink(param.kind)) continue;
      for (const value of valuesOf(params[key], param.default)) {
        if (param.kind === 'font') fonts.set(JSON.stringify(value), value as FontChoice);
        else if (value !== '') links[param.kind].add(value as Id);
      }
    }
  }
  const asked = Object.values(layer.items).map((item) => asksOf(item.kind));
  const some = (what: keyof Asks) => asked.some((a) => a[what]);
  const asks = { assets: some('assets'), scenes: some('scenes'), layers: some('layers') };
  const needs: Needs = {
    assets: links.asset,
    scenes: links.scene,
    layers: links.layer,
    fonts: [...fonts.values()],
    asks,
  };
  known.set(layer.items, needs);
  return needs;
};

/** A layer whose cards name other things of a kind instead of some, as those among which it is copied. */
export const relinked = (layer: Layer, kind: Link, instead: (id: Id) => Id): Layer => {
  if (layer.kind !== 'drawing') return layer;
  const named = needsOf(layer)[`${kind}s`];
  if (![...named].some((id) => instead(id) !== id)) return layer;
  const other = (value: Value): Value => (value === '' ? value : instead(value as Id));
  const cardLinked = (item: Item): Item => {
    const shown = Object.entries(paramsOf(item.kind)).filter(([key, p]) => p.kind === kind && item.params[key]);
    const linked = shown.map(([key]): [string, Property] => {
      const property = item.params[key] as Property;
      if (isApart(property)) return [key, property];
      if (!isKeyed(property)) return [key, { value: other(property.value) }];
      return [key, { ...property, keys: property.keys.map((k) => ({ ...k, value: other(k.value) })) }];
    });
    return { ...item, params: { ...item.params, ...Object.fromEntries(linked) } };
  };
  return { ...layer, items: Object.fromEntries(Object.values(layer.items).map((item) => [item.id, cardLinked(item)])) };
};

/** The kind of a layer's only source, where it has one alone: what the layer is, to a person. */
export const soleSource = (layer: Layer): string | null => {
  const kinds = layer.kind === 'drawing' ? Object.values(layer.items).map((item) => item.kind) : [];
  const sources = kinds.filter((kind) => kindOf(kind).role === 'source');
  return sources.length === 1 ? (sources[0] as string) : null;
};
