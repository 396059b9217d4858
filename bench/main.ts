/**
 * npm run bench [-- --json FILE]: evaluation, drawing, encoding and whole renders of the demo scenes, a
 * drag in a scene of 200 layers, and preview in a headless browser. docs/performance.md says how to read it.
 */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism, cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import type { FormatSettings } from '@kite/core/delivery/formats/table';
import { defaultSettings } from '@kite/core/delivery/settings';
import { newProject } from '@kite/core/document/make';
import type { Scene } from '@kite/core/document/types';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { demoProject } from '@kite/demo/project';
import { frameDrawer } from '@kite/render/frames';
import { EMPTY_STOCK, materialsFor, NO_MATERIALS } from '@kite/render/materials';
import { renderScene } from '@kite/render/render';
import { measureBanners } from './banners';
import { measureDepth } from './depth';
import { measureEffects } from './effects';
import { encodeOnly } from './encode';
import { measureFormulas } from './formulas';
import { measureLetters } from './letters';
import { measureGif } from './gif';
import { measureRenders, measureResident } from './renders';
import { measureServer } from './server';
import { dragging, nudging, opening, playing, pressing, previewRates, ribbons500, scrubbing } from './browser';
import { crowd } from './crowd';
import { median } from './median';

const round = (v: number, digits = 2): number => Number(v.toFixed(digits));

/** Processor seconds of this process and its ended children would hide the encoder; it is measured by itself. */
const cpuSeconds = (): number => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1e6;
};

/** The demo scenes at 1920 × 1080: square ones stand in the middle. */
const fullHd = (scene: Scene): Scene => ({ ...scene, width: 1920, height: 1080 });

interface SceneFigures {
  evaluateMs: number;
  drawMs: number;
  encodeMs: number;
  evaluateToDraw: number;
  renderSeconds: number;
  boundSeconds: number;
  renderToBound: number;
}

const measureScene = async (scene: Scene, folder: string): Promise<SceneFigures> => {
  const frames = Array.from({ length: scene.length }, (_, i) => i);
  const materials = await materialsFor(scene, EMPTY_STOCK);
  const program = compileScene(scene, materials.library);
  frames.forEach((f) => program.at(f));
  const evaluate: number[] = [];
  for (let round = 0; round < 5; round++) {
    const start = performance.now();
    frames.forEach((f) => program.at(f));
    evaluate.push((performance.now() - start) / frames.length);
  }

  const drawer = frameDrawer(scene, materials, {
    width: scene.width,
    height: scene.height,
    drawn: scene,
    under: null,
  });
  drawer.draw(0);
  drawer.pixels();
  const drawStart = cpuSeconds();
  const drawWall = performance.now();
  for (const f of frames) {
    drawer.draw(f);
    drawer.pixels();
  }
  const drawCpu = cpuSeconds() - drawStart;
  const drawMs = (performance.now() - drawWall) / frames.length;

  const settings = defaultSettings('mp4', scene) as FormatSettings<'mp4'>;
  const encoded = await encodeOnly(scene, settings, join(folder, 'encode.mp4'));

  const walls: number[] = [];
  for (let round = 0; round < 3; round++) {
    const start = performance.now();
    await renderScene({ scene, stock: EMPTY_STOCK, settings, out: join(folder, 'render.mp4') });
    walls.push((performance.now() - start) / 1000);
  }
  const boundSeconds = (drawCpu + encoded.cpuSeconds) / availableParallelism();
  const renderSeconds = median(walls);
  const evaluateMs = median(evaluate);
  return {
    evaluateMs: round(evaluateMs, 3),
    drawMs: round(drawMs),
    encodeMs: round((encoded.cpuSeconds * 1000) / frames.length),
    evaluateToDraw: round(evaluateMs / drawMs, 3),
    renderSeconds: round(renderSeconds),
    boundSeconds: round(boundSeconds),
    renderToBound: round(renderSeconds / boundSeconds),
  };
};

/** How much more memory 2,000 frames hold at their end than after the first 500, in MiB. */
const measureMemory = async (scene: Scene): Promise<number> => {
  const drawer = frameDrawer(scene, NO_MATERIALS, {
    width: 960,
    height: 540,
    drawn: { width: 960, height: 540 },
    under: null,
  });
  const resident: number[] = [];
  for (let i = 0; i < 2_000; i++) {
    drawer.draw(i % scene.length);
    drawer.pixels();
    if (i % 4 === 0) await new Promise((next) => setImmediate(next));
    if (i % 100 === 99) resident.push(process.memoryUsage.rss() / 2 ** 20);
  }
  return round(median(resident.slice(-5)) - median(resident.slice(4, 9)), 1);
};

