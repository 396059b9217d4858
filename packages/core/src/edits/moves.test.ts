import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { newDrawing, newItem, newProject, newScene } from '../document/make';
import type { Edit } from '../document/patches';
import { applyEdit } from './apply';
import type { KeyedProperty, Project, Scene } from '../document/types';
import { READY_MOVES } from '../moves/ready';
import type { Move, SideMove } from '../document/moves';
import { changeKey } from './keyframes';
import { addLayers } from './layers';
import { adjustableMoves, applyMove, changeMove, forgetMove, keepMove, removeMove } from './moves';
import { setValue } from './properties';
import { slideLayers } from './timing';

const size = { width: 400, height: 300, rate: { num: 25, den: 1 }, length: 100, background: '#10132E' } as const;
const first = newScene('s', 'One', size);
const stop = (id: string) => newDrawing(first, id, id, [newItem(`${id}-e`, 'ellipse')], { position: [200, 150] });
const base = applyEdit(newProject('p', 'Project', [first]), addLayers('s', [stop('a'), stop('b')])).doc;
const done = (doc: Project, ...edits: Edit[]): Project => {
  const next = edits.reduce((now, edit) => applyEdit(now, edit).doc, doc);
  checkProject(JSON.parse(JSON.stringify(next)));
  return next;
};
const scene = (doc: Project) => doc.scenes.s as Scene;
const keys = (doc: Project, key: string, layer = 'a') =>
  (scene(doc).layers[layer]?.params[key] as KeyedProperty | undefined)?.keys?.map((k) => [k.frame, k.value]);
const away = () => 500;
const ready = (name: string) => READY_MOVES.find((m) => m.name === name) as Move;
const slideIn = ready('Slide in') as SideMove;

describe('a move', () => {
  it.each(READY_MOVES.map((m) => [m.name, m] as const))('%s is taken away without a trace', (_name, move) => {
    const moved = done(base, applyMove('s', ['a', 'b'], 'm', move, 40, away));
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
  });
  it('comes from its side to where the layer rests', () => {
    const moved = done(base, applyMove('s', ['a'], 'm', slideIn, 0, away));
    expect(keys(moved, 'position')).toEqual([
      [0, [-40, 150]],
      [20, [200, 150]],
    ]);
    expect(keys(moved, 'opacity')).toEqual([
      [0, 0],
      [20, 1],
    ]);
  });
  it('goes out by the end of its layer, as far as it takes to be out of sight', () => {
    const moved = done(base, applyMove('s', ['a'], 'm', ready('Out of the scene'), 0, away));
    expect(keys(moved, 'position')).toEqual([
      [79, [200, 150]],
      [99, [700, 150]],
    ]);
  });
  it('passes through: quickly in, slowly on, quickly out', () => {
    const moved = done(base, applyMove('s', ['a'], 'm', ready('In, drift, out'), 0, away));
    expect(keys(moved, 'position')).toEqual([
      [0, [-300, 150]],
      [14, [160, 150]],
      [85, [240, 150]],
      [99, [700, 150]],
    ]);
  });
  it('is adjusted on all the layers it was given to', () => {
    const moved = done(base, applyMove('s', ['a', 'b'], 'm', slideIn, 0, away));
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
      applyMove('s', ['a'], 'm', slideIn, 0, away),
      slideLayers('s', ['a'], 12),
      setValue({ scene: 's', layer: 'a', key: 'position' }, [300, 100], { write: 'curve', frame: 99 }),
    );
    const next = done(moved, changeMove('s', ['a'], 'm', { move: { ...slideIn, distance: 50 } }, away));
    expect(keys(next, 'position')).toEqual([
      [12, [250, 100]],
      [32, [300, 100]],
    ]);
  });
  it('is let go once its keyframes are edited by hand', () => {
    const moved = done(base, applyMove('s', ['a'], 'm', slideIn, 0, away));
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
