import { describe, expect, it } from 'vitest';
import { newItem } from '../document/make';
import type { Item, Property, Value } from '../document/types';
import { arcLength } from '../geometry/length';
import { apply } from '../geometry/matrix';
import type { Outline } from '../geometry/outline';
import { bareSupplies, compileRecipe } from './evaluate';
import { isEffect, shownBy } from './shown';
import { KINDS } from './table';
import { markBox } from './marks';
import { MOST_SHAPES, newRoom } from './room';
import type { FillMark, Flow, Mark, StrokeMark } from './types';

let count = 0;
const card = (kind: string, values: { [key: string]: Value } = {}, keyed: { [key: string]: Property } = {}): Item => {
  const item = newItem(`c${count++}`, kind, values);
  return { ...item, params: { ...item.params, ...keyed } };
};
const flowOf = (cards: readonly Item[], frame = 0, top = cards.map((c) => c.id)): Flow =>
  compileRecipe(top, Object.fromEntries(cards.map((c) => [c.id, c])), bareSupplies()).at(frame, newRoom());
const outlines = (flow: Flow): Outline[] => flow.shapes.flatMap((s) => s.outlines);
const corners = (o: Outline): number[][] =>
  Array.from({ length: (o.points.length - 2) / 6 }, (_, i) => [o.points[i * 6]!, o.points[i * 6 + 1]!]);
/** Area inside straight sides: the shoelace formula. */
const area = (o: Outline): number => {
  const c = corners(o);
  return (
    Math.abs(c.reduce((sum, [x, y], i) => sum + x! * c[(i + 1) % c.length]![1]! - c[(i + 1) % c.length]![0]! * y!, 0)) /
    2
  );
};
const linear = { kind: 'linear' } as const;
const growing: Property = {
  keys: [
    { frame: 0, value: 0, ease: linear },
    { frame: 20, value: 200, ease: linear },
  ],
};

describe('sources', () => {
  it('a hexagon has side = radius and area 3√3/2 r²', () => {
    const [o] = outlines(flowOf([card('polygon', { sides: 6, radius: 100 })]));
    expect(arcLength(o as Outline)).toBeCloseTo(600, 9);
    expect(area(o as Outline)).toBeCloseTo(((3 * Math.sqrt(3)) / 2) * 1e4, 6);
  });
  it('a star has area n R r sin(π / n), tips outside and notches inside', () => {
    const [o] = outlines(flowOf([card('star', { points: 5, outer: 100, inner: 40 })]));
    expect(area(o as Outline)).toBeCloseTo(5 * 100 * 40 * Math.sin(Math.PI / 5), 6);
    expect(corners(o as Outline).map(([x, y]) => Math.round(Math.hypot(x!, y!)))).toEqual([
      100, 40, 100, 40, 100, 40, 100, 40, 100, 40,
    ]);
    expect(corners(o as Outline)[0]?.map((v) => Math.round(v))).toEqual([0, -100]);
  });
  it('an ellipse is on x²/a² + y²/b² = 1 within its cubics’ error', () => {
    const [o] = outlines(flowOf([card('ellipse', { width: 400, height: 200 })]));
    const p = (o as Outline).points;
    for (let k = 0; k + 6 < p.length; k += 6) {
      for (const t of [0, 0.25, 0.5, 0.75]) {
        const at = (a: number) => {
          const u = 1 - t;
          return (
            u ** 3 * p[k + a]! + 3 * u * u * t * p[k + 2 + a]! + 3 * u * t * t * p[k + 4 + a]! + t ** 3 * p[k + 6 + a]!
          );
        };
        expect(Math.abs(Math.hypot(at(0) / 200, at(1) / 100) - 1)).toBeLessThan(2.8e-4);
      }
    }
  });
  it('a rounded rectangle loses (4 − π) r² of perimeter’s corners: its outline is 2(w + h) − (8 − 2π) r long', () => {
    const [o] = outlines(flowOf([card('rectangle', { width: 300, height: 200, radius: 40 })]));
    expect(arcLength(o as Outline)).toBeCloseTo(1000 - (8 - 2 * Math.PI) * 40, 0);
  });
});

