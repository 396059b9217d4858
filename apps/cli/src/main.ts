/** `kite`: the engine without a server. */
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { Invalid } from '@kite/core/check/problem';
import { checkSettings } from '@kite/core/check/settings';
import { type Format, formatOf, FORMATS, isFormat } from '@kite/core/delivery/formats/table';
import { defaultSettings, isStill } from '@kite/core/delivery/settings';
import { wholeScene } from '@kite/core/scene/whole';
import type { Project, Scene } from '@kite/core/document/types';
import { type Archive, readArchive, writeArchive } from '@kite/core/interchange/archive';
import { compileScene } from '@kite/core/scene/compile';
import { rateLabel } from '@kite/core/time/rate';
import { demoProject } from '@kite/demo/project';
import { Cancelled, RenderFailure } from '@kite/render/failure';
import { EMPTY_STOCK, materialsFor, stockFor } from '@kite/render/materials';
import { renderApart } from '@kite/render/process/renderApart';
import { appRoot } from '@kite/render/root';

/** The settings of all formats, each key once. */
const SETTINGS = [...new Map(FORMATS.flatMap(({ params }) => Object.entries(params)))];

const USAGE = `kite: the engine of Agile Kite without its server

  kite render FILE.kite --scene NAME --format ${FORMATS.map((kind) => kind.format).join('|')} --out PATH [--frame N] [--first N] [--last N] [--scale S]
      and what the format has: ${SETTINGS.map(([key]) => `[--${key} …]`).join(' ')}
  kite frame FILE.kite --scene NAME --frame N --out PATH.png
  kite check FILE.kite
  kite demo --out FILE.kite
  kite --help | --version
`;

/** 128 and the number of SIGINT, as shells have it. */
const INTERRUPTED = 130;

/** A call that cannot be carried out as it was given. */
class Usage extends Error {}

const OPTIONS = {
  scene: { type: 'string' },
  format: { type: 'string' },
  out: { type: 'string' },
  frame: { type: 'string' },
  first: { type: 'string' },
  last: { type: 'string' },
  scale: { type: 'string' },
} as const;
/** Every option there is, those of the formats by the keys of their settings. */
const ALL_OPTIONS: { readonly [name: string]: { readonly type: 'string' } } = {
  ...OPTIONS,
  ...Object.fromEntries(SETTINGS.map(([key]) => [key, { type: 'string' as const }])),
};

type Options = { [K in keyof typeof OPTIONS]?: string } & { [name: string]: string | undefined };

const needed = (options: Options, name: keyof Options): string => {
  const value = options[name];
  if (!value) throw new Usage(`--${name} is missing`);
  return value;
};

const numberOf = (options: Options, name: string): number | undefined => {
  const text = options[name];
  if (text === undefined) return undefined;
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value)) throw new Usage(`--${name}: got "${text}", wanted a number`);
  return value;
};

const switchOf = (options: Options, name: string): boolean => {
  const text = options[name];
  if (text !== 'yes' && text !== 'no') throw new Usage(`--${name}: got "${text}", wanted yes or no`);
  return text === 'yes';
};

const openProject = async (file: string | undefined): Promise<Archive> => {
  if (!file) throw new Usage('which file? Give the path of a .kite archive');
  let bytes: Uint8Array;
  try {
    bytes = await readFile(file);
  } catch {
    throw new Usage(`${file}: cannot be read`);
  }
  return readArchive(bytes);
};

const sceneNamed = (project: Project, name: string): Scene => {
  const scenes = Object.values(project.scenes);
  const scene = scenes.find((s) => s.name === name) ?? scenes.find((s) => s.id === name);
  if (!scene)
    throw new Usage(`--scene: there is no "${name}"; the scenes are ${scenes.map((s) => `"${s.name}"`).join(', ')}`);
  return wholeScene(scene, project);
};

/** The archive's files, where a render can read them. */
const laidOut = async ({ files }: Archive, folder: string): Promise<(sha: string) => string> => {
  for (const [sha, bytes] of files) await writeFile(join(folder, sha), bytes);
  return (sha) => join(folder, sha);
};

/** The settings that belong to a format alone, as far as they are given. */
const settingsIn = (options: Options, format: Format): { readonly [key: string]: unknown } => {
  const { label, params } = formatOf(format);
  const given = SETTINGS.map(([key]) => key).filter((key) => options[key] !== undefined);
  return Object.fromEntries(
    given.map((key) => {
      const param = params[key];
      if (!param) throw new Usage(`--${key}: ${label} has no such setting`);
      if (param.kind === 'switch') return [key, switchOf(options, key)];
      return [key, param.kind === 'number' ? numberOf(options, key) : options[key]];
    }),
  );
};

