/** Edits to when layers show and move: a layer's time is its first and last frame and all of its keyframes. */
import type { MakeId } from '../document/make';
import { namesIn, naming } from '../document/make';
import type { Param } from '../document/params';
import { type Edit, plain } from '../document/patches';
import {
  type Id,
  isApart,
  isKeyed,
  type Layer,
  type Properties,
  type Property,
  type Scene,
  type Value,
} from '../document/types';
import { fittedValue } from '../motion/kinds/table';
import { mappedValues, retimed, reversed } from '../motion/keys';
import { holdersOf, layerIn, type LayerDraft, sceneIn } from './find';
import { withRank } from './formulas';
import { copiesOf } from './layers';
import { rewritingMoves } from './moves';
import { slidingRoutines, stretchingRoutines } from './routines';
import { relinked } from '../recipe/needs';
import { nest } from '../recipe/sources/nest';
import { layersCutBy } from '../scene/follows';
import { groupsAround, withMembers } from '../scene/groups';

const mapProperties = (layer: LayerDraft, change: (property: Property, param: Param | undefined) => Property): void => {
  for (const [holder, params] of holdersOf(layer)) {
    const now = plain<Properties>(holder.params);
    const next = Object.entries(now).map(([key, property]) => [key, change(property, params[key])]);
    holder.params = Object.fromEntries(next) as LayerDraft['params'];
  }
};

/** Sends the values that are frames of the scene elsewhere. */
const withClock = (property: Property, to: (frame: number) => number): Property => {
  if (isApart(property)) return property;
  const moved = (value: Value) => to(value as number);
  return isKeyed(property)
    ? { ...property, keys: property.keys.map((k) => ({ ...k, value: moved(k.value) })) }
    : { value: moved(property.value) };
};

/** A frame that goes along with its layer is said, though it be the default's. */
const sayClocks = (layer: LayerDraft): void => {
  for (const [holder, params] of holdersOf(layer)) {
    for (const [key, param] of Object.entries(params)) {
      if (param.kind === 'number' && param.clock) holder.params[key] ??= { value: param.default };
    }
  }
};

/** Sends a layer's frames, and those of all its keyframes, elsewhere. */
const retime = (layer: LayerDraft, to: (frame: number) => number): void => {
  const [from, end] = [to(layer.from), to(layer.to)];
  layer.from = from;
  layer.to = Math.max(from + 1, end);
  sayClocks(layer);
  mapProperties(layer, (property, param) =>
    retimed(param?.kind === 'number' && param.clock ? withClock(property, to) : property, to),
  );
  for (const move of layer.moves) {
    const length = move.to - move.from;
    [move.from, move.to] = [to(move.from), to(move.to)];
    if (move.move.kind !== 'passage' && length > 0) {
      move.move.frames = Math.max(1, move.move.frames + (move.to - move.from) - length);
    }
  }
};

/** Slides all that moves in a layer, while it shows as long as it did. */
export const slideKeys = (layer: LayerDraft, by: number): void => {
  const { from, to } = layer;
  retime(layer, (frame) => frame + by);
  Object.assign(layer, { from, to });
};

const onLayers = (
  label: string,
  sceneId: Id,
  ids: readonly Id[],
  how: (layer: LayerDraft, i: number) => void,
): Edit => ({
  label,
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    ids.forEach((id, i) => how(layerIn(scene, id), i));
  },
});

/** Slides layers in time, keyframes, moves and routines and all. */
export const slideLayers = (sceneId: Id, ids: readonly Id[], by: number): Edit => ({
  label: 'Slide layers',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const all = withMembers(plain<Scene>(scene), ids);
    slidingRoutines(scene, all, by, () => {
      for (const id of all) retime(layerIn(scene, id), (f) => f + by);
    });
  },
});

/** What plays another scene plays it so much slower. */
const stretchNests = (layer: LayerDraft, factor: number): void => {
  if (layer.kind !== 'drawing' || factor <= 0) return;
  const { speed } = nest.params;
  for (const item of Object.values(layer.items)) {
    if (item.kind !== nest.kind) continue;
    const now = item.params.speed && plain<Property>(item.params.speed);
    item.params.speed = mappedValues(now, speed.default, (v) =>
      fittedValue(speed, (v as number) / factor),
    ) as (typeof item.params)[string];
  }
};

/** Makes layers last `factor` times as long, keyframes in proportion, from their own first frame or another on. */
export const stretchLayers = (sceneId: Id, ids: readonly Id[], factor: number, start?: number): Edit => ({
  label: 'Stretch layers',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const whole = plain<Scene>(scene);
    const all = withMembers(whole, ids);
    // The members of a group are stretched with it as one.
    const origin = (id: Id): Id => groupsAround(whole, id).find((group) => ids.includes(group.id))?.id ?? id;
    const froms = new Map(all.map((id) => [id, layerIn(scene, origin(id)).from]));
    const to = (id: Id, frame: number) => {
      const from = froms.get(id) ?? 0;
      return (start ?? from) + Math.round((frame - from) * factor);
    };
    stretchingRoutines(draft, scene, all, factor, to, () => {
      for (const id of all) {
        const layer = layerIn(scene, id);
        rewritingMoves(layer, () => retime(layer, (f) => to(id, f)));
        stretchNests(layer, factor);
      }
    });
  },
});

/** Layers last to the end of their scene; keyframes stay. */
export const extendLayers = (sceneId: Id, ids: readonly Id[]): Edit => ({
  label: 'Extend to the scene’s end',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    for (const id of ids) {
      const layer = layerIn(scene, id);
      layer.to = Math.max(scene.length, layer.from + 1);
    }
  },
});

/** The motion of layers backwards: what happened on a layer's first frame happens on its last. */
export const reverseLayers = (sceneId: Id, ids: readonly Id[]): Edit =>
  onLayers('Reverse layers', sceneId, ids, (layer) => {
    const [from, to] = [layer.from, layer.to - 1];
    mapProperties(layer, (property) => reversed(property, from, to));
  });

/**
 * Cuts layers in two at a frame: the first part ends there, a copy in front of it goes on from there. Both keep all
 * keyframes, so that the picture is as it was. What hangs from a cut layer stays with its first part.
 */
export const splitLayers = (sceneId: Id, ids: readonly Id[], frame: number, makeId: MakeId): Edit => ({
  label: 'Split at the playhead',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const whole = plain<Scene>(scene);
    const free = naming(namesIn(whole));
    const isSplit = ({ from, to }: Layer) => frame > from && frame < to;
    // What is cut by a layer that is split is split too: its second part is cut by the second part of that.
    const all = new Set(ids);
    const halves = new Map<Id, Id>();
    for (const id of all) {
      const layer = layerIn(whole, id);
      if (!isSplit(layer)) continue;
      for (const cut of layersCutBy(whole, id)) all.add(cut.id);
      const [copied] = copiesOf([layer], makeId) as [Layer];
      const copy = withRank(copied, whole, id);
      scene.layers[copy.id] = { ...copy, name: free(copy.name), from: frame } as LayerDraft;
      layerIn(scene, id).to = frame;
      halves.set(id, copy.id);
    }
    scene.order = whole.order.flatMap((id) => {
      const half = halves.get(id);
      return half === undefined ? [id] : [half, id];
    });
    for (const layer of Object.values(scene.layers)) {
      if (layer.from < frame) continue;
      const before = plain<Layer>(layer);
      const after = relinked(before, 'layer', (id) => halves.get(id) ?? id);
      if (after !== before) scene.layers[layer.id] = after as LayerDraft;
    }
  },
});
