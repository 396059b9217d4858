import { setFormula } from './formulas';
import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import { applyEdit } from './apply';
import type { DrawingLayer, KeyedProperty, Point, Project, Value } from '../document/types';
import { apply, multiply } from '../geometry/matrix';
import type { TextUnit } from '../motion/sampler';
import { boxOfMarks } from '../recipe/marks';
import { compileScene } from '../scene/compile';
import { squareFonts } from '../test/fonts';
import type { TextValues } from '../recipe/sources/text';
import { NO_FONTS } from '../type/types';
import { framed } from './framed';
import { removeLayers } from './layers';
import { animate } from './properties';
import { slideLayers } from './timing';
import { splitText } from './text';
import { textOfWord } from '../properties/words';
import { setWord } from './words';

const scene = newScene('s', 'Scene', {
  width: 900,
  height: 400,
  rate: { num: 25, den: 1 },
  length: 50,
  background: null,
});
const LIBRARY = { assets: {}, fonts: squareFonts };
const projectWith = (
  values: { [key: string]: Value },
  place: { [key: string]: Value } = {},
  more: string[] = [],
): Project => {
  const items = [newItem('t', 'text', values), ...more.map((kind) => newItem(kind, kind)), newItem('f', 'fill')];
  const layer = newDrawing(scene, 'l', 'Words', items, { position: [450, 200] });
  const placed = {
    ...layer,
    params: { ...layer.params, ...Object.fromEntries(Object.entries(place).map(([k, value]) => [k, { value }])) },
  };
  return newProject('p', 'P', [{ ...scene, layers: { l: placed }, order: ['l'] }]);
};
const split = (doc: Project, by: TextUnit, frame = 0): Project => {
  const next = applyEdit(
    doc,
    splitText({ scene: 's', layer: 'l', item: 't' }, by, frame, compileScene(doc.scenes.s!, LIBRARY), countingIds('n')),
  ).doc;
  expect(checkProject(JSON.parse(JSON.stringify(next)))).toBeTruthy();
  return next;
};
const layers = (doc: Project) => doc.scenes.s!.order.map((id) => doc.scenes.s!.layers[id] as DrawingLayer);
/** Where the first corner of each letter stands in the scene, from left to right. */
const corners = (doc: Project, frame = 0): Point[] => {
  const program = compileScene(doc.scenes.s!, LIBRARY);
  return layers(doc)
    .flatMap(({ id }) =>
      program
        .marksAt(id, frame)
        .flatMap((mark) =>
          mark.op === 'fill'
            ? mark.outlines.map((o) =>
                apply(multiply(program.matrixAt(id, frame), mark.matrix), [o.points[0]!, o.points[1]!]),
              )
            : [],
        ),
    )
    .sort((a, b) => Math.round((a[0] - b[0]) * 1e3) || a[1] - b[1]);
};
const same = (a: readonly Point[], b: readonly Point[]) => {
  expect(a).toHaveLength(b.length);
  a.forEach((p, i) => p.forEach((v, axis) => expect(v).toBeCloseTo(b[i]![axis]!, 2)));
};

const TWO_LINES = { text: 'Last tram\n02:40', size: 60 };

describe.each<[TextUnit, string[]]>([
  ['letters', ['L', 'a', 's', 't', 't 2', 'r', 'a 2', 'm', '0', '2', ':', '4', '0 2']],
  ['words', ['Last', 'tram', '02:40']],
  ['lines', ['Last tram', '02:40']],
])('split into %s', (by, names) => {
  it('each part is a layer named by its text, in reading order', () => {
    expect(layers(split(projectWith(TWO_LINES), by)).map((l) => l.name)).toEqual(names);
  });
  it.each([
    ['centred', {}, {}],
    ['to the right, spaced out', { align: 'right', tracking: 120 }, {}],
    ['in a box', { frame: 'box', width: 300, height: 200, stand: 'middle' }, {}],
    ['turned and scaled', {}, { rotation: 30, scale: [1.5, 0.8] }],
    ['about another pivot', {}, { pivot: [40, -30], rotation: 45 }],
  ])('the whole stays in place: %s', (_name, values, place) => {
    const doc = projectWith({ ...TWO_LINES, ...values }, place);
    same(corners(split(doc, by)), corners(doc));
  });
});

