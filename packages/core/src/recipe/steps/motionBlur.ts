import { degrees, number } from '../../document/params';
import { marksThrough } from '../marksThrough';
import { grouped } from '../marks';
import { workOfMarks } from '../room';
import { short, step } from '../types';

/** Pictures within one frame. */
export const MOST_SAMPLES = 64;

/**
 * What is above it as a camera takes it whose shutter is open for part of the frame: the mean of so many pictures within that
 * time, with the motion of its layer too. 180 degrees are half a frame, in the middle of it.
 */
export const motionBlur = step({
  kind: 'motion-blur',
  label: 'Blur by motion',
  params: {
    shutter: degrees('Shutter', 180, { min: 0, max: 720 }),
    samples: number('Pictures', 12, { min: 2, max: MOST_SAMPLES, whole: true }),
  },
  summary: (v) => `${short(v.shutter)}°, ${short(v.samples)} pictures`,
  // It shows how its layer moves.
  byFrame: () => true,
  onDrawn: true,
  example: { shutter: 720 },
  apply: (above, { shutter, samples }) => {
    const now = above.at(above.frame);
    const count = Math.round(samples);
    if (shutter <= 0 || now.marks.length === 0) return now;
    const marks = [];
    for (let i = 0; i < count; i++) {
      const then = above.frame + (shutter / 360) * ((i + 0.5) / count - 0.5);
      const own = above.at(then).marks;
      if (!above.take(own.length, 1 + workOfMarks(own))) return now;
      const m = above.since(then);
      // Each is a share of the mean, and shares are summed.
      marks.push(grouped(marksThrough(m, own), { alpha: 1 / count, blend: 'plus' }));
    }
    return { ...now, marks: [grouped(marks, { sum: true })] };
  },
});
