/** What a render is asked for, and what it will be. */
import { LIMITS } from '../document/limits';
import type { Params } from '../document/params';
import { thousands } from '../document/text';
import type { Scene } from '../document/types';
import { sizeAt } from '../geometry/size';
import { framesPerSecond } from '../time/rate';
import { type Format, formatOf, type RenderSettings, type StillSettings } from './formats/table';
import { MOST_PIXELS, type RenderPlan } from './types';

export const isStill = (settings: RenderSettings): settings is StillSettings =>
  formatOf(settings.format).span === 'frame';

/** Whether a file keeps what the scene leaves transparent. */
export const keepsTransparency = (settings: RenderSettings): boolean => {
  const { transparent } = formatOf(settings.format);
  return typeof transparent === 'function' ? transparent(settings as never) : transparent;
};

/** The whole scene in a format, or its poster, at its own size and rate. */
export const defaultSettings = (format: Format, scene: Scene): RenderSettings => {
  const { span, params, fromScene } = formatOf(format);
  const shown = span === 'range' ? { rate: null, from: 0, to: scene.length } : { frame: scene.poster };
  const own = Object.entries<Params[string]>(params).map(([key, param]) => [key, param.default]);
  // The values are those of the format's own parameters.
  return { format, scale: 1, ...shown, ...Object.fromEntries(own), ...fromScene?.(scene) } as RenderSettings;
};

/** Settings with those that were left out, or kept before their format had as many, as they are by default. */
export const completed = (settings: RenderSettings, scene: Scene): RenderSettings => ({
  ...defaultSettings(settings.format, scene),
  ...settings,
});

/** What there is to say where a scene is transparent and its file is not. */
const onBlack = (scene: Scene, settings: RenderSettings): readonly string[] =>
  scene.background === null && !keepsTransparency(settings)
    ? [`Drawn on black: there is no transparency in ${formatOf(settings.format).label}.`]
    : [];

/** What a render of a scene will be, by settings of which some may be left out. Throws a RangeError that says what does not fit. */
export const planRender = (scene: Scene, asked: RenderSettings): RenderPlan => {
  const settings = completed(asked, scene);
  const kind = formatOf(settings.format);
  const drawn = sizeAt(scene, settings.scale);
  const { width, height } = drawn;
  if (width > MOST_PIXELS || height > MOST_PIXELS) {
    throw new RangeError(`scale: gives ${width} × ${height} pixels; the most is ${MOST_PIXELS} a side`);
  }
  for (const [key, param] of Object.entries(kind.params)) {
    const frame = (settings as unknown as { readonly [key: string]: unknown })[key];
    if (param.kind !== 'number' || param.unit !== 'frames' || typeof frame !== 'number') continue;
    if (frame >= scene.length) throw new RangeError(`${key}: got ${frame}, the last frame is ${scene.length - 1}`);
  }
  if (isStill(settings)) {
    if (settings.frame >= scene.length)
      throw new RangeError(`frame: got ${settings.frame}, the last is ${scene.length - 1}`);
    return { ...drawn, drawn, rate: scene.rate, frames: [settings.frame], notes: onBlack(scene, settings) };
  }
  const { from, to } = settings;
  if (to > scene.length || from >= to) {
    throw new RangeError(`range: got ${from} to ${to}, the scene has ${scene.length} frames`);
  }
  const wanted = settings.rate ?? scene.rate;
  const { rate, notes } = kind.rateFor?.(wanted) ?? { rate: wanted, notes: [] };
  const ratio = framesPerSecond(scene.rate) / framesPerSecond(rate);
  const count = Math.max(1, Math.round((to - from) / ratio));
  if (count > LIMITS.length) {
    throw new RangeError(
      `rate: gives ${thousands(count)} frames; the most is ${thousands(LIMITS.length)}: take a lower rate or a shorter range`,
    );
  }
  const frames = Array.from({ length: count }, (_, i) => from + i * ratio);
  const even = (side: number) => (kind.even ? side + (side % 2) : side);
  const size = { width: even(width), height: even(height) };
  const all = [...notes];
  if (size.width !== width || size.height !== height) {
    all.push(
      `${kind.label} needs even sizes: ${width} × ${height} became ${size.width} × ${size.height}, with a line of background added at the right or bottom.`,
    );
  }
  const said = kind.notes?.(scene, settings as never) ?? [];
  const plan = { ...size, drawn, rate, frames, notes: [...all, ...onBlack(scene, settings), ...said] };
  kind.check?.(plan, settings as never);
  return plan;
};
