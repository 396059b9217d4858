import type { Layer } from '../../document/types';
import type { Ink, Mark } from '../../recipe/types';
import { sizeAt } from '../../geometry/size';
import { gradientAt } from '../../motion/gradients';
import { rgbOf } from '../../picture/pixels';
import { soleSource } from '../../recipe/needs';
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

/** As opaque as this is part of a letter, and as clear as that is none. */
const [LETTER, CLEAR] = [200, 8];
/** Pixels from the edge of a letter that are what it is told from. */
const NEAR = 2;

/** The pixels right beside what a picture shows, by their places in it. */
const besideOf = (pixels: Uint8ClampedArray, width: number): readonly number[] => {
  const alphaAt = (i: number) => pixels[i * 4 + 3] ?? 0;
  const found: number[] = [];
  for (let i = 0; i < pixels.length / 4; i++) {
    if (alphaAt(i) > CLEAR) continue;
    const x = i % width;
    const touches =
      (x >= NEAR && alphaAt(i - NEAR) > LETTER) ||
      (x + NEAR < width && alphaAt(i + NEAR) > LETTER) ||
      alphaAt(i - NEAR * width) > LETTER ||
      alphaAt(i + NEAR * width) > LETTER;
    if (touches) found.push(i);
  }
  return found;
};

/** Whether a layer shows a text and nothing else. */
const showsText = (layer: Layer | undefined): boolean => layer?.kind === 'drawing' && soleSource(layer) === 'text';

/** Text that does not stand out from what is behind it at that moment. */
export const contrast: CheckKind = {
  kind: 'contrast',
  about: 'Text that hardly stands out from what is behind it',
  ofVersions: true,
  *find({ scene, rules, program, see, texts }) {
    const { seen } = yield* texts();
    const found = [];
    for (const { layers, layer, name, at: frame, box } of seen) {
      const color = inkOf(program.at(frame, (id) => layers.includes(id)).marks);
      if (color === null) continue;
      const whole = { width: box.right - box.left, height: box.bottom - box.top };
      const scale = SIDE / Math.max(whole.width, whole.height, 1);
      const { width, height } = sizeAt(whole, scale);
      const matrix = [scale, 0, 0, scale, -box.left * scale, -box.top * scale] as const;
      const text = lightOf(rgbOf(color));
      const lights = lightsOf(see(frame, { width, height, matrix }));
      const alone = layers.every((id) => showsText(scene.layers[id]));
      const beside = alone ? besideOf(see(frame, { width, height, matrix, only: layers }), width) : [];
      // Of what lies beside its letters half has to be told from them. Where its layer shows more than the text, and where there is nothing
      // beside it, what is least like the text is behind it, whatever share of the box its letters take.
      const [among, share] = beside.length > 0 ? [beside.map((i) => lights[i] as number), 0.5] : [[...lights], INK];
      const ratios = among.map((light) => contrastOf(light, text)).sort((a, b) => a - b);
      const ratio = ratios[Math.floor(ratios.length * share)] ?? 21;
      yield;
      if (ratio >= rules.contrast) continue;
      const message = `“${name}” has a contrast of ${ratio.toFixed(1)} : 1 with what is behind it; ${rules.contrast} : 1 is the least.`;
      found.push({ check: 'contrast', message, scene: scene.id, layer, frame });
    }
    return found;
  },
};
