/** An HTML5 banner: a zip that plays by itself, asks the network for nothing and opens its clickTag. */
import { setImmediate as turn } from 'node:timers/promises';
import { areasOf, type ClickArea } from '@kite/core/delivery/areas';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import { leanScene } from '@kite/core/delivery/lean';
import { settled } from '@kite/core/delivery/settled';
import type { RenderPlan } from '@kite/core/delivery/types';
import type { Scene } from '@kite/core/document/types';
import { EPOCH } from '@kite/core/interchange/epoch';
import { pictureKey } from '@kite/core/picture/key';
import { eachMark } from '@kite/core/recipe/marks';
import { compileScene } from '@kite/core/scene/compile';
import type { Library } from '@kite/core/scene/program';
import { assetsWithin } from '@kite/core/scene/whole';
import { type RecordedFonts, recording, runsLeftward } from '@kite/core/type/recorded';
import type { Uses } from '@kite/player/parts';
import { seeing, usesOf } from '@kite/player/uses';
import { strToU8 } from 'fflate';
import { Cancelled } from '../failure';
import { frameDrawer } from '../frames';
import { materialsFor } from '../materials';
import { fallbackPicture, type ShownPicture, pictureFiles } from './bannerPictures';
import { playerFor } from './player';
import type { Encoder, EncodeJob } from './types';
import { writeZip, type ZipFile } from './zip';

type Html5Settings = FormatSettings<'html5'>;

const escaped = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** JSON that may stand in a script: nothing in it can end the script. */
const asScript = (value: unknown): string =>
  JSON.stringify(value).replace(/[<>\u2028\u2029]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`);

/** What ad servers set: where a click leads, as a whole and for each area. */
const tags = ({ click }: Html5Settings, areas: readonly ClickArea[]): string =>
  [
    `var clickTag = ${asScript(click)};`,
    ...areas.map(({ address }, i) => `var clickTag${i + 1} = ${asScript(address)};`),
  ].join(' ');

const page = (
  { scene, settings, plan: { width, height } }: EncodeJob<Html5Settings>,
  areas: readonly ClickArea[],
  fallback: string,
): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="ad.size" content="width=${width},height=${height}">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; script-src 'self' 'unsafe-inline' 'wasm-unsafe-eval' file:; style-src 'unsafe-inline'; img-src 'self' data: file:">
<title>${escaped(scene.name)}</title>
<style>
html,body{margin:0;padding:0;overflow:hidden}
#kite{position:relative;width:${width}px;height:${height}px;overflow:hidden}
#kite a{position:absolute;cursor:pointer}
#click,#kite img,#kite canvas{position:absolute;inset:0;width:${width}px;height:${height}px;border:0}
#kite button{position:absolute;right:4px;width:22px;height:22px;padding:0;border:0;border-radius:11px;background:rgba(16,19,46,.6);color:#fff;font:15px/22px sans-serif;cursor:pointer}
</style>
<script>${tags(settings, areas)}</script>
</head>
<body>
<div id="kite"><a id="click" href="javascript:void(0)" aria-label="${escaped(scene.name)}"><img id="fallback" src="${fallback}" alt="${escaped(scene.name)}"></a></div>
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
  readonly pictures: ReadonlyMap<string, ShownPicture>;
  readonly marks: Uses['marks'];
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
  const pictures = new Map<string, ShownPicture>();
  const { marks, see } = seeing();
  for (const [i, frame] of frames.entries()) {
    const shown = program.at(frame);
    see(shown);
    eachMark(shown.marks, (mark) => {
      if (mark.op !== 'picture') return;
      const key = pictureKey(mark.asset, mark.cut);
      const [a, b, c, d] = mark.matrix;
      const scale = Math.max(Math.hypot(a, b), Math.hypot(c, d), pictures.get(key)?.scale ?? 0);
      pictures.set(key, { mark, scale });
    });
    each((i + 1) / frames.length);
    if (i % FRAMES_A_TURN === 0) await turn();
  }
  return { fonts: record, pictures, marks: { ...marks, leftward: runsLeftward(record) } };
};

/** The parts of a banner by the names of their files. */
const PARTS: { readonly [part: string]: (name: string) => boolean } = {
  Player: (name) => name === 'player.js',
  Scene: (name) => name === 'scene.js' || name === 'index.html',
  Pictures: (name) => name.startsWith('picture-'),
  'Fallback picture': (name) => name.startsWith('fallback'),
};

/** What each part adds to the zip, in bytes. */
const tellWeight = (sizes: ReadonlyMap<string, number>, tell: EncodeJob['part']): void => {
  for (const [part, isOf] of Object.entries(PARTS)) {
    const own = [...sizes].filter(([name]) => isOf(name));
    if (own.length > 0)
      tell(
        part,
        own.reduce((sum, [, size]) => sum + size, 0),
      );
  }
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
  const pictures = await pictureFiles(needed.pictures, job, materials);
  const lean = leanScene(settled(scene, materials.library.fonts));
  const fallback = await fallbackPicture(scene, drawer.canvas);
  const { areas, missing } = areasOf(settings.areas, scene);
  for (const name of missing) job.note(`There is no layer “${name}”: its click area is left out.`);
  const banner = {
    scene: lean,
    assets: assetsWithin(lean, stock.assets),
    fonts: needed.fonts,
    pictures: pictures.names,
    width: plan.width,
    height: plan.height,
    rate: plan.rate,
    from: settings.from,
    to: settings.to,
    loop: settings.loop,
    stop: settings.stop,
    areas: areas.map(({ layer, name }) => ({ layer, name })),
    replay: settings.replay,
    close: settings.close,
  };
  const files = {
    'index.html': strToU8(page(job, areas, fallback.name)),
    'player.js': await playerFor(usesOf(lean, needed.marks, areas.length > 0)),
    'scene.js': strToU8(`var kiteBanner = ${asScript(banner)};`),
    ...pictures.files,
    [fallback.name]: fallback.bytes,
  };
  const sizes = new Map<string, number>();
  const fill = async (zip: ZipFile) => {
    for (const [name, bytes] of Object.entries(files)) sizes.set(name, await zip.pack(name, bytes));
  };
  await writeZip(out, fill, EPOCH);
  tellWeight(sizes, job.part);
};
