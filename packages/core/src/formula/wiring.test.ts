/** Formulas in scenes: what they read, in which order, and what goes wrong. */
import { describe, expect, it } from 'vitest';
import { countingIds, newController, newDrawing, newItem, newProject } from '../document/make';
import type { Edit } from '../document/patches';
import { applyEdit } from '../edits/apply';
import type { Layer, PathValue, Point, Project } from '../document/types';
import { addLayers, copiesOf, removeLayers } from '../edits/layers';
import { setFormula } from '../edits/formulas';
import { animate, setApart, setValue } from '../edits/properties';
import { joinSets, makeSet, setMembers } from '../edits/sets';
import { costOf } from './parts';
import {
  BLANK,
  bar,
  ref,
  sceneOf,
  done,
  applied,
  write,
  programOf,
  valueAt,
  messages,
  followers,
  strip,
} from '../test/formulas';

describe('a point of three numbers', () => {
  const deep = done(
    strip,
    ...(['lead', 'b1'] as const).map((id) => setValue(ref(id, 'depth'), true, { write: 'curve' as const, frame: 0 })),
    animate(ref('lead', 'z'), [
      [0, 40, { kind: 'linear' }],
      [60, 160],
    ]),
  );
  it('is read with its z, or by its z alone', () => {
    const doc = write(
      write(deep, ref('b1', 'z'), '{Lead bar / Position}.z / 2'),
      ref('b2', 'rotation'),
      'length(xyz({Lead bar / Position}) - [0, 0, 20])',
    );
    expect(valueAt(doc, ref('b1', 'z'), 30)).toBe(50);
    const [x, y] = valueAt(doc, ref('lead', 'position'), 30) as Point;
    expect(valueAt(doc, ref('b2', 'rotation'), 30)).toBeCloseTo(Math.hypot(x, y, 80), 9);
    expect(messages(doc)).toEqual([]);
    // What reads it is worked out anew once it changes.
    const moved = done(doc, setValue(ref('lead', 'z'), 200, { write: 'key', frame: 60 }));
    expect(valueAt(moved, ref('b1', 'z'), 60)).toBe(100);
  });
  it.each([
    ['{Rig / Delay}.z', 'have a z'],
    ['[1, 2].z', 'has no .z'],
    ['xyz(3)', 'xyz reads a point'],
    ['xyz({Lead bar / Turn})', 'have a z'],
  ])('says what is wrong with %s', (text, says) => {
    expect(messages(write(deep, ref('b3', 'rotation'), text)).join()).toContain(says);
  });
  it('in a circle by its z is named', () => {
    const circle = write(
      write(deep, ref('b1', 'z'), '{Bar 2 / Position}.z'),
      ref('b2', 'z'),
      'xyz({Bar 1 / Position}).z',
    );
    expect(messages(circle).join()).toContain('circle');
  });
});

