/** What formulas cost to evaluate. */
import { newKnob } from '@kite/core/document/knobs';
import { newController, newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import { type Edit, together } from '@kite/core/document/patches';
import { applyEdit } from '@kite/core/edits/apply';
import type { Id, Scene } from '@kite/core/document/types';
import { addKnob } from '@kite/core/edits/knobs';
import { addLayers } from '@kite/core/edits/layers';
import { setFormula } from '@kite/core/edits/formulas';
import { animate } from '@kite/core/edits/properties';
import { makeSet } from '@kite/core/edits/sets';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { median } from './median';

const BLANK: Scene = newScene('s', 'Followers', {
  width: 1920,
  height: 1080,
  rate: { num: 30, den: 1 },
  length: 500,
  background: '#1B1F4B',
});
const at = (layer: Id) => ({ scene: 's', layer, key: 'position' });
const bar = (id: Id) =>
  newDrawing(BLANK, id, id, [newItem(`${id}r`, 'rectangle', {}), newItem(`${id}f`, 'fill', { color: '#FFB23E' })]);

/** A lead and so many followers, each with a formula from its place in the line. */
const line = (count: number, formula: (i: number) => string): Scene => {
  const ids = Array.from({ length: count }, (_, i) => `b${i}`);
  const edits: Edit[] = [
    addLayers('s', [bar('lead'), ...ids.map(bar), newController(BLANK, 'rig', 'Rig')]),
    addKnob('s', 'rig', { ...newKnob('delay', 'number', 'Delay'), params: { value: { value: 0.1 } } }),
    animate(at('lead'), [
      [0, [100, 100]],
      [250, [1800, 900]],
      [499, [200, 300]],
    ]),
    makeSet('s', { id: 'set', name: 'Bars', members: ['lead', ...ids] }),
    ...ids.map((id, i) => setFormula(at(id), formula(i))),
  ];
  return applyEdit(newProject('p', 'Followers', [BLANK]), together('Build', edits)).doc.scenes.s as Scene;
};

const timed = (run: () => void): number => {
  const start = performance.now();
  run();
  return performance.now() - start;
};
/** A scene of its own, so that nothing is known of it yet. */
const fresh = (scene: Scene): Scene => structuredClone(scene);

export interface FormulaFigures {
  /** 50,000 values of a lagged position, none of them asked for before. */
  readonly lag50kMs: number;
  /** The same against as many values of the lead itself, from its keyframes. */
  readonly lagToKeys: number;
  /** A whole frame of a chain of 200 followers, each behind the one before, as it plays. */
  readonly chain200Ms: number;
  /** The last of a chain at a frame by itself: of 200 against 50 followers. */
  readonly chainGrowth: number;
}

export const measureFormulas = (): FormulaFigures => {
  const rigged = line(100, () => 'lag({@lead/position}, {@rig/delay/value} * order) + [20, 20] * order');
  const { wiring } = compileScene(rigged, NO_LIBRARY);
  const samplers = rigged.order.flatMap((id) => (id.startsWith('b') ? (wiring.sampler(at(id)) ?? []) : []));
  const lead = wiring.sampler(at('lead'));
  // Each pass asks for moments between frames that no pass before has asked for.
  const passes = Array.from({ length: 15 }, (_, pass) => {
    const shift = (pass + 1) / 100;
    return {
      lag: timed(() => {
        for (const sampler of samplers) for (let f = 0; f < 500; f++) sampler.at(f + shift);
      }),
      keys: timed(() => {
        for (let i = 0; i < 100; i++) for (let f = 0; f < 500; f++) lead?.at(f + shift - 3 * i);
      }),
    };
  });
  const chain = (count: number) =>
    line(count, (i) => `lag({@${i === 0 ? 'lead' : `b${i - 1}`}/position}, frames(1)) + [2, 0]`);
  const long = chain(200);
  const frames = Array.from({ length: 3 }, () => {
    const program = compileScene(fresh(long), NO_LIBRARY);
    program.at(0);
    return (
      timed(() => {
        for (let f = 1; f < 300; f++) program.at(f);
      }) / 299
    );
  });
  const alone = (count: number) => {
    const scene = chain(count);
    const sampler = compileScene(scene, NO_LIBRARY).wiring.sampler(at(`b${count - 1}`));
    // Fractions of frames, so that every step of the chain is a moment that was not asked for before.
    return median(Array.from({ length: 200 }, (_, i) => timed(() => sampler?.at(400 + i / 1000 + 0.0001))));
  };
  const growth = (): number => alone(200) / alone(50);
  // Both once before they are compared: what runs first is compiled meanwhile.
  growth();
  return {
    lag50kMs: Number(median(passes.map((p) => p.lag)).toFixed(1)),
    lagToKeys: Number(median(passes.map((p) => p.lag / p.keys)).toFixed(2)),
    chain200Ms: Number(median(frames).toFixed(2)),
    chainGrowth: Number(median(Array.from({ length: 7 }, growth)).toFixed(2)),
  };
};
