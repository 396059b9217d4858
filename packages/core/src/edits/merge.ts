/**
 * Two changes of one document brought together (a three-way merge): what only one of them changed is as that one has it, of
 * what both changed the later one stands, and what one of them took away is gone. Things in lists are known by their ids,
 * keyframes by their frames, so that an insertion never moves an edit to its neighbour.
 */
import { apply, type Draft } from 'mutative';
import { isEqual, isObject } from '../document/is';
import type { Change, Patch, ProjectDraft } from '../document/patches';
import type { Project } from '../document/types';
import { applyEdit } from './apply';
import { reconcileIn } from './reconcile';

type Path = readonly (string | number)[];
/** What a thing in a list is known by; undefined for one that is known by its place alone, as a point. */
const nameOf = (value: unknown): string | number | undefined => {
  if (typeof value === 'string') return value;
  if (!isObject(value)) return undefined;
  const name = value.id ?? value.frame;
  return typeof name === 'string' || typeof name === 'number' ? name : undefined;
};

/** A list by what its things are known by; null where they are not, or not alone. */
const byName = (list: readonly unknown[]): ReadonlyMap<string | number, unknown> | null => {
  const found = new Map<string | number, unknown>();
  for (const value of list) {
    const name = nameOf(value);
    if (name === undefined) return null;
    found.set(name, value);
  }
  return found.size === list.length ? found : null;
};

const isKeyframe = (value: unknown): value is { frame: number } =>
  isObject(value) && value.id === undefined && typeof value.frame === 'number';

/** In the later one's order; what only the earlier one has stands behind what it stood behind there. */
const mergedList = (base: readonly unknown[], later: readonly unknown[], earlier: readonly unknown[]): unknown[] => {
  const [from, mine, theirs] = [byName(base), byName(later), byName(earlier)];
  if (!from || !mine || !theirs) return [...later];
  const order = [...mine.keys()].filter((name) => theirs.has(name) || !from.has(name));
  let before: string | number | null = null;
  for (const name of theirs.keys()) {
    if (!mine.has(name) && !from.has(name)) order.splice(before === null ? 0 : order.indexOf(before) + 1, 0, name);
    if (order.includes(name)) before = name;
  }
  const list = order.map((name) => merged(from.get(name), mine.get(name), theirs.get(name)));
  // In the order of time, whatever each had in between.
  return list.every(isKeyframe) ? list.toSorted((a, b) => a.frame - b.frame) : list;
};

/** Undefined is what is not there. */
const merged = (base: unknown, later: unknown, earlier: unknown): unknown => {
  if (later === base || isEqual(later, base)) return earlier;
  if (earlier === base || isEqual(earlier, base)) return later;
  if (isObject(later) && isObject(earlier)) {
    const from = isObject(base) ? base : {};
    const entries = [...new Set([...Object.keys(earlier), ...Object.keys(later)])].flatMap((key) => {
      const value = merged(from[key], later[key], earlier[key]);
      return value === undefined ? [] : [[key, value] as const];
    });
    return Object.fromEntries(entries);
  }
  if (Array.isArray(later) && Array.isArray(earlier)) {
    return mergedList(Array.isArray(base) ? base : [], later, earlier);
  }
  // What is gone stays gone.
  return base !== undefined && earlier === undefined ? undefined : later;
};

/** What makes one value of another, by the places where they differ; lists, and what lies deeper than `depth`, are put whole. */
const steps = (from: unknown, to: unknown, path: Path, depth: number, out: Patch[]): void => {
  if (from === to) return;
  if (!isObject(from) || !isObject(to) || path.length === depth) {
    if (!isEqual(from, to)) out.push({ op: 'replace', path, value: to });
    return;
  }
  for (const key of Object.keys(from)) if (!Object.hasOwn(to, key)) out.push({ op: 'remove', path: [...path, key] });
  for (const [key, value] of Object.entries(to)) {
    if (Object.hasOwn(from, key)) steps(from[key], value, [...path, key], depth, out);
    else out.push({ op: 'add', path: [...path, key], value });
  }
};

/** Patches in one edit, about: more of them are made of larger parts. The server takes 20,000. */
const MANY = 10_000;
/** A layer as a whole: `scenes`, a scene, `layers`, a layer. */
const LAYER = 4;

/** What makes one document of another: by each value that differs, or by layers where those are very many. */
export const patchesBetween = (from: Project, to: Project): readonly Patch[] => {
  const out: Patch[] = [];
  steps(from, to, [], Infinity, out);
  if (out.length <= MANY) return out;
  const whole: Patch[] = [];
  steps(from, to, [], LAYER, whole);
  return whole;
};

const draftPatches = (patches: readonly Patch[]) => patches as Parameters<typeof apply<Draft<Project>>>[1];

/** Patches in a draft; mutative has them as its own. */
export const applyTo = (draft: ProjectDraft, patches: readonly Patch[]): void =>
  void apply(draft as Draft<Project>, draftPatches(patches));

/**
 * What a change from `base` to `later` is on top of `earlier`, which others have made of `base` meanwhile. Without patches
 * where nothing is left of it: what it changed is gone, or is so already. Throws a RangeError as an edit does.
 */
export const onTopOf = (base: Project, later: Project, earlier: Project): Change => {
  const patches = patchesBetween(earlier, merged(base, later, earlier) as Project);
  if (patches.length === 0) return { doc: earlier, patches, inverse: [] };
  return applyEdit(earlier, {
    label: '',
    change: (draft) => {
      applyTo(draft, patches);
      reconcileIn(draft);
    },
  });
};
