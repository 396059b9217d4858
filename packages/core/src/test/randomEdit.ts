/** Edits from chance, of every kind that there is; some ask for what cannot be, and are refused or brought within limits. */
import { countingIds } from '../document/make';
import type { Edit } from '../document/patches';
import type { Layer, Project, Scene } from '../document/types';
import { addLayers } from '../edits/layers';
import type { Chance } from './random';
import { randomLayer } from './randomProject';
import { CARDS } from './edits/cards';
import { KEYS } from './edits/keys';
import { MOTION } from './edits/motion';
import type { RandomEdit } from './edits/place';
import { PROJECT } from './edits/project';
import { STACK } from './edits/stack';

/** Each kind of edit. */
const EDITS: readonly RandomEdit[] = [...KEYS, ...STACK, ...CARDS, ...MOTION, ...PROJECT];

/** How many kinds of edit there are here. */
export const KINDS_OF_EDIT = EDITS.length;

/** An edit of some kind somewhere in a project; ids that it makes begin with `prefix`. */
export const randomEdit = (chance: Chance, doc: Project, prefix: string): Edit => {
  const makeId = countingIds(prefix);
  for (;;) {
    const scene = doc.scenes[chance.one(doc.order)] as Scene;
    if (scene.order.length === 0) return addLayers(scene.id, [randomLayer(chance, scene, makeId(), null, [])]);
    const layer = scene.layers[chance.one(scene.order)] as Layer;
    const ids = [...new Set([layer.id, ...chance.some(scene.order)])];
    const edit = chance.one(EDITS)({ chance, doc, scene, layer, ids, makeId });
    if (edit) return edit;
  }
};
