/** Pictures and fonts, damaged by chance, sent for import. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { Chance } from '@kite/core/test/random';
import { createCanvas } from '@napi-rs/canvas';
import { fault, type Figures, Times } from './report';
import { TriedServer } from './server';

const LONGEST_MS = 10_000;

const picture = (type: 'png' | 'jpeg' | 'webp'): Uint8Array => {
  const canvas = createCanvas(64, 48);
  const context = canvas.getContext('2d');
  context.fillStyle = '#FFB23E';
  context.fillRect(0, 0, 40, 48);
  return new Uint8Array(
    type === 'png'
      ? canvas.toBuffer('image/png')
      : type === 'jpeg'
        ? canvas.toBuffer('image/jpeg')
        : canvas.toBuffer('image/webp'),
  );
};

const font = (): Uint8Array =>
  new Uint8Array(
    readFileSync(createRequire(import.meta.url).resolve('@fontsource/inter/files/inter-latin-400-normal.woff')),
  );

export const files = async (count: number, seed: number): Promise<Figures> => {
  const whole = [picture('png'), picture('jpeg'), picture('webp'), font()];
  const server = new TriedServer();
  await server.start();
  const times = new Times();
  let [taken, refused, faults] = [0, 0, 0];
  for (let n = 0; n < count; n++) {
    const chance = new Chance(seed * 1e6 + n);
    const bytes = Uint8Array.from(chance.one(whole));
    // The head says what it is, and how large.
    const reach = chance.happens(0.5) ? Math.min(bytes.length, 80) : bytes.length;
    for (let k = chance.whole(1, 12); k > 0; k--) bytes[chance.whole(0, reach - 1)] = chance.whole(0, 255);
    const sent = chance.happens(0.3) ? bytes.slice(0, chance.whole(1, bytes.length)) : bytes;
    const { status } = await times.of(() => server.ask('POST', '/assets?name=soak', sent));
    if (status === 201) taken++;
    else if (status >= 400 && status < 500) refused++;
    if (status === 0 || status >= 500 || times.last > LONGEST_MS) {
      faults++;
      fault(
        'a file',
        seed * 1e6 + n,
        `status ${status} after ${Math.round(times.last)} ms ${server.output.slice(-300)}`,
      );
      if (status === 0) await server.start();
    }
  }
  await server.stop();
  return {
    'pictures and fonts sent': count,
    'taken in': taken,
    'refused in words': refused,
    'longest, ms': times.longest,
    faults,
  };
};
