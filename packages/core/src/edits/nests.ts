/** Edits that make nests: layers with a card that plays another scene. */
import { type MakeId, namesIn, newNest, newScene, uniqueName } from '../document/make';
import { type Edit, type ProjectDraft, plain } from '../document/patches';
import type { DrawingLayer, Id, Item, Layer, LayerSet, Scene } from '../document/types';
import { cuttersOf } from '../scene/follows';
import { layerIn, type LayerDraft, sceneIn } from './find';
import { framesPerSecond } from '../time/rate';
import { reparent } from './place';
import { withMembers } from '../scene/groups';
import { leaveScene, withMembersOf } from './sets';

/** Puts a nest of a scene in front, in the middle of another, from a frame on: for as long as it plays, or the scene lasts. */
export const addNest = (sceneId: Id, inner: Id, layer: Id, from: number): Edit => ({
  label: 'Nest a scene',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const { name, length, rate } = plain<Scene>(sceneIn(draft, inner));
    const whole = plain<Scene>(scene);
    const made = newNest(whole, layer, uniqueName(name, namesIn(whole)), inner);
    const frames = Math.round((length / framesPerSecond(rate)) * framesPerSecond(scene.rate));
    const card = Object.values(made.items)[0] as Item;
    const begun: Item = { ...card, params: { ...card.params, start: { value: from } } };
    const own: DrawingLayer = { ...made, from, to: from + Math.max(1, frames), items: { [card.id]: begun } };
    scene.layers[layer] = own as LayerDraft;
    scene.order = [layer, ...scene.order];
  },
});

/**
 * Moves layers into a new scene of the same size, rate and length, and puts a nest of it in the place of the first: the
 * picture stays as it is at the frame. What hangs from layers that stay outside stands free, and so the other way round;
 * what cuts layers on the other side is there as well, unseen.
 */
export const nestLayers = (sceneId: Id, chosen: readonly Id[], name: string, frame: number, makeId: MakeId): Edit => ({
  label: 'Nest layers',
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const ids = withMembers(plain<Scene>(scene), chosen);
    const inside = new Set(ids);
    for (const layer of Object.values(scene.layers)) {
      if (layer.parent !== null && inside.has(layer.id) !== inside.has(layer.parent))
        reparent(scene, layer.id, null, frame);
    }
    const id = makeId();
    const names = draft.order.map((other) => sceneIn(draft, other).name);
    const { width, height, rate, length } = plain<Scene>(scene);
    const inner = newScene(id, uniqueName(name, names), { width, height, rate, length, background: null });
    const whole = plain<Scene>(scene);
    const along = cuttersOf(whole, ids);
    const left = cuttersOf(
      whole,
      whole.order.filter((layer) => !inside.has(layer)),
    );
    const order = scene.order.filter((layer) => inside.has(layer) || along.has(layer));
    const taken = order.map((layer): [Id, unknown] => {
      const own = plain<Layer>(layerIn(scene, layer));
      return [layer, inside.has(layer) ? own : { ...own, hidden: true }];
    });
    const layers = Object.fromEntries(taken) as Scene['layers'];
    const routines = scene.routines.filter((r) => r.players.every((p) => inside.has(p))).map((r) => plain(r));
    // Of a set those that are nested stay one, in their order.
    const sets = scene.sets
      .map((s) => plain<LayerSet>(s))
      .map((s) =>
        withMembersOf(
          s,
          s.members.filter((m) => inside.has(m)),
        ),
      )
      .filter(({ members }) => members.length > 1);
    draft.scenes[id] = { ...inner, layers, order, routines, sets } as ProjectDraft['scenes'][string];
    const at = draft.order.indexOf(sceneId) + 1;
    draft.order = [...draft.order.slice(0, at), id, ...draft.order.slice(at)];
    const nest = newNest(plain<Scene>(scene), makeId(), inner.name, id);
    const gone = new Set(ids.filter((layer) => !left.has(layer)));
    for (const layer of ids) if (left.has(layer)) layerIn(scene, layer).hidden = true;
    const first = scene.order.findIndex((layer) => inside.has(layer));
    scene.order = [...scene.order.slice(0, first), nest.id, ...scene.order.slice(first)].filter((l) => !gone.has(l));
    leaveScene(scene, gone);
    scene.layers[nest.id] = nest as LayerDraft;
    scene.routines = scene.routines.filter(
      (r) => r.players.length > 0 || !routines.some((own) => (own as { id: Id }).id === r.id),
    );
  },
});
