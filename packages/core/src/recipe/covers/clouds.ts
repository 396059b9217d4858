import { choice, degrees, gradient, number, percent, point, px } from '../../document/params';
import { clouded } from '../../picture/clouds';
import { shadesOf } from './shades';
import { short } from '../types';
import { effect } from './effect';

/** What is above filled with clouds, as opaque as it is: of a word, a rectangle, a mark. */
export const clouds = effect({
  kind: 'clouds',
  label: 'Clouds',
  params: {
    size: px('Size', 240, { min: 2, max: 10_000 }),
    tile: px('Repeats after', 0, { min: 0, max: 20_000, hint: 'px each way; 0 is never' }),
    angle: degrees('Turn', 0),
    octaves: number('Detail', 5, { min: 1, max: 8, whole: true, hint: 'octaves, each half as large' }),
    roughness: percent('Roughness', 0.5),
    form: choice(
      'Form',
      [
        { value: 'soft', label: 'Soft' },
        { value: 'ridged', label: 'Ridges' },
        { value: 'folded', label: 'Folds' },
      ],
      'soft',
    ),
    contrast: percent('Contrast', 1, { min: 0, max: 20 }),
    level: percent('Lighter', 0, { min: -1, max: 1 }),
    colors: gradient('Colours', {
      stops: [
        { at: 0, color: '#2B2F77' },
        { at: 1, color: '#F2E9DC' },
      ],
    }),
    shift: point('Drift', [0, 0]),
    flow: degrees('Flow', 0, { hint: 'a full turn comes round' }),
    loop: number('Loops in', 0, { unit: 'frames', min: 0, max: 100_000, whole: true, hint: '0 flows by Flow alone' }),
    seed: number('Seed', 1, { min: 0, max: 100_000, whole: true }),
  },
  summary: (v) => `${short(v.size)} px, ${short(v.octaves)} octaves${v.loop > 0 ? `, loops in ${short(v.loop)}` : ''}`,
  example: { size: 80 },
  effect: (v, frame) => {
    const shades = shadesOf(v.colors);
    const turns = v.flow / 360 + (v.loop > 0 ? frame / v.loop : 0);
    return {
      reach: 0,
      pixels: (data, width, height, at) =>
        clouded(
          { data, width, height },
          {
            size: v.size,
            tile: v.tile,
            angle: (v.angle * Math.PI) / 180,
            octaves: Math.round(v.octaves),
            roughness: v.roughness,
            form: v.form,
            // Whole turns change nothing: a loop ends on the very pixels that it began with.
            turns: turns - Math.floor(turns),
            shift: v.shift,
            contrast: v.contrast,
            level: v.level,
            seed: Math.round(v.seed),
          },
          shades,
          at,
        ),
      svg: () => null,
    };
  },
  byFrame: ({ loop }) => loop > 0,
});
