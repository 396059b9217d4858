import { choice, color, percent, px } from '../../document/params';
import type { Color } from '../../document/types';
import { grownAlpha } from '../../picture/outline';
import { opacityOf, rgbOf } from '../../picture/pixels';
import { type Effect, short } from '../types';
import { effect } from './effect';
import { type Line, svgOfLine } from './outlineSvg';

/** Pixels of an effect on either side of the edge of what is visible. */
export const MOST_WIDTH = 64;

/** A line round all that is visible, `out` pixels beyond its edge and `within` pixels inside. */
const outlined = (
  data: Uint8ClampedArray,
  width: number,
  height: number,
  { out, within, over, strength }: Line,
): void => {
  const count = width * height;
  const alpha = new Float32Array(count);
  for (let i = 0; i < count; i++) alpha[i] = data[i * 4 + 3]! / 255;
  const outer = grownAlpha(alpha, width, height, out);
  const holes =
    within > 0
      ? grownAlpha(
          alpha.map((a) => 1 - a),
          width,
          height,
          within,
        )
      : null;
  const ink = rgbOf(over);
  const opaque = opacityOf(over) * strength;
  for (let i = 0; i < count; i++) {
    const a = alpha[i]!;
    // Nothing lies over what is opaque but a line inside, and nothing is where nothing has grown to.
    if ((a >= 1 && !holes) || (a === 0 && outer[i] === 0)) continue;
    // A line that is inside too lies over the picture, between what has grown and what has shrunk; one outside lies under it.
    const line = Math.max(0, outer[i]! - (holes ? 1 - holes[i]! : 0)) * opaque;
    const shown = holes ? a * (1 - line) : a;
    const seen = holes ? line : line * (1 - a);
    const total = shown + seen;
    if (total <= 0) continue;
    for (let c = 0; c < 3; c++) data[i * 4 + c] = (data[i * 4 + c]! * shown + ink[c]! * seen) / total;
    data[i * 4 + 3] = Math.min(1, total) * 255;
  }
};

const lineOf = (out: number, within: number, over: Color, strength: number): Effect => ({
  // Inwards too: what is visible beyond the picture is what tells that a line does not end there.
  reach: Math.max(out, within),
  pixels: (data, width, height, { scale }) =>
    outlined(data, width, height, { out: out * scale, within: within * scale, over, strength }),
  svg: (scale) => svgOfLine({ out: out * scale, within: within * scale, over, strength }),
});

/** A line round what is visible of all that is above it. */
export const outline = effect({
  kind: 'outline',
  label: 'Outline',
  params: {
    width: px('Width', 4, { min: 0, max: MOST_WIDTH, step: 0.5 }),
    color: color('Colour', '#FFFFFF'),
    side: choice(
      'Line',
      [
        { value: 'outside', label: 'Outside' },
        { value: 'middle', label: 'Middle' },
        { value: 'inside', label: 'Inside' },
      ],
      'outside',
    ),
    strength: percent('Strength', 1),
  },
  summary: (v) => `${short(v.width)} px ${v.side}`,
  effect: ({ width, color: over, side, strength }) => {
    if (width <= 0 || strength <= 0) return null;
    const out = { outside: width, middle: width / 2, inside: 0 }[side];
    return lineOf(out, width - out, over, strength);
  },
});