describe.each([
  ['at its middle, on two lines', { text: 'Last\ntram' }, {}],
  ['at its start, moved on and off', { text: 'Last tram' }, { stands: 'start', shift: 0.2, away: 12 }],
  ['spread over it, on its other side', { text: 'Last tram' }, { stands: 'spread', backwards: true }],
  ['by its own place', { text: 'Last tram', place: [30, 40] }, { stands: 'own' }],
])('a text along a path, %s', (_name, values, lying) => {
  const whole = projectWith({ size: 60, ...values });
  const layer = layers(whole)[0] as DrawingLayer;
  const card = { ...newItem('a', 'along', lying), children: ['e', 's'] };
  const round = newItem('e', 'ellipse', { width: 300, height: 200 });
  const items = { ...layer.items, a: card, e: round, s: newItem('s', 'stroke') };
  const drawing = { ...layer, items, recipe: ['t', 'f', 'a'] };
  const doc = { ...whole, scenes: { s: { ...scene, layers: { l: drawing }, order: ['l'] } } };
  it('stays in place letter by letter, and draws the path once, behind them', () => {
    const parts = split(doc, 'letters');
    same(corners(parts), corners(doc));
    const strokes = layers(parts).map(({ items: own }) => Object.values(own).some(({ kind }) => kind === 'stroke'));
    expect(strokes.indexOf(true)).toBe(strokes.length - 1);
    expect(corners(split(doc, 'words'))).toHaveLength(corners(doc).length);
  });
  it('stays in place where a formula moves it on', () => {
    const ruled = { ...card, formulas: { shift: { text: '0.1 + 0.1', on: true } } };
    const computed = { ...drawing, items: { ...items, a: ruled } };
    const own = { ...doc, scenes: { s: { ...doc.scenes.s, layers: { l: computed } } } };
    same(corners(split(own, 'letters')), corners(own));
  });
  it('moves on later letter by letter, as it did', () => {
    const ruled = { ...card, params: { ...card.params, stagger: { value: 5 } } };
    const later = { ...drawing, items: { ...items, a: ruled } };
    const own = applyEdit(
      { ...doc, scenes: { s: { ...doc.scenes.s, layers: { l: later } } } },
      animate({ scene: 's', layer: 'l', item: 'a', key: 'shift' }, [
        [0, 0],
        [40, 0.4],
      ]),
    ).doc;
    const parts = split(own, 'letters');
    for (const frame of [0, 12, 30, 49]) same(corners(parts, frame), corners(own, frame));
    expect(corners(own, 12)).not.toEqual(corners(own, 0));
  });
  it('turns each about where it stands', () => {
    const parts = split(doc, 'letters');
    const program = compileScene(parts.scenes.s!, LIBRARY);
    for (const { id, params } of layers(parts).slice(0, -1)) {
      const box = boxOfMarks(program.marksAt(id, 0))!;
      const [x, y] = (params.pivot as { value: Point }).value;
      expect(Math.abs((box.left + box.right) / 2 - x)).toBeLessThan(0.01);
      expect(Math.abs((box.top + box.bottom) / 2 - y)).toBeLessThan(0.01);
    }
  });
});