/** What each frame of a scrub costs to evaluate, in ms: the median of five passes over all frames. */
const measureScrub = (scene: Scene): number => {
  const program = compileScene(scene, NO_LIBRARY);
  const passes = Array.from({ length: 5 }, () => {
    const start = performance.now();
    for (let frame = 0; frame < scene.length; frame++) program.at(frame);
    return (performance.now() - start) / scene.length;
  });
  return round(median(passes));
};

const run = async (): Promise<void> => {
  const { values } = parseArgs({ options: { json: { type: 'string' } } });
  const folder = mkdtempSync(join(tmpdir(), 'kite-bench-'));
  const demo = demoProject();
  const scenes = demo.order.map((id) => demo.scenes[id] as Scene);
  const machine = `${availableParallelism()} × ${cpus()[0]?.model ?? 'unknown processor'}, Node ${process.version}`;
  console.log(machine);
  // First: what reads pixels back waits for the collector, which has as much to do as there is in memory, and a thread that
  // draws has little.
  const effects = await measureEffects();
  console.log(effects.effects);
  const depth = await measureDepth();
  console.log(depth);
  const perScene: Record<string, SceneFigures> = {};
  for (const scene of scenes) {
    perScene[scene.name] = await measureScene(fullHd(scene), folder);
    console.log(scene.name, perScene[scene.name]);
  }
  const renders = await measureRenders({ ...fullHd(scenes[0] as Scene), length: 60, poster: 30 }, folder);
  console.log(renders);
  const resident = await measureResident(fullHd(scenes[0] as Scene), folder);
  console.log(resident);
  // Flat artwork of 1080 × 1080.
  const gif = await measureGif(scenes.find(({ name }) => name === 'Lamp fan') as Scene, folder);
  console.log(gif);
  const memoryGrowthMiB = await measureMemory(scenes[0] as Scene);
  console.log({ memoryGrowthMiB });
  const server = await measureServer();
  console.log(server);
  const banners = await measureBanners(folder);
  console.log(banners);
  const previewFps = await previewRates(demo);
  console.log({ previewFps });
  const large = newProject('large', 'Large', [crowd({ layers: 2_000, keys: 10 })]);
  const half = newProject('half', 'Half', [crowd({ layers: 500 })]);
  const tracked = newProject('tracked', 'Tracked', [crowd({ layers: 1, keys: 1_500, length: 3_000 })]);
  const quick = {
    dragMs200: await dragging(crowd({ layers: 200 })),
    dragMs500: await dragging(crowd({ layers: 500 })),
    dragMs40Soft: await dragging(crowd({ layers: 200, soft: 40 })),
    playFps500: await playing(crowd({ layers: 500 })),
    playFps50Soft: await playing(crowd({ layers: 50, soft: 50 })),
    seekMs200: await scrubbing(crowd({ layers: 200 })),
    openDemoMs: await opening(demo),
    openMs2000: await opening(large),
    nudgeMs2000: await nudging(large),
    allMs2000: await pressing(large, ['Control+a', 'ArrowRight', 'Control+z']),
    allMs500: await pressing(half, ['Control+a', 'Control+d', 'Control+z']),
    curvesMs1500: (await pressing(tracked, ['c'])).c,
  };
  console.log(quick);
  const scrub = measureScrub(crowd({ layers: 200 }));
  const ribbons = await ribbons500(crowd({ layers: 500 }));
  console.log({ scrubMs200: scrub, ribbonsMs500: ribbons });
  const formulas = measureFormulas();
  console.log(formulas);
  const letters = await measureLetters();
  console.log(letters);
  rmSync(folder, { recursive: true, force: true });
  if (values.json) {
    const pick = (key: keyof SceneFigures) =>
      Object.fromEntries(Object.entries(perScene).map(([name, f]) => [name, f[key]]));
    const figures = {
      machine,
      evaluateToDraw: pick('evaluateToDraw'),
      renderToBound: pick('renderToBound'),
      ...quick,
      scrubMs200: scrub,
      ribbonsMs500: ribbons,
      ...formulas,
      ...letters,
      ...effects,
      ...depth,
      ...gif,
      ...renders,
      ...resident,
      ...server,
      ...banners,
      previewFps,
      memoryGrowthMiB,
      scenes: perScene,
    };
    writeFileSync(values.json, `${JSON.stringify(figures, null, 2)}\n`);
  }
  process.exit(0);
};

run().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
