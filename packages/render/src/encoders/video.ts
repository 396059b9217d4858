/** Frames through ffmpeg's pipe, to whatever a format's arguments make of them. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import type { Readable } from 'node:stream';
import { type Staying, staying } from '@kite/core/delivery/stays';
import { framesPerSecond } from '@kite/core/time/rate';
import { Cancelled } from '../failure';
import { ffmpegPath } from '../ffmpeg';
import type { EncodeJob } from './types';

/** Writes the job's file, or has `take` read to its end what would be in it. */
export const video = async (
  { plan, settings, out, signal, frames, done }: EncodeJob,
  ofFormat: readonly string[],
  take?: (written: Readable) => Promise<void>,
): Promise<void> => {
  const more = staying(settings as Staying, plan);
  const args = [
    ...['-hide_banner', '-loglevel', 'error', '-y'],
    ...['-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${plan.width}x${plan.height}`],
    ...['-r', `${plan.rate.num}/${plan.rate.den}`, '-i', 'pipe:0'],
    ...ofFormat,
    take ? 'pipe:1' : out,
  ];
  const child = spawn(ffmpegPath(), args, { stdio: ['pipe', 'pipe', 'pipe'] });
  const taken = take ? take(child.stdout) : void child.stdout.resume();
  let log = '';
  child.stderr.on('data', (chunk: Buffer) => {
    log = (log + chunk.toString()).slice(-2_000);
  });
  // Writing to an encoder that ended says EPIPE; its exit says why.
  child.stdin.on('error', () => undefined);
  const exit = new Promise<number | null>((resolve, reject) => {
    child.on('error', reject);
    child.on('close', resolve);
  });
  exit.catch(() => undefined);
  // Who cannot go on reading ends it: what it writes would wait for ever.
  taken?.catch(() => child.kill('SIGKILL'));
  const hasEnded = (): boolean => child.exitCode !== null || child.signalCode !== null;
  try {
    // A frame's buffer is used again once the next is asked for, so it has to be taken whole first.
    const write = (pixels: Uint8Array) => new Promise<void>((resolve) => child.stdin.write(pixels, () => resolve()));
    for await (const { index, pixels } of frames()) {
      if (hasEnded()) break;
      await write(pixels);
      const stays = Math.round((more[index] as number) * framesPerSecond(plan.rate));
      for (let i = 0; i < stays && !hasEnded() && !signal.aborted; i++) await write(pixels);
      done();
    }
    child.stdin.end();
    await taken;
    const code = await exit;
    if (code !== 0) throw new Error(`the video encoder failed: ${log.trim() || `exit ${code}`}`);
  } finally {
    if (!hasEnded()) {
      child.kill('SIGKILL');
      await once(child, 'close').catch(() => undefined);
    }
  }
  if (signal.aborted) throw new Cancelled();
};
