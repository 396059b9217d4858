import { choice, degrees, gradient, number, percent, point, px } from '../../document/params';
import { patterned } from '../../picture/pattern';
import { short } from '../types';
import { shadesOf } from './shades';
import { effect } from './effect';

const PERIODIC = ['form', 'stripes', 'dots', 'rays'] as const;

/** What is above filled with a pattern, as opaque as it is. */
export const pattern = effect({
  kind: 'pattern',
  label: 'Pattern',
  params: {
    form: choice(
      'Pattern',
      [
        { value: 'stripes', label: 'Stripes' },
        { value: 'dots', label: 'Dots' },
        { value: 'rays', label: 'Rays' },
        { value: 'static', label: 'Static' },
      ],
      'stripes',
    ),
    size: px('Size', 40, { min: 0.5, max: 10_000, when: ['form', 'stripes', 'dots', 'static'] }),
    count: number('Rays', 16, { min: 1, max: 1_000, whole: true, when: ['form', 'rays'] }),
    share: percent('Covers', 0.5, { when: PERIODIC }),
    soft: percent('Soft', 0, { when: PERIODIC }),
    angle: degrees('Turn', 0, { when: PERIODIC }),
    middle: point('Middle', [0, 0]),
    colors: gradient('Colours', {
      stops: [
        { at: 0, color: '#2B2F77' },
        { at: 1, color: '#F2E9DC' },
      ],
    }),
    shift: number('Moved', 0, { step: 0.05, hint: 'by so many stripes, dots, rays or pictures' }),
    loop: number('Loops in', 0, {
      unit: 'frames',
      min: 0,
      max: 100_000,
      whole: true,
      hint: '0 stands still',
    }),
    seed: number('Seed', 1, { min: 0, max: 100_000, whole: true, when: ['form', 'static'] }),
  },
  summary: (v) => `${v.form}, ${v.form === 'rays' ? `${short(v.count)} of them` : `${short(v.size)} px`}`,
  example: { size: 40, form: 'stripes', angle: 30 },
  effect: (v, frame) => {
    const shades = shadesOf(v.colors);
    // Static has as many pictures as frames in its loop, and begins again.
    const gone = v.loop <= 0 ? 0 : v.form === 'static' ? frame % v.loop : (frame % v.loop) / v.loop;
    const of = {
      form: v.form,
      size: v.size,
      count: Math.round(v.count),
      share: v.share,
      soft: v.soft,
      angle: (v.angle * Math.PI) / 180,
      middle: v.middle,
      phase: v.shift + gone,
      seed: Math.round(v.seed),
    };
    return {
      reach: 0,
      pixels: (data, width, height, at) => patterned({ data, width, height }, of, shades, at),
      svg: () => null,
    };
  },
  byFrame: ({ loop }) => loop > 0,
});
