/** An HTML5 banner: a zip that plays by itself, asks the network for nothing and opens its clickTag. */
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { setImmediate as turn } from 'node:timers/promises';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import type { RenderPlan } from '@kite/core/delivery/types';
import type { Scene } from '@kite/core/document/types';
import { pictureKey } from '@kite/core/picture/key';
import { eachMark } from '@kite/core/recipe/marks';
import type { PictureMark } from '@kite/core/recipe/types';
import { compileScene, type Library } from '@kite/core/scene/compile';
import { type RecordedFonts, recording } from '@kite/core/type/recorded';
import type { Canvas } from '@napi-rs/canvas';
import { strToU8, zipSync } from 'fflate';
import { Cancelled } from '../failure';
import { frameDrawer } from '../frames';
import { type Materials, materialsFor, type Stock } from '../materials';
import { appRoot } from '../root';
import type { Encoder, EncodeJob } from './types';

type Html5Settings = FormatSettings<'html5'>;

const escaped = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** JSON that may stand in a script: nothing in it can end the script. */
const asScript = (value: unknown): string =>
  JSON.stringify(value).replace(/[<>\u2028\u2029]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`);

const page = ({ scene, settings, plan: { width, height } }: EncodeJob<Html5Settings>): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="ad.size" content="width=${width},height=${height}">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; script-src 'self' 'unsafe-inline' file:; style-src 'unsafe-inline'; img-src 'self' data: file:">
<title>${escaped(scene.name)}</title>
<style>
html,body{margin:0;padding:0;overflow:hidden}
#kite{position:relative;display:block;width:${width}px;height:${height}px;overflow:hidden;cursor:pointer}
#kite img,#kite canvas{position:absolute;inset:0;width:${width}px;height:${height}px;border:0}
</style>
<script>var clickTag = ${asScript(settings.click)};</script>
</head>
<body>
<a id="kite" href="javascript:void(0)" aria-label="${escaped(scene.name)}"><img id="fallback" src="fallback.png" alt="${escaped(scene.name)}"></a>
<script src="scene.js"></script>
<script src="player.js"></script>
</body>
</html>
`;

/** Frames that are looked at in one turn of the event loop. */
const FRAMES_A_TURN = 10;

/** What the scene asks for in the frames of the banner: of its fonts, and the pictures that it shows. */
interface Asked {
  readonly fonts: RecordedFonts;
  /** By what names them: see pictureKey. */
  readonly pictures: ReadonlyMap<string, PictureMark>;
}

/** The frames that are played, which may lie between those of the scene, and those that can be looked at. */
const framesOf = ({ frames }: RenderPlan, { from, to }: Html5Settings): readonly number[] => [
  ...new Set([...frames, ...Array.from({ length: to - from }, (_, i) => from + i)]),
];

/** Looks at each frame; `each` is told the share that is done. */
const asked = async (
  scene: Scene,
  library: Library,
  frames: readonly number[],
  each: (share: number) => void,
): Promise<Asked> => {
  const { fonts, record } = recording(library.fonts);
  const program = compileScene(scene, { ...library, fonts });
  const pictures = new Map<string, PictureMark>();
  for (const [i, frame] of frames.entries()) {
    eachMark(program.at(frame).marks, (mark) => {
      if (mark.op === 'picture') pictures.set(pictureKey(mark.asset, mark.cut), mark);
    });
    each((i + 1) / frames.length);
    if (i % FRAMES_A_TURN === 0) await turn();
  }
  return { fonts: record, pictures };
};

const EXTENSIONS = { 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp', 'image/gif': 'gif' } as const;

/** The files of the pictures that are shown: as they were imported, or as a PNG where something is cut out. */
const pictureFiles = async (shown: Asked['pictures'], stock: Stock, { pictures }: Materials) => {
  const names: { [key: string]: string } = {};
  const files: { [name: string]: Uint8Array } = {};
  for (const [key, { asset, cut }] of shown) {
    const whole = cut ? (pictures.get(asset, cut) as Canvas | null) : null;
    const name = `picture-${Object.keys(names).length + 1}.${whole ? 'png' : EXTENSIONS[asset.type]}`;
    const path = stock.files[asset.sha];
    if (whole) files[name] = new Uint8Array(await whole.encode('png'));
    else if (path !== undefined) files[name] = new Uint8Array(await readFile(path));
    else continue;
    names[key] = name;
  }
  return { names, files };
};

export const html5: Encoder<Html5Settings> = async (job) => {
  const { scene, stock, settings, plan, out, done, signal } = job;
  let told = 0;
  const each = (share: number) => {
    if (signal.aborted) throw new Cancelled();
    for (; told < Math.floor(share * plan.frames.length); told++) done();
  };
  const materials = await materialsFor(scene, stock);
  const drawer = frameDrawer(scene, materials, { ...plan, under: null });
  drawer.draw(settings.fallback);
  const needed = await asked(scene, materials.library, framesOf(plan, settings), each);
  const pictures = await pictureFiles(needed.pictures, stock, materials);
  const banner = {
    scene,
    assets: stock.assets,
    fonts: needed.fonts,
    pictures: pictures.names,
    width: plan.width,
    height: plan.height,
    rate: plan.rate,
    from: settings.from,
    to: settings.to,
    loop: settings.loop,
    stop: settings.stop,
  };
  const files = {
    'index.html': strToU8(page(job)),
    'player.js': new Uint8Array(await readFile(join(appRoot(), 'dist/player.js'))),
    'scene.js': strToU8(`var kiteBanner = ${asScript(banner)};`),
    ...pictures.files,
    'fallback.png': new Uint8Array(await drawer.canvas.encode('png')),
  };
  await writeFile(out, zipSync(files, { level: 9, mtime: new Date(1980, 0, 1) }));
};
