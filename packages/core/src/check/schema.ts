/**
 * The schema of the document. Strict: nothing is converted, nothing unknown passes. Every message names
 * the field, what it got and the limit.
 */
import { isId, isNumber, isObject, isText } from '../document/is';
import * as yup from 'yup';
import { paramsOfKnob } from '../document/knobs';
import { LIMITS, WIDEST_EYE } from '../document/limits';
import { FAR, MOST_LETTERS, PLACE } from '../document/params';
import { BLEND_MODES, type Knob, KNOB_KINDS, type KnobKind, TAGS } from '../document/types';
import { isEffect } from '../recipe/shown';
import { KINDS } from '../recipe/table';
import { holdsCards, holdsSettings } from '../recipe/types';
import {
  between,
  colorRule,
  flag,
  idRule,
  ids,
  list,
  mapOf,
  nameRule,
  object,
  oneOf,
  type Rule,
  rule,
  whole,
} from './rules';
import { formulasRule } from './formulas';
import { assetRule, SCENE_SIZE } from './given';
import { maybePosesRule } from './poses';
import { movesRule, routinesRule, savedMovesRule } from './moves';
import { settingsRuleFor } from './settings';
import { easeRule, propertiesRule } from './values';

const itemRule = (value: unknown): Rule => {
  const has = (field: string) => isObject(value) && field in value;
  const kind = isObject(value) ? value.kind : undefined;
  const fields: Record<string, Rule | yup.Lazy<unknown>> = {
    id: idRule,
    kind: oneOf([...KINDS.keys()]),
    on: flag,
    params: rule('an object', isObject),
  };
  const known = typeof kind === 'string' ? KINDS.get(kind) : undefined;
  if (known) fields.params = propertiesRule(known.params);
  if (known && holdsCards(known)) fields.children = ids(LIMITS.items);
  if (known && holdsSettings(known) && has('children')) fields.children = ids(LIMITS.items);
  if (known?.role === 'setting' && has('sets')) fields.sets = idRule;
  if (has('name')) fields.name = nameRule;
  if (known) fields.formulas = formulasRule(known.params);
  return object(fields);
};

/** A card that stands in no layer. */
const effectRule = (value: unknown): Rule => {
  const kind = isObject(value) && typeof value.kind === 'string' ? KINDS.get(value.kind) : undefined;
  return kind && isEffect(kind) ? itemRule(value) : rule('an effect', () => false);
};

/** The text of a word that was split, as a card. */
const wordTextRule = yup.lazy((value: unknown) =>
  isObject(value) && value.kind === 'text' ? itemRule(value) : rule('a card of kind text', () => false),
);

const setFields = { id: idRule, name: nameRule, members: ids(LIMITS.layers) };
const wordRule = object({
  by: oneOf(['letters', 'words', 'lines']),
  text: wordTextRule,
  parts: ids(LIMITS.layers),
  way: rule('four numbers', (v) => Array.isArray(v) && v.length === 4 && v.every(isNumber)),
});
const setRule = yup.lazy((value: unknown) =>
  object(isObject(value) && 'word' in value ? { ...setFields, word: wordRule } : setFields),
);

const layerFields = {
  id: idRule,
  name: nameRule,
  from: whole(-LIMITS.frame, LIMITS.frame),
  to: whole(-LIMITS.frame, LIMITS.frame),
  locked: flag,
  tucked: flag,
  hidden: flag,
  tag: oneOf(TAGS),
  parent: rule('an id or null', (v) => v === null || isId(v)),
  blend: oneOf(BLEND_MODES),
  params: propertiesRule(PLACE),
  formulas: formulasRule(PLACE),
  moves: movesRule,
};

const knobRule = (value: unknown): Rule => {
  const knob = value as Knob;
  const limits = isObject(value) && isNumber(value.min) && isNumber(value.max) && value.min <= value.max;
  const known = limits && KNOB_KINDS.includes(value.kind as KnobKind);
  return object({
    id: idRule,
    name: nameRule,
    kind: oneOf(KNOB_KINDS),
    min: between(-FAR, FAR),
    max: rule('a number from the least to the greatest', () => limits),
    params: known ? (propertiesRule(paramsOfKnob(knob)) as unknown as Rule) : rule('an object', isObject),
    formulas: known ? formulasRule(paramsOfKnob(knob)) : rule('nothing', (v) => v === undefined),
  });
};

const isPlace = (v: unknown) => isNumber(v) && Math.abs(v) <= FAR;