describe('cards that have not changed', () => {
  it('are not worked out again when one below them has, nor when one in a group beside them has', () => {
    const [ring, twist, fill] = [card('ellipse'), card('twist'), card('fill')];
    const inner = card('rectangle');
    const group = { ...card('group'), children: [inner.id] };
    const top = [ring.id, twist.id, group.id, fill.id];
    const flow = (...cards: Item[]) => flowOf(cards, 0, top);
    const first = flow(ring, twist, group, inner, fill);
    const painted = flow(ring, twist, group, inner, { ...fill, params: { color: { value: '#FF5D5D' } } });
    expect(painted.shapes[0]).toBe(first.shapes[0]);
    const wider = { ...inner, params: { width: { value: 900 } } };
    const grown = flow(ring, twist, group, wider, fill);
    expect(grown.shapes[0]).toBe(first.shapes[0]);
    expect(grown.shapes[1]).not.toEqual(first.shapes[1]);
  });
});

describe('trim', () => {
  const line = () => card('line', { from: [0, 0], to: [100, 0] });
  const lengths = (flow: Flow) => outlines(flow).map((o) => arcLength(o));

  it('keeps the share of the length between start and end', () => {
    const [o] = outlines(
      flowOf([card('ellipse', { width: 200, height: 200 }), card('trim', { start: 0.1, end: 0.6 })]),
    );
    expect(arcLength(o as Outline)).toBeCloseTo(Math.PI * 100, 0);
  });
  it('together cuts every outline alike, in turn lays them end to end', () => {
    const two = () => [line(), card('line', { from: [0, 50], to: [300, 50] })];
    const together = lengths(flowOf([...two(), card('trim', { end: 0.5 })]));
    const inTurn = lengths(flowOf([...two(), card('trim', { end: 0.5, mode: 'in-turn' })]));
    expect(together.map(Math.round)).toEqual([50, 150]);
    expect(inTurn.map(Math.round)).toEqual([100, 100]);
  });
  it('by an offset runs over the ends: an open line in two pieces, a closed outline in one', () => {
    expect(lengths(flowOf([line(), card('trim', { end: 0.5, offset: 0.75 })])).map(Math.round)).toEqual([25, 25]);
    expect(
      lengths(flowOf([card('rectangle', { width: 100, height: 100 }), card('trim', { end: 0.5, offset: 0.75 })])).map(
        Math.round,
      ),
    ).toEqual([200]);
  });
  it('of nothing leaves nothing, of everything leaves the closed outline closed', () => {
    expect(lengths(flowOf([line(), card('trim', { start: 0.4, end: 0.4 })]))).toEqual([]);
    expect(outlines(flowOf([card('ellipse'), card('trim')]))[0]?.closed).toBe(true);
  });
});

describe('paints', () => {
  const fills = (flow: Flow) => flow.marks as FillMark[];
  it('draw what stands above them, in the order of the cards', () => {
    const flow = flowOf([
      card('ellipse'),
      card('fill', { color: '#111111' }),
      card('rectangle'),
      card('fill', { color: '#222222' }),
    ]);
    expect(fills(flow).map((m) => [m.ink.style === 'solid' && m.ink.color, m.outlines.length])).toEqual([
      ['#111111', 1],
      ['#222222', 2],
    ]);
  });
  it('above a trim are not trimmed, below it are', () => {
    const flow = flowOf([
      card('line', { from: [0, 0], to: [100, 0] }),
      card('stroke'),
      card('trim', { end: 0.3 }),
      card('stroke'),
    ]);
    const drawn = (flow.marks as StrokeMark[]).map((m) => Math.round(arcLength(m.outlines[0] as Outline)));
    expect(drawn).toEqual([100, 30]);
  });
  it('keep dashes of no length, which round caps make dots', () => {
    const [mark] = flowOf([card('ellipse'), card('stroke', { dashes: [0, 20] })]).marks as StrokeMark[];
    expect([mark?.dashes, mark?.cap]).toEqual([[0, 20], 'round']);
  });
  it('are passed over when switched off', () => {
    expect(flowOf([card('ellipse'), { ...card('fill'), on: false }]).marks).toEqual([]);
  });
});

