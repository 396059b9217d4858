/** One engine behind it all: preview, PNG, banner and SVG show the same. */
import { countingIds, newDrawing, newItem, newProject as emptyProject, newScene } from '@kite/core/document/make';
import { applyEdit } from '@kite/core/edits/apply';
import type { Asset, DrawingLayer, Item, Value } from '@kite/core/document/types';
import { addAsset } from '@kite/core/edits/assets';
import { setFormula } from '@kite/core/edits/formulas';
import { addLayers } from '@kite/core/edits/layers';
import { animate } from '@kite/core/edits/properties';
import { writeArchive } from '@kite/core/interchange/archive';
import { createCanvas } from '@napi-rs/canvas';
import type { Server } from './support/server';
import { expect, test } from './support/test';
import { agreeing, distances, share } from './support/outputs';

/** A picture, words, masks and every ink in one scene. */
const wholeScene = async (server: Server): Promise<string> => {
  const canvas = createCanvas(120, 80);
  const context = canvas.getContext('2d');
  context.fillStyle = '#F0F0EC';
  context.fillRect(0, 0, 120, 80);
  context.fillStyle = '#FF5D5D';
  context.fillRect(30, 20, 60, 40);
  const { body: asset } = await server.api<Asset>('POST', '/assets?name=Ticket', canvas.toBuffer('image/png'));
  const size = { width: 300, height: 250, rate: { num: 25, den: 1 }, length: 20, background: '#1B1F4B' };
  const scene = newScene('s', 'Whole', size);
  const id = countingIds('w');
  const card = (kind: string, values: { [key: string]: Value } = {}, children?: readonly Item[]): Item => ({
    ...newItem(id(), kind, values),
    ...(children && { children: children.map((c) => c.id) }),
  });
  const hole = card('star', { outer: 30, inner: 14 });
  const shown = card('ellipse', { width: 90, height: 60 });
  const round = card('ellipse', { width: 40, height: 44 });
  const bar = card('rectangle', { width: 60, height: 14, centre: [8, 6] });
  const dot = card('ellipse', { width: 12, height: 12, centre: [-6, -8] });
  const ring = card('ellipse', { width: 50, height: 50 });
  const rim = card('stroke', { width: 1, color: '#2EC4B6' });
  const stroke = { color: '#2EC4B6', size: 18, thins: 0.5, taper: 0.1, erases: false };
  const inked = (style: string, more: { [key: string]: Value }) => ({
    style,
    from: [-40, 0] as const,
    to: [40, 0] as const,
    ...more,
  });
  const layers = [
    newDrawing(
      scene,
      'words',
      'Words',
      [
        card('text', { text: 'Last tram\n02:40', size: 40 }),
        card('fill', inked('linear', {})),
        card('stroke', { width: 1 }),
      ],
      { position: [150, 60] },
    ),
    newDrawing(
      scene,
      'ticket',
      'Ticket',
      [
        card('picture', {
          asset: asset.id,
          cut: { seeds: [{ x: 1, y: 1, tolerance: 0.1 }], grow: 1, soften: 3, strokes: [] },
        }),
        card('blur', { amount: 3 }),
      ],
      { position: [80, 180] },
    ),
    newDrawing(
      scene,
      'masked',
      'Masked',
      [
        card('rectangle', { width: 120, height: 70 }),
        card('fill', inked('angular', { grain: 0.5 })),
        card('mask', {}, [shown]),
        shown,
        card('mask', { mode: 'hide' }, [hole]),
        hole,
      ],
      { position: [210, 180] },
    ),
    newDrawing(
      scene,
      'soft',
      'Soft',
      [
        card('rectangle', { width: 60, height: 60 }),
        card('fill', { color: '#FFB23E' }),
        card('mask', { feather: 5, grow: 3 }, [round]),
        round,
        card('mask', { mode: 'exclude', strength: 0.7, feather: 2 }, [bar]),
        bar,
        card('mask', { mode: 'show', inverted: true, strength: 0.9 }, [dot]),
        dot,
      ],
      { position: [262, 42] },
    ),
    newDrawing(
      scene,
      'ring',
      'Ring',
      [
        card('text', { text: 'NIGHT TRAM', size: 14 }),
        card('fill', { color: '#FFB23E' }),
        card('along', { shift: 0.1, away: 2, lies: 'bent' }, [ring, rim]),
        ring,
        rim,
      ],
      { position: [150, 200] },
    ),
    newDrawing(
      scene,
      'lines',
      'Lines',
      [
        card('text', {
          font: { family: 'Rubik', weight: 500, italic: false },
          frame: 'box',
          width: 90,
          height: 36,
          fit: 'fill',
          align: 'right',
          pairs: 'לי 40',
          features: 'tnum',
        }),
        card('fill', { color: '#F0F0EC' }),
      ],
      { position: [240, 235] },
    ),
    newDrawing(
      scene,
      'line',
      'Line',
      [
        card('line', { from: [-120, 0], to: [120, 0] }),
        card('zigsteps', { points: 'smooth' }),
        card('stroke', { width: 9, taperStart: 0.4, taperEnd: 0.4, ...inked('radial', {}) }),
      ],
      { position: [150, 128] },
    ),
    newDrawing(
      scene,
      'brushed',
      'Brushed',
      [
        card('brush', {
          stamp: asset.id,
          every: 0.3,
          strokes: [
            { ...stroke, tip: 'chalk', seed: 5, opacity: 0.8, points: [-60, 0, 0.5, 60, 0, 0.5] },
            { ...stroke, tip: 'own', color: '#FF5D5DC0', points: [-50, 8, 0.4, 0, -8, 0.8, 50, 8, 0.4] },
            { ...stroke, tip: 'own', erases: true, opacity: 0.6, points: [-20, 0, 0.5, 20, 4, 0.5] },
            { ...stroke, tip: 'bristles', erases: true, size: 8, points: [-50, -4, 0.5, 50, -4, 0.5] },
          ],
        }),
      ],
      { position: [80, 232] },
    ),
  ];
  const doc = applyEdit(emptyProject('p', 'Whole', [scene]), {
    label: 'Build',
    change: (draft) => {
      addAsset(asset).change(draft);
      addLayers('s', layers).change(draft);
      // Formulas move some of it, and the letters of one are not written anywhere.
      const words = layers[0] as DrawingLayer;
      const text = words.recipe[0] as string;
      const formula = (layer: string, key: string, source: string, item?: string) =>
        setFormula({ scene: 's', layer, key, ...(item !== undefined && { item }) }, source).change(draft);
      formula('words', 'text', '"Last tram\n" + text(2.4 + time / 10, 2)', text);
      const night = layers.find(({ id }) => id === 'lines') as DrawingLayer;
      formula('lines', 'text', '"לילה " + text(11 + frame, 0) + " night-tram"', night.recipe[0]);
      formula('masked', 'rotation', 'wave(1, 12) + drift(2, 9, 4)');
      formula('ticket', 'position.x', `round(textWidth({@words/${text}/text}) / 2)`);
    },
  }).doc;
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(doc, new Map()));
  return body.id;
};

