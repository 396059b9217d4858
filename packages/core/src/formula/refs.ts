/**
 * What the references of formulas lead to. They are stored by id, `{@bar1/position}`, and shown by name,
 * `{Bar 1 / Position}`: every name of a scene leads to one thing and back.
 */
import { remembered } from '../document/remembered';
import type { Param, Params } from '../document/params';
import type { Id, Layer, SavedEase, Scene } from '../document/types';
import { paramIn, paramsIn } from '../properties/find';
import { kindOf } from '../recipe/table';
import { referencesIn } from './parse';
import { quoted } from './print';
import { fitsType, type Span, typeOf } from './types';

/** A property of the scene that a formula stands in. */
export interface Target {
  readonly layer: Id;
  readonly item?: Id;
  readonly key: string;
}
/** A formula's own place: what `this` is. */
export type Here = Target;
export type Reference = { readonly kind: 'property'; readonly to: Target } | { readonly kind: 'ease'; readonly id: Id };

const THIS = 'this';
const EASES = 'Eases';

/** Names that are each met once: the second of a name is `Bar #2`. */
const labelled = <T>(things: readonly (readonly [name: string, thing: T])[], taken: readonly string[] = []) => {
  const byLabel = new Map<string, T>();
  const labels: string[] = [];
  const reserved = new Set(taken.map((name) => name.toLowerCase()));
  const free = (name: string) => !reserved.has(name.toLowerCase()) && !byLabel.has(name.toLowerCase());
  for (const [name, thing] of things) {
    let label = name;
    for (let n = 2; !free(label); n++) label = `${name} #${n}`;
    byLabel.set(label.toLowerCase(), thing);
    labels.push(label);
  }
  return { byLabel, labels };
};

const namesOfLayers = remembered((scene: Scene) => {
  const layers = scene.order.flatMap((id) => scene.layers[id] ?? []);
  const { byLabel, labels } = labelled(
    layers.map((l) => [l.name, l.id]),
    [THIS, EASES],
  );
  return { byLabel, labels: new Map(layers.map((l, i) => [l.id, labels[i] as string])) };
});

type Own = Omit<Target, 'layer'>;
interface OwnNames {
  readonly byLabel: Map<string, Own>;
  /** By card and key. */
  readonly labels: Map<string, readonly string[]>;
}
const ownKey = ({ item, key }: Own) => `${item ?? ''}/${key}`;
const pathKey = (labels: readonly string[]) => labels.join('\n').toLowerCase();

const paramNames = (params: Params) => {
  const { labels } = labelled(Object.entries(params).map(([key, param]) => [param.label, key]));
  return Object.keys(params).map((key, i) => [key, labels[i] as string] as const);
};

/** The names within a layer: of its own properties, of its cards’ properties, of its knobs. */
const namesWithin = remembered((layer: Layer): OwnNames => {
  const names: OwnNames = { byLabel: new Map(), labels: new Map() };
  const add = (own: Own, path: readonly string[]) => {
    names.byLabel.set(pathKey(path), own);
    names.labels.set(ownKey(own), path);
  };
  const own = paramNames(paramsIn(layer, undefined));
  for (const [key, label] of own) add({ key }, [label]);
  if (layer.kind === 'controller') {
    const knobs = layer.panel.flatMap((id) => layer.knobs[id] ?? []);
    const { labels } = labelled(
      knobs.map((k) => [k.name, k]),
      own.map(([, label]) => label),
    );
    knobs.forEach((knob, i) => add({ item: knob.id, key: 'value' }, [labels[i] as string]));
  }
  if (layer.kind === 'drawing') {
    const walk = (ids: readonly Id[]): Id[] => ids.flatMap((id) => [id, ...walk(layer.items[id]?.children ?? [])]);
    const items = walk(layer.recipe).flatMap((id) => layer.items[id] ?? []);
    const { labels } = labelled(items.map((item) => [item.name ?? kindOf(item.kind).label, item]));
    items.forEach((item, i) => {
      for (const [key, label] of paramNames(paramsIn(layer, item.id))) {
        add({ item: item.id, key }, [labels[i] as string, label]);
      }
    });
  }
  return names;
});