describe('repeater', () => {
  const dot = () => [card('rectangle', { width: 10, height: 10 }), card('fill')];
  const origins = (flow: Flow) =>
    flow.marks.map((m) => apply((m as FillMark).matrix, [0, 0]).map((v) => Math.round(v * 1000) / 1000));

  it('moves copy k by k times the way', () => {
    const flow = flowOf([...dot(), card('repeater', { copies: 4, position: [30, -10] })]);
    expect(origins(flow)).toEqual([
      [0, 0],
      [30, -10],
      [60, -20],
      [90, -30],
    ]);
  });
  it('turns about its pivot: twelve copies of 30° stand like a clock', () => {
    const flow = flowOf([...dot(), card('repeater', { copies: 12, position: [0, 0], rotation: 30, pivot: [0, 100] })]);
    origins(flow).forEach(([x, y], k) => {
      expect(x).toBeCloseTo(100 * Math.sin((k * Math.PI) / 6), 2);
      expect(y).toBeCloseTo(100 - 100 * Math.cos((k * Math.PI) / 6), 2);
    });
  });
  it('scales copy k to the k-th power', () => {
    const flow = flowOf([...dot(), card('repeater', { copies: 4, position: [40, 0], scale: [0.5, 0.5] })]);
    expect(flow.marks.map((m) => (m as FillMark).matrix[0])).toEqual([1, 0.5, 0.25, 0.125]);
  });
  it('leaves out copies that are grown beyond all numbers, also for what stands below it', () => {
    const flow = flowOf([...dot(), card('repeater', { copies: 400, scale: [10, 10] }), card('roughen')]);
    expect(flow.shapes.length).toBe(10);
    for (const { outlines } of flow.shapes)
      for (const { points } of outlines) expect(points.every(Number.isFinite)).toBe(true);
  });
  it('fades from its first opacity to its last, and the last part of a copy by its part', () => {
    const flow = flowOf([...dot(), card('repeater', { copies: 3, startOpacity: 1, endOpacity: 0 })]);
    expect(flow.marks.map((m: Mark) => m.alpha)).toEqual([1, 0.5]);
    expect(flowOf([...dot(), card('repeater', { copies: 2.25 })]).marks.map((m: Mark) => m.alpha)).toEqual([
      1, 1, 0.25,
    ]);
  });
  it('puts later copies in front, or behind', () => {
    expect(origins(flowOf([...dot(), card('repeater', { copies: 2, order: 'behind' })]))).toEqual([
      [100, 0],
      [0, 0],
    ]);
  });
  it('gives copies of outlines to paints below it', () => {
    const flow = flowOf([card('ellipse'), card('repeater', { copies: 5 }), card('fill')]);
    expect((flow.marks[0] as FillMark).outlines).toHaveLength(5);
  });
  it('delays: copy k at frame f is the recipe without a repeater at frame f − k · delay', () => {
    const width = () => [card('rectangle', { height: 10 }, { width: growing }), card('fill')];
    const wide = (m: Mark | undefined) => {
      const p = (m as FillMark).outlines[0]?.points;
      return p ? p[6]! - p[0]! : 0;
    };
    for (const frame of [0, 7, 13.5, 30]) {
      const flow = flowOf([...width(), card('repeater', { copies: 5, delay: 3 })], frame);
      flow.marks.forEach((mark, k) => expect(wide(mark)).toBe(wide(flowOf(width(), frame - 3 * k).marks[0])));
    }
  });
  it('of a repeater multiplies, delays included', () => {
    const cards = [
      card('rectangle', { height: 10 }, { width: growing }),
      card('fill'),
      card('repeater', { copies: 2, delay: 2, position: [0, 20] }),
      card('repeater', { copies: 2, delay: 5, position: [300, 0] }),
    ];
    const widths = flowOf(cards, 10).marks.map((m) => ((m as FillMark).outlines[0]?.points[6] ?? 0) * 2);
    expect(widths).toEqual([100, 80, 50, 30]);
  });
  it('is bounded however it is nested, even with nothing to repeat', () => {
    const many = () => card('repeater', { copies: 1000 });
    const room = newRoom();
    const cards = [...dot(), many(), many(), many(), many()];
    const flow = compileRecipe(
      cards.map((c) => c.id),
      Object.fromEntries(cards.map((c) => [c.id, c])),
      bareSupplies(),
    ).at(0, room);
    expect(room.short).toBe('copies');
    expect(flow.marks.length).toBeLessThanOrEqual(MOST_SHAPES);
    const empty = [many(), many(), many(), many()];
    expect(flowOf(empty).marks).toEqual([]);
  });
});