test('words, cut-outs, masks, inks and blurs are the same in preview, PNG, banner and SVG', async ({
  page,
  server,
  context,
}) => {
  const id = await wholeScene(server);
  await page.goto(`${server.url}/projects/${id}`);
  await expect(page.getByTestId('layer-row')).toHaveCount(8);
  const { png, svg, bannerNames } = await agreeing(page, server, context, id);
  expect(bannerNames).toContain('picture-1.png');
  expect(bannerNames.some((n) => /\.(otf|ttf|woff2?|wasm)$/.test(n))).toBe(false);
  expect(share(distances(svg, png), 40)).toBeLessThan(0.005);
  // Of soft masks every level counts, but where hard edges are drawn by another's rules.
  expect(
    share(
      distances(svg, png, (x, y) => x > 238 && y < 76),
      3,
    ),
  ).toBeLessThan(0.01);
});

/** The middle of a row of them. */
const rowAt = (row: number): number => 24 + row * 42;

/** A disc on a square for each effect, in rows. */
const effectsScene = async (server: Server): Promise<string> => {
  const size = { width: 300, height: 250, rate: { num: 25, den: 1 }, length: 20, background: '#26324F' };
  const scene = newScene('s', 'Effects', size);
  const effects: readonly (readonly [string, { readonly [key: string]: Value }])[] = [
    ['shadow', { distance: 6, softness: 6 }],
    ['shadow', { softness: 8, spread: 0.6, color: '#FF5D5D', strength: 0.8, alone: true }],
    ['glow', { size: 10 }],
    ['glow', { size: 8, side: 'inside', spread: 0.5 }],
    ['flood', { color: '#2DC4B6', strength: 0.6 }],
    ['tint', { dark: '#1B2A41', light: '#F2E9DC' }],
    ['tint', { map: 'gradient', strength: 0.7 }],
    // What filters do to brightness is two levels off already: no glow from above reaches it.
    ['brightness', { brightness: 1.2, contrast: 1.3 }],
    ['levels', { black: 0.1, white: 0.7, middle: 1.4, low: 0.05, high: 0.9 }],
    ['colorturn', { hue: 120, strength: 1.4 }],
    ['colorturn', { hue: 40, light: 0.3 }],
    ['colorturn', { one: true, hue: 200, strength: 0.8 }],
    ['invert', { strength: 0.9 }],
    ['threshold', { at: 0.55, dark: '#1B2A41', light: '#F2E9DC' }],
    ['wipe', { style: 'round', shown: 0.6, soft: 6 }],
    ['wipe', { style: 'blinds', shown: 0.5, blinds: 4, angle: 30 }],
    ['wipe', { style: 'clock', shown: 0.7, hides: true, soft: 2 }],
    ['wipe', { style: 'slide', shown: 0.6, angle: -60 }],
    ['matte', { layer: 'm', by: 'alpha' }],
    ['matte', { layer: 'm', by: 'brightness', inverted: true, strength: 0.9 }],
    ['outline', { width: 3, color: '#F2E9DC' }],
    ['tile', { across: 1, down: 0, mirror: 'across', moved: [5, 0] }],
    ['blur', { amount: 4, way: 'across' }],
    ['blur', { amount: 4, edges: 'kept' }],
    ['trail', { count: 3, every: 2, opacity: 0.3, scale: 0.6 }],
    ['motion-blur', { shutter: 360, samples: 8 }],
    // Pictures in an SVG, which has no means for them.
    ['grain', { strength: 0.4, size: 2, colored: true, moving: true }],
    ['pixelate', { side: 7 }],
    ['warp', { amount: 5, size: 12, phase: 0.4 }],
    ['clouds', { size: 18, loop: 11, form: 'ridged' }],
    ['pattern', { form: 'dots', size: 9, angle: 20, loop: 12 }],
    ['pattern', { form: 'rays', count: 9, soft: 0.2 }],
    ['mesh', { points: { columns: 1, rows: 1, ways: [4, 5, -2, -6, 6, 2, -4, 7] } }],
    [
      'grow',
      { shown: 0.6, soft: 3, tip: 4, from: { points: [{ at: [-16, 12], root: true, wait: 0, pace: 1 }], strokes: [] } },
    ],
  ];
  const layers = effects.map(([kind, values], i) =>
    newDrawing(
      scene,
      `l${i}`,
      `${kind} ${i}`,
      [
        newItem(`r${i}`, 'rectangle', { width: 36, height: 30 }),
        newItem(`f${i}`, 'fill', { color: '#C2714A' }),
        newItem(`e${i}`, 'ellipse', { width: 16, height: 16, centre: [10, 8] }),
        newItem(`g${i}`, 'fill', { color: '#F2E9DCC0' }),
        newItem(`x${i}`, kind, values),
      ],
      { position: [30 + (i % 6) * 48, rowAt(Math.floor(i / 6))] },
    ),
  );
  // Across the whole scene, unseen: what shows of it is where others are cut by it.
  const cutting = newDrawing(
    scene,
    'm',
    'Matte',
    [
      newItem('mr', 'rectangle', { width: 22, height: 22 }),
      newItem('mo', 'repeater', { copies: 6, position: [48, 0] }),
      newItem('mf', 'fill', { color: '#7FB2E5' }),
      newItem('mb', 'blur', { amount: 2 }),
    ],
    { position: [30, rowAt(2)] },
  );
  const moving = effects.flatMap(([kind], i) => (kind === 'trail' || kind === 'motion-blur' ? [`l${i}`] : []));
  const cover = newDrawing(scene, 'over', 'Over all', [
    newItem('ob', 'below'),
    newItem('ot', 'flood', { color: '#C2714A', strength: 0.3 }),
    newItem('ow', 'wipe', { shown: 0.5 }),
  ]);
  const doc = [
    addLayers('s', [cover, ...layers, { ...cutting, hidden: true }]),
    ...moving.map((layer) => {
      const [x, y] = [(30 + (Number(layer.slice(1)) % 6) * 48) as number, rowAt(3)];
      return animate({ scene: 's', layer, key: 'position' }, [
        [0, [x - 20, y], { kind: 'linear' }],
        [14, [x + 20, y - 8]],
      ]);
    }),
  ].reduce((now, edit) => applyEdit(now, edit).doc, emptyProject('p', 'Effects', [scene]));
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(doc, new Map()));
  return body.id;
};

test('every effect is the same in preview, PNG, banner and SVG', async ({ page, server, context }) => {
  const id = await effectsScene(server);
  await page.goto(`${server.url}/projects/${id}`);
  await expect(page.getByTestId('layer-row').first()).toBeVisible();
  const { png, svg } = await agreeing(page, server, context, id);
  const apart = distances(svg, png);
  expect([share(apart, 3) < 0.02, share(apart, 40) < 0.001]).toEqual([true, true]);
});
