import { FORMAT_VERSION } from '../document/make';
import { Invalid, shown } from './problem';

export type Upgrade = (document: Record<string, unknown>) => Record<string, unknown>;

type Fields = Record<string, unknown>;
const each = (map: unknown, change: (value: Fields) => Fields): Fields =>
  Object.fromEntries(Object.entries((map ?? {}) as Record<string, Fields>).map(([id, value]) => [id, change(value)]));

/** Assets, swatches, saved eases, guides, tucked layers and knobs came with format 2. */
const withAssets: Upgrade = (document) => ({
  ...document,
  assets: {},
  swatches: [],
  eases: [],
  scenes: each(document.scenes, (scene) => ({
    ...scene,
    guides: { x: [], y: [] },
    layers: each(scene.layers, (layer) => ({
      ...layer,
      tucked: false,
      ...(layer.kind === 'controller' && { knobs: {}, panel: [] }),
    })),
  })),
});

/** Markers, moves and routines came with format 3. */
const withMoves: Upgrade = (document) => ({
  ...document,
  moves: [],
  scenes: each(document.scenes, (scene) => ({
    ...scene,
    markers: [],
    routines: [],
    layers: each(scene.layers, (layer) => ({ ...layer, moves: [] })),
  })),
});

/** Sets and formulas came with format 4. */
const withSets: Upgrade = (document) => ({
  ...document,
  scenes: each(document.scenes, (scene) => ({ ...scene, sets: [] })),
});

/** From each older version to the next. */
export const UPGRADES: ReadonlyMap<number, Upgrade> = new Map([
  [1, withAssets],
  [2, withMoves],
  [3, withSets],
]);

/** A document of any older version in today's; a newer one is refused. */
export const upgraded = (
  value: unknown,
  to: number = FORMAT_VERSION,
  upgrades: ReadonlyMap<number, Upgrade> = UPGRADES,
): unknown => {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) {
    throw new Invalid(`the document: got ${shown(value)}, wanted an object`);
  }
  let document = value as Record<string, unknown>;
  const { version } = document;
  if (!Number.isInteger(version) || (version as number) < 1) {
    throw new Invalid(`version: got ${shown(version)}, wanted a whole number from 1 to ${to}`, 'version');
  }
  if ((version as number) > to) {
    throw new Invalid(
      `version: this file has format ${String(version)}, newer than the ${to} this version of Agile Kite reads. Update Agile Kite to open it.`,
      'version',
    );
  }
  for (let v = version as number; v < to; v++) {
    const upgrade = upgrades.get(v);
    if (!upgrade) throw new Invalid(`version: format ${v} can no longer be read`, 'version');
    document = { ...upgrade(document), version: v + 1 };
  }
  return document;
};