describe('followers', () => {
  it('are where the lead was, each later by its order, exactly', () => {
    const lead = (frame: number) => valueAt(strip, ref('lead', 'position'), frame) as Point;
    for (let frame = 0; frame < 100; frame++) {
      followers.forEach((id, i) => {
        const [x, y] = lead(frame - 5 * (i + 1));
        expect(valueAt(strip, ref(id, 'position'), frame)).toEqual([x, y + 20 * (i + 1)]);
      });
    }
  });
  it('are placed there in the picture', () => {
    const program = programOf(strip);
    const [x, y] = program.wiring.sampler(ref('lead', 'position'))?.at(32) as Point;
    expect(program.matrixAt('b2', 42).slice(4)).toEqual([x, y + 40]);
    expect(program.problems).toEqual([]);
  });
  it('take a keyed delay as it runs', () => {
    const keyed = done(
      strip,
      animate(ref('rig', 'value', 'delay'), [
        [0, 0, { kind: 'linear' }],
        [50, 0.4],
      ]),
    );
    const [x, y] = valueAt(keyed, ref('lead', 'position'), 25 - 0.2 * 25 * 2) as Point;
    expect(valueAt(keyed, ref('b2', 'position'), 25)).toEqual([x, y + 40]);
  });
  it('joined by a copy go on with the next order, and stay what they are when others come in', () => {
    const [copy] = copiesOf([sceneOf(strip).layers.b5 as Layer], countingIds('six'));
    const { id: six } = copy as Layer;
    const grown = done(
      strip,
      addLayers('s', [copy as Layer], 'b5'),
      joinSets('s', new Map([['b5', six]]), () => 'x'),
      addLayers('s', [bar('other', 'Other')], 'b1'),
    );
    const [x, y] = valueAt(grown, ref('lead', 'position'), 70 - 30) as Point;
    expect(valueAt(grown, ref(six, 'position'), 70)).toEqual([x, y + 120]);
    expect(valueAt(grown, ref('b3', 'position'), 70)).toEqual(valueAt(strip, ref('b3', 'position'), 70));
    const turned = done(grown, setMembers('s', 'set', ['lead', six, ...followers]));
    expect(valueAt(turned, ref(six, 'position'), 70)).toEqual(valueAt(strip, ref('b1', 'position'), 70));
    expect(programOf(done(grown, removeLayers('s', ['b1', 'b2']))).scene.sets[0]?.members).toEqual([
      'lead',
      ...['b3', 'b4', 'b5', six],
    ]);
  });
  it('in a chain of 200 cost what the chain is long', () => {
    const ids = Array.from({ length: 200 }, (_, i) => `c${i}`);
    const links = ids.map((id, i) =>
      setFormula(ref(id, 'position'), `lag({@${i === 0 ? 'lead' : `c${i - 1}`}/position}, frames(1))`),
    );
    const doc = [
      addLayers(
        's',
        ids.map((id) => bar(id, id)),
      ),
      ...links,
    ].reduce((d, e) => applyEdit(d, e).doc, strip);
    const { wiring, problems } = programOf(doc);
    expect(problems).toEqual([]);
    const last = wiring.sampler(ref('c199', 'position'));
    expect(last?.at(230)).toEqual(valueAt(strip, ref('lead', 'position'), 30));
    // What it read: one moment of each before it, and of the lead.
    expect(costOf(last ?? {})).toBe(201);
    const fiftieth = wiring.sampler(ref('c49', 'position'));
    fiftieth?.at(777);
    expect(costOf(fiftieth ?? {})).toBe(51);
  });
});