/** The parts of a path between its slashes; names may be quoted. */
const segments = (path: string): string[] =>
  (path.match(/(?:"(?:[^"\\]|\\.)*"|[^/"])+/gs) ?? []).map((part) => {
    const text = part.trim();
    return text.startsWith('"') && text.endsWith('"') && text.length > 1
      ? text.slice(1, -1).replace(/\\(.)/gs, '$1')
      : text;
  });

const stored = ({ layer, item, key }: Target): string =>
  `@${[layer, item, key].filter((s) => s !== undefined).join('/')}`;

const byId = (path: string, here: Here): Reference | null => {
  if (path.startsWith('@ease:')) return { kind: 'ease', id: path.slice(6) };
  const [layer, second, third, ...more] = path.slice(1).split('/');
  if (!layer || !second || more.length > 0) return null;
  const to = { layer: layer === THIS ? here.layer : layer };
  return { kind: 'property', to: third === undefined ? { ...to, key: second } : { ...to, item: second, key: third } };
};

const byName = (path: string, scene: Scene, here: Here): Reference | string => {
  const [first = '', ...rest] = segments(path);
  if (rest.length === 0) return `A reference names a layer and a property: {${first || 'Layer'} / Position}.`;
  if (first.toLowerCase() === EASES.toLowerCase()) {
    const ease = namesOfEases(scene).byLabel.get(pathKey(rest));
    return ease === undefined ? `No ease is kept under the name “${rest.join(' / ')}”.` : { kind: 'ease', id: ease };
  }
  const id = first.toLowerCase() === THIS ? here.layer : namesOfLayers(scene).byLabel.get(first.toLowerCase());
  const layer = id === undefined ? undefined : scene.layers[id];
  if (!layer) return `There is no layer “${first}”.`;
  const { byLabel } = namesWithin(layer);
  const own = byLabel.get(pathKey(rest)) ?? (first.toLowerCase() === THIS ? besides(layer, here, rest) : undefined);
  return own ? { kind: 'property', to: { layer: layer.id, ...own } } : `“${first}” has no “${rest.join(' / ')}”.`;
};

/** Within a card `this` also leads to the properties beside the formula. */
const besides = (layer: Layer, here: Here, rest: readonly string[]): Own | undefined => {
  if (here.item === undefined || rest.length > 1) return undefined;
  const { item } = here;
  const found = paramNames(paramsIn(layer, item)).find(([, label]) => label.toLowerCase() === rest[0]?.toLowerCase());
  return found && { item, key: found[0] };
};

const NO_EASES: readonly SavedEase[] = [];
const namesAmong = remembered((eases: readonly SavedEase[]) => {
  const { byLabel, labels } = labelled(eases.map((e) => [e.name, e.id]));
  return { byLabel, labels: new Map(eases.map((e, i) => [e.id, labels[i] as string])) };
});
const namesOfEases = (scene: Scene) => namesAmong(scene.eases ?? NO_EASES);

/** What stands between the braces of a reference, by name or by id, as what it leads to; or why it leads nowhere. */
export const referenceOf = (path: string, scene: Scene, here: Here): Reference | string => {
  if (!path.startsWith('@')) return byName(path, scene, here);
  return byId(path, here) ?? 'This reference cannot be read.';
};

/** Where the z of a point of a layer stands. */
const AWAY: { readonly [key: string]: string } = { position: 'z', pivot: 'pivotZ', scale: 'scaleZ', target: 'targetZ' };

/** The property that is the z of a point; null for one that has none. */
export const awayOf = ({ layer, item, key }: Target): Target | null => {
  const z = item === undefined ? AWAY[key] : undefined;
  return z === undefined ? null : { key: z, layer };
};

