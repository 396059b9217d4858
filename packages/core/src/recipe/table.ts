/** The kinds of card. A new one is a file of its own and a line here. */
import type { Param, Params } from '../document/params';
import { cel } from './groups/cel';
import { cels } from './groups/cels';
import { group } from './groups/group';
import { blur } from './covers/blur';
import { brightness } from './covers/brightness';
import { clouds } from './covers/clouds';
import { colorTurn } from './covers/colorTurn';
import { flood } from './covers/flood';
import { glow } from './covers/glow';
import { invert } from './covers/invert';
import { levels } from './covers/levels';
import { grain } from './covers/grain';
import { grow } from './covers/grow';
import { outline } from './covers/outline';
import { pattern } from './covers/pattern';
import { pixelate } from './covers/pixelate';
import { tile } from './covers/tile';
import { warp } from './covers/warp';
import { pin } from './covers/pin';
import { mesh } from './covers/mesh';
import { mask } from './covers/mask';
import { matte } from './covers/matte';
import { shadow } from './covers/shadow';
import { threshold } from './covers/threshold';
import { tint } from './covers/tint';
import { wipe } from './covers/wipe';
import { fill } from './paints/fill';
import { stroke } from './paints/stroke';
import { SETTINGS } from './settings';
import { brush } from './sources/brush';
import { ellipse } from './sources/ellipse';
import { line } from './sources/line';
import { nest } from './sources/nest';
import { path } from './sources/path';
import { picture } from './sources/picture';
import { polygon } from './sources/polygon';
import { rectangle } from './sources/rectangle';
import { star } from './sources/star';
import { text } from './sources/text';
import { wedge } from './sources/wedge';
import { along } from './steps/along';
import { combine } from './steps/combine';
import { labels } from './steps/labels';
import { letters } from './steps/letters';
import { motionBlur } from './steps/motionBlur';
import { trail } from './steps/trail';
import { chart } from './sources/chart';
import { below } from './sources/below';
import { held } from './steps/held';
import { offset } from './steps/offset';
import { pinch } from './steps/pinch';
import { repeater } from './steps/repeater';
import { reverse } from './steps/reverse';
import { roughen } from './steps/roughen';
import { round } from './steps/round';
import { trim } from './steps/trim';
import { twist } from './steps/twist';
import { wobble } from './steps/wobble';
import { zigSteps } from './steps/zigSteps';
import type { Kind } from './types';

const LIST = [
  rectangle,
  ellipse,
  wedge,
  polygon,
  star,
  line,
  path,
  text,
  chart,
  picture,
  nest,
  brush,
  below,
  group,
  cels,
  cel,
  mask,
  matte,
  wipe,
  grow,
  pin,
  mesh,
  blur,
  shadow,
  glow,
  flood,
  tint,
  levels,
  brightness,
  colorTurn,
  invert,
  threshold,
  outline,
  grain,
  clouds,
  pattern,
  pixelate,
  tile,
  warp,
  trim,
  repeater,
  letters,
  labels,
  along,
  combine,
  round,
  offset,
  pinch,
  roughen,
  wobble,
  twist,
  zigSteps,
  reverse,
  held,
  trail,
  motionBlur,
  fill,
  stroke,
  ...SETTINGS,
];

// The player of a banner leaves out those that its scene does not use: see packages/player/src/parts.ts.
// Each kind's functions take their own values, which the common type cannot say: values are read
// through the kind's own parameter descriptions, so they fit.
export const KINDS: ReadonlyMap<string, Kind> = new Map(
  (LIST as unknown as (Kind | undefined)[]).flatMap((k) => (k ? [[k.kind, k] as const] : [])),
);

export const kindOf = (name: string): Kind => {
  const kind = KINDS.get(name);
  if (!kind) throw new RangeError(`no kind of card is called "${name}"`);
  return kind;
};

export const paramsOf = (name: string): Params => kindOf(name).params;

/** What the cards of a kind may be handed beside fonts: told by the kinds of their parameters. */
export interface Asks {
  readonly assets: boolean;
  readonly scenes: boolean;
  readonly layers: boolean;
  /** What lies behind their layer. */
  readonly behind: boolean;
}
const asks: ReadonlyMap<string, Asks> = new Map(
  [...KINDS.values()].map((kind) => {
    const has = (wanted: Param['kind']) => Object.values(kind.params).some((param) => param.kind === wanted);
    return [
      kind.kind,
      {
        assets: has('asset'),
        scenes: has('scene'),
        layers: has('layer'),
        behind: 'behind' in kind && kind.behind === true,
      },
    ];
  }),
);
export const asksOf = (name: string): Asks =>
  asks.get(name) ?? { assets: false, scenes: false, layers: false, behind: false };
