/** Edits from chance: properties and their keyframes. */
import { BEYOND } from '../../document/types';
import { curvesOf, paramAt, propertiesOf } from '../../properties/find';
import {
  addKeys,
  changeKey,
  copiedKeys,
  copyKeys,
  flash,
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
} from '../../edits/keyframes';
import { removeAnimation, setApart, setBeyond, setValue } from '../../edits/properties';
import { randomEase, randomValue } from '../randomProject';
import { HOW, amount, frame, keysAt, propertyAt, type RandomEdit } from './place';

export const KEYS: readonly RandomEdit[] = [
  ...Array<RandomEdit>(8).fill((at) => {
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
];
