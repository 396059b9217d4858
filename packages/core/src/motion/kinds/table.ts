import type { Param } from '../../document/params';
import type { Value, ValueKind } from '../../document/types';
import { choice } from './choice';
import { color } from './color';
import { cutout } from './cutout';
import { font } from './font';
import { growth } from './growth';
import { gradient } from './gradient';
import { asset, layer, scene } from './links';
import { mesh } from './mesh';
import { number } from './number';
import { numbers } from './numbers';
import { path } from './path';
import { point } from './point';
import { onOff } from './switch';
import { strokes } from './strokes';
import { text } from './text';
import type { Kind } from './types';

export const KINDS: { readonly [K in ValueKind]: Kind<K> } = {
  number,
  point,
  color,
  gradient,
  path,
  numbers,
  switch: onOff,
  choice,
  text,
  font,
  asset,
  scene,
  layer,
  cutout,
  mesh,
  growth,
  strokes,
};

type AnyKind = Kind<ValueKind, Param, Value>;
/** A kind, for values and parameters that are known to be its own. */
export const kindOfValue = (kind: ValueKind): AnyKind => KINDS[kind] as unknown as AnyKind;

const asIs = (value: Value): Value => value;

/** Brings what comes for a property within its parameter's limits; null for what it cannot take. Made once for each. */
export const acceptor = (param: Param): ((value: Value) => Value | null) =>
  kindOfValue(param.kind).accept?.(param) ?? asIs;

/** A value within its parameter's limits: the same where it is, the nearest where there is one, else the default. */
export const fittedValue = (param: Param, value: Value): Value => kindOfValue(param.kind).fitted(param, value);

/** `value` moved by the way from `from` to `to`; kinds that cannot be added up take `to` as it is. */
export const movedBy = (kind: ValueKind, value: Value, from: Value, to: Value): Value =>
  kindOfValue(kind).moved?.(value, from, to) ?? to;
