/** Edits from chance: knobs, formulas, sets, moves and routines. */
import { newKnob } from '../../document/knobs';
import { together } from '../../document/patches';
import { KNOB_KINDS, type Layer } from '../../document/types';
import { bakeFormula, formulasAt, removeFormula, resetFormulas, setFormula, turnFormula } from '../../edits/formulas';
import { addKnob, moveKnob, removeKnob, setKnob } from '../../edits/knobs';
import { addLayers, copiesOf, layersOf } from '../../edits/layers';
import { applyMove, changeMove, forgetMove, keepMove, removeMove } from '../../edits/moves';
import {
  addHeld,
  changePoses,
  dropStrip,
  followPoses,
  joinPoses,
  keepPose,
  moveHeld,
  movePose,
  removeHeld,
  removePose,
  renamePose,
  setHeld,
  setStrip,
  showPose,
} from '../../edits/poses';
import { addRoutine, joinRoutines, removeRoutine, setRoutine } from '../../edits/routines';
import { joinPoint, turnJoint, unjoinPoints } from '../../edits/joints';
import { curvesOf } from '../../properties/find';
import { setWord } from '../../edits/words';
import { joinSets, makeSet, removeSet, renameSet, setMembers } from '../../edits/sets';
import { ROUTINE_ORDERS } from '../../document/moves';
import {
  FORMULAS,
  amount,
  frame,
  knobAt,
  name,
  programOf,
  propertyAt,
  randomMove,
  randomStep,
  type RandomEdit,
} from './place';

export const MOTION: readonly RandomEdit[] = [
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
    return ref && resetFormulas(ref, formulasAt(at.layer, ref));
  },
  (at) => {
    const ref = propertyAt(at);
    return ref && turnFormula(ref, at.chance.happens(0.5));
  },
  (at) => {
    const ref = propertyAt(at, ['number']);
    return ref && bakeFormula(ref, [{ frame: 0, value: amount(at), ease: { kind: 'linear' } }]);
  },
  (at) => {
    const ref = propertyAt(at, ['point']);
    const to = propertyAt({ ...at, layer: at.scene.layers[at.chance.one(at.ids)] ?? at.layer }, ['point']);
    return ref && to && joinPoint(ref, to, at.chance.one(['both', 'x', 'y'] as const));
  },
  (at) => {
    const ref = propertyAt(at, ['point']);
    return ref && turnJoint(ref, at.chance.one(['both', 'x', 'y'] as const));
  },
  (at) => {
    const refs = curvesOf(at.scene.id, at.layer).filter((ref) => ref.part === undefined);
    return unjoinPoints(programOf(at), refs);
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
    const word = at.scene.sets.find((set) => set.word);
    const text = at.chance.one(['', 'Ab', 'Last tram', 'Q'.repeat(30), '\ud800 x']);
    return word ? setWord(at.scene.id, word.id, text, frame(at), programOf(at), at.makeId) : null;
  },
  (at) => {
    const copies = copiesOf(layersOf(at.scene, at.ids), at.makeId);
    const renewed = new Map(layersOf(at.scene, at.ids).map((l, i) => [l.id, (copies[i] as Layer).id]));
    return together('Duplicate', [
      addLayers(at.scene.id, copies),
      joinSets(at.scene.id, renewed, at.makeId),
      joinRoutines(at.scene.id, renewed),
      joinPoses(at.scene.id, renewed),
    ]);
  },
  (at) => applyMove(at.scene.id, at.ids, at.makeId(), randomMove(at), frame(at), () => 400, at.makeId),
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
  // Few: each holds all that a scene shows, and is looked at after every edit.
  (at) => ((at.scene.poses?.kept.length ?? 0) < 3 ? keepPose(at.scene.id, at.makeId(), name(at), frame(at)) : null),
  (at) => {
    const { kept = [], strip } = at.scene.poses ?? {};
    const [pose, other] = [at.chance.one([...kept, undefined]), at.chance.one([...kept, undefined])];
    if (!pose || !other || !strip) return null;
    const held = {
      hold: at.chance.one([1, 3, 12, 1e7]),
      between: at.chance.one([0, 1, 4]),
      each: at.chance.one([1, 2]),
    };
    return at.chance.one([
      addHeld(at.scene.id, [{ ...held, id: at.makeId(), pose: pose.id }], at.chance.whole(0, 2)),
      addHeld(
        at.scene.id,
        [pose, other].map(({ id }) => ({ id: at.makeId(), pose: id, hold: 4, between: 2, each: 1 })),
        0,
      ),
      changePoses(at.scene.id, pose.id, [pose.id], frame(at)),
      changePoses(
        at.scene.id,
        pose.id,
        kept.map(({ id }) => id),
        frame(at),
      ),
      renamePose(at.scene.id, pose.id, name(at)),
      movePose(at.scene.id, pose.id, at.chance.whole(0, 3)),
      removePose(at.scene.id, pose.id),
      showPose(at.scene.id, pose.id, { write: at.chance.one(['key', 'curve'] as const), frame: frame(at) }),
    ]);
  },
  (at) => {
    const { held = [] } = at.scene.poses?.strip ?? {};
    const one = at.chance.one([...held, undefined]);
    if (!one) return null;
    return at.chance.one([
      setHeld(at.scene.id, [one.id], { hold: at.chance.one([0, 5, NaN]), between: at.chance.whole(-1, 3) }),
      setHeld(
        at.scene.id,
        held.map(({ id }) => id),
        { each: at.chance.whole(0, 3) },
      ),
      moveHeld(at.scene.id, one.id, at.chance.whole(0, 3)),
      removeHeld(at.scene.id, [one.id]),
      setStrip(at.scene.id, { loops: at.chance.happens(0.5), fits: at.chance.happens(0.5), from: frame(at) }),
      setStrip(at.scene.id, { ease: { kind: 'bezier', x1: 3, y1: 0, x2: -1, y2: 1 } }),
      followPoses(at.scene.id),
      dropStrip(at.scene.id),
    ]);
  },
];
