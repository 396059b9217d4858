/** Edits from chance, of every kind that there is; some ask for what cannot be, and are refused or brought within limits. */
import { countingIds, newItem } from '../document/make';
import { newKnob } from '../document/knobs';
import { LIMITS } from '../document/limits';
import { type Edit, together } from '../document/patches';
import {
  BEYOND,
  BLEND_MODES,
  type Id,
  KNOB_KINDS,
  type Layer,
  type Project,
  type PropertyRef,
  type Scene,
  TAGS,
  isKeyed,
} from '../document/types';
import { layerOfMask, maskBy } from '../edits/masks';
import { cutByShapes, cutIntoPanes } from '../edits/panes';
import { joinLayers } from '../edits/join';
import { takeApart } from '../edits/takeApart';
import { addAsset, removeAsset, renameAsset, swapAsset } from '../edits/assets';
import { addSwatch, detachSwatches, removeSwatch, setSwatch, takeSwatch } from '../edits/swatches';
import { forgetEase, keepEase } from '../edits/eases';
import { forgetEffects, keepEffects, putEffects } from '../edits/effects';
import { curvesOf, keyedCurvesOf, paramAt, propertiesOf, propertyIn } from '../properties/find';
import { bakeFormula, removeFormula, setFormula, turnFormula } from '../edits/formulas';
import {
  addKeys,
  changeKey,
  copiedKeys,
  copyKeys,
  flash,
  type KeyChoice,
  moveKeys,
  pasteKeys,
  removeKeys,
  repeatFirstKeys,
  reverseKeys,
  setEase,
  setEven,
  setHandles,
  setSmooth,
  spin,
  stretchKeys,
} from '../edits/keyframes';
import { addKnob, moveKnob, removeKnob, setKnob } from '../edits/knobs';
import {
  cardsAlone,
  pasteCards,
  addLayers,
  copiesOf,
  layersOf,
  moveLayers,
  removeLayers,
  setLayers,
} from '../edits/layers';
import { addMarker, removeMarker, setMarker } from '../edits/markers';
import { READY_MOVES } from '../moves/ready';
import { applyMove, applyMoveToParts, changeMove, forgetMove, keepMove, removeMove } from '../edits/moves';
import { FIRST_REVEAL, revealByStrokes } from '../edits/reveal';
import { matteBy } from '../edits/mattes';
import { addNest, nestLayers } from '../edits/nests';
import { reshapePath, turnIntoPath } from '../edits/paths';
import { groupLayers, moveBy, movePivot, setParent, ungroupLayers } from '../edits/place';
import { removeAnimation, setApart, setBeyond, setValue } from '../edits/properties';
import { addItem, moveItem, removeItem, setItem } from '../edits/recipe';
import { reconcile } from '../edits/reconcile';
import { addRoutine, joinRoutines, removeRoutine, setRoutine } from '../edits/routines';
import { addScene, duplicateScene, moveScene, removeScene, renameProject, setGuides, setScene } from '../edits/scenes';
import { cutIntoShots } from '../edits/shots';
import { ownCopy, setKnobHere } from '../edits/settings';
import { joinSets, makeSet, removeSet, renameSet, setMembers } from '../edits/sets';
import { splitText } from '../edits/text';
import { extendLayers, reverseLayers, slideLayers, splitLayers, stretchLayers } from '../edits/timing';
import { type Move, ROUTINE_ORDERS, STEP_KINDS, type RoutineStep } from '../document/moves';
import { compileScene } from '../scene/compile';
import { wholeScene } from '../scene/whole';
import { squareFonts } from './fonts';
import type { Chance } from './random';
import {
  randomEase,
  randomFrame,
  randomItem,
  randomLayer,
  randomPoint,
  randomText,
  randomValue,
} from './randomProject';

/** Where an edit is made. */
interface Place {
  readonly chance: Chance;
  readonly doc: Project;
  readonly scene: Scene;
  readonly layer: Layer;
  /** Some of the layers, the layer among them. */
  readonly ids: readonly Id[];
  readonly makeId: () => Id;
}

const programOf = ({ doc, scene }: Place) =>
  compileScene(wholeScene(scene, doc), { assets: doc.assets, fonts: squareFonts });