const render = async (archive: Archive, options: Options, format: string): Promise<void> => {
  if (!isFormat(format))
    throw new Usage(`--format: got "${format}", wanted ${FORMATS.map((kind) => kind.format).join(', ')}`);
  const { project } = archive;
  const scene = sceneNamed(project, needed(options, 'scene'));
  const out = needed(options, 'out');
  const frame = numberOf(options, 'frame');
  const scale = numberOf(options, 'scale');
  const [first, last] = [numberOf(options, 'first'), numberOf(options, 'last')];
  const defaults = defaultSettings(format, scene);
  const settings = checkSettings({
    ...defaults,
    ...(scale !== undefined && { scale }),
    ...(frame !== undefined && isStill(defaults) && { frame }),
    ...(first !== undefined && !isStill(defaults) && { from: first }),
    ...(last !== undefined && !isStill(defaults) && { to: last + 1 }),
    ...(frame !== undefined && defaults.format === 'html5' && { fallback: frame }),
    ...settingsIn(options, format),
  });
  const stop = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stop.abort());
  const folder = await mkdtemp(join(tmpdir(), 'kite-'));
  const stock = stockFor(scene, project.assets, await laidOut(archive, folder));
  // In a process of its own, so that this one hears Ctrl-C whatever that one does.
  const result = await renderApart(
    { name: scene.name, scene: JSON.stringify(scene), stock, settings, out },
    {
      signal: stop.signal,
      onProgress: ({ done, total }) => {
        if (process.stderr.isTTY) process.stderr.write(`\r${done} of ${total} frames`);
      },
    },
  ).finally(() => rm(folder, { recursive: true, force: true }));
  if (process.stderr.isTTY) process.stderr.write('\n');
  for (const note of result.notes) console.error(note);
  console.log(`${out}: ${result.width} × ${result.height}, ${result.frames} frames, ${result.bytes} bytes`);
};

const check = async ({ project }: Archive): Promise<void> => {
  let problems = 0;
  for (const id of project.order) {
    const scene = wholeScene(project.scenes[id] as Scene, project);
    console.log(
      `${scene.name}: ${scene.width} × ${scene.height}, ${rateLabel(scene.rate)} fps, ${scene.length} frames, ${scene.order.length} layers`,
    );
    const { library } = await materialsFor(scene, { ...EMPTY_STOCK, assets: project.assets });
    const program = compileScene(scene, library);
    const seen = new Set<string>();
    for (let frame = 0; frame < scene.length; frame += Math.max(1, Math.floor(scene.length / 50))) {
      for (const p of program.at(frame).problems) seen.add(`  ${scene.layers[p.layer]?.name ?? p.layer} ${p.message}`);
    }
    for (const text of seen) console.log(text);
    problems += seen.size;
  }
  console.log(problems === 0 ? 'No problems found.' : `${problems} problem${problems === 1 ? '' : 's'} found.`);
};

const version = async (): Promise<string> => {
  const manifest = await readFile(join(appRoot(), 'package.json'), 'utf8');
  return (JSON.parse(manifest) as { version: string }).version;
};

const run = async (args: readonly string[]): Promise<void> => {
  const [command, ...rest] = args;
  if (args.includes('--help')) {
    console.log(USAGE);
    return;
  }
  if (command === '--version') {
    console.log(await version());
    return;
  }
  const { values, positionals } = parseArgs({ args: rest, options: ALL_OPTIONS, allowPositionals: true });
  const options: Options = values;
  switch (command) {
    case 'render':
      return render(await openProject(positionals[0]), options, needed(options, 'format'));
    case 'frame':
      needed(options, 'frame');
      return render(await openProject(positionals[0]), options, 'png');
    case 'check':
      return check(await openProject(positionals[0]));
    case 'demo':
      return writeFile(needed(options, 'out'), writeArchive(demoProject(), new Map()));
    default:
      throw new Usage(command ? `there is no command "${command}"\n\n${USAGE}` : USAGE);
  }
};

try {
  await run(process.argv.slice(2));
} catch (error) {
  const known =
    error instanceof Usage || error instanceof Invalid || error instanceof RenderFailure || error instanceof Cancelled;
  const refused = error instanceof TypeError && 'code' in error && String(error.code).startsWith('ERR_PARSE_ARGS');
  console.error(
    known || refused ? `kite: ${error.message}` : `kite: ${error instanceof Error ? error.message : String(error)}`,
  );
  process.exitCode = error instanceof Cancelled ? INTERRUPTED : known || refused ? 2 : 1;
}
