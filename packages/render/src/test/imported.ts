/** SVGs as the import makes layers of them, drawn on the server's canvas for tests. */
import { createHash } from 'node:crypto';
import { countingIds, newProject, newScene } from '@kite/core/document/make';
import { together } from '@kite/core/document/patches';
import type { PictureAsset } from '@kite/core/document/types';
import { applyEdit } from '@kite/core/edits/apply';
import { addAsset } from '@kite/core/edits/assets';
import { addLayers } from '@kite/core/edits/layers';
import { filesIn, layersOfSvg, partsOf } from '@kite/core/interchange/svg/layers';
import { readSvg } from '@kite/core/interchange/svg/read';
import { loadImage } from '@napi-rs/canvas';
import { frameDrawer } from '../frames';
import { materialsFor } from '../materials';

export interface Imported {
  /** On white, red, green, blue and alpha of each pixel. */
  readonly pixels: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
  readonly notes: readonly string[];
}

/** The file at a data address, as an asset of a project, and what is in it. */
const assetAt = async (address: string, order: number): Promise<{ asset: PictureAsset; bytes: Buffer }> => {
  const bytes = Buffer.from(address.split(',')[1] as string, 'base64');
  const sha = createHash('sha256').update(bytes).digest('hex');
  const { width, height } = await loadImage(bytes);
  const type = 'image/png' as const;
  const asset = {
    id: `file${order}`,
    sha,
    kind: 'picture',
    type,
    name: 'Picture',
    bytes: bytes.length,
    width,
    height,
  } as const;
  return { asset, bytes };
};

/** A layer for each part of an SVG, in a scene of its shape whose longer side has so many pixels. */
export const imported = async (source: string, side: number): Promise<Imported> => {
  const drawing = readSvg(source);
  const scale = side / Math.max(drawing.width, drawing.height);
  const [width, height] = [Math.round(drawing.width * scale), Math.round(drawing.height * scale)];
  const size = { width, height, rate: { num: 25, den: 1 }, length: 1, background: '#FFFFFF' };
  const scene = newScene('s', 'Drawing', size);
  const files = await Promise.all(
    filesIn(drawing.nodes).map(async (address, i) => ({ address, ...(await assetAt(address, i)) })),
  );
  const placing = { scale, at: [width / 2, height / 2], layers: 'one-each' } as const;
  const assets = new Map(files.map(({ address, asset }) => [address, asset]));
  const parts = partsOf(drawing.nodes);
  const { layers, notes } = layersOfSvg(drawing, parts, scene, 'Drawing', placing, countingIds('x'), assets);
  const edits = [...files.map(({ asset }) => addAsset(asset)), addLayers('s', layers)];
  const { doc } = applyEdit(newProject('p', 'Project', [scene]), together('Import', edits));
  const contents = Object.fromEntries(files.map(({ asset, bytes }) => [asset.sha, bytes]));
  const made = doc.scenes.s as typeof scene;
  const materials = await materialsFor(made, { assets: doc.assets, files: contents });
  const drawer = frameDrawer(made, materials, { width, height, drawn: { width, height }, under: null });
  drawer.draw(0);
  return { pixels: drawer.pixels(), width, height, notes };
};
