/** The formats of files. A new one is a file of its own and a line here. */
import type { Params } from '../../document/params';
import type { FormatKind, SettingsOf, Span } from '../types';
import { animatedSvg } from './animatedSvg';
import { apng } from './apng';
import { frames } from './frames';
import { gif } from './gif';
import { html5 } from './html5';
import { jpeg } from './jpeg';
import { mov } from './mov';
import { mp4 } from './mp4';
import { png } from './png';
import { sheet } from './sheet';
import { svg } from './svg';
import { webm } from './webm';
import { webp } from './webp';

const LIST = [mp4, webm, mov, html5, gif, apng, webp, frames, png, jpeg, svg, animatedSvg, sheet] as const;

type Listed = (typeof LIST)[number];
export type Format = Listed['format'];
export type KindOf<F extends Format> = Extract<Listed, { readonly format: F }>;
export type FormatSettings<F extends Format> = SettingsOf<KindOf<F>>;
export type RenderSettings = { readonly [F in Format]: FormatSettings<F> }[Format];
export type StillSettings = SettingsOf<Extract<Listed, { readonly span: Extract<Span, 'frame'> }>>;

// Each format's functions take their own settings, which the common type cannot say: settings are checked by the format's
// own parameters, so they fit.
export const FORMATS = LIST as unknown as readonly FormatKind<Params, Format>[];

const byName: ReadonlyMap<string, FormatKind<Params, Format>> = new Map(FORMATS.map((kind) => [kind.format, kind]));
export const isFormat = (name: string): name is Format => byName.has(name);
export const formatOf = (format: Format): FormatKind<Params, Format> =>
  byName.get(format) as FormatKind<Params, Format>;
