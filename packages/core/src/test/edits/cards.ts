/** Edits from chance: cards of drawings. */
import { strokes } from '../../document/params';
import type { BrushStroke } from '../../document/types';
import { addCel, celsCardOf, celsIn, clearCels, holdCels, repeatCels, reverseCels } from '../../edits/cels';
import { reshapePath, turnIntoPath } from '../../edits/paths';
import { addItem, moveItem, removeItem, setItem } from '../../edits/recipe';
import { splitText } from '../../edits/text';
import { addStroke } from '../../edits/strokes';
import { randomItem, randomValue } from '../randomProject';
import { amount, frame, itemAt, name, programOf, propertyAt, type RandomEdit } from './place';

const BRUSH_STROKES = strokes('Strokes');

/** A card with cels of the layer, with those in it. */
const celsAt = (at: Parameters<RandomEdit>[0]) => {
  if (at.layer.kind !== 'drawing') return null;
  const item = celsCardOf(at.layer);
  return item && { ref: { scene: at.scene.id, layer: at.layer.id, item }, list: celsIn(at.layer, item) };
};

export const CARDS: readonly RandomEdit[] = [
  (at) => {
    const item = randomItem(at.chance, at.makeId());
    return at.layer.kind === 'drawing' ? addItem(at.scene.id, at.layer.id, item, null, at.chance.whole(0, 4)) : null;
  },
  (at) => {
    const item = itemAt(at);
    return item === null ? null : removeItem({ scene: at.scene.id, layer: at.layer.id, item });
  },
  (at) => {
    const item = itemAt(at);
    const groups = at.layer.kind === 'drawing' ? Object.values(at.layer.items).filter((i) => i.children) : [];
    const to = at.chance.one([null, ...groups.map((g) => g.id)]);
    return item === null ? null : moveItem({ scene: at.scene.id, layer: at.layer.id, item }, to, at.chance.whole(0, 3));
  },
  (at) => {
    const item = itemAt(at);
    const card = item === null ? null : { scene: at.scene.id, layer: at.layer.id, item };
    return card && setItem(card, at.chance.happens(0.5) ? { on: false } : { name: name(at) });
  },
  (at) => {
    const item = itemAt(at);
    return item === null
      ? null
      : turnIntoPath({ scene: at.scene.id, layer: at.layer.id, item }, frame(at), programOf(at), at.makeId);
  },
  (at) => {
    const item = itemAt(at);
    const by = at.chance.one(['words', 'lines', 'letters'] as const);
    return item === null
      ? null
      : splitText({ scene: at.scene.id, layer: at.layer.id, item }, by, frame(at), programOf(at), at.makeId);
  },
  (at) => {
    const ref = propertyAt(at, ['path']);
    const vertex = [amount(at), 0, 0, 0, 0, amount(at)] as const;
    return ref && reshapePath(ref, 'Reshape', frame(at), (p) => ({ ...p, vertices: [...p.vertices, vertex] }));
  },
  (at) => {
    const cels = celsAt(at);
    if (!cels) return null;
    const { ref, list } = cels;
    const [after = null] = at.chance.some([...list]);
    switch (at.chance.whole(0, 4)) {
      case 0:
        return addCel(ref, after, at.makeId, { begins: 'copy', taken: at.chance.whole(1, 4) });
      case 1:
        return list.length > 0 ? repeatCels(ref, list, at.chance.happens(0.5), at.makeId) : null;
      case 2:
        return reverseCels(ref);
      case 3:
        return holdCels(ref, list, amount(at));
      default:
        return clearCels(ref, list);
    }
  },
  (at) => {
    const item = itemAt(at);
    const [stroke] = randomValue(at.chance, BRUSH_STROKES, 'within') as readonly BrushStroke[];
    return item === null || !stroke
      ? null
      : addStroke({ scene: at.scene.id, layer: at.layer.id, item }, stroke, at.makeId);
  },
];