describe('repeaters', () => {
  const fan = (cards: Parameters<typeof newDrawing>[3]) =>
    done(newProject('p', 'Fan', [BLANK]), addLayers('s', [newDrawing(BLANK, 'fan', 'Fan', cards)]));
  const marks = (doc: Project, frame: number) => programOf(doc).at(frame).marks;
  it('give each copy its number', () => {
    const doc = write(
      fan([
        newItem('e', 'ellipse', { width: 10, height: 10 }),
        newItem('f', 'fill', {}),
        newItem('r', 'repeater', { copies: 4, position: [90, 0] }),
      ]),
      ref('fan', 'width', 'e'),
      '10 + 10 * order + count',
    );
    const copies = marks(doc, 0).flatMap((mark) => (mark.op === 'group' ? mark.marks : [mark]));
    const widths = copies.map((mark) => {
      if (mark.op !== 'fill') throw new Error('not a fill');
      const xs = mark.outlines.flatMap((o) => [...o.points]).filter((_, i) => i % 2 === 0);
      return Math.max(...xs) - Math.min(...xs);
    });
    expect(widths.map(Math.round)).toEqual([14, 24, 34, 44]);
  });
  it('give each copy its number in one part of a point too', () => {
    const cards = [newItem('e', 'ellipse', { width: 10, height: 10 }), newItem('f', 'fill', {})];
    const doc = write(
      fan([...cards, newItem('r', 'repeater', { copies: 3, position: [0, 0] })]),
      ref('fan', 'centre', 'e', 1),
      'value + 100 * order',
    );
    expect(placed(doc, 0).map(([, , top]) => top)).toEqual([235, 335, 435]);
  });
  /** The middles and widths of everything that is drawn, in pixels of the scene. */
  const placed = (doc: Project, frame: number) =>
    marks(doc, frame)
      .flatMap((mark) => (mark.op === 'group' ? mark.marks : [mark]))
      .map((mark) => {
        if (mark.op !== 'fill') throw new Error('not a fill');
        const [a, b, c, d, e, f] = mark.matrix;
        const places = mark.outlines.flatMap(({ points }) =>
          Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i] ?? 0, points[2 * i + 1] ?? 0]),
        );
        const all = places.map(([x = 0, y = 0]) => [a * x + c * y + e, b * x + d * y + f] as const);
        const bound = (pick: (...n: number[]) => number, axis: 0 | 1) => pick(...all.map((p) => p[axis]));
        return [bound(Math.min, 0), bound(Math.max, 0), bound(Math.min, 1), bound(Math.max, 1)].map((n) =>
          Number(n.toFixed(6)),
        );
      });
  it('with a copy delay and layers that lag give the same marks', () => {
    const move: Edit = animate(ref('fan', 'width', 'e'), [
      [0, 10],
      [20, 80],
    ]);
    const cards = [newItem('e', 'ellipse', { width: 10, height: 10 }), newItem('f', 'fill', {})];
    const repeated = done(fan([...cards, newItem('r', 'repeater', { copies: 3, delay: 4, position: [50, 12] })]), move);
    const copies = ['c1', 'c2'].map((id) =>
      newDrawing(BLANK, id, id, [
        newItem(`${id}e`, 'ellipse', { width: 10, height: 10 }),
        newItem(`${id}f`, 'fill', {}),
      ]),
    );
    let single = done(fan(cards), move, addLayers('s', copies.toReversed()));
    single = done(single, makeSet('s', { id: 'x', name: 'Copies', members: ['fan', 'c1', 'c2'] }));
    for (const id of ['c1', 'c2']) {
      single = write(single, ref(id, 'width', `${id}e`), 'lag({Fan / Ellipse / Width}, frames(4) * order)');
      single = write(single, ref(id, 'position'), '{Fan / Position} + [50, 12] * order');
    }
    for (const frame of [0, 5, 9, 17, 40]) {
      expect(placed(single, frame)).toEqual(placed(repeated, frame));
      for (let k = 0; k < 3; k++) {
        const width = valueAt(single, ref(k === 0 ? 'fan' : `c${k}`, 'width', k === 0 ? 'e' : `c${k}e`), frame);
        expect(width).toBe(valueAt(repeated, ref('fan', 'width', 'e'), frame - 4 * k));
      }
    }
  });
});