const HOW = 'beyond';
const frame = ({ chance }: Place) => randomFrame(chance, HOW);
const name = ({ chance }: Place) => randomText(chance, LIMITS.name, HOW);
const amount = ({ chance }: Place) => randomPoint(chance, HOW)[0];

/** A property of the layer, and what it may be. */
const propertyAt = (at: Place, kinds?: readonly string[]): PropertyRef | null => {
  const refs = curvesOf(at.scene.id, at.layer).filter((ref) => {
    const kind = paramAt(at.doc, ref)?.kind;
    return kind !== undefined && (!kinds || kinds.includes(kind));
  });
  return refs.length > 0 ? at.chance.one(refs) : null;
};

const keysAt = (at: Place): KeyChoice[] =>
  at.chance.some(keyedCurvesOf(at.scene.id, at.layer)).flatMap((ref) => {
    const property = propertyIn(at.layer, ref);
    const frames = isKeyed(property) ? at.chance.some(property.keys.map((k) => k.frame)) : [];
    return frames.length > 0 ? [{ ref, frames }] : [];
  });

const itemAt = ({ chance, layer }: Place): Id | null =>
  layer.kind === 'drawing' ? chance.one(Object.keys(layer.items)) : null;
const knobAt = ({ chance, layer }: Place): Id | null =>
  layer.kind === 'controller' && layer.panel.length > 0 ? chance.one(layer.panel) : null;

const randomMove = (at: Place): Move => {
  const { chance } = at;
  const base = { name: name(at), frames: chance.one([1, 12, 40, 1e6]), ease: randomEase(chance, HOW) };
  const away = {
    angle: amount(at),
    distance: amount(at),
    outside: chance.happens(0.3),
    fade: chance.one([0, 0.5, 1, 3]),
  };
  switch (chance.whole(0, 2)) {
    case 0:
      return {
        ...base,
        kind: 'emphasis',
        form: chance.one(['pulse', 'shake', 'wobble', 'pop']),
        strength: 0.5,
        times: 3,
      };
    case 1:
      return { ...base, ...away, kind: 'passage', drift: amount(at) };
    default:
      return { ...base, ...away, kind: chance.one(['entrance', 'exit']), scale: amount(at), turn: amount(at) };
  }
};

const randomStep = (at: Place): RoutineStep => {
  const { chance } = at;
  const kind = chance.one(STEP_KINDS);
  const value =
    kind === 'move' ? randomPoint(chance, HOW) : kind === 'colour' ? '#FF5D5D' : chance.one([0, 0.5, 1.5, -3, 4_000]);
  return { kind, value, frames: chance.whole(1, 30), gap: chance.whole(-10, 10), ease: randomEase(chance, HOW) };
};

const FORMULAS = ['frame * 2', '[1, 2] * frame', '{this / Position}', 'lag({this / Turn}, 0.2)', '2 +', '"🚋"', 'x\0'];

