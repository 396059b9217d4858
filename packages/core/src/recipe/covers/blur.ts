import { choice, px } from '../../document/params';
import { blurPixels, type BlurWay } from '../../picture/boxes';
import { effect } from './effect';
import { type Effect, short } from '../types';

/** By a bell curve of this deviation, in pixels; null for none. */
export const blurBy = (deviation: number): Effect | null =>
  deviation <= 0
    ? null
    : {
        reach: deviation * 3,
        softness: deviation,
        filter: (scale) => `blur(${(deviation * scale).toFixed(3)}px)`,
        svg: (scale) => `<feGaussianBlur stdDeviation="${short(deviation * scale)}"/>`,
        pixels: (data, width, height, { scale }) => blurPixels(data, width, height, deviation * scale),
      };

/** The same along one way alone, or with the edges of what is visible where they were. */
const blurAlong = (deviation: number, way: Required<BlurWay>): Effect => ({
  reach: deviation * 3,
  pixels: (data, width, height, { scale }) => blurPixels(data, width, height, deviation * scale, way),
  svg: (scale) => {
    const [x, y] = [way.across, way.down].map((on) => (on ? short(deviation * scale) : '0'));
    // What is visible at all becomes opaque, and is then as opaque as it was.
    const kept =
      '<feComponentTransfer><feFuncA type="linear" slope="255"/></feComponentTransfer><feComposite in2="SourceGraphic" operator="in"/>';
    return `<feGaussianBlur stdDeviation="${x} ${y}"/>${way.keeps ? kept : ''}`;
  },
});

/** A Gaussian blur: its amount is the deviation of the bell curve, as in CSS's blur(). One way is along the scene's rows or columns. */
export const blur = effect({
  kind: 'blur',
  label: 'Blur',
  params: {
    amount: px('Amount', 8, { min: 0, max: 500 }),
    way: choice(
      'Way',
      [
        { value: 'both', label: 'Both' },
        { value: 'across', label: 'Across' },
        { value: 'down', label: 'Down' },
      ],
      'both',
    ),
    edges: choice(
      'Edges',
      [
        { value: 'soft', label: 'Soft' },
        { value: 'kept', label: 'Kept' },
      ],
      'soft',
    ),
  },
  summary: (v) => `${short(v.amount)} px${v.way === 'both' ? '' : ` ${v.way}`}`,
  effect: ({ amount, way, edges }) => {
    if (amount <= 0 || (way === 'both' && edges === 'soft')) return blurBy(amount);
    return blurAlong(amount, { across: way !== 'down', down: way !== 'across', keeps: edges === 'kept' });
  },
});