describe('one part of a point', () => {
  it('is linked alone: four controls hold three shapes on y', () => {
    const controls = ['k0', 'k1', 'k2', 'k3'].map((id, i) => newController(BLANK, id, `Joint ${i + 1}`));
    const shapes = [0, 1, 2].map((i) =>
      newDrawing(BLANK, `q${i}`, `Shape ${i + 1}`, [newItem(`q${i}p`, 'path', {}), newItem(`q${i}f`, 'fill', {})]),
    );
    let doc = done(newProject('p', 'Joints', [BLANK]), addLayers('s', [...controls, ...shapes]));
    for (const i of [0, 1, 2]) {
      doc = write(
        doc,
        ref(`q${i}`, 'path', `q${i}p`),
        `polygon([${i * 100}, {Joint ${i + 1} / Position}.y], [${i * 100 + 100}, {Joint ${i + 2} / Position}.y], [${i * 100 + 100}, 200], [${i * 100}, 200])`,
      );
    }
    doc = done(doc, setValue(ref('k1', 'position'), [999, 77], { frame: 0, write: 'curve' }));
    const corner = (i: number, n: number) =>
      (valueAt(doc, ref(`q${i}`, 'path', `q${i}p`), 0) as PathValue).vertices[n]?.slice(0, 2);
    // Where two shapes meet they have one place, moved on y and not on x.
    expect([corner(0, 1), corner(1, 0)]).toEqual([
      [100, 77],
      [100, 77],
    ]);
    expect(corner(1, 1)).toEqual(corner(2, 0));
  });
  it('keeps the other part as it is, apart or together', () => {
    const linked = write(strip, ref('rig', 'position', undefined, 1), '{Lead bar / Position}.y / 2');
    const moved = done(linked, setValue(ref('rig', 'position'), [33, 44], { frame: 0, write: 'curve' }));
    for (const doc of [moved, done(moved, setApart(ref('rig', 'position'), true))]) {
      expect(valueAt(doc, ref('rig', 'position'), 0)).toEqual([33, 50]);
      expect(programOf(doc).matrixAt('rig', 0).slice(4)).toEqual([33, 50]);
    }
  });
});