it('a text that lies along a path beside another keeps its place when it is split, and the path is drawn by what stays', () => {
  const whole = projectWith({ text: 'Night', size: 60 });
  const layer = layers(whole)[0] as DrawingLayer;
  const card = { ...newItem('a', 'along', { stands: 'start' }), children: ['e', 's'] };
  const items = {
    ...layer.items,
    a: card,
    e: newItem('e', 'ellipse', { width: 300, height: 200 }),
    s: newItem('s', 'stroke'),
    u: newItem('u', 'text', { text: 'Tram', size: 60, place: [-200, 0] }),
  };
  const drawing = { ...layer, items, recipe: ['t', 'u', 'f', 'a'] };
  const doc = { ...whole, scenes: { s: { ...scene, layers: { l: drawing }, order: ['l'] } } };
  const parts = split(doc, 'letters');
  const stays = layers(parts).at(-1)!;
  expect(Object.values(stays.items).map(({ kind }) => kind)).toContain('stroke');
  const letters = { ...parts, scenes: { s: { ...parts.scenes.s!, order: parts.scenes.s!.order.slice(0, -1) } } };
  const before = corners(doc).map((at) => at.map(Math.round).join());
  for (const at of corners(letters)) expect(before).toContain(at.map(Math.round).join());
  for (const { items: own } of layers(letters))
    expect(Object.values(own).map(({ kind }) => kind)).not.toContain('stroke');
});

it('a word along a path that was split stands as it would have stood, once it says something else', () => {
  const saying = (text: string): Project => {
    const whole = projectWith({ text, size: 60 });
    const layer = layers(whole)[0] as DrawingLayer;
    const card = { ...newItem('a', 'along'), children: ['e'] };
    const items = { ...layer.items, a: card, e: newItem('e', 'ellipse', { width: 300, height: 200 }) };
    return {
      ...whole,
      scenes: { s: { ...scene, layers: { l: { ...layer, items, recipe: ['t', 'f', 'a'] } }, order: ['l'] } },
    };
  };
  const parts = split(saying('Tram'), 'letters');
  const [set] = parts.scenes.s!.sets;
  const other = setWord('s', set!.id, 'Trams!', 0, compileScene(parts.scenes.s!, LIBRARY), countingIds('w'));
  same(corners(applyEdit(parts, other).doc), corners(saying('Trams!')));
});

describe('a text that is framed otherwise', () => {
  const cards = (values: { [key: string]: Value }) => {
    const doc = projectWith(values);
    const program = compileScene(doc.scenes.s!, LIBRARY);
    return { doc, values: program.cardAt('l', 't', 0)!.values as TextValues };
  };
  it.each([
    ['centred', {}],
    ['to the right, further down', { align: 'right', place: [40, 25] }],
    ['to the left, at the foot of what comes', { align: 'left', stand: 'bottom', leading: 1.5 }],
    ['to the left, in the middle', { align: 'left', stand: 'middle' }],
  ])('stays where it is in a box, and out of it: %s', (_, own) => {
    const typed = cards({ text: 'Last tram\n02:40', size: 61, ...own });
    const boxed = cards({
      text: 'Last tram\n02:40',
      size: 61,
      ...own,
      frame: 'box',
      ...framed(typed.values, 'box', squareFonts),
    });
    expect(boxed.values.width).toBe(275);
    same(corners(boxed.doc), corners(typed.doc));
    const again = cards({ ...boxed.values, frame: 'point', ...framed(boxed.values, 'point', squareFonts) });
    same(corners(again.doc), corners(typed.doc));
  });
  it('keeps the size that its box gave it', () => {
    const boxed = cards({ text: 'Tram', size: 90, frame: 'box', fit: 'shrink', width: 100, height: 90 });
    const typed = cards({ ...boxed.values, frame: 'point', ...framed(boxed.values, 'point', squareFonts) });
    expect(typed.values.size).toBeCloseTo(50, 3);
    same(corners(typed.doc), corners(boxed.doc));
  });
  it('is left as it is where it is framed so, or has no font yet', () => {
    const { values } = cards({ text: 'Tram' });
    expect(framed(values, 'point', squareFonts)).toEqual({});
    expect(framed(values, 'box', NO_FONTS)).toEqual({});
  });
});

