import { describe, expect, it } from 'vitest';
import { markThrough } from '../recipe/marks';
import type { Effect, GroupMark, Mark } from '../recipe/types';
import type { Matrix } from '../geometry/matrix';
import { OutlineWriter, polygon } from '../geometry/outline';
import type { DisplayList } from '../scene/program';
import { filling, paint, paintOver } from './canvas';
import { svgOf } from './svg';
import { type Context2D, type Surface, SurfacePool } from './surface';

/** A context that writes down what is asked of it. */
const recorder = (state: Record<string, unknown> = {}) => {
  const calls: string[] = [];
  const context = new Proxy(state, {
    get: (target, name: string) =>
      name in target
        ? target[name]
        : (...args: unknown[]) => {
            const told = args.map((a) =>
              typeof a === 'number' ? Math.round(a * 100) / 100 : Array.isArray(a) ? `[${a.join()}]` : String(a),
            );
            calls.push(`${name}(${told.join(' ')})`);
            return {
              data: new Uint8ClampedArray(4),
              addColorStop: (at: number, color: string) => calls.push(`stop(${at} ${color})`),
            };
          },
    set: (target, name: string, value) => {
      target[name] = value;
      calls.push(`${name}=${String(value)}`);
      return true;
    },
  }) as unknown as Context2D;
  return { context, calls };
};

const surfaces: { width: number; height: number; calls: string[] }[] = [];
const tools = (state: () => Record<string, unknown> = () => ({})) => ({
  pictures: { get: () => 'picture' },
  pool: new SurfacePool((width, height): Surface => {
    const { context, calls } = recorder(state());
    surfaces.push({ width, height, calls });
    return { width, height, context, image: 'surface' };
  }),
});

const square = polygon([
  [0, 0],
  [10, 0],
  [10, 10],
  [0, 10],
]);
const fill = (x: number, fields: object = {}): Mark => ({
  op: 'fill',
  outlines: [square],
  matrix: [1, 0, 0, 1, x, 0],
  ink: { style: 'solid', color: '#FFB23E' },
  alpha: 1,
  rule: 'nonzero',
  ...fields,
});
const list = (...marks: Mark[]): DisplayList => ({
  width: 100,
  height: 50,
  background: null,
  marks,
  problems: [],
  work: 0,
});
const painted = (shown: DisplayList, width = 100, height = 50) => {
  const { context, calls } = recorder();
  surfaces.length = 0;
  paint(context, shown, filling(shown, width, height), tools());
  return calls;
};

describe('painting', () => {
  it('clears, clips to the scene, and puts the context back', () => {
    const calls = painted(list());
    expect(calls[1]).toBe('clearRect(0 0 100 50)');
    expect(calls).toContain('rect(0 0 100 50)');
    expect(calls.at(-1)).toBe('restore()');
  });
  it('fills the background only where there is one', () => {
    expect(painted(list()).some((c) => c.startsWith('fillRect'))).toBe(false);
    expect(painted({ ...list(), background: '#1B1F4B' })).toContain('fillStyle=#1B1F4B');
  });
  it('traces straight sides as lines and closes without a doubled last side', () => {
    const calls = painted(list(fill(0)));
    const from = calls.indexOf('moveTo(0 0)');
    expect(calls.slice(from, from + 5)).toEqual([
      'moveTo(0 0)',
      'lineTo(10 0)',
      'lineTo(10 10)',
      'lineTo(0 10)',
      'closePath()',
    ]);
  });
  it('traces curves as curves', () => {
    const curve = new OutlineWriter(0, 0).cubic(0, 5, 5, 10, 10, 10).open();
    expect(painted(list(fill(0, { outlines: [curve] })))).toContain('bezierCurveTo(0 5 5 10 10 10)');
  });
  it('scales the scene to the target', () => {
    expect(painted(list(fill(20)), 200, 100)).toContain('setTransform(2 0 0 2 40 0)');
  });
  it('passes over what is flattened or not finite', () => {
    const calls = painted(list(fill(0, { matrix: [0, 0, 0, 1, 0, 0] }), fill(NaN)));
    expect(calls.filter((c) => c.startsWith('fill('))).toEqual([]);
  });
  it('gives a stroke all it needs', () => {
    const stroke: Mark = {
      ...(fill(0) as Mark & { op: 'fill' }),
      op: 'stroke',
      width: 6,
      cap: 'round',
      join: 'miter',
      miterLimit: 3,
      dashes: [0, 20],
      dashOffset: 5,
    };
    const calls = painted(list(stroke));
    for (const call of [
      'lineWidth=6',
      'lineCap=round',
      'lineJoin=miter',
      'miterLimit=3',
      'setLineDash([0,20])',
      'lineDashOffset=5',
      'stroke()',
    ]) {
      expect(calls).toContain(call);
    }
  });
  it('gives what is closed no caps but those of dashes: Firefox moves a side of it for them', () => {
    const stroke = { ...fill(0), op: 'stroke', width: 1, cap: 'round', join: 'round', miterLimit: 4, dashOffset: 0 };
    const caps = (fields: object) =>
      painted(list({ ...stroke, dashes: [], ...fields } as Mark)).filter((call) => call.startsWith('lineCap'));
    expect(caps({})).toEqual(['lineCap=butt']);
    expect(caps({ dashes: [4, 4] })).toEqual(['lineCap=round']);
    const open = new OutlineWriter(0, 0).line(10, 10).open();
    expect(caps({ outlines: [(fill(0) as Mark & { op: 'fill' }).outlines[0], open] })).toEqual(['lineCap=round']);
  });
  it('runs gradients between their points; a radial one from its centre to its edge', () => {
    const gradient = {
      stops: [
        { at: 0, color: '#000000' },
        { at: 1, color: '#FFFFFF' },
      ],
    };
    const ink = (style: string) => ({ ink: { style, gradient, from: [0, 0], to: [3, 4], grain: 0 } });
    expect(painted(list(fill(0, ink('linear'))))).toContain('createLinearGradient(0 0 3 4)');
    const radial = painted(list(fill(0, ink('radial'))));
    expect(radial).toContain('createRadialGradient(0 0 0 0 0 5)');
    expect(radial).toContain('stop(1 #FFFFFF)');
  });
});

