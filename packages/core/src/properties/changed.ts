/** What a change did, in words: by scene, layer and card, with the values before and after where they are short. */
import type { Param } from '../document/params';
import type { Patch } from '../document/patches';
import type { Id, Layer, Project } from '../document/types';
import { kindOf } from '../recipe/table';
import { paramIn, partOf } from './find';

export interface Changed {
  /** Where: the names of scene, layer and card, as far as it is of one. */
  readonly where: readonly string[];
  readonly what: string;
  /** Short values; null for what is not, or was not there. */
  readonly from: string | null;
  readonly to: string | null;
}

type Names = readonly Project[];
type Path = Patch['path'];

/** Of the first document that has it. */
const found = <T>(docs: Names, find: (doc: Project) => T | undefined): T | undefined => {
  for (const doc of docs) {
    const value = find(doc);
    if (value !== undefined) return value;
  }
  return undefined;
};

const layerOf = (docs: Names, scene: Id, layer: Id): Layer | undefined =>
  found(docs, (doc) => doc.scenes[scene]?.layers[layer]);

const SUFFIX: Readonly<Record<string, string>> = { px: ' px', deg: '°', percent: ' %', frames: ' frames' };

const numeral = (value: number): string => String(Math.round(value * 100) / 100);

/** A value in a few characters; null for what takes more. */
const short = (value: unknown, param: Param | undefined): string | null => {
  if (value !== null && typeof value === 'object' && !Array.isArray(value) && 'value' in value) {
    return short((value as { value: unknown }).value, param);
  }
  const unit = param && 'unit' in param ? param.unit : '';
  if (typeof value === 'number') return numeral(unit === 'percent' ? value * 100 : value) + (SUFFIX[unit] ?? '');
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (typeof value === 'string') return value.length <= 40 ? `“${value}”` : null;
  if (Array.isArray(value) && value.length === 2 && value.every((part) => typeof part === 'number')) {
    return value.map(numeral).join(' × ');
  }
  return null;
};

/** `poseTimes` as “pose times”. */
const spoken = (key: string | number): string => {
  const words = String(key).replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
  return words.charAt(0).toUpperCase() + words.slice(1);
};

/** A change of a thing as a whole. */
const DONE = { add: 'added', remove: 'taken away', replace: 'changed' } as const;

interface Placed {
  readonly where: readonly string[];
  readonly what: string;
  readonly param?: Param;
}

/** What came or went is called as it says itself, where it is in no document any more. */
const ownName = (value: unknown): string | undefined => {
  const { name } = (value ?? {}) as { name?: unknown };
  return typeof name === 'string' ? name : undefined;
};

const inLayer = (
  docs: Names,
  [scene, id]: readonly [Id, Id],
  rest: Path,
  { op, value }: Pick<Patch, 'op' | 'value'>,
): Placed => {
  const layer = layerOf(docs, scene, id);
  const where = [layer?.name ?? (rest.length === 0 ? ownName(value) : undefined) ?? 'A layer'];
  const [group, key, more, inner] = rest;
  if (group === undefined) return { where: [], what: `${where[0]} ${DONE[op]}` };
  if (group === 'params' && key !== undefined) {
    const param = paramIn(layer, { scene, layer: id, key: String(key) });
    return { where, what: param?.label ?? spoken(key), ...(param && { param }) };
  }
  if ((group === 'items' || group === 'knobs') && key !== undefined) {
    const part = partOf(layer, String(key));
    const name = !part ? 'A card' : (part.name ?? (group === 'items' ? kindOf(part.kind).label : 'Knob'));
    if (more === undefined) return { where, what: `${name} ${DONE[op]}` };
    if (more !== 'params' || inner === undefined) return { where: [...where, name], what: spoken(more) };
    const param = paramIn(layer, { scene, layer: id, item: String(key), key: String(inner) });
    return { where: [...where, name], what: param?.label ?? spoken(inner), ...(param && { param }) };
  }
  return { where, what: group === 'recipe' ? 'Order of cards' : spoken(group) };
};

/** `value` is what came, or what went. */
const placeOf = (docs: Names, { path, op, value }: Patch): Placed => {
  const [group, id, inner, layer, ...rest] = path;
  if (group !== 'scenes' || id === undefined) {
    return {
      where: [],
      what: group === 'order' ? 'Order of scenes' : group === 'name' ? 'Name of the project' : spoken(group ?? ''),
    };
  }
  const scene =
    found(docs, (doc) => doc.scenes[id])?.name ?? (inner === undefined ? ownName(value) : undefined) ?? 'A scene';
  if (inner === undefined) return { where: [], what: `${scene} ${DONE[op]}` };
  if (inner !== 'layers' || layer === undefined) {
    return { where: [scene], what: inner === 'order' ? 'Order of layers' : spoken(inner) };
  }
  const placed = inLayer(docs, [String(id), String(layer)], rest, { op, value });
  return { ...placed, where: [scene, ...placed.where] };
};

const keyOf = ({ where, what }: Placed): string => [...where, what].join('\0');

/**
 * What patches did to a document, each place once, in their order. `docs` are where names are looked for, the first that
 * has one; `inverse` is what takes the patches back.
 */
export const whatChanged = (docs: Names, patches: readonly Patch[], inverse: readonly Patch[]): readonly Changed[] => {
  const before = new Map(inverse.map((patch) => [JSON.stringify(patch.path), patch]));
  const out = new Map<string, Changed>();
  for (const patch of patches) {
    const was = before.get(JSON.stringify(patch.path));
    const place = placeOf(docs, patch.op === 'remove' ? { ...patch, value: was?.value } : patch);
    const { where, what, param } = place;
    const [from, to] = [was, patch].map((own) => (own && own.op !== 'remove' ? short(own.value, param) : null));
    const known = out.get(keyOf(place));
    // Of several patches in one place the values would be of parts of it.
    out.set(
      keyOf(place),
      known ? { ...known, from: null, to: null } : { where, what, from: from ?? null, to: to ?? null },
    );
  }
  const all = [...out.values()];
  // That an order changed goes without saying where something came or went.
  const came = all.some(({ what }) => what.endsWith(DONE.add) || what.endsWith(DONE.remove));
  return came ? all.filter(({ what }) => !what.startsWith('Order of')) : all;
};
