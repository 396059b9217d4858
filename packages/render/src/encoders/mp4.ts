/** H.264 in MP4: 8-bit 4:2:0, BT.709, limited range, tagged as such, so that players show the colours that were drawn. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import type { Mp4Settings } from '@kite/core/delivery/settings';
import { Cancelled } from '../failure';
import { ffmpegPath } from '../ffmpeg';
import type { Encoder } from './types';

/** Constant rate factors of x264. */
const CRF = { draft: 28, good: 18, best: 12 } as const;

export const mp4: Encoder<Mp4Settings> = async ({ settings, plan, out, signal, frames, done }) => {
  const filter =
    'scale=in_range=full:out_range=tv:out_color_matrix=bt709:flags=lanczos+accurate_rnd+full_chroma_int,format=yuv420p';
  const args = [
    ...['-hide_banner', '-loglevel', 'error', '-y'],
    ...['-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${plan.width}x${plan.height}`],
    ...['-r', `${plan.rate.num}/${plan.rate.den}`, '-i', 'pipe:0'],
    ...[
      '-vf',
      filter,
      '-colorspace',
      'bt709',
      '-color_primaries',
      'bt709',
      '-color_trc',
      'bt709',
      '-color_range',
      'tv',
    ],
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', String(CRF[settings.quality])],
    ...['-movflags', '+faststart', '-f', 'mp4', out],
  ];
  const child = spawn(ffmpegPath(), args, { stdio: ['pipe', 'ignore', 'pipe'] });
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
  try {
    for await (const frame of frames()) {
      if (child.exitCode !== null) break;
      // The frame's buffer is used again once the next is asked for, so it has to be taken whole first.
      await new Promise<void>((resolve) => child.stdin.write(frame.pixels, () => resolve()));
      done();
    }
    child.stdin.end();
    const code = await exit;
    if (code !== 0) throw new Error(`the video encoder failed: ${log.trim() || `exit ${code}`}`);
  } finally {
    if (child.exitCode === null && child.signalCode === null) {
      child.kill('SIGKILL');
      await once(child, 'close').catch(() => undefined);
    }
  }
  if (signal.aborted) throw new Cancelled();
};