describe('groups', () => {
  const group = (fields: Partial<GroupMark>, ...marks: Mark[]): GroupMark => ({
    op: 'group',
    marks,
    alpha: 1,
    blend: 'normal',
    ...fields,
  });

  it('of one mark are drawn without a surface of their own', () => {
    const calls = painted(list(group({ alpha: 0.5, blend: 'multiply' }, fill(0))));
    expect(surfaces).toHaveLength(0);
    expect(calls).toContain('globalAlpha=0.5');
    expect(calls).toContain('globalCompositeOperation=multiply');
  });
  it('that neither fade nor blend are drawn straight through', () => {
    painted(list(group({}, fill(0), fill(20))));
    expect(surfaces).toHaveLength(0);
  });
  it('that fade are drawn on a surface a pixel larger than they are, with a pixel around', () => {
    const calls = painted(list(group({ alpha: 0.5 }, fill(20), fill(40))));
    expect(surfaces.map(({ width, height }) => [width, height])).toEqual([[33, 12]]);
    expect(calls).toContain('drawImage(surface 0 0 32 11 19 0 32 11)');
  });
  it('outside the picture cost nothing', () => {
    painted(list(group({ alpha: 0.5 }, fill(500), fill(520))));
    expect(surfaces).toHaveLength(0);
  });
  it('one after another share a surface', () => {
    painted(list(group({ alpha: 0.5 }, fill(20), fill(40)), group({ alpha: 0.5 }, fill(20), fill(30))));
    expect(surfaces).toHaveLength(1);
  });
});

