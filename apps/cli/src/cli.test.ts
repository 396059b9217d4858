import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readArchive } from '@kite/core/interchange/archive';
import { demoProject } from '@kite/demo/project';
import { appRoot } from '@kite/render/root';
import { beforeAll, describe, expect, it } from 'vitest';

const folder = mkdtempSync(join(tmpdir(), 'kite-cli-'));
const demo = join(folder, 'demo.kite');
const kite = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(appRoot(), 'dist/kite.mjs'), ...args], {
    encoding: 'utf8',
  });
  return { status, text: stdout + stderr };
};

beforeAll(() => {
  expect(kite('demo', '--out', demo)).toEqual({ status: 0, text: '' });
});

describe('kite', () => {
  it('demo writes the demo project as an archive', () => {
    expect(readArchive(readFileSync(demo)).project).toEqual(demoProject());
  });
  it('check lists scenes and finds nothing to look at', () => {
    const { status, text } = kite('check', demo);
    expect(status).toBe(0);
    expect(text).toContain('Mark reveal: 1920 × 1080, 30 fps, 120 frames, 16 layers');
    expect(text).toContain('Nothing to look at.');
  });
  it('check tells what there is, for people and for programs, and ends with 3', () => {
    const slow = kite('check', demo, '--words', '0.5');
    expect(slow.status).toBe(3);
    expect(slow.text).toMatch(
      /“Every 12 minutes till dawn” is seen for [\d.]+ s; reading it takes 10\.0 s\. \(frame \d+\)/,
    );
    const { status, text } = kite('check', demo, '--json', '--words', '0.5');
    expect(status).toBe(3);
    const found = JSON.parse(text) as { check: string; sceneName: string }[];
    expect(found.every(({ check }) => check === 'reading')).toBe(true);
    expect(new Set(found.map(({ sceneName }) => sceneName)).has('Route title')).toBe(true);
  });
  it('deliveries are listed, and rendered by their names into a folder', () => {
    type Listed = { name: string; version: string | null; file: string }[];
    const listed = JSON.parse(kite('deliveries', demo, '--json').text) as Listed;
    expect([...new Set(listed.map(({ name }) => name))]).toEqual(demoProject().deliveries.map(({ name }) => name));
    expect(listed.filter(({ version }) => version !== null).map(({ file }) => file)).toEqual([
      'Late-ticket-Harbour-Steps-300x250.zip',
      'Late-ticket-Quill-Square-300x250.zip',
      'Late-ticket-Observatory-300x250.zip',
    ]);
    const still = listed.find(({ file }) => file.endsWith('.jpg'));
    const { status, text } = kite('render', demo, '--delivery', still?.name ?? '', '--out', join(folder, 'files'));
    expect(status, text).toBe(0);
    expect(still?.file).toBe('Late-ticket-600x500-v1.jpg');
    expect([...readFileSync(join(folder, 'files', still?.file ?? '')).subarray(0, 3)]).toEqual([0xff, 0xd8, 0xff]);
    expect(kite('render', demo, '--delivery', 'Poster', '--out', folder).text).toContain(
      '--delivery: there is no "Poster"; the deliveries are "Banner for the ad server"',
    );
    // A film is a scene like any other.
    const film = kite('deliveries', demo).text;
    expect(film).toContain('Both titles as a film: mp4, Both-titles-as-a-film-960x540-v1.mp4');
  });
  it('a version is rendered by its name, of a scene or of a delivery', () => {
    const frame = (name: string, ...more: readonly string[]) => {
      const out = join(folder, `${name}.png`);
      const { status, text } = kite('frame', demo, '--scene', 'Late ticket', '--frame', '200', '--out', out, ...more);
      expect(status, text).toBe(0);
      return readFileSync(out);
    };
    const usual = frame('usual');
    // Quill Square says nothing of its own.
    expect(frame('square', '--version', 'Quill Square').equals(usual)).toBe(true);
    expect(frame('observatory', '--version', 'Observatory').equals(usual)).toBe(false);
    expect(
      kite('frame', demo, '--scene', 'Late ticket', '--frame', '0', '--out', folder, '--version', 'Mill Lane').text,
    ).toContain('--version: there is no "Mill Lane"; the versions are "Harbour Steps", "Quill Square", "Observatory"');
    const still = [
      '--delivery',
      'Still for the newsletter',
      '--version',
      'Observatory',
      '--out',
      join(folder, 'files'),
    ];
    expect(kite('render', demo, ...still).text).toContain('Late-ticket-600x500-v1-Observatory.jpg: 600 × 500');
  });
  it.each([
    ['mp4', [0, 0, 0, 32, 0x66, 0x74, 0x79, 0x70]],
    ['webm', [0x1a, 0x45, 0xdf, 0xa3]],
    ['gif', [...Buffer.from('GIF89a')]],
    ['html5', [0x50, 0x4b, 3, 4]],
    ['png', [0x89, 0x50, 0x4e, 0x47]],
    ['mov', [0, 0, 0, 20, 0x66, 0x74, 0x79, 0x70]],
    ['apng', [0x89, 0x50, 0x4e, 0x47]],
    ['webp', [...Buffer.from('RIFF')]],
    ['jpeg', [0xff, 0xd8, 0xff]],
    ['frames', [0x50, 0x4b, 3, 4]],
    ['sheet', [0x50, 0x4b, 3, 4]],
  ])('render makes %s', (format, head) => {
    const out = join(folder, `fan.${format}`);
    const { status, text } = kite(
      'render',
      demo,
      '--scene',
      'Lamp fan',
      '--format',
      format,
      '--scale',
      '0.1',
      '--out',
      out,
    );
    expect(status, text).toBe(0);
    expect([...readFileSync(out).subarray(0, head.length)]).toEqual(head);
  });
  it('takes the settings of a format as options, and refuses those of others', () => {
    const render = (...args: string[]) =>
      kite('render', demo, '--scene', 'Lamp fan', '--scale', '0.1', '--out', join(folder, 'set'), ...args);
    expect(render('--format', 'gif', '--loop', '3', '--palette', 'local').status).toBe(0);
    // The count of the block that browsers repeat a GIF by: two more times after the first.
    const gif = readFileSync(join(folder, 'set'));
    const at = gif.indexOf('NETSCAPE2.0') + 11;
    expect([...gif.subarray(at, at + 4)]).toEqual([3, 1, 2, 0]);
    // A part of the scene, by its first and last frame.
    const some = render('--format', 'webp', '--first', '4', '--last', '6', '--lossless', 'yes');
    expect([some.status, some.text]).toEqual([0, expect.stringContaining('3 frames')]);
    const one = render('--format', 'webp', '--frame', '30');
    expect([one.status, one.text]).toEqual([0, expect.stringContaining(', 1 frame,')]);
    expect(render('--format', 'webp', '--lossless', 'maybe').text).toContain(
      '--lossless: got "maybe", wanted yes or no',
    );
    expect(render('--format', 'mp4', '--loop', '3').text).toContain('--loop: MP4 video has no such setting');
    expect(render('--format', 'mp4', '--quality', 'great').text).toContain(
      'quality: got the text "great", wanted one of',
    );
  });
  it('tells how it is used, and its version', () => {
    const { version } = JSON.parse(readFileSync(join(appRoot(), 'package.json'), 'utf8')) as { version: string };
    expect(kite('--version')).toEqual({ status: 0, text: `${version}\n` });
    for (const args of [['--help'], ['render', '--help']]) {
      const { status, text } = kite(...args);
      expect(status).toBe(0);
      expect(text).toContain('kite render FILE.kite');
    }
  });
  it('frame draws one frame', () => {
    const out = join(folder, 'f.png');
    expect(
      kite('frame', demo, '--scene', 'Mark reveal', '--frame', '40', '--scale', '0.1', '--out', out).text,
    ).toContain('192 × 108');
  });
  it.each([
    [
      ['render', demo, '--scene', 'Nowhere', '--format', 'png', '--out', 'x'],
      'there is no "Nowhere"; the scenes are "Mark reveal", "Route title", "Next stop strip", "Lamp fan", "Riders by hour"',
    ],
    [
      ['render', demo, '--scene', 'Lamp fan', '--format', 'avi', '--out', 'x'],
      '--format: got "avi", wanted mp4, webm, mov, html5, gif, apng, webp, frames, png, jpeg, svg, animated-svg, sheet',
    ],
    [
      ['frame', demo, '--scene', 'Lamp fan', '--frame', '900', '--out', join(folder, 'no.png')],
      'frame: got 900, the last is 89',
    ],
    [['frame', demo, '--scene', 'Lamp fan', '--frame', 'last', '--out', 'x'], '--frame: got "last", wanted a number'],
    [['check', join(folder, 'missing.kite')], 'cannot be read'],
    [['check', demo, '--loud'], "Unknown option '--loud'"],
    [['dance'], 'there is no command "dance"'],
  ])('%j is refused in words', (args, message) => {
    const { status, text } = kite(...args);
    expect(status).toBe(2);
    expect(text).toContain(message);
    expect(text).not.toMatch(/\n\s+at /);
    expect(existsSync(join(folder, 'no.png'))).toBe(false);
  });
});
