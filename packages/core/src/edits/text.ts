/** Text taken apart into layers. */
import { type MakeId, namesIn, naming } from '../document/make';
import { asName, cutText } from '../document/text';
import { type Edit, plain } from '../document/patches';
import type { DrawingLayer, Id, Item, Point, Scene, SplitWord } from '../document/types';
import { IDENTITY, inverted, multiply } from '../geometry/matrix';
import type { Program } from '../scene/program';
import { placementOf } from '../properties/placement';
import type { TextUnit } from '../motion/sampler';
import { text as textKind, textLayout, type TextValues } from '../recipe/sources/text';
import { kindOf } from '../recipe/table';
import { drawingIn, itemIn, type LayerDraft, NotFound, sceneIn } from './find';
import { copiesOf } from './layers';
import { aloneOnPaths } from './onPaths';
import { detach, groupOf, withoutCards } from './recipe';
import { leaveScene, makeSet } from './sets';
import { asPart, layingOut, middleOf, MOST_NAME } from './words';

/** The cards that show something of their own beside one, in its list and in those around it. */
const showingBeside = ({ items, recipe }: DrawingLayer, card: Id): ReadonlySet<Id> => {
  const beside = new Set<Id>();
  for (let at: Id | null = card; at !== null; at = groupOf(items, at)) {
    const group = groupOf(items, at);
    for (const id of group === null ? recipe : (items[group]?.children ?? [])) {
      const { role } = kindOf(items[id]?.kind ?? '');
      if (id !== at && (role === 'source' || role === 'group')) beside.add(id);
    }
  }
  return beside;
};

/**
 * Puts a layer in the place of each part of a text, first parts in front: each in place, about its own
 * middle, with the layer's timing and keyframes. Other sources of the layer stay in it.
 */
export const splitText = (
  { scene: sceneId, layer: layerId, item: itemId }: { scene: Id; layer: Id; item: Id },
  by: TextUnit,
  frame: number,
  program: Program,
  makeId: MakeId,
): Edit => ({
  label: `Split into ${by}`,
  change: (draft) => {
    const scene = sceneIn(draft, sceneId);
    const layer = plain<DrawingLayer>(drawingIn(draft, sceneId, layerId));
    const item = itemIn(layer as LayerDraft & { kind: 'drawing' }, itemId) as Item;
    if (item.kind !== textKind.kind) throw new NotFound('text', itemId);
    const shown = program.cardAt(layerId, itemId, frame);
    if (!shown) throw new NotFound('card', itemId);
    const values = shown.values as TextValues;
    const laid = textLayout(values, program.library.fonts);
    const parts = laid?.parts(by);
    if (!laid || !parts) throw new RangeError('the font of this text is not here yet');
    const others = showingBeside(layer, itemId);
    const bare = withoutCards(layer, others);
    const m = program.matrixAt(layerId, frame);
    const around = layer.parent === null ? IDENTITY : program.matrixAt(layer.parent, frame);
    const linear = multiply(inverted(around) ?? IDENTITY, m);
    const { pivot } = placementOf(layer.params).at(frame);
    // Formulas of what the parts have of their own would make them all the same again.
    const { text: _text, frame: _frame, align: _align, place: _place, ...formulas } = item.formulas ?? {};
    const free = naming(namesIn(plain<Scene>(scene)));
    const way: SplitWord['way'] = [linear[0], linear[1], linear[2], linear[3]];
    const own: Item = {
      ...item,
      ...(item.formulas && { formulas }),
      params: {
        ...item.params,
        ...(values.fit !== 'none' && { size: { value: laid.size }, fit: { value: 'none' } }),
        frame: { value: 'point' },
        align: { value: 'left' },
      },
    };
    const alone = aloneOnPaths(program, layer, bare, itemId, by, frame);
    const made = parts.map((part, i): DrawingLayer => {
      // What stays in the layer lies behind them all: then the path is drawn there.
      const draws = others.size === 0 && i === parts.length - 1;
      const { layer: bareOne, middle } = alone(i, draws) ?? { layer: bare, middle: middleOf(part.box) };
      const fromPivot: Point = [middle[0] - pivot[0], middle[1] - pivot[1]];
      const name = free(cutText(part.text, MOST_NAME));
      const [copy] = copiesOf([asPart(bareOne, own, part, fromPivot, way)], makeId) as [DrawingLayer];
      return { ...copy, name };
    });
    for (const one of made) scene.layers[one.id] = one as LayerDraft;
    const word: SplitWord = {
      by,
      text: layingOut(item, values),
      parts: made.map(({ id }) => id),
      way,
    };
    const set = { id: makeId(), name: asName(values.text, 'Word', MOST_NAME), members: word.parts, word };
    const index = scene.order.indexOf(layerId);
    const rest = scene.order.filter((id) => id !== layerId);
    const kept = others.size > 0 ? [layerId] : [];
    scene.order = [...rest.slice(0, index), ...made.map((l) => l.id), ...kept, ...rest.slice(index)];
    if (kept.length > 0) {
      const stays = drawingIn(draft, sceneId, layerId);
      detach(stays, itemId);
      delete stays.items[itemId];
      if (made.length > 1) makeSet(sceneId, set).change(draft);
      return;
    }
    // What hung from the whole text hangs from its first part.
    for (const other of Object.values(scene.layers)) if (other.parent === layerId) other.parent = made[0]?.id ?? null;
    leaveScene(scene, new Set([layerId]));
    if (made.length > 1) makeSet(sceneId, set).change(draft);
  },
});