/** Each kind of edit; null where the place has nothing for it. */
const EDITS: readonly ((at: Place) => Edit | null)[] = [
  // Properties and their keyframes.
  ...Array<(at: Place) => Edit | null>(8).fill((at) => {
    const ref = propertyAt(at);
    const param = ref && paramAt(at.doc, ref);
    const write = at.chance.one(['key', 'curve'] as const);
    return ref && param && setValue(ref, randomValue(at.chance, param, HOW), { write, frame: frame(at) });
  }),
  (at) => addKeys(at.chance.some(curvesOf(at.scene.id, at.layer)), frame(at)),
  (at) => {
    const ref = propertyAt(at);
    return ref && removeAnimation(ref, frame(at));
  },
  (at) => {
    const ref = propertyAt(at);
    return ref && setBeyond(ref, at.chance.one(['before', 'after']), at.chance.one(BEYOND));
  },
  (at) => {
    const ref = propertiesOf(at.scene.id, at.layer).find((r) => paramAt(at.doc, r)?.kind === 'point');
    return ref ? setApart(ref, at.chance.happens(0.5)) : null;
  },
  (at) => removeKeys(keysAt(at)),
  (at) => moveKeys(keysAt(at), frame(at)),
  (at) => copyKeys(keysAt(at), frame(at)),
  (at) => stretchKeys(keysAt(at), frame(at), frame(at), frame(at)),
  (at) => reverseKeys(keysAt(at)),
  (at) => setEase(keysAt(at), randomEase(at.chance, HOW)),
  (at) => {
    const [choice] = keysAt(at);
    const param = choice && paramAt(at.doc, choice.ref);
    return choice && param
      ? changeKey(choice.ref, choice.frames[0] as number, {
          frame: frame(at),
          value: randomValue(at.chance, param, HOW),
        })
      : null;
  },
  (at) => repeatFirstKeys(keysAt(at).map((c) => c.ref)),
  (at) => {
    const copied = copiedKeys(at.doc, keysAt(at));
    return pasteKeys(at.scene, copied, at.ids, frame(at)).edit;
  },
  (at) => {
    const [choice] = keysAt(at).filter((c) => paramAt(at.doc, c.ref)?.kind === 'point');
    return choice ? setHandles(choice.ref, choice.frames[0] as number, [amount(at), 1, 2, amount(at)]) : null;
  },
  (at) =>
    setSmooth(
      keysAt(at).filter((c) => paramAt(at.doc, c.ref)?.kind === 'point'),
      at.chance.happens(0.5),
    ),
  (at) => {
    const [choice] = keysAt(at).filter((c) => paramAt(at.doc, c.ref)?.kind === 'point');
    return choice ? setEven(choice.ref, at.chance.happens(0.5)) : null;
  },
  (at) => {
    const [choice] = keysAt(at).filter((c) => c.ref.key === 'rotation');
    return choice ? spin(choice.ref, choice.frames[0] as number, at.chance.one([1, -2, 1e6])) : null;
  },
  (at) => {
    const ref = propertyAt(at, ['number']);
    return ref && flash(ref, [0, 1, amount(at)], at.chance.whole(1, 5), at.chance.whole(-5, 20), 40);
  },
  // Layers and their stack.
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
  (at) => maskBy(at.scene.id, at.layer.id, [at.chance.one(at.ids)], frame(at), at.makeId),
  (at) => {
    const panes = { rows: at.chance.whole(1, 3), columns: at.chance.whole(1, 3), gap: at.chance.whole(0, 9) };
    const by = at.chance.one(at.scene.order);
    if (at.chance.happens(0.3)) return cutByShapes(programOf(at), at.layer.id, by, frame(at), at.makeId);
    return cutIntoPanes(programOf(at), at.layer.id, panes, frame(at), at.makeId);
  },
  (at) => {
    const item = itemAt(at);
    if (item === null) return null;
    return layerOfMask(at.scene.id, at.layer.id, item, at.makeId);
  },
  // Cards.
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
  // Knobs, formulas, sets.
  (at) =>
    at.layer.kind === 'controller'
      ? addKnob(at.scene.id, at.layer.id, newKnob(at.makeId(), at.chance.one(KNOB_KINDS), name(at)))
      : null,
  (at) => {
    const knob = knobAt(at);
    return knob === null ? null : removeKnob(at.scene.id, at.layer.id, knob);
  },
  (at) => {
    const knob = knobAt(at);
    const fields = at.chance.one([{ name: name(at) }, { min: amount(at) }, { max: amount(at) }, { min: 5, max: 2 }]);
    return knob === null ? null : setKnob(at.scene.id, at.layer.id, knob, fields);
  },
  (at) => {
    const knob = knobAt(at);
    return knob === null ? null : moveKnob(at.scene.id, at.layer.id, knob, at.chance.whole(0, 2));
  },
  (at) => {
    const ref = propertyAt(at);
    return ref && setFormula(ref, at.chance.happens(0.1) ? 'x'.repeat(9_000) : at.chance.one(FORMULAS));
  },
  (at) => {
    const ref = propertyAt(at);
    return ref && removeFormula(ref);
  },
  (at) => {
    const ref = propertyAt(at);
    return ref && turnFormula(ref, at.chance.happens(0.5));
  },
  (at) => {
    const ref = propertyAt(at, ['number']);
    return ref && bakeFormula(ref, [{ frame: 0, value: amount(at), ease: { kind: 'linear' } }]);
  },
  (at) => makeSet(at.scene.id, { id: at.makeId(), name: name(at), members: at.ids }),
  (at) => {
    const set = at.scene.sets[0];
    return set
      ? at.chance.one([
          renameSet(at.scene.id, set.id, name(at)),
          setMembers(at.scene.id, set.id, at.ids),
          removeSet(at.scene.id, set.id),
        ])
      : null;
  },
  (at) => {
    const copies = copiesOf(layersOf(at.scene, at.ids), at.makeId);
    const renewed = new Map(layersOf(at.scene, at.ids).map((l, i) => [l.id, (copies[i] as Layer).id]));
    return together('Duplicate', [
      addLayers(at.scene.id, copies),
      joinSets(at.scene.id, renewed, at.makeId),
      joinRoutines(at.scene.id, renewed),
    ]);
  },
  // Moves and routines.
  (at) => applyMove(at.scene.id, at.ids, at.makeId(), randomMove(at), frame(at), () => 400),
  (at) => {
    const move = at.layer.moves[0];
    return move
      ? at.chance.one([
          changeMove(at.scene.id, [at.layer.id], move.id, { later: frame(at) }, () => 1e7),
          changeMove(at.scene.id, [at.layer.id], move.id, { move: { ...move.move, frames: 1e6 } }, () => 10),
          removeMove(at.scene.id, [at.layer.id], move.id),
        ])
      : null;
  },
  (at) => keepMove({ id: at.makeId(), move: randomMove(at) }),
  (at) => (at.doc.moves[0] ? forgetMove(at.doc.moves[0].id) : null),
  (at) =>
    addRoutine(at.scene.id, {
      id: at.makeId(),
      name: name(at),
      steps: at.chance.times(1, 4, () => randomStep(at)),
      start: frame(at),
      stagger: at.chance.whole(-3, 5),
      order: at.chance.one(ROUTINE_ORDERS),
      seed: at.chance.whole(0, 9),
      speed: at.chance.one([0.5, 1, 1.7]),
      forever: at.chance.happens(0.3),
      rounds: at.chance.one([1, 2, 6, 5_000]) > 100 ? 3 : 2,
      pingpong: at.chance.happens(0.5),
      players: at.ids,
    }),
  (at) => {
    const routine = at.scene.routines[0];
    return routine
      ? at.chance.one([
          setRoutine(at.scene.id, routine.id, { steps: at.chance.times(1, 3, () => randomStep(at)) }),
          setRoutine(at.scene.id, routine.id, { name: name(at), start: frame(at) }),
          setRoutine(at.scene.id, routine.id, {
            speed: at.chance.one([0, 0.3, 1, 4]),
            forever: at.chance.happens(0.5),
          }),
          removeRoutine(at.scene.id, routine.id),
        ])
      : null;
  },
  // Scenes, nests and the project.
  (at) => renameProject(name(at)),
  (at) => {
    const { height, rate, length, background } = at.scene;
    return addScene(at.makeId(), name(at), { width: amount(at), height, rate, length, background });
  },
  (at) => duplicateScene(at.scene.id, at.makeId()),
  (at) => (at.doc.order.length > 1 ? removeScene(at.scene.id) : null),
  (at) => moveScene(at.scene.id, at.chance.whole(0, 3)),
  (at) => setGuides(at.scene.id, { x: [amount(at)], y: [1, amount(at)] }),
  (at) =>
    setScene(
      at.scene.id,
      at.chance.one([{ name: name(at) }, { length: frame(at) }, { width: amount(at) }, { poster: frame(at) }]),
    ),
  (at) => addMarker(at.scene.id, { id: at.makeId(), frame: frame(at), name: name(at) }),
  (at) => {
    const marker = at.scene.markers[0];
    return marker
      ? at.chance.one([
          setMarker(at.scene.id, marker.id, { frame: frame(at) }),
          setMarker(at.scene.id, marker.id, { name: name(at) }),
          removeMarker(at.scene.id, marker.id),
        ])
      : null;
  },
  (at) => {
    const nest = at.layer.kind === 'drawing' && Object.values(at.layer.items).find((item) => item.kind === 'nest');
    if (!nest) return null;
    const card = { scene: at.scene.id, layer: at.layer.id, item: nest.id };
    const knob = newKnob(at.chance.one(['k0', 'k1']), at.chance.one(KNOB_KINDS), name(at));
    const inner = nest.params.scene && 'value' in nest.params.scene ? (nest.params.scene.value as string) : '';
    if (at.chance.happens(0.3) && at.doc.scenes[inner]) return ownCopy(card, inner, at.makeId);
    return setKnobHere(
      card,
      knob,
      knob.params.value && 'value' in knob.params.value ? knob.params.value.value : 0,
      at.makeId(),
    );
  },
  (at) => addNest(at.scene.id, at.chance.one(at.doc.order), at.makeId(), frame(at)),
  (at) => {
    const id = at.makeId();
    const [kind, key, ids] = at.chance.one([
      ['nest', 'scene', at.doc.order],
      ['picture', 'asset', Object.keys(at.doc.assets)],
    ] as const);
    return addItem(at.scene.id, at.layer.id, newItem(id, kind, { [key]: at.chance.one(['', 'gone', ...ids]) }));
  },
  (at) => nestLayers(at.scene.id, at.ids, name(at), frame(at), at.makeId),
  (at) =>
    applyMoveToParts(
      at.scene.id,
      at.ids,
      at.chance.one(['letters', 'words', 'lines'] as const),
      at.chance.one(READY_MOVES),
      frame(at),
      () => 99,
      at.makeId,
    ),
  // Assets and what a project keeps.
  (at) => {
    const [asset] = Object.values(at.doc.assets);
    const fresh = {
      id: at.makeId(),
      name: name(at),
      sha: 'cd'.repeat(32),
      bytes: 4,
      kind: 'picture',
      type: 'image/png',
      width: 3,
      height: 4,
    } as const;
    if (!asset) return addAsset(fresh);
    return at.chance.one([swapAsset(asset.id, fresh), renameAsset(asset.id, name(at)), removeAsset(asset.id)]);
  },
  (at) => addSwatch({ id: at.makeId(), name: name(at), color: at.chance.one(['#FFB23E', 'amber']) }),
  (at) => (at.doc.swatches[0] ? removeSwatch(at.doc.swatches[0].id) : null),
  (at) => (at.doc.swatches[0] ? setSwatch(at.doc.swatches[0].id, { color: at.chance.one(['#2EC4B6', 'red']) }) : null),
  (at) => {
    const { id: layer } = at.layer;
    const fill = at.layer.kind === 'drawing' ? Object.values(at.layer.items).find((i) => i.kind === 'fill') : undefined;
    const swatch = at.doc.swatches[0];
    if (!fill || !swatch) return null;
    const ref = { scene: at.scene.id, layer, item: fill.id, key: 'color' };
    const how = { write: at.chance.one(['key', 'curve'] as const), frame: frame(at) };
    return at.chance.happens(0.8) ? takeSwatch(ref, swatch, how) : detachSwatches([ref]);
  },
  (at) => keepEase({ id: at.makeId(), name: name(at), ease: randomEase(at.chance, HOW) }),
  (at) => (at.doc.eases[0] ? forgetEase(at.doc.eases[0].id) : null),
  (at) =>
    at.layer.kind === 'drawing' ? keepEffects(at.makeId(), name(at), at.layer, Object.keys(at.layer.items)) : null,
  (at) => (at.doc.effects[0] ? forgetEffects(at.doc.effects[0].id) : null),
  (at) =>
    at.layer.kind === 'drawing' && at.doc.effects[0]
      ? putEffects(at.scene.id, at.layer, at.doc.effects[0], null, at.chance.whole(0, 3), at.makeId)
      : null,
  (at) => addItem(at.scene.id, at.layer.id, newItem(at.makeId(), 'repeater', { copies: amount(at) })),
  (at) => addLayers(at.scene.id, [{ ...at.layer, id: at.makeId(), name: name(at) }]),
  () => reconcile(),
];

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
