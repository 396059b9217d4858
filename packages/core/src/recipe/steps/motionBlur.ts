import { degrees, number } from '../../document/params';
import { marksThrough } from '../marksThrough';
import { grouped } from '../marks';
import { workOfMarks } from '../room';
import { type GroupMark, type Mark, short, step } from '../types';

/** Pictures within one frame. */
export const MOST_SAMPLES = 64;

/**
 * The mean of pictures: their shares, summed. A share is rounded to whole levels, by up to half of one: summed at once, those of twelve
 * would be off by six. Those of two are off by one, and so is the mean of two means.
 */
const meanOf = (pictures: readonly (readonly Mark[])[], how: Parameters<typeof grouped>[1] = {}): GroupMark => {
  const [first = []] = pictures;
  if (pictures.length < 2) return grouped(first, how);
  const half = 2 ** Math.floor(Math.log2(pictures.length - 1));
  const shares = [pictures.slice(0, half), pictures.slice(half)].map((own) =>
    meanOf(own, { alpha: own.length / pictures.length, blend: 'plus' }),
  );
  return grouped(shares, { blend: 'within', ...how });
};

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
    const pictures: (readonly Mark[])[] = [];
    for (let i = 0; i < count; i++) {
      const then = above.frame + (shutter / 360) * ((i + 0.5) / count - 0.5);
      const own = above.at(then).marks;
      if (!above.take(own.length, 1 + workOfMarks(own))) return now;
      const m = above.since(then);
      pictures.push(marksThrough(m, own));
    }
    return { ...now, marks: [meanOf(pictures)] };
  },
});