export const layerRule = (value: unknown): Rule => {
  if (isObject(value) && value.kind === 'controller') {
    return object({
      ...layerFields,
      kind: oneOf(['controller']),
      group: flag,
      knobs: mapOf(knobRule, LIMITS.knobs),
      panel: ids(LIMITS.knobs),
    });
  }
  return object({
    ...layerFields,
    kind: oneOf(['drawing', 'controller']),
    items: mapOf(itemRule, LIMITS.items),
    recipe: ids(LIMITS.items),
  });
};

/** A scene but for what its layers hold, which is checked layer by layer. */
export const sceneRule = object({
  id: idRule,
  name: nameRule,
  ...SCENE_SIZE,
  layers: rule(
    `an object of at most ${LIMITS.layers} layers`,
    (v) => isObject(v) && Object.keys(v).length <= LIMITS.layers,
  ),
  order: ids(LIMITS.layers),
  poster: whole(0, LIMITS.length),
  eye: object({
    angle: between(0, WIDEST_EYE),
    off: rule('x and y', (v) => Array.isArray(v) && v.length === 2 && v.every(isPlace)),
  }),
  guides: rule(
    `guides: x and y, each a list of at most ${LIMITS.guides} places`,
    (v) =>
      isObject(v) &&
      Object.keys(v).sort().join() === 'x,y' &&
      [v.x, v.y].every((list) => Array.isArray(list) && list.length <= LIMITS.guides && list.every(isPlace)),
  ),
  light: object({ turn: between(-FAR, FAR), tilt: between(-90, 90), strength: between(0, 1) }),
  markers: yup
    .array(object({ id: idRule, frame: whole(0, LIMITS.length), name: nameRule }))
    .strict()
    .max(LIMITS.markers)
    .required() as unknown as Rule,
  routines: routinesRule,
  sets: yup.array(setRule).strict().max(LIMITS.sets).required() as unknown as Rule,
  poses: maybePosesRule,
});

const deliveryRule = object({
  id: idRule,
  name: nameRule,
  scenes: rule(
    `a list of 1 to ${LIMITS.scenes} ids`,
    (v) => Array.isArray(v) && v.length > 0 && v.length <= LIMITS.scenes && v.every(isId),
  ),
  fade: whole(0, LIMITS.fade),
  file: nameRule,
  everyVersion: flag,
  settings: yup.lazy(settingsRuleFor) as unknown as Rule,
});

const COLUMN_FIELDS: Readonly<Record<string, Record<string, Rule>>> = {
  words: {
    places: list(object({ scene: idRule, layer: idRule, item: idRule, key: idRule }), LIMITS.versionPlaces),
  },
  swatch: { swatch: idRule },
  picture: { asset: idRule },
};

const columnRule = yup.lazy((value: unknown) => {
  const kind = isObject(value) ? String(value.kind) : '';
  return object({ id: idRule, name: nameRule, kind: oneOf(Object.keys(COLUMN_FIELDS)), ...COLUMN_FIELDS[kind] });
}) as unknown as Rule;

const saidRule = rule(`a text of at most ${MOST_LETTERS} characters`, (v) => isText(v) && v.length <= MOST_LETTERS);

const versionsRule = object({
  columns: list(columnRule, LIMITS.versionColumns),
  rows: list(
    object({ id: idRule, name: nameRule, values: mapOf(() => saidRule, LIMITS.versionColumns) as unknown as Rule }),
    LIMITS.versions,
  ),
});

export const projectRule = object({
  version: whole(1, 1_000_000),
  id: idRule,
  name: nameRule,
  scenes: rule(
    `an object of at most ${LIMITS.scenes} scenes`,
    (v) => isObject(v) && Object.keys(v).length <= LIMITS.scenes,
  ),
  order: ids(LIMITS.scenes),
  assets: mapOf((value) => assetRule(value), LIMITS.assets) as unknown as Rule,
  swatches: yup
    .array(object({ id: idRule, name: nameRule, color: colorRule }))
    .strict()
    .required()
    .max(LIMITS.swatches) as unknown as Rule,
  eases: yup
    .array(object({ id: idRule, name: nameRule, ease: easeRule as unknown as Rule }))
    .strict()
    .required()
    .max(LIMITS.swatches) as unknown as Rule,
  moves: savedMovesRule,
  effects: yup
    .array(
      object({
        id: idRule,
        name: nameRule,
        layer: idRule,
        cards: yup.array(yup.lazy(effectRule)).strict().required().max(LIMITS.effects) as unknown as Rule,
      }),
    )
    .strict()
    .required()
    .max(LIMITS.swatches) as unknown as Rule,
  deliveries: yup.array(deliveryRule).strict().required().max(LIMITS.deliveries) as unknown as Rule,
  versions: versionsRule,
});
