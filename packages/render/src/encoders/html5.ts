/** An HTML5 banner: a zip that plays by itself, asks the network for nothing and opens its clickTag. */
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Html5Settings } from '@kite/core/delivery/settings';
import { strToU8, zipSync } from 'fflate';
import { frameDrawer } from '../frames';
import { appRoot } from '../root';
import type { Encoder, EncodeJob } from './types';

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

export const html5: Encoder<Html5Settings> = async (job) => {
  const { scene, settings, plan, out, done } = job;
  const drawer = frameDrawer(scene, { ...plan, under: null });
  drawer.draw(settings.fallback);
  const banner = {
    scene,
    width: plan.width,
    height: plan.height,
    rate: plan.rate,
    from: settings.from,
    to: settings.to,
    loop: settings.loop,
  };
  const files = {
    'index.html': strToU8(page(job)),
    'player.js': new Uint8Array(await readFile(join(appRoot(), 'dist/player.js'))),
    'scene.js': strToU8(`var kiteBanner = ${asScript(banner)};`),
    'fallback.png': new Uint8Array(await drawer.canvas.encode('png')),
  };
  await writeFile(out, zipSync(files, { level: 9, mtime: new Date(1980, 0, 1) }));
  plan.frames.forEach(done);
};
