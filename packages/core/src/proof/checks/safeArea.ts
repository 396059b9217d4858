import type { Point } from '../../document/types';
import { moveBy } from '../../edits/place';
import type { Box } from '../../geometry/bounds';
import type { CheckKind, Look } from '../types';

/** How far a span has to go to lie within another. */
const wayIn = (low: number, high: number, least: number, most: number): number =>
  low < least ? least - low : high > most ? most - high : 0;

/** The way into the safe area, in pixels of the scene; null for what is too large for it. */
const wayOf = ({ scene, rules }: Pick<Look, 'scene' | 'rules'>, box: Box): Point | null => {
  const [x, y] = [scene.width * rules.edge, scene.height * rules.edge];
  if (box.right - box.left > scene.width - 2 * x || box.bottom - box.top > scene.height - 2 * y) return null;
  return [wayIn(box.left, box.right, x, scene.width - x), wayIn(box.top, box.bottom, y, scene.height - y)];
};

/** Text that stands too near to an edge. */
export const safeArea: CheckKind = {
  kind: 'safeArea',
  about: 'Text outside the safe area',
  ofVersions: true,
  *find(look) {
    const { scene, rules, texts } = look;
    const { seen } = yield* texts();
    return seen.flatMap(({ layer, name, at: frame, box, still }) => {
      const way = wayOf(look, box);
      // What runs through the picture comes near its edges.
      if (still === 0 || (way && Math.hypot(...way) < 0.5)) return [];
      const message = way
        ? `“${name}” stands ${Math.round(Math.hypot(...way))} px outside the safe area, which ends ${rules.edge * 100} % from each edge.`
        : `“${name}” is larger than the safe area, which ends ${rules.edge * 100} % from each edge.`;
      return [
        { check: 'safeArea', message, scene: scene.id, layer, frame, ...(way && { mend: 'Move it in', value: way }) },
      ];
    });
  },
  mend: ({ scene, layer = '', frame = 0, value }, { scenes }) => {
    const word = scenes[scene]?.sets.find((set) => set.word?.parts.includes(layer))?.word;
    const moved = (word?.parts ?? [layer]).map((id) => [id, value as Point] as const);
    return moveBy(scene, new Map(moved), 'Move into the safe area', frame);
  },
};
