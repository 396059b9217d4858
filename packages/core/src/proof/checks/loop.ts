import { settingsOf } from '../../delivery/kept';
import { setDelivery } from '../../edits/deliveries';
import type { CheckKind } from '../types';

/** How much larger the jump may be than the largest step of the animation. */
const MUCH = 1.5;
/** A step of mean luminance that is seen. */
const SEEN = 0.004;

const wayBetween = (a: Float32Array, b: Float32Array): number => {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += Math.abs((a[i] as number) - (b[i] as number));
  return sum / a.length;
};

/** What plays over and over and jumps each time: its last frame does not lead to its first. */
export const loop: CheckKind = {
  kind: 'loop',
  about: 'Loops that jump back to their beginning',
  *find({ scene, deliveries, small }) {
    const looping = deliveries.filter((delivery) => {
      const settings = settingsOf(delivery, scene) as {
        readonly loop?: number;
        readonly hold?: number;
        readonly stop?: number;
      };
      // What stays on its last picture, or plays a few times, is meant to begin again.
      return settings.loop === 0 && !settings.hold && !settings.stop;
    });
    if (looping.length === 0) return [];
    const { frames } = yield* small();
    if (frames.length < scene.length) return [];
    const steps = frames.slice(1).map((lights, i) => wayBetween(frames[i] as Float32Array, lights));
    const jump = wayBetween(frames.at(-1) as Float32Array, frames[0] as Float32Array);
    if (jump <= Math.max(SEEN, MUCH * Math.max(0, ...steps))) return [];
    return looping.map(({ id, name, settings }) => ({
      check: 'loop',
      message: `“${name}” plays over and over, and jumps from its last frame to its first.`,
      scene: scene.id,
      frame: scene.length - 1,
      delivery: id,
      ...(settings.format !== 'html5' && { mend: 'Let its last picture stay for 2 seconds' }),
    }));
  },
  mend: ({ delivery = '' }, project) => {
    const settings = project.deliveries.find(({ id }) => id === delivery)?.settings ?? { format: 'gif' };
    return setDelivery(delivery, { settings: { ...settings, hold: 2 } });
  },
};
