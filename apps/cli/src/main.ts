/** `kite`: the engine without a server. */
import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { Invalid } from '@kite/core/check/problem';
import { checkSettings } from '@kite/core/check/settings';
import { sceneOfDelivery } from '@kite/core/delivery/film';
import { type Format, formatOf, FORMATS, isFormat, type RenderSettings } from '@kite/core/delivery/formats/table';
import { settingsOf } from '@kite/core/delivery/kept';
import { eachOnce, fileNameOf, nameFacts } from '@kite/core/delivery/naming';
import { defaultSettings, isStill, planRender } from '@kite/core/delivery/settings';
import { asVersion, type Shown, shownIn } from '@kite/core/edits/versions';
import { wholeScene } from '@kite/core/scene/whole';
import type { Assets, Delivery, Project, Scene } from '@kite/core/document/types';
import { type Archive, readArchive, writeArchive } from '@kite/core/interchange/archive';
import { DEFAULT_RULES, type Finding } from '@kite/core/proof/types';
import { rateLabel } from '@kite/core/time/rate';
import { demoProject } from '@kite/demo/project';
import { Cancelled, RenderFailure } from '@kite/render/failure';
import { stockFor } from '@kite/render/materials';
import { renderApart } from '@kite/render/process/renderApart';
import { proofOfScene } from '@kite/render/proof';
import { appRoot } from '@kite/render/root';

/** The settings of all formats, each key once. */
const SETTINGS = [...new Map(FORMATS.flatMap(({ params }) => Object.entries(params)))];

const USAGE = `kite: the engine of Agile Kite without its server

  kite render FILE.kite --scene NAME --format ${FORMATS.map((kind) => kind.format).join('|')} --out PATH [--frame N] [--first N] [--last N] [--scale S]
      and what the format has: ${SETTINGS.map(([key]) => `[--${key} …]`).join(' ')}
  kite render FILE.kite --delivery NAME|all --out FOLDER
      what the project keeps as a delivery, under its own file name
  kite render … --version NAME
      as that version of the project has it
  kite deliveries FILE.kite [--json]
  kite frame FILE.kite --scene NAME --frame N --out PATH.png
  kite check FILE.kite [--json] [--words N a second]
      ends with 0 where there is nothing to look at, with 3 where there is
  kite demo --out FILE.kite
  kite --help | --version
`;

/** 128 and the number of SIGINT, as shells have it. */
const INTERRUPTED = 130;
/** There is something to look at. */
const FOUND = 3;

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
  delivery: { type: 'string' },
  version: { type: 'string' },
  words: { type: 'string' },
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

