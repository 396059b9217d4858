import type { Rate } from '../document/types';

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

export const reduced = ({ num, den }: Rate): Rate => {
  const d = gcd(num, den);
  return { num: num / d, den: den / d };
};

export const framesPerSecond = ({ num, den }: Rate): number => num / den;

export const secondsOf = (frames: number, rate: Rate): number => (frames * rate.den) / rate.num;

/** Rates offered by name; the NTSC ones are exact fractions of 1001. */
export const COMMON_RATES: readonly Rate[] = [
  { num: 12, den: 1 },
  { num: 15, den: 1 },
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 30, den: 1 },
  { num: 50, den: 1 },
  { num: 60000, den: 1001 },
  { num: 60, den: 1 },
];

/** `30`, `29.97`, as an editor would write it. */
export const rateLabel = (rate: Rate): string => String(Number(framesPerSecond(rate).toFixed(3)));

/** Reads `30`, `29.97`, `23.976` or `30000/1001`; decimal NTSC rates become their exact fractions. null if it is none. */
export const parseRate = (text: string): Rate | null => {
  const fraction = /^\s*(\d+)\s*\/\s*(\d+)\s*$/.exec(text);
  if (fraction) {
    const [num, den] = [Number(fraction[1]), Number(fraction[2])];
    return num > 0 && den > 0 ? reduced({ num, den }) : null;
  }
  const value = Number(text.trim());
  if (!(value > 0)) return null;
  const near = COMMON_RATES.find((r) => Math.abs(framesPerSecond(r) - value) < 0.006 && r.den === 1001);
  if (near && !Number.isInteger(value)) return near;
  return reduced({ num: Math.round(value * 1000), den: 1000 });
};

/** `00:01.53` of minutes, seconds and hundredths at a frame. */
export const clockAt = (frame: number, rate: Rate): string => {
  const hundredths = Math.round(secondsOf(frame, rate) * 100);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${two(Math.floor(hundredths / 6000))}:${two(Math.floor(hundredths / 100) % 60)}.${two(hundredths % 100)}`;
};

/** Reads a frame number, or a clock such as `1.5s`, `00:01.53`. null if it is neither. */
export const parseTime = (text: string, rate: Rate): number | null => {
  const t = text.trim();
  if (/^\d+$/.test(t)) return Number(t);
  const clock = /^(?:(\d+):)?(\d+(?:\.\d+)?)\s*s?$/.exec(t);
  if (!clock) return null;
  return Math.round(((Number(clock[1] ?? 0) * 60 + Number(clock[2])) * rate.num) / rate.den);
};
