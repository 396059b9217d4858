import { FORMAT_VERSION } from '../document/make';
import { retargeted } from '../formula/refs';
import { Invalid, shown } from './problem';

export type Upgrade = (document: Record<string, unknown>) => Record<string, unknown>;

type Fields = Record<string, unknown>;
const isRecord = (value: unknown): value is Record<string, Fields> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
/** What is no object stays, for the check to name. */
const each = (map: unknown, change: (value: Fields) => Fields): Fields =>
  Object.fromEntries(Object.entries((map ?? {}) as Fields).map(([id, v]) => [id, isRecord(v) ? change(v) : v]));

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

const NEST_KEYS = ['play', 'speed', 'rounds', 'still', 'time', 'background'] as const;

/** An object's entries in two: those of some keys, by the name of the key before any dot, and the rest. */
const parted = (fields: Fields | undefined, keys: readonly string[]): [chosen: Fields, rest: Fields] => {
  const entries = Object.entries(fields ?? {});
  const isChosen = ([key]: [string, unknown]) => keys.includes(key.split('.')[0] as string);
  return [Object.fromEntries(entries.filter(isChosen)), Object.fromEntries(entries.filter((e) => !isChosen(e)))];
};

/** An id for the card that shows what a layer showed; within the length that an id may have. */
const cardOf = (layer: string, kind: unknown): string => `${layer.slice(0, 56)}-${String(kind)}`;

/** A layer of one card, with what belonged to the layer of a kind of its own. */
const asDrawing = (layer: Fields): Fields => {
  const { asset, cut, scene, start, params, formulas, ...rest } = layer;
  const nests = layer.kind === 'nest';
  const [own, place] = parted(params as Fields, nests ? NEST_KEYS : []);
  const [ownFormulas, placeFormulas] = parted(formulas as Fields, nests ? NEST_KEYS : []);
  const shown = nests
    ? { scene: { value: scene }, start: { value: start } }
    : { asset: { value: asset }, ...(cut !== null && cut !== undefined && { cut: { value: cut } }) };
  const id = cardOf(String(layer.id), layer.kind);
  const withFormulas = (found: Fields) => Object.keys(found).length > 0 && { formulas: found };
  const card = { id, kind: layer.kind, on: true, params: { ...shown, ...own }, ...withFormulas(ownFormulas) };
  return {
    ...rest,
    kind: 'drawing',
    params: place,
    ...withFormulas(placeFormulas),
    items: { [id]: card },
    recipe: [id],
  };
};

/** A stored formula whose references to the time of nests lead to their cards. */
const toCards = (text: string, nests: ReadonlySet<string>, here: string): string =>
  retargeted(
    text,
    (target, own) => {
      const layer = own ? here : target.layer;
      const moved = target.item === undefined && nests.has(layer) && NEST_KEYS.includes(target.key as never);
      return moved ? { ...target, item: cardOf(layer, 'nest') } : target;
    },
    { layer: here, key: '' },
  );

/** Pictures and nests became cards of recipes with format 5. */
const withSources: Upgrade = (document) => ({
  ...document,
  scenes: each(document.scenes, (scene) => {
    const nests = new Set<string>();
    each(scene.layers, (layer) => {
      if (layer.kind === 'nest') nests.add(String(layer.id));
      return layer;
    });
    const relinked = <T extends Fields>(holder: T, layer: string): T =>
      isRecord(holder.formulas)
        ? {
            ...holder,
            formulas: each(holder.formulas, (f) =>
              typeof f.text === 'string' ? { ...f, text: toCards(f.text, nests, layer) } : f,
            ),
          }
        : holder;
    return {
      ...scene,
      layers: each(scene.layers, (layer) => {
        const made = layer.kind === 'picture' || layer.kind === 'nest' ? asDrawing(layer) : layer;
        const id = String(layer.id);
        return {
          ...relinked(made, id),
          ...(isRecord(made.items) && { items: each(made.items, (item) => relinked(item, id)) }),
          ...(isRecord(made.knobs) && { knobs: each(made.knobs, (knob) => relinked(knob, id)) }),
        };
      }),
    };
  }),
});

/** Masks that add came with format 6, and are what a mask is where nothing else is said: before, each narrowed down. */
const withSoftMasks: Upgrade = (document) => ({
  ...document,
  scenes: each(document.scenes, (scene) => ({
    ...scene,
    layers: each(scene.layers, (layer) =>
      isRecord(layer.items)
        ? {
            ...layer,
            items: each(layer.items, (item) =>
              item.kind === 'mask'
                ? { ...item, params: { mode: { value: 'show' }, ...(item.params as Fields) } }
                : item,
            ),
          }
        : layer,
    ),
  })),
});

/** Effects kept under names came with format 7. */
const withEffects: Upgrade = (document) => ({ ...document, effects: [] });

/** The order and the speed of routines came with format 8, and controllers that are groups. */
const withGroups: Upgrade = (document) => ({
  ...document,
  scenes: each(document.scenes, (scene) => ({
    ...scene,
    layers: each(scene.layers, (layer) => (layer.kind === 'controller' ? { ...layer, group: false } : layer)),
    ...(Array.isArray(scene.routines) && {
      routines: scene.routines.map((routine: unknown) =>
        isRecord(routine) ? { ...routine, order: 'list', seed: 1, speed: 1, forever: false } : routine,
      ),
    }),
  })),
});

/** Deliveries came with format 9. */
const withDeliveries: Upgrade = (document) => ({ ...document, deliveries: [] });

/** Depth came with format 10, from where a scene's is looked at, and its light. */
const withDepth: Upgrade = (document) => ({
  ...document,
  scenes: each(document.scenes, (scene) => ({
    ...scene,
    eye: { angle: 40, off: [0, 0] },
    light: { turn: -35, tilt: 50, strength: 0.6 },
  })),
});

/** Versions of what a project says came with format 11; how often a delivery was asked for had their name in names of files. */
const withVersions: Upgrade = (document) => ({
  ...document,
  versions: { columns: [], rows: [] },
  deliveries: (document.deliveries as readonly unknown[]).map((delivery) =>
    isRecord(delivery)
      ? { ...delivery, everyVersion: false, file: String(delivery.file).replaceAll('{version}', '{take}') }
      : delivery,
  ),
});

/** From each older version to the next. */
export const UPGRADES: ReadonlyMap<number, Upgrade> = new Map([
  [1, withAssets],
  [2, withMoves],
  [3, withSets],
  [4, withSources],
  [5, withSoftMasks],
  [6, withEffects],
  [7, withGroups],
  [8, withDeliveries],
  [9, withDepth],
  [10, withVersions],
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
