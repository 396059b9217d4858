/** Settings as a delivery keeps them: without what follows from its scene, so that a longer scene makes a longer file. */
import { clamped, wholeWithin, withFields } from '../document/fitting';
import { LIMITS } from '../document/limits';
import type { Delivery, Id, KeptSettings, Scene, Value } from '../document/types';
import { fittedValue } from '../motion/kinds/table';
import { formatOf, isFormat, type RenderSettings } from './formats/table';
import { DEFAULT_NAME } from './naming';
import { completed, defaultSettings } from './settings';
import type { Span } from './types';

export const newDelivery = (id: Id, name: string, scenes: readonly Id[], settings: KeptSettings): Delivery => ({
  id,
  name,
  scenes,
  fade: 0,
  file: DEFAULT_NAME,
  everyVersion: false,
  settings,
});

/** Those that differ from what they would be if nothing were said. */
export const keptSettings = (settings: RenderSettings, scene: Scene): KeptSettings => {
  const usual = defaultSettings(settings.format, scene) as unknown as { readonly [key: string]: unknown };
  const own = Object.entries(settings).filter(
    ([key, value]) => key !== 'format' && JSON.stringify(value) !== JSON.stringify(usual[key]),
  );
  return { format: settings.format, ...Object.fromEntries(own) };
};

/** All settings that a delivery has for a scene. Throws a RangeError for a format that there is not. */
export const settingsOf = ({ name, settings }: Delivery, scene: Scene): RenderSettings => {
  if (!isFormat(settings.format)) throw new RangeError(`“${name}”: there is no format “${settings.format}”`);
  return completed(settings as unknown as RenderSettings, scene);
};

const frameWithin = (least: number, most: number) => (value: unknown) => wholeWithin(value as number, least, most);
const asItIs = (value: unknown) => value;
const COMMON = { format: asItIs, scale: (value: unknown) => clamped(value, 0.01, 8, 1) };
/** What the settings of a format are brought within their limits by, besides those of its own. */
const FITTING: { readonly [span in Span]: { readonly [key: string]: (value: unknown) => unknown } } = {
  range: { ...COMMON, rate: asItIs, from: frameWithin(0, LIMITS.length), to: frameWithin(1, LIMITS.length) },
  frame: { ...COMMON, frame: frameWithin(0, LIMITS.length) },
};

/**
 * Within the limits of their format, and only what it has: the same object where they are. Throws a RangeError for a format
 * that there is not.
 */
export const fittedSettings = (settings: KeptSettings): KeptSettings => {
  if (!isFormat(settings.format)) throw new RangeError(`there is no format “${settings.format}”`);
  const { params, span } = formatOf(settings.format);
  const fields = Object.entries(settings).flatMap(([key, value]) => {
    const [param, fit] = [params[key], FITTING[span][key]];
    if (param) return [[key, fittedValue(param, value as Value)] as const];
    return fit ? [[key, fit(value)] as const] : [];
  });
  const fitting = Object.fromEntries(fields) as Partial<KeptSettings>;
  return fields.length < Object.keys(settings).length ? (fitting as KeptSettings) : withFields(settings, fitting);
};