describe('groups', () => {
  it('have a place of their own, and give their outlines to paints below', () => {
    const inner = card('rectangle', { width: 10, height: 10 });
    const group = { ...card('group', { position: [50, 0], scale: [2, 2] }), children: [inner.id] };
    const fill = card('fill');
    const flow = flowOf([inner, group, fill], 0, [group.id, fill.id]);
    expect((flow.marks[0] as FillMark).outlines[0]?.points.slice(0, 2)).toEqual(Float64Array.from([40, -10]));
  });
  it('scale strokes inside them, not strokes below them', () => {
    const [line, inside, below] = [card('line'), card('stroke', { width: 4 }), card('stroke', { width: 4 })];
    const group = { ...card('group', { scale: [3, 3] }), children: [line.id, inside.id] };
    const [a, b] = flowOf([line, inside, group, below], 0, [group.id, below.id]).marks as StrokeMark[];
    expect([a!.matrix[0] * a!.width, b!.matrix[0] * b!.width]).toEqual([12, 4]);
  });
  it('fade as one picture', () => {
    const [shape, fill, stroke] = [card('ellipse'), card('fill'), card('stroke')];
    const group = { ...card('group', { opacity: 0.5 }), children: [shape.id, fill.id, stroke.id] };
    const [mark] = flowOf([shape, fill, stroke, group], 0, [group.id]).marks;
    expect(mark).toMatchObject({ op: 'group', alpha: 0.5 });
  });
});

describe('covers', () => {
  const square = card('rectangle', { width: 40, height: 40 });
  it('a mask shows what is inside its own outlines; the outlines above go on', () => {
    const hole = card('ellipse', { width: 20, height: 20 });
    const mask = { ...card('mask'), children: [hole.id] };
    const fill = card('fill');
    const flow = flowOf([square, fill, mask, hole], 0, [square.id, fill.id, mask.id]);
    expect([flow.marks, flow.shapes.length]).toMatchObject([[{ op: 'group', cuts: [{ mode: 'add' }] }], 1]);
    expect(markBox(flow.marks[0] as Mark)).toEqual({ left: -10, top: -10, right: 10, bottom: 10 });
  });
  it('a shadow reaches as far as it is cast, and is nothing that a layer is handled by', () => {
    const cast = card('shadow', { direction: 0, distance: 50, softness: 0 });
    const { marks } = flowOf([square, card('fill'), cast], 0);
    const boxes = (spread: boolean) => marks.map((mark) => markBox(mark, spread));
    expect(boxes(true)).toEqual([
      { left: 30, top: -20, right: 70, bottom: 20 },
      { left: -20, top: -20, right: 20, bottom: 20 },
    ]);
    expect(boxes(false)).toEqual([null, { left: -20, top: -20, right: 20, bottom: 20 }]);
  });
  it('each shows what it does by the values of its picture', () => {
    const { marks } = flowOf([square, card('fill')], 0);
    for (const kind of [...KINDS.values()].filter(isEffect)) {
      expect(shownBy(kind, { shapes: [], marks }).marks, kind.label).not.toEqual(marks);
    }
  });
  it('a blur spreads what is above it by three deviations, keyed, and not what is below', () => {
    const blur = card('blur', {}, { amount: growing });
    const at = (frame: number) => flowOf([square, card('fill'), blur, card('stroke', { width: 2 })], frame).marks;
    expect(at(0).map((mark) => mark.op)).toEqual(['fill', 'stroke']);
    expect(at(10).map((mark) => mark.op)).toEqual(['group', 'stroke']);
    // 100 pixels half-way: the square's 20 and 300 around it.
    expect(markBox(at(10)[0] as Mark)).toEqual({ left: -320, top: -320, right: 320, bottom: 320 });
  });
  it('one in a group grows with it, and each copy of a repeater has its own', () => {
    const blur = card('blur', { amount: 5 });
    const inner = [square, card('fill'), blur];
    const group = { ...card('group', { scale: [3, 3] }), children: inner.map((c) => c.id) };
    const repeater = card('repeater', { copies: 4 });
    const { marks } = flowOf([group, ...inner, repeater], 0, [group.id, repeater.id]);
    expect(marks).toHaveLength(4);
    for (const mark of marks) expect(mark).toMatchObject({ op: 'group', effect: { scale: 3 } });
  });
});
