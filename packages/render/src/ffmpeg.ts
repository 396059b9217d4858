/** Finding an ffmpeg: `KITE_FFMPEG`, then version 5 or later on PATH, then the one that came as a package. */
import { execFileSync } from 'node:child_process';
import { chmodSync } from 'node:fs';
import { createRequire } from 'node:module';

const majorOf = (file: string): number => {
  try {
    const text = execFileSync(file, ['-version'], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] });
    return Number(/ffmpeg version n?(\d+)/.exec(text)?.[1] ?? 0);
  } catch {
    return -1;
  }
};

let found: string | undefined;

export const ffmpegPath = (): string => {
  if (found) return found;
  const own = process.env.KITE_FFMPEG;
  if (own) {
    if (majorOf(own) < 0) throw new Error(`KITE_FFMPEG names ${own}, which does not run`);
    return (found = own);
  }
  if (majorOf('ffmpeg') >= 5) return (found = 'ffmpeg');
  const { path } = createRequire(import.meta.url)('@ffmpeg-installer/ffmpeg') as { path: string };
  // Install scripts may be switched off; the package's own would only set this bit.
  chmodSync(path, 0o755);
  return (found = path);
};