describe('effects', () => {
  const seen: [number, number, number][] = [];
  const by: Effect = {
    reach: 6,
    filter: (scale) => `blur(${2 * scale}px)`,
    svg: (scale) => `<feGaussianBlur stdDeviation="${2 * scale}"/>`,
    pixels: (_data, width, height, { scale }) => void seen.push([width, height, scale]),
  };
  const affected = (x: number, scale = 1): GroupMark => ({
    op: 'group',
    marks: [fill(x)],
    alpha: 1,
    blend: 'normal',
    effect: { by, scale, origin: [0, 0], turn: 0 },
  });

  it('are drawn by the platform’s filter, as far as they reach', () => {
    const calls = painted(list(affected(40)));
    // 10 pixels, 6 more and one for edges on both sides, but for those beyond what reaches into the picture.
    expect(surfaces.map(({ width, height }) => [width, height])).toEqual([[25, 24]]);
    const laid = calls.indexOf('filter=blur(2px)');
    expect(calls.slice(laid + 1, laid + 3)).toEqual(['drawImage(surface 0 0 24 23 33 -6 24 23)', 'filter=none']);
  });
  it('grow with what they are on, and with the picture', () => {
    expect(markThrough([3, 0, 0, 3, 0, 0], affected(0))).toMatchObject({ effect: { scale: 3 } });
    // A turn leaves lengths as they are; of an uneven stretch it is the mean.
    expect(markThrough([0, 1, -1, 0, 0, 0], affected(0))).toMatchObject({ effect: { scale: 1 } });
    expect(markThrough([4, 0, 0, 1, 0, 0], affected(0))).toMatchObject({ effect: { scale: 2 } });
    expect(painted(list(affected(40, 2)), 300, 150)).toContain('filter=blur(12px)');
  });
  it('spread in from outside, and cost nothing from further away', () => {
    painted(list(affected(104)));
    expect(surfaces).toHaveLength(1);
    painted(list(affected(110)));
    expect(surfaces).toHaveLength(0);
  });
  it('that reach very far are drawn smaller and enlarged', () => {
    const calls = painted(list(affected(0, 400)));
    // As far as 768 pixels: a reach of 2,400 is divided by 3.125.
    expect(surfaces[1]?.calls).toContain('filter=blur(256px)');
    const [laid = ''] = calls.filter((call) => call.startsWith('drawImage'));
    const [, , width = 0, , , , shown = 0] = laid.match(/-?[\d.]+/g)?.map(Number) ?? [];
    expect(shown / width).toBeCloseTo(3.125, 4);
  });
  it('are our own where a canvas has no filters', () => {
    seen.length = 0;
    const { context } = recorder();
    paint(
      context,
      list(affected(40)),
      filling(list(), 200, 100),
      tools(() => ({ filter: undefined })),
    );
    expect(seen).toEqual([[46, 45, 2]]);
  });
  it('of colours that nothing shows through go straight to where they are shown, unless they are mixed or clipped', () => {
    const colouring = (seenThrough: boolean): Effect => ({ reach: 0, colors: () => !seenThrough, svg: () => null });
    const coloured = (x: number, fields: object = {}, seenThrough = false): GroupMark => ({
      ...affected(x),
      marks: [fill(x, { matrix: [1, 0, 0, 1, x, 20] })],
      effect: { by: colouring(seenThrough), scale: 1, origin: [0, 0], turn: 0 },
      ...fields,
    });
    const calls = (group: GroupMark, view: Matrix = [1, 0, 0, 1, 0, 10]) => {
      const { context, calls: told } = recorder();
      paint(context, list(group), { ...filling(list(), 100, 50), view }, tools());
      return told.filter((call) => /^(putImageData|drawImage)/.test(call)).map((call) => call.split('(')[0]);
    };
    expect(calls(coloured(40))).toEqual(['putImageData']);
    expect(surfaces.at(-1)?.calls.some((call) => call.startsWith('putImageData'))).toBe(false);
    const drawn = ['drawImage'];
    // The scene's own rectangle cuts it.
    expect(calls(coloured(-5), [1, 0, 0, 1, 20, 10])).toEqual(drawn);
    expect(surfaces.at(-1)?.calls.some((call) => call.startsWith('putImageData'))).toBe(true);
    expect(calls(coloured(40), [1, 0.01, -0.01, 1, 0, 10])).toEqual(drawn);
    expect(calls(coloured(40, { alpha: 0.5 }))).toEqual(drawn);
    expect(calls(coloured(40, { blend: 'screen' }))).toEqual(drawn);
    expect(calls(coloured(40, {}, true))).toEqual(drawn);
    // What spreads may show more than it covered.
    expect(calls(affected(40))).toEqual(drawn);
  });
  it('are filters in SVG, as large as they reach', () => {
    const { svg } = svgOf(list(affected(40)), { width: 100, height: 50 }, { pictureAt: () => null, drawn: () => '' });
    expect(svg).toContain('filterUnits="userSpaceOnUse" x="34" y="-6" width="22" height="22"');
    expect(svg).toContain('color-interpolation-filters="sRGB"><feGaussianBlur stdDeviation="2"/></filter>');
    expect(svg).toMatch(/<g filter="url\(#(\w+)\)">/);
  });
});

it('painting over leaves what is there', () => {
  const { context, calls } = recorder();
  paintOver(context, { ...list(fill(0)), background: '#000000' }, filling(list(), 100, 50), tools());
  expect(calls.some((c) => c.startsWith('clearRect') || c.startsWith('fillRect'))).toBe(false);
});
