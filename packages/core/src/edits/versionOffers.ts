/** What of a project may be another in each version, and the table of versions as text. */
import { asName } from '../document/text';
import type { MakeId } from '../document/make';
import { type Id, isKeyed, type Project, type PropertyRef, type Version, type VersionColumn } from '../document/types';
import { splitWordAt, splitWordsOf, wordsOf } from '../properties/words';
import { usesOfAssets } from '../recipe/needs';
import { paramAt, propertyAt, refKey } from '../properties/find';
import { samplerOf } from '../motion/sampler';
import { usesOfSwatches } from './swatches';
import { NAME_COLUMN } from './versions';

/** So long is the name that a column gets from its words. */
const NAME = 40;

/**
 * A column for all places that say the same, for each swatch and each picture that is shown: those that the table does not
 * have yet, in the order of scenes.
 */
export const columnsOffered = (project: Project, makeId: MakeId): readonly VersionColumn[] => {
  const { columns } = project.versions;
  const places = columns.flatMap((c) => (c.kind === 'words' ? c.places : []));
  const taken = new Set(places.map((place) => refKey(splitWordAt(project.scenes[place.scene], place)?.ref ?? place)));
  const scenes = project.order.flatMap((id) => project.scenes[id] ?? []);
  const said = new Map<string, { readonly name: string; readonly places: readonly PropertyRef[] }>();
  const words = scenes.flatMap((scene) => [...wordsOf(scene, scene.poster), ...splitWordsOf(scene)]);
  for (const { ref, text, layer } of words) {
    if (taken.has(refKey(ref))) continue;
    const known = said.get(text)?.places ?? [];
    const name = asName(text.replace(/\s+/g, ' ').trim(), layer, NAME);
    said.set(text, { name, places: [...known, ref] });
  }
  const dyed = usesOfSwatches(project);
  const shown = usesOfAssets(scenes);
  const has = (id: Id) =>
    columns.some((c) => (c.kind === 'swatch' ? c.swatch : c.kind === 'picture' && c.asset) === id);
  return [
    ...[...said.values()].map((words) => ({ id: makeId(), kind: 'words' as const, ...words })),
    ...project.swatches
      .filter(({ id }) => dyed.has(id) && !has(id))
      .map(({ id, name }) => ({ id: makeId(), name, kind: 'swatch' as const, swatch: id })),
    ...Object.values(project.assets)
      .filter(({ id, kind }) => kind === 'picture' && shown.has(id) && !has(id))
      .map(({ id, name }) => ({ id: makeId(), name, kind: 'picture' as const, asset: id })),
  ];
};

/** The words at a place as they are first said; null where nothing of it is left. */
const saidAt = (project: Project, place: PropertyRef): string | null => {
  const param = paramAt(project, place);
  if (!param) return splitWordAt(project.scenes[place.scene], place)?.text ?? null;
  const property = propertyAt(project, place);
  const first = isKeyed(property) ? (property.keys[0]?.frame ?? 0) : 0;
  return String(samplerOf(param, property).at(first));
};

/** What the project itself has in a column: words as they are first said, a colour, the id of a picture; null where nothing of it is left. */
export const ownValue = (project: Project, column: VersionColumn): string | null => {
  if (column.kind === 'swatch') return project.swatches.find(({ id }) => id === column.swatch)?.color ?? null;
  if (column.kind === 'picture') return project.assets[column.asset] ? column.asset : null;
  return column.places.reduce<string | null>((said, place) => said ?? saidAt(project, place), null);
};

/** A version's cell as it is read and pasted: pictures by their names. */
const written = (project: Project, { values }: Version, column: VersionColumn): string => {
  const value = values[column.id] ?? '';
  return column.kind === 'picture' ? (project.assets[value]?.name ?? '') : value;
};

/** The table with its head, a line for each version: what `fillVersions` reads. */
export const linesOfVersions = (project: Project): string[][] => {
  const { columns, rows } = project.versions;
  return [
    [NAME_COLUMN, ...columns.map(({ name }) => name)],
    ...rows.map((row) => [row.name, ...columns.map((column) => written(project, row, column))]),
  ];
};

/** The scenes in which a version may look other than the project, in the project's order: all where a swatch or a picture differs. */
export const scenesOfVersions = ({ order, versions }: Project): readonly Id[] => {
  const { columns } = versions;
  if (columns.some(({ kind }) => kind !== 'words')) return order;
  const named = new Set(columns.flatMap((c) => (c.kind === 'words' ? c.places.map(({ scene }) => scene) : [])));
  return order.filter((id) => named.has(id));
};