describe('the parts', () => {
  it('keep the timing and the keyframes, and move as the whole did', () => {
    const doc = applyEdit(
      projectWith(TWO_LINES),
      animate({ scene: 's', layer: 'l', key: 'position' }, [
        [0, [450, 200]],
        [20, [450, 40]],
      ]),
    ).doc;
    const parts = split(doc, 'words');
    for (const part of layers(parts))
      expect((part.params.position as KeyedProperty).keys.map((k) => k.frame)).toEqual([0, 20]);
    same(corners(parts, 11), corners(doc, 11));
  });
  it('have the size that a text has that fits its box', () => {
    const doc = projectWith({ text: 'Tram stop', size: 100, frame: 'box', fit: 'shrink', width: 200, height: 60 });
    const parts = split(doc, 'letters');
    same(corners(parts), corners(doc));
    const [set] = parts.scenes.s!.sets;
    const other = setWord('s', set!.id, 'Tram stops', 0, compileScene(parts.scenes.s!, LIBRARY), countingIds('w'));
    // Letters that come are as large.
    const sizes = (of: Project) => new Set(layers(of).map(({ items }) => Object.values(items)[0]!.params.size));
    expect([sizes(parts).size, sizes(applyEdit(parts, other).doc).size]).toEqual([1, 1]);
  });
  it('turn about their own middle', () => {
    const parts = split(projectWith({ text: 'ab', size: 100, align: 'left' }), 'letters');
    expect(layers(parts).map((l) => (l.params.pivot as { value: number[] }).value)).toEqual([
      [25, -25],
      [75, -25],
    ]);
  });
  it('leave other sources in the layer', () => {
    const parts = split(projectWith({ text: 'ab' }, {}, ['ellipse']), 'letters');
    expect(layers(parts).map((l) => l.name)).toEqual(['a', 'b', 'Words']);
    expect(Object.values(layers(parts)[2]!.items).map((i) => i.kind)).toEqual(['ellipse', 'fill']);
    expect(Object.values(layers(parts)[0]!.items).map((i) => i.kind)).toEqual(['text', 'fill']);
  });
  it('leave what stands in a group with them in the layer, and come in the group', () => {
    const whole = projectWith({ text: 'AB' });
    const layer = layers(whole)[0] as DrawingLayer;
    const group = { ...newItem('g', 'group'), children: ['t', 'e', 'n'] };
    const nest = { ...newItem('n', 'nest'), children: ['k'] };
    const setting = { ...newItem('k', 'own-number'), sets: 'knob' };
    const items = { ...layer.items, g: group, e: newItem('e', 'ellipse'), n: nest, k: setting };
    const doc = {
      ...whole,
      scenes: { s: { ...scene, layers: { l: { ...layer, items, recipe: ['g', 'f'] } }, order: ['l'] } },
    };
    const made = layers(split(doc, 'letters'));
    const kinds = ({ items: of }: DrawingLayer) =>
      Object.values(of)
        .map(({ kind }) => kind)
        .sort();
    expect(made.map(kinds)).toEqual([
      ['fill', 'group', 'text'],
      ['fill', 'group', 'text'],
      ['ellipse', 'fill', 'group', 'nest', 'own-number'],
    ]);
  });
  it('wait for their font', () => {
    const doc = projectWith(TWO_LINES);
    const program = compileScene(doc.scenes.s!, { assets: {}, fonts: { find: () => null } });
    const edit = splitText({ scene: 's', layer: 'l', item: 't' }, 'words', 0, program, countingIds('n'));
    expect(() => applyEdit(doc, edit)).toThrow('not here yet');
  });
  it('are those that are shown: size, words and turn by formulas', () => {
    const formula = (key: string, source: string, item?: string) =>
      setFormula({ scene: 's', layer: 'l', key, ...(item !== undefined && { item }) }, source);
    const doc = [
      formula('size', '40 + frame', 't'),
      formula('text', '"ab" + "c"', 't'),
      formula('rotation', 'frame * 9', undefined),
    ].reduce((now, edit) => applyEdit(now, edit).doc, projectWith({ text: 'no', size: 10 }, { pivot: [3, 4] }));
    const parts = split(doc, 'letters', 10);
    expect(layers(parts).map((l) => l.name)).toEqual(['a', 'b', 'c']);
    const [before, after] = [corners(doc, 10), corners(parts, 10)];
    expect(after.length).toBe(before.length);
    after.forEach(([x, y], i) => {
      expect(x).toBeCloseTo(before[i]![0], 6);
      expect(y).toBeCloseTo(before[i]![1], 6);
    });
    const [card] = Object.values(layers(parts)[0]!.items);
    expect(Object.keys(card?.formulas ?? {})).toEqual(['size']);
  });
});

