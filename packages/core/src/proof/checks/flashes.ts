import { framesPerSecond } from '../../time/rate';
import type { CheckKind } from '../types';

/** Change of relative luminance that makes half a flash, where the darker of the two is below DARK. */
const CHANGE = 0.1;
const DARK = 0.8;
const MOST_A_SECOND = 3;
/** A quarter of a field of 341 by 256 pixels of a screen of 1024 by 768, that the picture is taken to fill. */
const AREA = (341 * 256 * 0.25) / (1024 * 768);

/** The frames at which a pixel has changed by half a flash since the last time, upwards or downwards in turn. */
const turnsOf = (lights: readonly number[]): number[] => {
  const turns: number[] = [];
  let [low, high, way] = [lights[0] ?? 0, lights[0] ?? 0, 0];
  lights.forEach((light, frame) => {
    low = Math.min(low, light);
    high = Math.max(high, light);
    const rises = light - low >= CHANGE && low < DARK && way <= 0;
    const falls = high - light >= CHANGE && light < DARK && way >= 0;
    if (!rises && !falls) return;
    turns.push(frame);
    way = rises ? 1 : -1;
    low = high = light;
  });
  return turns;
};

/** WCAG 2.2, 2.3.1: nothing flashes more than three times within a second, unless it is small. */
export const flashes: CheckKind = {
  kind: 'flashes',
  about: 'More than three flashes a second on a large area',
  *find({ scene, small }) {
    const { width, height, frames } = yield* small();
    const second = framesPerSecond(scene.rate);
    // Two turns make a flash.
    const most = 2 * MOST_A_SECOND;
    const counts = new Uint32Array(frames.length);
    for (let i = 0; i < width * height; i++) {
      const turns = turnsOf(frames.map((lights) => lights[i] as number));
      const told = new Set<number>();
      turns.forEach((frame, k) => {
        const last = turns[k + most];
        if (last !== undefined && last - frame < second) told.add(frame);
      });
      for (const frame of told) counts[frame] = (counts[frame] as number) + 1;
      if (i % width === 0) yield;
    }
    // Pixels that begin to flash within the same second flash together.
    for (let frame = 0; frame < counts.length; frame++) {
      const together = counts.slice(frame, frame + Math.ceil(second / 2)).reduce((sum, n) => sum + n, 0);
      if (together < AREA * width * height) continue;
      const message =
        'It flashes more than three times a second on a large area, which can harm people (WCAG 2.2, 2.3.1).';
      return [{ check: 'flashes', message, scene: scene.id, frame }];
    }
    return [];
  },
};
