/** The outline effect as filters of SVG (Filter Effects Module Level 1, 9). */
import type { Color } from '../../document/types';
import { opacityOf } from '../../picture/pixels';
import { short } from '../types';

/** In pixels: how far the line goes beyond the edge of what is visible, and how far inside of it. */
export interface Line {
  readonly out: number;
  readonly within: number;
  readonly over: Color;
  readonly strength: number;
}

/** The sides of rectangles that are a disc in all, nearly: grown by all of them, a corner is round. */
const discOf = (radius: number): string[] => {
  const steps = Math.min(6, Math.ceil(radius) + 1);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = (i / steps) * (Math.PI / 2);
    return `${short(radius * Math.cos(angle))} ${short(radius * Math.sin(angle))}`;
  });
};

/** One with another added, or taken away as far as it goes. */
const sum = (one: string, other: string, factor: 1 | -1, result: string): string =>
  `<feComposite in="${one}" in2="${other}" operator="arithmetic" k1="0" k2="1" k3="${factor}" k4="0" result="${result}"/>`;

/**
 * What is visible with its edge moved by a disc: by each of the rectangles, of which the most opaque counts where it is to grow, the
 * least where it is to shrink. Platforms differ in what they do by nothing.
 */
const moved = (operator: 'dilate' | 'erode', radius: number, result: string): string => {
  if (radius <= 0) return `<feOffset in="SourceGraphic" result="${result}"/>`;
  const by = (part: string, name: string) =>
    `<feMorphology in="SourceGraphic" operator="${operator}" radius="${part}" result="${name}"/>`;
  const [first, ...rest] = discOf(radius);
  // What goes beyond the other, added to that, or taken from itself.
  const joined =
    operator === 'dilate'
      ? sum('part', result, -1, 'more') + sum(result, 'more', 1, result)
      : sum(result, 'part', -1, 'more') + sum(result, 'more', -1, result);
  return by(first as string, result) + rest.map((part) => by(part, 'part') + joined).join('');
};

/** What stands in a filter element: under what is visible where it is outside alone, over it where it is inside too. */
export const svgOfLine = ({ out, within, over, strength }: Line): string => {
  const flood = `<feFlood flood-color="${over.slice(0, 7)}" flood-opacity="${opacityOf(over) * strength}"/>`;
  const lineIn = (edge: string) => `${flood}<feComposite in2="${edge}" operator="in" result="line"/>`;
  const merged = (...names: string[]) =>
    `<feMerge>${names.map((name) => `<feMergeNode in="${name}"/>`).join('')}</feMerge>`;
  const outer = moved('dilate', out, 'outer');
  if (within <= 0) return `${outer}${lineIn('outer')}${merged('line', 'SourceGraphic')}`;
  const inner = moved('erode', within, 'inner');
  return `${outer}${inner}${sum('outer', 'inner', -1, 'edge')}${lineIn('edge')}${merged('SourceGraphic', 'line')}`;
};