describe('what goes wrong', () => {
  it('names cycles in order, and what reads one still works', () => {
    let doc = write(strip, ref('b1', 'rotation'), '{Bar 2 / Turn} + 1');
    doc = write(doc, ref('b2', 'rotation'), 'lag({Bar 3 / Turn}, 1)');
    doc = write(doc, ref('b3', 'rotation'), '{Bar 1 / Turn}');
    doc = write(doc, ref('b4', 'rotation'), '{Bar 1 / Turn} + 5');
    doc = done(doc, setValue(ref('b1', 'rotation'), 30, { frame: 0, write: 'curve' }));
    expect(messages(doc)).toHaveLength(3);
    expect(messages(doc)[0]).toBe(
      'has a formula on Turn that does not work: It goes round in a circle: ' +
        'Bar 1 / Turn → Bar 2 / Turn → Bar 3 / Turn → Bar 1 / Turn.',
    );
    expect([valueAt(doc, ref('b1', 'rotation'), 0), valueAt(doc, ref('b4', 'rotation'), 0)]).toEqual([30, 35]);
    expect(messages(write(strip, ref('b1', 'rotation'), 'lag({this / Turn}, 1)'))[0]).toContain(
      'Bar 1 / Turn → Bar 1 / Turn',
    );
  });
  it('falls back to the keyframes and says what and where', () => {
    const cases: readonly (readonly [string, RegExp])[] = [
      ['1 +', /Turn that does not work: Wanted a value, got the end/],
      ['{Nobody / Turn}', /There is no layer “Nobody”/],
      ['{Rig / Delays}', /“Rig” has no “Delays”/],
      ['{@gone/rotation}', /reads a layer that is gone/],
      ['ease(time, {Eases / Soft})', /No ease is kept under the name “Soft”/],
    ];
    for (const [text, message] of cases) {
      const doc = write(strip, ref('b1', 'rotation'), text);
      expect(messages(doc)[0]).toMatch(message);
      expect(valueAt(doc, ref('b1', 'rotation'), 10)).toBe(0);
    }
    const doc = write(strip, ref('b1', 'opacity'), 'sqrt(0 - time)');
    const { problems } = programOf(doc).at(25);
    expect(problems.map((p) => p.message)).toEqual(['has a formula on Opacity that gives NaN, wanted numbers']);
    expect(valueAt(doc, ref('b1', 'opacity'), 25)).toBe(1);
    // Beyond its limits a value is brought to the nearest.
    expect(valueAt(write(strip, ref('b1', 'opacity'), '3'), ref('b1', 'opacity'), 0)).toBe(1);
  });
  it('ends: formulas that read ever more moments are given up, the same each time', () => {
    const ids = Array.from({ length: 40 }, (_, i) => `h${i}`);
    const many = (from: string) =>
      Array.from({ length: 8 }, (_, n) => `lag({@${from}/rotation}, ${0.11 + n * 0.137})`).join(' + ');
    const links = ids.map((id, i) => setFormula(ref(id, 'rotation'), many(i === 0 ? 'lead' : `h${i - 1}`)));
    const made = [
      addLayers(
        's',
        ids.map((id) => bar(id, id)),
      ),
      animate(ref('lead', 'rotation'), [
        [0, 0],
        [50, 9],
      ]),
    ];
    const doc = [...made, ...links].reduce((d, e) => applyEdit(d, e).doc, strip);
    const last = programOf(doc).wiring.computed(ref('h39', 'rotation'));
    expect(last?.problemAt(60)).toContain('reads more than 10,000 moments');
    expect(last?.at(60)).toBe(0);
    const short = programOf(doc).wiring.computed(ref('h3', 'rotation'));
    expect(short?.problemAt(60)).toBeNull();
  });
  it('ends by way of the sizes of texts too', () => {
    const ids = Array.from({ length: 30 }, (_, i) => `t${i}`);
    const words = ids.map((id) => newDrawing(BLANK, id, id, [newItem(`${id}t`, 'text', { text: 'a' })]));
    const links = ids.flatMap((id, i) => {
      const before = i === 0 ? 'lead' : `t${i - 1}`;
      const lags = [0.11, 0.23, 0.41, 0.67, 0.83].map((late) => `lag({@${before}/rotation}, ${late})`);
      return [
        setFormula(ref(id, 'text', `${id}t`), `text(${lags.join(' + ')}, 2)`),
        setFormula(ref(id, 'rotation'), `textWidth({@this/${id}t/text}) + time`),
      ];
    });
    const doc = [addLayers('s', words), ...links].reduce((d, e) => applyEdit(d, e).doc, strip);
    const last = programOf(doc).wiring.computed(ref('t29', 'text', 't29t'));
    expect(last?.problemAt(60)).toContain('reads more than 10,000 moments');
  });
  it('ends by way of what stands under a part too', () => {
    const ids = Array.from({ length: 30 }, (_, i) => `p${i}`);
    const links = ids.flatMap((id, i) => {
      const before = i === 0 ? 'lead' : `p${i - 1}`;
      const lags = [0.11, 0.23, 0.41, 0.67, 0.83].map((late) => `lag({@${before}/position}, ${late})`);
      return [
        applied(setFormula(ref(id, 'position'), lags.join(' + '))),
        applied(setFormula(ref(id, 'position', undefined, 1), 'value + time')),
      ];
    });
    const doc = [
      applied(
        addLayers(
          's',
          ids.map((id) => bar(id, id)),
        ),
      ),
      ...links,
    ].reduce((d, edit) => edit(d), strip);
    const { wiring } = programOf(doc);
    expect(wiring.computed(ref('p29', 'position', undefined, 1))?.at(60)).toBeTypeOf('number');
    expect(wiring.computed(ref('p29', 'position'))?.problemAt(60)).toContain('reads more than 10,000 moments');
  });
  it('stands behind so many formulas and no more', () => {
    const ids = Array.from({ length: 700 }, (_, i) => `d${i}`);
    const links = ids.map((id, i) => setFormula(ref(id, 'rotation'), i === 0 ? '7' : `{@d${i - 1}/rotation} + time`));
    const doc = [
      addLayers(
        's',
        ids.map((id) => bar(id, id)),
      ),
      ...links,
    ].reduce((d, e) => applyEdit(d, e).doc, strip);
    expect(messages(doc).filter((m) => m.includes('stands behind more than 500'))).toHaveLength(1);
    expect(valueAt(doc, ref('d400', 'rotation'), 25)).toBe(407);
  });
});
