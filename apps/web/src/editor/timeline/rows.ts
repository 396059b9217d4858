/** The rows of the timeline: layers, and below an open one a ribbon for each property that changes. */
import { type Id, type Layer, type Project, type PropertyRef, type Scene } from '@kite/core/document/types';
import { keyedCurvesOf, paramIn, refKey } from '@kite/core/properties/find';
import { groupsAround } from '@kite/core/scene/groups';
import { formulasOf } from '@kite/core/scene/follows';
import { cels } from '@kite/core/recipe/groups/cels';
import { kindOf } from '@kite/core/recipe/table';

export type TimelineRow =
  | { readonly kind: 'layer'; readonly key: string; readonly layer: Id }
  | { readonly kind: 'ribbon'; readonly key: string; readonly layer: Id; readonly ref: PropertyRef }
  | { readonly kind: 'cels'; readonly key: string; readonly layer: Id; readonly cels: Id }
  | { readonly kind: 'hint'; readonly key: string; readonly layer: Id }
  | { readonly kind: 'scene'; readonly key: string; readonly scene: Id }
  | { readonly kind: 'elsewhere'; readonly key: string; readonly scene: Id; readonly layer: Id };

/** `Position`, or `Trim end` for a card's. */
export const ribbonName = (layer: Layer, ref: PropertyRef): string => {
  const label = paramIn(layer, ref)?.label ?? ref.key;
  if (ref.item === undefined || layer.kind !== 'drawing') return label;
  const item = layer.items[ref.item];
  return item ? `${item.name ?? kindOf(item.kind).label} · ${label.toLowerCase()}` : label;
};

/** What has keyframes, and what a formula computes. */
const ribbonsOf = (scene: Id, layer: Layer): TimelineRow[] => {
  const refs = new Map(keyedCurvesOf(scene, layer).map((ref) => [refKey(ref), ref]));
  for (const { by } of formulasOf(scene, layer)) refs.set(refKey(by), by);
  return [...refs].map(([key, ref]) => ({ kind: 'ribbon', key, layer: layer.id, ref }));
};

/** Below a layer that is drawn by hand, its cels. */
const celsRows = (layer: Layer): TimelineRow[] =>
  layer.kind !== 'drawing'
    ? []
    : Object.values(layer.items)
        .filter((item) => item.kind === cels.kind && item.on)
        .map(({ id }) => ({ kind: 'cels', key: `${layer.id}-${id}`, layer: layer.id, cels: id }));

export interface Listed {
  /** Tucked layers have no rows unless they are asked for. */
  readonly tucked?: boolean;
  /** Those that are animated alone. */
  readonly animated?: boolean;
  /** Groups whose members have no rows. */
  readonly folded?: ReadonlySet<Id>;
}

export const rowsOf = (scene: Scene, opened: ReadonlySet<Id>, listed: Listed = {}): TimelineRow[] =>
  scene.order.flatMap((id): TimelineRow[] => {
    const layer = scene.layers[id];
    if (!layer || (layer.tucked && !listed.tucked)) return [];
    if (groupsAround(scene, id).some((group) => listed.folded?.has(group.id))) return [];
    const ribbons = listed.animated || opened.has(id) ? ribbonsOf(scene.id, layer) : [];
    if (listed.animated && ribbons.length === 0) return [];
    const head: TimelineRow[] = [{ kind: 'layer', key: id, layer: id }, ...celsRows(layer)];
    if (!opened.has(id)) return head;
    if (ribbons.length === 0 && head.length === 1) head.push({ kind: 'hint', key: `${id}-hint`, layer: id });
    return [...head, ...ribbons];
  });

/** The rows of the other scenes: each one's name, and below an open one the layers that are animated with their ribbons. */
export const rowsElsewhere = (doc: Project, here: Id, opened: ReadonlySet<Id>): TimelineRow[] =>
  doc.order.flatMap((id): TimelineRow[] => {
    const scene = doc.scenes[id];
    if (!scene || id === here) return [];
    const head: TimelineRow = { kind: 'scene', key: `scene-${id}`, scene: id };
    if (!opened.has(id)) return [head];
    const below = scene.order.flatMap((layerId): TimelineRow[] => {
      const layer = scene.layers[layerId];
      const ribbons = layer ? ribbonsOf(id, layer) : [];
      return ribbons.length > 0
        ? [{ kind: 'elsewhere', key: `${id}/${layerId}`, scene: id, layer: layerId }, ...ribbons]
        : [];
    });
    return [head, ...below];
  });