/** What is to be shown: the project as it is, or the version that is asked for. */
const shownAs = (project: Project, name: string | undefined): Shown => {
  if (name === undefined) return { version: null, project };
  const { rows } = project.versions;
  const version = rows.find((row) => row.name === name) ?? rows.find((row) => row.id === name);
  if (!version) {
    const known = rows.map((row) => `"${row.name}"`).join(', ') || 'none';
    throw new Usage(`--version: there is no "${name}"; the versions are ${known}`);
  }
  return { version, project: asVersion(project, version.id) };
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

/** What is written, and from what. */
interface Order {
  readonly scene: Scene;
  readonly assets: Assets;
  readonly settings: RenderSettings;
  readonly out: string;
}

/** Renders one after another; Ctrl-C ends all of them. */
const write = async (archive: Archive, orders: readonly Order[]): Promise<void> => {
  const stop = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => stop.abort());
  const folder = await mkdtemp(join(tmpdir(), 'kite-'));
  try {
    const pathOf = await laidOut(archive, folder);
    for (const { scene, assets, settings, out } of orders) {
      const stock = stockFor(scene, assets, pathOf);
      // In a process of its own, so that this one hears Ctrl-C whatever that one does.
      const result = await renderApart(
        { name: scene.name, scene: JSON.stringify(scene), stock, settings, out },
        {
          signal: stop.signal,
          onProgress: ({ done, total }) => {
            if (process.stderr.isTTY) process.stderr.write(`\r${done} of ${total} frames`);
          },
        },
      );
      if (process.stderr.isTTY) process.stderr.write('\n');
      for (const note of result.notes) console.error(note);
      console.log(
        `${out}: ${result.width} × ${result.height}, ${result.frames} frame${result.frames === 1 ? '' : 's'}, ${result.bytes} bytes`,
      );
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
};

/** What one frame means to a format: the frame of a still, a banner's fallback, or all there is of what else would move. */
const shownAt = (frame: number, defaults: RenderSettings) => {
  if (isStill(defaults)) return { frame };
  return defaults.format === 'html5' ? { fallback: frame } : { from: frame, to: frame + 1 };
};

const render = async (archive: Archive, options: Options, format: string): Promise<void> => {
  if (!isFormat(format))
    throw new Usage(`--format: got "${format}", wanted ${FORMATS.map((kind) => kind.format).join(', ')}`);
  const { project } = shownAs(archive.project, options.version);
  const scene = sceneNamed(project, needed(options, 'scene'));
  const out = needed(options, 'out');
  const frame = numberOf(options, 'frame');
  const scale = numberOf(options, 'scale');
  const [first, last] = [numberOf(options, 'first'), numberOf(options, 'last')];
  const defaults = defaultSettings(format, scene);
  const settings = checkSettings({
    ...defaults,
    ...(scale !== undefined && { scale }),
    ...(frame !== undefined && shownAt(frame, defaults)),
    ...(first !== undefined && !isStill(defaults) && { from: first }),
    ...(last !== undefined && !isStill(defaults) && { to: last + 1 }),
    ...settingsIn(options, format),
  });
  return write(archive, [{ scene, assets: project.assets, settings, out }]);
};

/** What a delivery shows, with all that it nests and its files, and its settings. */
const shownBy = (delivery: Delivery, project: Project): Omit<Order, 'out'> => {
  const scene = wholeScene(sceneOfDelivery(delivery, project), project);
  return { scene, assets: project.assets, settings: settingsOf(delivery, scene) };
};

/** What a delivery's file is called, as for the first time. */
const nameOf = (delivery: Delivery, { project, version }: Shown): string => {
  const { scene, settings } = shownBy(delivery, project);
  const plan = planRender(scene, settings);
  const facts = nameFacts({ project, scene, delivery, plan, version, take: 1, time: new Date() });
  return `${fileNameOf(delivery.file, facts)}.${formatOf(settings.format).extension}`;
};

const renderDeliveries = async (archive: Archive, name: string, options: Options): Promise<void> => {
  const { project } = archive;
  const { deliveries } = project;
  const asked = name === 'all' ? deliveries : deliveries.filter((d) => d.name === name || d.id === name);
  if (asked.length === 0) {
    const known = deliveries.map((d) => `"${d.name}"`).join(', ') || 'none';
    throw new Usage(`--delivery: there is no "${name}"; the deliveries are ${known}`);
  }
  const folder = needed(options, 'out');
  await mkdir(folder, { recursive: true });
  const files = asked.flatMap((delivery) => {
    const shown = options.version === undefined ? shownIn(delivery, project) : [shownAs(project, options.version)];
    return shown.map((one) => ({ delivery, shown: one }));
  });
  const names = eachOnce(files.map(({ delivery, shown }) => nameOf(delivery, shown)));
  const orders = files.map(({ delivery, shown }, i) => ({
    ...shownBy(delivery, shown.project),
    out: join(folder, names[i] as string),
  }));
  return write(archive, orders);
};

const listDeliveries = ({ project }: Archive, json: boolean): void => {
  const rows = project.deliveries.flatMap((delivery) =>
    shownIn(delivery, project).map((shown) => {
      const { id, name, settings, scenes } = delivery;
      const row = {
        ...{ id, name, format: settings.format, version: shown.version?.name ?? null },
        scenes: scenes.map((scene) => project.scenes[scene]?.name ?? null),
      };
      try {
        return { ...row, file: nameOf(delivery, shown), problem: null };
      } catch (error) {
        return { ...row, file: null, problem: (error as Error).message };
      }
    }),
  );
  if (json) console.log(JSON.stringify(rows, null, 2));
  else {
    for (const { name, version, format, file, problem } of rows) {
      console.log(`${version === null ? name : `${name}, ${version}`}: ${format}, ${problem ?? file}`);
    }
  }
};

/** Says what is to be looked at in every scene; true where there is anything. */
const check = async (archive: Archive, json: boolean, wordsPerSecond: number | undefined): Promise<boolean> => {
  const { project } = archive;
  const rules = { ...DEFAULT_RULES, ...(wordsPerSecond !== undefined && { wordsPerSecond }) };
  const folder = await mkdtemp(join(tmpdir(), 'kite-'));
  const all: Finding[] = [];
  try {
    const pathOf = await laidOut(archive, folder);
    for (const id of project.order) {
      const own = project.scenes[id] as Scene;
      const stock = stockFor(wholeScene(own, project), project.assets, pathOf);
      const found = await proofOfScene(own, project, stock, { rules });
      all.push(...found);
      if (json) continue;
      const size = `${own.width} × ${own.height}, ${rateLabel(own.rate)} fps`;
      console.log(`${own.name}: ${size}, ${own.length} frames, ${own.order.length} layers`);
      for (const { message, frame } of found)
        console.log(`  ${message}${frame === undefined ? '' : ` (frame ${frame})`}`);
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
  if (json) {
    const named = all.map(({ value: _value, ...finding }) => ({
      ...finding,
      sceneName: project.scenes[finding.scene]?.name,
    }));
    console.log(JSON.stringify(named, null, 2));
  } else console.log(all.length === 0 ? 'Nothing to look at.' : `${all.length} to look at.`);
  return all.length > 0;
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
  const { values, positionals } = parseArgs({
    args: rest,
    options: { ...ALL_OPTIONS, json: { type: 'boolean' } },
    allowPositionals: true,
  });
  const { json = false, ...given } = values as { readonly json?: boolean };
  const options: Options = given;
  switch (command) {
    case 'render':
      if (options.delivery) return renderDeliveries(await openProject(positionals[0]), options.delivery, options);
      return render(await openProject(positionals[0]), options, needed(options, 'format'));
    case 'deliveries':
      return listDeliveries(await openProject(positionals[0]), json);
    case 'frame':
      needed(options, 'frame');
      return render(await openProject(positionals[0]), options, 'png');
    case 'check':
      if (await check(await openProject(positionals[0]), json, numberOf(options, 'words'))) process.exitCode = FOUND;
      return;
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
