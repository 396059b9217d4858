/** Formulas in scenes: what they read, in which order, what goes wrong, and what edits leave of them. */
import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { upgraded } from '../check/versions';
import { newKnob } from '../document/knobs';
import { countingIds, newController, newDrawing, newItem, newProject, newScene } from '../document/make';
import { wholeScene } from '../document/nest';
import { applyEdit, type Edit } from '../document/patches';
import type { Id, Layer, PathValue, Point, Project, PropertyRef, Scene } from '../document/types';
import { addKnob } from '../edits/knobs';
import { addLayers, copiesOf, removeLayers, setLayers } from '../edits/layers';
import { bakeFormula, readersOf, setFormula, turnFormula } from '../edits/formulas';
import { paramAt } from '../edits/find';
import { animate, setApart, setValue } from '../edits/properties';
import { splitLayers } from '../edits/timing';
import { joinSets, makeSet, setMembers } from '../edits/sets';
import { samplerOf } from '../motion/sampler';
import { compileScene, NO_LIBRARY } from '../scene/compile';
import { bakedFormula } from './bake';
import { meter } from './parts';
import { linkText, READY_FORMULAS } from './ready';
import { pathOf, shownText, storedText, type Target } from './refs';

const BLANK: Scene = newScene('s', 'Test', {
  width: 640,
  height: 480,
  rate: { num: 25, den: 1 },
  length: 100,
  background: null,
});
const bar = (id: Id, name: string) =>
  newDrawing(BLANK, id, name, [
    newItem(`${id}r`, 'rectangle', { width: 40, height: 10 }),
    newItem(`${id}f`, 'fill', { color: '#FFB23E' }),
  ]);
const rig = newController(BLANK, 'rig', 'Rig');
const ref = (layer: Id, key: string, item?: Id, part?: 0 | 1): PropertyRef => ({
  scene: 's',
  layer,
  key,
  ...(item !== undefined && { item }),
  ...(part !== undefined && { part }),
});
const sceneOf = (doc: Project): Scene => doc.scenes.s as Scene;
const done = (doc: Project, ...edits: readonly Edit[]): Project =>
  edits.reduce((now, edit) => {
    const { doc: next } = applyEdit(now, edit);
    checkProject(JSON.parse(JSON.stringify(next)));
    return next;
  }, doc);
const applied = (edit: Edit) => (doc: Project) => applyEdit(doc, edit).doc;
/** A formula typed by its names. */
const typed = (doc: Project, at: PropertyRef, text: string): Edit =>
  setFormula(at, storedText(text, sceneOf(doc), at as Target));
const write = (doc: Project, at: PropertyRef, text: string): Project => done(doc, typed(doc, at, text));
const programOf = (doc: Project) => compileScene(wholeScene(sceneOf(doc), doc), NO_LIBRARY);
const valueAt = (doc: Project, at: PropertyRef, frame: number) => programOf(doc).wiring.sampler(at)?.at(frame);
const messages = (doc: Project) => programOf(doc).problems.map((p) => p.message);

/** A lead that moves unevenly, a rig with a delay, five followers in a set. */
const FOLLOW = 'lag({Lead bar / Position}, {Rig / Delay} * order) + [0, {Rig / Step}] * order';
const followers = ['b1', 'b2', 'b3', 'b4', 'b5'];
const strip = ((): Project => {
  const knob = (id: Id, name: string, value: number) => ({
    ...newKnob(id, 'number', name),
    params: { value: { value } },
  });
  let doc = done(
    newProject('p', 'Strip', [BLANK]),
    addLayers('s', [bar('lead', 'Lead bar'), ...followers.map((id, i) => bar(id, `Bar ${i + 1}`)), rig]),
    addKnob('s', 'rig', knob('delay', 'Delay', 0.2)),
    addKnob('s', 'rig', knob('step', 'Step', 20)),
    animate(ref('lead', 'position'), [
      [0, [0, 100], { kind: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 }],
      [30, [400, 60], { kind: 'bezier', x1: 0.7, y1: 0, x2: 0.4, y2: 1 }],
      [60, [120, 300]],
    ]),
    makeSet('s', { id: 'set', name: 'Bars', members: ['lead', ...followers] }),
  );
  for (const id of followers) doc = write(doc, ref(id, 'position'), FOLLOW);
  return doc;
})();

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
    expect(meter.last).toBe(201);
    wiring.sampler(ref('c49', 'position'))?.at(777);
    expect(meter.last).toBe(51);
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
        newItem('r', 'repeater', { copies: 4, position: [0, 0] }),
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
    const repeated = done(fan([...cards, newItem('r', 'repeater', { copies: 3, delay: 4, position: [50, 10] })]), move);
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
      single = write(single, ref(id, 'position'), '{Fan / Position} + [50, 10] * order');
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

