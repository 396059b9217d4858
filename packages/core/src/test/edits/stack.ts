/** Edits from chance: layers and their stack. */
import { BLEND_MODES, TAGS } from '../../document/types';
import { layAlong, layerOfCard, maskBy } from '../../edits/masks';
import { cutByShapes, cutIntoPanes } from '../../edits/panes';
import { makeSolid, SOLIDS } from '../../edits/solids';
import { joinLayers } from '../../edits/join';
import { takeApart } from '../../edits/takeApart';
import {
  cardsAlone,
  pasteCards,
  addLayers,
  copiesOf,
  layersOf,
  moveLayers,
  removeLayers,
  setLayers,
} from '../../edits/layers';
import { FIRST_REVEAL, revealByStrokes } from '../../edits/reveal';
import { matteBy } from '../../edits/mattes';
import { flipLayers, groupLayers, moveBy, movePivot, setParent, ungroupLayers } from '../../edits/place';
import { cutIntoShots } from '../../edits/shots';
import { extendLayers, reverseLayers, slideLayers, splitLayers, stretchLayers } from '../../edits/timing';
import { randomLayer, randomPoint } from '../randomProject';
import { amount, frame, HOW, itemAt, name, programOf, type RandomEdit } from './place';

export const STACK: readonly RandomEdit[] = [
  (at) => addLayers(at.scene.id, [randomLayer(at.chance, at.scene, at.makeId(), null, [])], at.layer.id),
  (at) => addLayers(at.scene.id, copiesOf(layersOf(at.scene, at.ids), at.makeId)),
  (at) => removeLayers(at.scene.id, at.chance.happens(0.3) ? at.ids : [at.layer.id]),
  (at) => moveLayers(at.scene.id, at.ids, at.chance.whole(0, 5)),
  (at) => setLayers(at.scene.id, at.ids, { name: name(at) }),
  (at) => setLayers(at.scene.id, at.ids, { from: frame(at) }),
  (at) => setLayers(at.scene.id, at.ids, { to: frame(at) }),
  (at) => setLayers(at.scene.id, at.ids, { hidden: at.chance.happens(0.5), tag: at.chance.one(TAGS) }),
  (at) => setLayers(at.scene.id, at.ids, { blend: at.chance.one(BLEND_MODES) }),
  (at) => setParent(at.scene.id, [at.layer.id], at.chance.one([null, ...at.ids]), frame(at)),
  (at) => movePivot(at.scene.id, at.layer.id, randomPoint(at.chance, HOW), frame(at)),
  (at) => moveBy(at.scene.id, new Map(at.ids.map((id) => [id, randomPoint(at.chance, HOW)])), 'Move', frame(at)),
  (at) => flipLayers(at.scene.id, at.ids, at.chance.one([0, 1]), amount(at), frame(at)),
  (at) => groupLayers(at.scene, at.ids, at.makeId(), name(at), randomPoint(at.chance, HOW), frame(at)),
  (at) => ungroupLayers(at.scene.id, at.ids, frame(at)),
  (at) => slideLayers(at.scene.id, at.ids, frame(at)),
  (at) => stretchLayers(at.scene.id, at.ids, at.chance.one([0.1, 2, 1e5, -1])),
  (at) => extendLayers(at.scene.id, at.ids),
  (at) => reverseLayers(at.scene.id, at.ids),
  (at) => splitLayers(at.scene.id, at.ids, frame(at), at.makeId),
  (at) => takeApart(at.scene.id, at.layer.id, at.makeId),
  (at) => joinLayers(at.scene.id, at.ids, randomPoint(at.chance, HOW), frame(at), at.makeId),
  (at) => {
    const from = at.layer.kind === 'drawing' ? at.layer : null;
    const card = from && at.chance.one(Object.keys(from.items));
    return card
      ? pasteCards(at.scene.id, at.layer.id, cardsAlone(from, [card]), null, at.chance.whole(0, 3), at.makeId)
      : null;
  },
  // Middle lines take their time: now and then is enough.
  (at) =>
    at.chance.happens(0.1)
      ? revealByStrokes(programOf(at), [at.layer.id], FIRST_REVEAL, frame(at), frame(at), at.makeId)
      : null,
  (at) => cutIntoShots(at.scene.id, at.layer.id, [frame(at), frame(at)], at.makeId),
  (at) => matteBy(at.scene.id, at.chance.one(at.scene.order), [at.layer.id], at.makeId),
  (at) => at.chance.one([maskBy, layAlong])(at.scene.id, at.layer.id, [at.chance.one(at.ids)], frame(at), at.makeId),
  (at) => {
    const panes = { rows: at.chance.whole(1, 3), columns: at.chance.whole(1, 3), gap: at.chance.whole(0, 9) };
    const by = at.chance.one(at.scene.order);
    if (at.chance.happens(0.3)) return cutByShapes(programOf(at), at.layer.id, by, frame(at), at.makeId);
    return cutIntoPanes(programOf(at), at.layer.id, panes, frame(at), at.makeId);
  },
  (at) => {
    const [form, color] = [at.chance.one(SOLIDS), at.chance.one(['#4F86B8', '#E4572E80'])];
    const solid = { form, color, depth: amount(at), count: at.chance.whole(0, 9), angle: amount(at), gap: amount(at) };
    return makeSolid(programOf(at), at.layer.id, solid, frame(at), at.makeId(), at.makeId);
  },
  (at) => {
    const item = itemAt(at);
    if (item === null) return null;
    return layerOfCard(at.scene.id, at.layer.id, item, at.makeId);
  },
];
