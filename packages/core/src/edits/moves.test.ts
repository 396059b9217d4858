import { describe, expect, it } from 'vitest';
import { countingIds, newController, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { Edit } from '../document/patches';
import { applyEdit } from './apply';
import type { DrawingLayer, Ease, KeyedProperty, Project, Scene } from '../document/types';
import { PLACE } from '../document/params';
import { arcLength } from '../geometry/length';
import { samplerOf } from '../motion/sampler';
import { boxOfMarks } from '../recipe/marks';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { READY_MOVES } from '../moves/ready';
import type { Move, SideMove } from '../document/moves';
import { changeKey, moveKeys } from './keyframes';
import { addLayers, copiesOf, setLayers } from './layers';
import {
  adjustableMoves,
  applyMove,
  applyMoveToParts,
  changeMove,
  forgetMove,
  keepMove,
  removeMove,
  seenBeside,
  trimToMove,
} from './moves';
import { setValue } from './properties';
import { addItem, removeItem } from './recipe';
import { awayIn, stayingOutside } from './outside';
import { setScene } from './scenes';
import { slideLayers, stretchLayers } from './timing';
import { done } from '../test/done';

const size = { width: 400, height: 300, rate: { num: 25, den: 1 }, length: 100, background: '#10132E' } as const;
const first = newScene('s', 'One', size);
const stop = (id: string) =>
  newDrawing(first, id, id, [newItem(`${id}-e`, 'ellipse'), newItem(`${id}-f`, 'fill')], { position: [200, 150] });
const base = applyEdit(newProject('p', 'Project', [first]), addLayers('s', [stop('a'), stop('b')])).doc;
/** The same with strokes. */
const lined = ['a', 'b'].reduce((doc, id) => done(doc, addItem('s', id, newItem(`${id}-s`, 'stroke'))), base);
const scene = (doc: Project) => doc.scenes.s as Scene;
const keys = (doc: Project, key: string, layer = 'a') =>
  (scene(doc).layers[layer]?.params[key] as KeyedProperty | undefined)?.keys?.map((k) => [k.frame, k.value]);
const away = () => 500;
const fresh = countingIds('n');
const ready = (name: string) => READY_MOVES.find((m) => m.name === name) as Move;
const slideIn = ready('Slide in') as SideMove;

describe('a move', () => {
  it.each(READY_MOVES.map((m) => [m.name, m] as const))('%s is taken away without a trace', (_name, move) => {
    const moved = done(lined, applyMove('s', ['a', 'b'], 'm', move, 40, away, fresh));
    expect(adjustableMoves(scene(moved), ['a', 'b'])).toMatchObject([{ layers: ['a', 'b'] }]);
    const back = done(moved, removeMove('s', ['a', 'b'], 'm'));
    const {
      position,
      scale = { value: [1, 1] },
      rotation = { value: 0 },
      opacity = { value: 1 },
    } = scene(back).layers.a?.params ?? {};
    expect([position, scale, rotation, opacity]).toEqual([
      { value: [200, 150] },
      { value: [1, 1] },
      { value: 0 },
      { value: 1 },
    ]);
    expect(scene(back).layers.a).toMatchObject({ recipe: ['a-e', 'a-f', 'a-s'], moves: [] });
  });
  it('comes from its side to where the layer rests', () => {
    const moved = done(base, applyMove('s', ['a'], 'm', slideIn, 0, away, fresh));
    expect(keys(moved, 'position')).toEqual([
      [0, [-40, 150]],
      [20, [200, 150]],
    ]);
    expect(keys(moved, 'opacity')).toEqual([
      [0, 0],
      [20, 1],
    ]);
  });
  it('turns a layer over in depth, which it is given', () => {
    const moved = done(base, applyMove('s', ['a'], 'm', { ...slideIn, turnX: 30, turnY: -90, z: 200 }, 0, away, fresh));
    expect(keys(moved, 'turnY')).toEqual([
      [0, -90],
      [20, 0],
    ]);
    expect(keys(moved, 'z')).toEqual([
      [0, 200],
      [20, 0],
    ]);
    const program = compileScene(scene(moved), NO_LIBRARY);
    expect([0, 10, 20].map((f) => program.awayAt('a', f, [0, 0]))).toEqual([200, expect.any(Number), 0]);
    const [{ applied }] = adjustableMoves(scene(moved), ['a']) as unknown as [{ applied: { move: SideMove } }];
    const changed = done(moved, changeMove('s', ['a'], 'm', { move: { ...applied.move, turnY: 45 } }, away));
    expect(keys(changed, 'turnY')?.[0]).toEqual([0, 45]);
    expect(keys(done(changed, removeMove('s', ['a'], 'm')), 'turnY')).toBeUndefined();
  });
  describe('that draws outlines', () => {
    const [on, off] = [ready('Draw on') as SideMove, ready('Draw off') as SideMove];
    const trims = (doc: Project, layer = 'a') => {
      const { items } = scene(doc).layers[layer] as DrawingLayer;
      return Object.values(items).filter(({ kind }) => kind === 'trim');
    };
    const drawn = (doc: Project, key: string, layer = 'a') =>
      trims(doc, layer).map(({ params }) => (params[key] as KeyedProperty).keys?.map((k) => [k.frame, k.value]));

    it('puts a trim before each list of strokes: to their end, and off by it; fills stay whole', () => {
      const doc = done(
        lined,
        addItem('s', 'a', { ...newItem('g', 'group'), children: [] }),
        addItem('s', 'a', newItem('ge', 'ellipse'), 'g'),
        addItem('s', 'a', newItem('gs', 'stroke'), 'g'),
        applyMove('s', ['a'], 'm', on, 0, away, countingIds('t')),
      );
      const layer = scene(doc).layers.a as DrawingLayer;
      expect(layer.recipe).toEqual(['a-e', 'a-f', 't1', 'a-s', 'g']);
      expect(layer.items.g?.children).toEqual(['ge', 't2', 'gs']);
      const keyed = [
        [0, 0],
        [30, 1],
      ];
      expect(drawn(doc, 'end')).toEqual([keyed, keyed]);
      const gone = done(lined, applyMove('s', ['a'], 'm', { ...off, drawn: 0.25 }, 0, away, fresh));
      expect(drawn(gone, 'start')).toEqual([
        [
          [75, 0],
          [99, 0.75],
        ],
      ]);
    });
    it('shows so much of a ring: half of its length half-way', () => {
      const even: Ease = { kind: 'linear' };
      const doc = done(lined, applyMove('s', ['a'], 'm', { ...on, ease: even }, 0, away, fresh));
      const program = compileScene(scene(doc), NO_LIBRARY);
      const lengths = [0, 15, 30].map((frame) =>
        program
          .marksAt('a', frame)
          .flatMap((mark) => (mark.op === 'stroke' ? mark.outlines : []))
          .reduce((sum, outline) => sum + arcLength(outline), 0),
      );
      expect(lengths[1]! / lengths[2]!).toBeCloseTo(0.5, 6);
      expect(lengths[0]).toBe(0);
    });
    it('is adjusted on all that have it, and by a keyframe of any of its trims; a copy has trims of its own', () => {
      const moved = done(lined, applyMove('s', ['a', 'b'], 'm', on, 0, away, fresh));
      const [applied] = scene(moved).layers.a!.moves;
      const longer = done(moved, changeMove('s', ['a', 'b'], 'm', { move: { ...on, frames: 50 } }, away));
      expect(drawn(longer, 'end', 'b')[0]?.[1]).toEqual([50, 1]);
      const end = { scene: 's', layer: 'a', item: applied!.trims![0]!, key: 'end' };
      const slid = done(moved, moveKeys([{ ref: end, frames: [30] }], 10));
      expect(scene(slid).layers.a?.moves).toMatchObject([{ from: 0, to: 40, move: { frames: 40 } }]);
      const [copy] = copiesOf([scene(moved).layers.a!], countingIds('c'));
      const doubled = done(moved, addLayers('s', [copy!]));
      expect(adjustableMoves(scene(doubled), ['a', copy!.id])).toMatchObject([{ layers: ['a', copy!.id] }]);
      // By hand: no longer the move's.
      const edited = done(moved, changeKey(end, 0, { value: 0.3 }));
      expect(adjustableMoves(scene(edited), ['a', 'b'])).toMatchObject([{ layers: ['b'] }]);
      // One whose trim is gone keeps what else there is.
      const bare = done(moved, removeItem(end), removeMove('s', ['a'], 'm'));
      expect(scene(bare).layers.a).toMatchObject({ recipe: ['a-e', 'a-f', 'a-s'], moves: [] });
    });
    it('is not for what has no stroke, nor for letters', () => {
      const text = newDrawing(first, 't', 'Words', [newItem('tt', 'text', { text: 'Ride' }), newItem('tf', 'fill')]);
      const doc = done(base, addLayers('s', [text]));
      expect(() => done(doc, applyMove('s', ['t'], 'm', on, 0, away, fresh))).toThrow('“Words” has no stroke');
      const toLetters = applyMoveToParts('s', ['t'], 'letters', on, 0, away, fresh);
      expect(() => done(doc, toLetters)).toThrow('“Draw on” draws whole layers');
    });
  });
  describe('that slides out from behind', () => {
    const [rise, sink] = [ready('Rise from behind') as SideMove, ready('Sink behind') as SideMove];
    const cardOf = (doc: Project, kind: string, layer = 'a') =>
      Object.values((scene(doc).layers[layer] as DrawingLayer).items).find((item) => item.kind === kind)!;
    const given = (doc: Project, kind: string, key: string, layer = 'a') =>
      (cardOf(doc, kind, layer).params[key] as KeyedProperty).keys.map((k) => [k.frame, k.value]);
    const even: Ease = { kind: 'linear' };

    it('puts a wipe after all else, which slides up from below, or down again', () => {
      const risen = done(base, applyMove('s', ['a'], 'm', { ...rise, ease: even }, 0, away, countingIds('w')));
      expect((scene(risen).layers.a as DrawingLayer).recipe).toEqual(['a-e', 'a-f', 'w1']);
      expect(given(risen, 'wipe', 'shown')).toEqual([
        [0, 0],
        [20, 1],
      ]);
      const program = compileScene(scene(risen), NO_LIBRARY);
      const boxAt = (frame: number) => boxOfMarks(program.marksAt('a', frame));
      const { top, bottom } = boxAt(20)!;
      expect(boxAt(0)).toBeNull();
      expect(boxAt(5)!.bottom).toBeCloseTo(bottom, 6);
      expect(boxAt(5)!.top).toBeCloseTo(bottom - (bottom - top) / 4, 6);
      const sunk = done(base, applyMove('s', ['a'], 'm', { ...sink, ease: even, behind: 0.5 }, 0, away, fresh));
      expect(given(sunk, 'wipe', 'shown')).toEqual([
        [83, 1],
        [99, 0.5],
      ]);
      const last = boxOfMarks(compileScene(scene(sunk), NO_LIBRARY).marksAt('a', 99))!;
      expect([last.top, last.bottom]).toEqual([expect.closeTo((top + bottom) / 2, 6), expect.closeTo(bottom, 6)]);
    });
    it('is adjusted with its wipe, and by a keyframe of it; a copy has a wipe of its own', () => {
      const moved = done(base, applyMove('s', ['a', 'b'], 'm', rise, 0, away, fresh));
      const other = { move: { ...rise, angle: 180, frames: 40 } };
      const changed = done(moved, changeMove('s', ['a', 'b'], 'm', other, away));
      expect(cardOf(changed, 'wipe', 'b').params.angle).toEqual({ value: 0 });
      expect(given(changed, 'wipe', 'shown', 'b')[1]).toEqual([40, 1]);
      const { wipe } = scene(moved).layers.a!.moves[0]!;
      const shown = { scene: 's', layer: 'a', item: wipe!, key: 'shown' };
      const slid = done(moved, moveKeys([{ ref: shown, frames: [20] }], 10));
      expect(scene(slid).layers.a?.moves).toMatchObject([{ from: 0, to: 30, move: { frames: 30 } }]);
      const [copy] = copiesOf([scene(moved).layers.a!], countingIds('c'));
      const doubled = done(moved, addLayers('s', [copy!]));
      expect(adjustableMoves(scene(doubled), ['a', copy!.id])).toMatchObject([{ layers: ['a', copy!.id] }]);
      const bare = done(moved, removeItem(shown), removeMove('s', ['a'], 'm'));
      expect(scene(bare).layers.a).toMatchObject({ recipe: ['a-e', 'a-f'], moves: [] });
    });
    it('lets letters come from behind the edge on its side', () => {
      const text = newDrawing(first, 't', 'Words', [newItem('tt', 'text', { text: 'Ride' }), newItem('tf', 'fill')]);
      const doc = done(base, addLayers('s', [text]));
      const give = (move: Move) => done(doc, applyMoveToParts('s', ['t'], 'words', move, 0, away, countingIds('n')));
      expect(given(give({ ...rise, behind: 0.8 }), 'letters', 'behind', 't')).toEqual([
        [0, expect.closeTo(0.8, 9)],
        [20, 0],
      ]);
      const edges = [0, 90, 180, 270, -90, 40, 50].map(
        (angle) => cardOf(give({ ...sink, angle }), 'letters', 't').params.edge,
      );
      expect(edges.map((edge) => edge && 'value' in edge && edge.value)).toEqual([
        'right',
        'bottom',
        'left',
        'top',
        'top',
        'right',
        'bottom',
      ]);
    });
    it('is not for what draws nothing', () => {
      const doc = done(base, addLayers('s', [newController(first, 'c', 'Rig')]));
      expect(() => done(doc, applyMove('s', ['c'], 'm', rise, 0, away, fresh))).toThrow('“Rig” draws nothing');
    });
  });
  it('in depth alone is not for letters', () => {
    const text = newDrawing(first, 't', 'Words', [newItem('tt', 'text', { text: 'Ride' }), newItem('tf', 'fill')]);
    const doc = done(base, addLayers('s', [text]));
    const give = (move: Move) => () =>
      done(doc, applyMoveToParts('s', ['t'], 'letters', move, 0, away, countingIds('n')));
    expect(give(ready('Turn over in'))).toThrow('“Turn over in” turns whole layers in depth');
    const { items } = scene(give({ ...slideIn, turnY: 90 })()).layers.t as DrawingLayer;
    expect(Object.values(items).map(({ kind }) => kind)).toContain('letters');
  });
  it('goes out by the end of its layer, as far as it takes to be out of sight', () => {
    const moved = done(base, applyMove('s', ['a'], 'm', ready('Out of the scene'), 0, away, fresh));
    expect(keys(moved, 'position')).toEqual([
      [79, [200, 150]],
      [99, [700, 150]],
    ]);
  });
  it('passes through: quickly in, slowly on, quickly out', () => {
    const moved = done(base, applyMove('s', ['a'], 'm', ready('In, drift, out'), 0, away, fresh));
    expect(keys(moved, 'position')).toEqual([
      [0, [-300, 150]],
      [14, [160, 150]],
      [85, [240, 150]],
      [99, [700, 150]],
    ]);
  });
  it('is adjusted on all the layers it was given to', () => {
    const moved = done(base, applyMove('s', ['a', 'b'], 'm', slideIn, 0, away, fresh));
    const next = done(
      moved,
      changeMove(
        's',
        ['a', 'b'],
        'm',
        { move: { ...slideIn, distance: 100, angle: 90, fade: 1, frames: 10 }, later: 5 },
        away,
      ),
    );
    for (const layer of ['a', 'b']) {
      expect(keys(next, 'position', layer)).toEqual([
        [5, [200, 250]],
        [15, [200, 150]],
      ]);
      expect(scene(next).layers[layer]?.params.opacity).toEqual({ value: 1 });
    }
  });
  it('can still be adjusted after the layer was slid and its curve moved', () => {
    const moved = done(
      base,
      applyMove('s', ['a'], 'm', slideIn, 0, away, fresh),
      slideLayers('s', ['a'], 12),
      setValue({ scene: 's', layer: 'a', key: 'position' }, [300, 100], { write: 'curve', frame: 99 }),
    );
    const next = done(moved, changeMove('s', ['a'], 'm', { move: { ...slideIn, distance: 50 } }, away));
    expect(keys(next, 'position')).toEqual([
      [12, [250, 100]],
      [32, [300, 100]],
    ]);
  });
  it('takes the beginning of its layer along, and the end', () => {
    const inAndOut = done(
      base,
      applyMove('s', ['a'], 'm', slideIn, 0, away, fresh),
      applyMove('s', ['a'], 'n', ready('Slide out'), 0, away, fresh),
    );
    const later = done(
      inAndOut,
      changeMove('s', ['a'], 'm', { later: 12 }, away),
      changeMove('s', ['a'], 'n', { later: -9 }, away),
    );
    expect(scene(later).layers.a).toMatchObject({ from: 12, to: 91 });
    // One that begins later than its layer leaves that alone.
    const apart = done(inAndOut, setLayers('s', ['a'], { from: -5 }), changeMove('s', ['a'], 'm', { later: 12 }, away));
    expect(scene(apart).layers.a?.from).toBe(-5);
    expect([...seenBeside(scene(apart), ['a', 'b'], 'm')]).toEqual([['a', 12]]);
    expect(scene(done(apart, trimToMove('s', ['a', 'b'], 'm'))).layers.a?.from).toBe(12);
    const on = done(inAndOut, setLayers('s', ['a'], { to: 140 }), trimToMove('s', ['a'], 'n'));
    expect(scene(on).layers.a?.to).toBe(100);
  });
  it('does not get smaller than at rest where it shrinks to that', () => {
    const overshooting: Move = { ...slideIn, scale: 2, ease: { kind: 'bezier', x1: 0.2, y1: 1.8, x2: 0.4, y2: 1.2 } };
    const sizes = (move: Move) => {
      const moved = done(base, applyMove('s', ['a'], 'm', move, 0, away, fresh));
      expect(adjustableMoves(scene(moved), ['a'])).toHaveLength(1);
      const sampler = samplerOf(PLACE.scale, scene(moved).layers.a?.params.scale);
      return Array.from({ length: 21 }, (_, f) => (sampler.at(f) as readonly number[])[0] as number);
    };
    const drawn: Ease = {
      kind: 'drawn',
      points: [
        { x: 0.5, y: 1.4, corner: false },
        { x: 0.8, y: 0.9, corner: false },
      ],
    };
    for (const ease of [overshooting.ease, { kind: 'spring', bounces: 3, damping: 0.5 } as const, drawn]) {
      expect(Math.min(...sizes({ ...overshooting, ease }))).toBeGreaterThanOrEqual(1);
      expect(Math.max(...sizes({ ...overshooting, scale: 0, ease }))).toBeGreaterThan(1);
    }
  });
  it.each(READY_MOVES.map((m) => [m.name, m] as const))(
    '%s is stretched with its layer, to whole frames',
    (_n, move) => {
      const moved = done(lined, applyMove('s', ['a'], 'm', move, 40, away, fresh));
      const long = done(moved, stretchLayers('s', ['a'], 1.37));
      const [was] = adjustableMoves(scene(moved), ['a']);
      const [is] = adjustableMoves(scene(long), ['a']);
      expect(is?.applied.from).toBe(Math.round((was?.applied.from ?? 0) * 1.37));
      expect(is?.applied.to).toBe(Math.round((was?.applied.to ?? 0) * 1.37));
    },
  );
  it('from outside comes from outside still when the scene or the layer grows', () => {
    const program = (of: Scene) => compileScene(of, NO_LIBRARY);
    const outside: Move = { ...slideIn, angle: 180, outside: true };
    // 200 px wide, in the middle of 400.
    const moved = done(base, applyMove('s', ['a'], 'm', outside, 0, awayIn(program(scene(base)), 0), fresh));
    const there = (doc: Project) => (keys(doc, 'position')?.[0]?.[1] as readonly number[])[0];
    expect(there(moved)).toBe(-100);
    const settled = (doc: Project, edit: Edit) => {
      const next = done(doc, edit);
      const more = stayingOutside(doc, next, program);
      return more ? done(next, more) : next;
    };
    const wide = settled(
      moved,
      setValue({ scene: 's', layer: 'a', item: 'a-e', key: 'width' }, 300, { write: 'curve', frame: 0 }),
    );
    expect(there(wide)).toBe(-150);
    expect(there(settled(wide, setScene('s', { width: 800 })))).toBe(-150);
    const far = done(
      moved,
      changeMove('s', ['a'], 'm', { move: { ...outside, angle: 0 } }, awayIn(program(scene(moved)), 0, 'm')),
    );
    expect(there(far)).toBe(500);
    expect(there(settled(far, setScene('s', { width: 800 })))).toBe(900);
    // Edited by hand, it stays as it is.
    const own = done(moved, changeKey({ scene: 's', layer: 'a', key: 'position' }, 0, { value: [0, 0] }));
    expect(there(settled(own, setScene('s', { height: 900 })))).toBe(0);
  });
  it('is stretched by dragging one end, slid by both, and let go by what is between', () => {
    const moved = done(base, applyMove('s', ['a'], 'm', slideIn, 0, away, fresh));
    const ref = (key: string) => ({ scene: 's', layer: 'a', key });
    const applied = (doc: Project) => adjustableMoves(scene(doc), ['a'])[0]?.applied;
    const long = done(moved, moveKeys([{ ref: ref('position'), frames: [20] }], 10));
    expect(applied(long)).toMatchObject({ from: 0, to: 30, move: { frames: 30 } });
    expect(keys(long, 'opacity')?.map(([f]) => f)).toEqual([0, 30]);
    const later = done(long, moveKeys([{ ref: ref('opacity'), frames: [0, 30] }], 6));
    expect(applied(later)).toMatchObject({ from: 6, to: 36 });
    expect(scene(later).layers.a?.from).toBe(6);
    const shake = done(base, applyMove('s', ['a'], 'm', ready('Shake'), 10, away, fresh));
    const inner = keys(shake, 'position')?.[1]?.[0] as number;
    expect(applied(done(shake, moveKeys([{ ref: ref('position'), frames: [inner] }], 1)))).toBeUndefined();
  });
  it('is let go once its keyframes are edited by hand', () => {
    const moved = done(base, applyMove('s', ['a'], 'm', slideIn, 0, away, fresh));
    const edited = done(moved, changeKey({ scene: 's', layer: 'a', key: 'position' }, 0, { value: [0, 0] }));
    expect(adjustableMoves(scene(edited), ['a'])).toEqual([]);
    const next = done(
      edited,
      changeMove('s', ['a'], 'm', { move: { ...slideIn, distance: 9 } }, away),
      removeMove('s', ['a'], 'm'),
    );
    expect(keys(next, 'position')).toEqual(keys(edited, 'position'));
  });
  it('is kept under a name and forgotten', () => {
    const kept = done(base, keepMove({ id: 'k', move: { ...slideIn, name: 'Tram stop in' } }));
    expect(kept.moves.map((m) => m.move.name)).toEqual(['Tram stop in']);
    expect(done(kept, forgetMove('k')).moves).toEqual([]);
  });
});