describe('edits', () => {
  it('rename without breaking, and show the new name', () => {
    const doc = done(strip, setLayers('s', ['lead'], { name: 'Tram {A/1}' }));
    const text = sceneOf(doc).layers.b1?.formulas?.position?.text ?? '';
    const here = { layer: 'b1', key: 'position' };
    const shown = shownText(text, sceneOf(doc), here);
    expect(shown).toBe('lag({"Tram {A/1}" / Position}, {Rig / Delay} * order) + [0, {Rig / Step}] * order');
    expect(storedText(shown, sceneOf(doc), here)).toBe(text);
    expect(valueAt(doc, ref('b2', 'position'), 50)).toEqual(valueAt(strip, ref('b2', 'position'), 50));
  });
  it('know every property of a scene by one name, and back', () => {
    const twins = done(strip, addLayers('s', [bar('t', 'Bar 1')]), setLayers('s', ['t'], { name: 'Bar 1' }));
    const scene = sceneOf(twins);
    const here = { layer: 'lead', key: 'rotation' };
    for (const layer of Object.values(scene.layers)) {
      for (const key of ['position', 'rotation']) {
        const { id } = layer;
        const path = pathOf({ layer: id, key }, scene, here) ?? '';
        expect(storedText(`{${path}}`, scene, here)).toBe(id === 'lead' ? `{@this/${key}}` : `{@${id}/${key}}`);
      }
    }
  });
  it('copy a controller with its followers onto each other, a follower alone onto the original', () => {
    const makeId = countingIds('n');
    const wanted = ['lead', 'b1', 'rig'].map((id) => sceneOf(strip).layers[id] as Layer);
    const copies = copiesOf(wanted, makeId);
    const [lead, follower, controller] = copies as [Layer, Layer, Layer & { panel: readonly Id[] }];
    expect(follower.formulas?.position?.text).toContain(`{@${lead.id}/position}`);
    expect(follower.formulas?.position?.text).toContain(`{@${controller.id}/${controller.panel[0]}/value}`);
    const [alone] = copiesOf([sceneOf(strip).layers.b1 as Layer], makeId);
    expect(alone?.formulas).toEqual(sceneOf(strip).layers.b1?.formulas);
    const doc = done(
      strip,
      addLayers('s', copies),
      joinSets(
        's',
        new Map([
          ['lead', lead.id],
          ['b1', follower.id],
        ]),
        () => 'two',
      ),
    );
    expect(sceneOf(doc).sets.map((s) => s.members.length)).toEqual([6, 2]);
    expect(valueAt(doc, ref(follower.id, 'position'), 40)).toEqual(valueAt(strip, ref('b1', 'position'), 40));
  });
  it('split off a follower what goes on as it was', () => {
    const doc = done(strip, splitLayers('s', ['b3'], 40, countingIds('tail')));
    expect(sceneOf(doc).layers.tail1?.formulas?.position?.text).toContain('* 3)');
    for (const frame of [45, 60, 90]) {
      expect(valueAt(doc, ref('tail1', 'position'), frame)).toEqual(valueAt(strip, ref('b3', 'position'), frame));
    }
  });
  it('bake to keyframes and live again', () => {
    const at = ref('b2', 'position');
    const param = paramAt(strip, at) as NonNullable<ReturnType<typeof paramAt>>;
    const sampler = programOf(strip).wiring.sampler(at);
    if (!sampler) throw new Error('no sampler');
    const every = done(strip, bakeFormula(at, bakedFormula(param, sampler, 0, 99, null)));
    const thin = bakedFormula(param, sampler, 0, 99, 0.5);
    const thinned = done(strip, bakeFormula(at, thin));
    expect(thin.length).toBeLessThan(60);
    for (let f = 0; f < 100; f++) {
      const live = valueAt(strip, at, f) as Point;
      expect(valueAt(every, at, f)).toEqual(live);
      const [x, y] = valueAt(thinned, at, f) as Point;
      expect(Math.max(Math.abs(x - live[0]), Math.abs(y - live[1]))).toBeLessThanOrEqual(0.5);
    }
    const again = done(every, turnFormula(at, true));
    expect(programOf(again).wiring.computed(at)?.error).toBeNull();
    expect(readersOf(sceneOf(strip), ['lead']).length).toBe(5);
    expect(readersOf(sceneOf(every), ['lead']).length).toBe(4);
  });
  it('keep what a formula has worked out as long as nothing changes that it reads', () => {
    const doc = done(strip, setLayers('s', ['b4'], { tag: 'rose' }));
    const before = programOf(doc).wiring.computed(ref('b2', 'position'));
    const elsewhere = done(doc, setValue(ref('b5', 'rotation'), 9, { frame: 0, write: 'curve' }));
    expect(programOf(elsewhere).wiring.computed(ref('b2', 'position'))).toBe(before);
    const delayed = done(doc, setValue(ref('rig', 'value', 'delay'), 0.3, { frame: 0, write: 'curve' }));
    expect(programOf(delayed).wiring.computed(ref('b2', 'position'))).not.toBe(before);
  });
  it('link one property to another, and begin with ready formulas that work', () => {
    const of = (at: PropertyRef) => ({ target: at as Target, param: paramAt(strip, at)! });
    const position = of(ref('lead', 'position'));
    const turn = of(ref('b1', 'rotation'));
    const text = (link: Parameters<typeof linkText>[0], to = of(ref('b1', 'position'))) =>
      linkText(link, position, to, true);
    expect(text({ how: 'same' })).toBe('{@lead/position}');
    expect(text({ how: 'late', by: 0.1 })).toBe('lag({@lead/position}, 0.1 * order)');
    expect(text({ how: 'scaled', by: 0.5 })).toBe('{@lead/position} * 50%');
    expect(text({ how: 'opposite' }, turn)).toBe('-{@lead/position}.x');
    expect(linkText({ how: 'same' }, of(ref('lead', 'color', 'leadf')), turn, false)).toBeNull();
    for (const at of [ref('b1', 'position'), ref('b1', 'rotation'), ref('b1', 'opacity'), ref('b1', 'width', 'b1r')]) {
      for (const ready of READY_FORMULAS) {
        const made = ready.text({
          param: paramAt(strip, at)!,
          here: at as Target,
          lead: { ...(at as Target), layer: 'lead', ...(at.item !== undefined && { item: 'leadr' }) },
          leadPosition: { layer: 'lead', key: 'position' },
          text: null,
          inSet: true,
        });
        if (made === null) continue;
        const doc = done(strip, setFormula(at, made));
        expect([ready.name, at.key, messages(doc)]).toEqual([ready.name, at.key, []]);
        expect(programOf(doc).wiring.computed(at)?.problemAt(33)).toBeNull();
      }
    }
  });
  it('came with format 4: older documents are read, and what formulas must be is checked', () => {
    const old = { version: 3, scenes: { s: { id: 's', layers: {} } } };
    expect(upgraded(old)).toMatchObject({ version: 4, scenes: { s: { sets: [] } } });
    const broken = (change: (layer: Record<string, unknown>, scene: Record<string, unknown>) => void) => () => {
      const doc = JSON.parse(JSON.stringify(strip)) as Project;
      const scene = doc.scenes.s as unknown as Record<string, unknown>;
      change((scene.layers as Record<string, Record<string, unknown>>).b1!, scene);
      checkProject(doc);
    };
    expect(broken((layer) => (layer.formulas = { nope: { text: '1', on: true } }))).toThrow(/formulas by the names/);
    expect(broken((layer) => (layer.formulas = { 'rotation.x': { text: '1', on: true } }))).toThrow(/formulas by the/);
    expect(broken((layer) => (layer.formulas = { rotation: { text: 'x'.repeat(5000), on: true } }))).toThrow(/4000/);
    expect(broken((_, scene) => (scene.sets = [{ id: 'a', name: 'A', members: ['gone'] }]))).toThrow(/no layer "gone"/);
    expect(broken((_, scene) => (scene.sets = ['a', 'b'].map((id) => ({ id, name: id, members: ['b1'] }))))).toThrow(
      /in a set already/,
    );
    expect(samplerOf(paramAt(strip, ref('b1', 'position'))!, undefined).at(0)).toEqual([0, 0]);
  });
});