const safe = (label: string): string => (/[/{}"@]|^\s|\s$|^$/.test(label) ? quoted(label) : label);

/** The names that lead to a property, `Bar 1 / Position`; null where it is gone. */
export const pathOf = (to: Target, scene: Scene, here?: Here): string | null => {
  const layer = scene.layers[to.layer];
  const own = layer && namesWithin(layer).labels.get(ownKey(to));
  if (!own) return null;
  const first = to.layer === here?.layer ? THIS : namesOfLayers(scene).labels.get(to.layer);
  return first === undefined ? null : [first, ...own].map(safe).join(' / ');
};

/** A text with every reference changed; those for which there is nothing else stay. */
export const withReferences = (text: string, change: (path: string) => string | null): string => {
  let done = '';
  let from = 0;
  for (const { path, at } of referencesIn(text)) {
    const to = change(path.trim());
    if (to === null) continue;
    done += `${text.slice(from, at[0])}{${to}}`;
    [, from] = at;
  }
  return done + text.slice(from);
};

/** As it is stored: references by id. One that leads nowhere stays as it was typed. */
export const storedText = (text: string, scene: Scene, here: Here): string =>
  withReferences(text, (path) => {
    const found = path.startsWith('@') ? null : referenceOf(path, scene, here);
    if (found === null || typeof found === 'string') return null;
    if (found.kind === 'ease') return `@ease:${found.id}`;
    return stored(found.to.layer === here.layer ? { ...found.to, layer: THIS } : found.to);
  });

/** As it is shown: references by name. One that leads nowhere shows its ids. */
export const shownText = (text: string, scene: Scene, here: Here): string =>
  withReferences(text, (path) => {
    const found = path.startsWith('@') ? byId(path, here) : null;
    if (!found) return null;
    if (found.kind === 'property') return pathOf(found.to, scene, here);
    const label = namesOfEases(scene).labels.get(found.id);
    return label === undefined ? null : `${EASES} / ${safe(label)}`;
  });

/** Where a place of a stored text is in the text as it is shown. Both have the same references in the same order. */
export const spanIn = (shown: string, text: string, [start, end]: Span): Span => {
  const [before, after] = [referencesIn(text), referencesIn(shown)];
  const moved = (at: number, ends: boolean): number => {
    let by = 0;
    for (const [i, ref] of before.entries()) {
      const own = after[i]?.at;
      if (!own || at < ref.at[0] || (at === ref.at[0] && !ends)) break;
      if (at < ref.at[1]) return ends ? own[1] : own[0];
      by = own[1] - ref.at[1];
    }
    return at + by;
  };
  return [moved(start, false), moved(end, true)];
};

/** A reference to a property as a formula stores it. */
export const referenceTo = (to: Target, here: Here): string =>
  `{${stored(to.layer === here.layer ? { ...to, layer: THIS } : to)}}`;

/**
 * A stored text whose references lead elsewhere, as those of a copy to what was copied along. `there` is where the formula
 * stands afterwards: what led to its own layer and still does is named by it.
 */
export const retargeted = (
  text: string,
  to: (target: Target, own: boolean) => Target,
  here: Here,
  there: Here = here,
): string =>
  withReferences(text, (path) => {
    const found = path.startsWith('@') ? byId(path, here) : null;
    if (found?.kind !== 'property') return null;
    const own = path.startsWith(`@${THIS}/`);
    const target = to(found.to, own);
    return stored(own && target.layer === there.layer ? { ...target, layer: THIS } : target);
  });

/** Every property of a scene with the names that lead to it, for choosing one. */
export const allPaths = (scene: Scene, here: Here): { readonly to: Target; readonly path: string }[] =>
  scene.order.flatMap((id) => {
    const layer = scene.layers[id];
    if (!layer) return [];
    return [...namesWithin(layer).byLabel.values()].flatMap((own) => {
      const to = { layer: id, ...own };
      const path = pathOf(to, scene, here);
      return path === null ? [] : [{ to, path }];
    });
  });

/** The names that lead to properties, those first whose values may stand where one of `param` is wanted. */
export const pathsFor = (scene: Scene, here: Here, param: Param): { readonly path: string; readonly fits: boolean }[] =>
  allPaths(scene, here)
    .map(({ to, path }) => {
      const own = paramIn(scene.layers[to.layer], { scene: scene.id, ...to });
      return { path, fits: own !== undefined && fitsType(typeOf(own), typeOf(param)) };
    })
    .toSorted((a, b) => Number(b.fits) - Number(a.fits));