describe('a word that was split', () => {
  const wordOf = (doc: Project) => doc.scenes.s!.sets[0]!;
  const says = (doc: Project, text: string, frame = 0): Project => {
    const edit = setWord('s', wordOf(doc).id, text, frame, compileScene(doc.scenes.s!, LIBRARY), countingIds('m'));
    const next = applyEdit(doc, edit).doc;
    expect(checkProject(JSON.parse(JSON.stringify(next)))).toBeTruthy();
    return next;
  };
  const named = (doc: Project) => layers(doc).map(({ name }) => name);
  const PLACES = [
    ['centred', {}, {}],
    ['to the right, spaced out', { align: 'right', tracking: 120 }, {}],
    ['in a box', { frame: 'box', width: 400, height: 200, stand: 'middle' }, {}],
    ['turned and scaled', {}, { rotation: 30, scale: [1.5, 0.8] }],
    ['about another pivot', {}, { pivot: [40, -30], rotation: 45 }],
  ] as const;

  it.each(PLACES)('is laid out as the whole text would be, longer and shorter: %s', (_name, values, place) => {
    for (const by of ['letters', 'words'] as const) {
      const whole = (text: string) => projectWith({ text, size: 60, ...values } as never, place as never);
      for (const text of ['First tram at dawn', 'A', 'Last\ntram']) {
        const next = says(split(whole('Last tram'), by), text);
        same(corners(next), corners(whole(text)));
        expect(textOfWord(wordOf(next).word!)).toBe(text);
        // And back again.
        same(corners(says(next, 'Last tram')), corners(whole('Last tram')));
      }
    }
  });
  it('keeps the motion of its letters; those that come are as much later as the last one, those that go are gone', () => {
    const parts = split(projectWith({ text: 'abc', size: 60 }), 'letters');
    const [a, b, c] = layers(parts).map(({ id }) => id) as [string, string, string];
    const rising = [a, b, c].reduce(
      (doc, id, i) =>
        applyEdit(
          doc,
          animate({ scene: 's', layer: id, key: 'opacity' }, [
            [i * 4, 0],
            [i * 4 + 10, 1],
          ]),
        ).doc,
      parts,
    );
    const keysOf = (doc: Project) =>
      layers(doc).map((l) => (l.params.opacity as KeyedProperty).keys.map(({ frame }) => frame));
    const longer = says(rising, 'abcde');
    expect([named(longer), keysOf(longer)]).toEqual([
      ['a', 'b', 'c', 'd', 'e'],
      [
        [0, 10],
        [4, 14],
        [8, 18],
        [12, 22],
        [16, 26],
      ],
    ]);
    expect(wordOf(longer).members).toEqual(layers(longer).map(({ id }) => id));
    const shorter = says(longer, 'xy');
    expect([named(shorter), keysOf(shorter), layers(shorter).map(({ id }) => id)]).toEqual([
      ['x', 'y'],
      [
        [0, 10],
        [4, 14],
      ],
      [a, b],
    ]);
    // Of layers that begin one after another the bar goes along.
    const slid = applyEdit(parts, slideLayers('s', [c], 6)).doc;
    expect(layers(says(slid, 'abcd')).map(({ from }) => from)).toEqual([0, 0, 6, 12]);
  });
  it('is no word any more once a letter of it is gone, and says what it cannot be', () => {
    const parts = split(projectWith({ text: 'abc', size: 60 }), 'letters');
    const { id } = layers(parts)[1]!;
    const torn = applyEdit(parts, removeLayers('s', [id])).doc;
    expect([wordOf(torn).word, wordOf(torn).members.length]).toEqual([undefined, 2]);
    expect(() => says(parts, '')).toThrow('at least one letter');
    expect(() => says(torn, 'abc')).toThrow('word');
  });
});
