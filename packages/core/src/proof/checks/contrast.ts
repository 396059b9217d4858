import type { Ink, Mark } from '../../recipe/types';
import { gradientAt } from '../../motion/kinds/gradient';
import { rgbOf } from '../../picture/pixels';
import { contrastOf, lightOf, lightsOf } from '../light';
import type { CheckKind } from '../types';

/** Pixels along the longer side of what is looked at. */
const SIDE = 96;
/** The share of the pixels of a text's box that are text, at the most. */
const INK = 0.55;

const colorOf = (ink: Ink): string => (ink.style === 'solid' ? ink.color : gradientAt(ink.gradient, 0.5));

/** The colour that is drawn last, which is what is read. */
const inkOf = (marks: readonly Mark[]): string | null => {
  for (const mark of [...marks].reverse()) {
    if (mark.op === 'picture') continue;
    const color = mark.op === 'group' ? inkOf(mark.marks) : colorOf(mark.ink);
    if (color) return color;
  }
  return null;
};

/** Text that does not stand out from what is behind it at that moment. */
export const contrast: CheckKind = {
  kind: 'contrast',
  about: 'Text that hardly stands out from what is behind it',
  *find({ scene, rules, program, see, texts }) {
    const found = [];
    for (const { layer, name, at: frame, box } of yield* texts()) {
      const color = inkOf(program.at(frame, (id) => id === layer).marks);
      if (color === null) continue;
      const [w, h] = [box.right - box.left, box.bottom - box.top];
      const scale = SIDE / Math.max(w, h, 1);
      const [width, height] = [Math.max(1, Math.round(w * scale)), Math.max(1, Math.round(h * scale))];
      const matrix = [scale, 0, 0, scale, -box.left * scale, -box.top * scale] as const;
      const text = lightOf(rgbOf(color));
      const ratios = [...lightsOf(see(frame, { width, height, matrix }))]
        .map((light) => contrastOf(light, text))
        .sort((a, b) => a - b);
      // What is least like the text is behind it, whatever share of the box its letters take.
      const ratio = ratios[Math.floor(ratios.length * INK)] ?? 21;
      yield;
      if (ratio >= rules.contrast) continue;
      const message = `“${name}” has a contrast of ${ratio.toFixed(1)} : 1 with what is behind it; ${rules.contrast} : 1 is the least.`;
      found.push({ check: 'contrast', message, scene: scene.id, layer, frame });
    }
    return found;
  },
};
