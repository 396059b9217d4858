import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { upgraded } from '../check/versions';
import { newProject, newScene } from '../document/make';
import type { Delivery, DrawingLayer, Project } from '../document/types';
import { addDelivery, moveDelivery, removeDelivery, setDelivery } from '../edits/deliveries';
import { removeScene, setScene } from '../edits/scenes';
import { compileScene } from '../scene/compile';
import { NO_LIBRARY } from '../scene/program';
import { wholeScene } from '../scene/whole';
import { done } from '../test/done';
import { filmOf, sceneOfDelivery } from './film';
import { keptSettings, settingsOf } from './kept';
import { eachOnce, fileNameOf, strangeParts } from './naming';
import { defaultSettings, planRender } from './settings';

const SIZE = { width: 100, height: 50, rate: { num: 25, den: 1 }, length: 50, background: '#FFFFFF' } as const;
const first = newScene('a', 'Route', SIZE);
const second = newScene('b', 'Ticket', { ...SIZE, width: 300, height: 300, rate: { num: 50, den: 1 }, length: 80 });
const project = newProject('p', 'Night line', [first, second]);
const delivery: Delivery = {
  id: 'd',
  name: 'Story',
  scenes: ['a'],
  fade: 0,
  file: '{project}-{scene}-{size}-v{take}',
  everyVersion: false,
  settings: { format: 'mp4' },
};

describe('what is kept of settings', () => {
  it('is what does not follow from the scene, so that it follows the scene', () => {
    const whole = keptSettings(defaultSettings('gif', first), first);
    expect(whole).toEqual({ format: 'gif' });
    const kept = { ...delivery, settings: whole };
    expect(settingsOf(kept, { ...first, length: 70 })).toMatchObject({ from: 0, to: 70 });
    const part = keptSettings({ ...defaultSettings('gif', first), from: 10 } as never, first);
    expect(settingsOf({ ...delivery, settings: part }, { ...first, length: 70 })).toMatchObject({ from: 10, to: 70 });
  });
});

describe('names of files', () => {
  const facts = {
    project: 'Night line',
    scene: 'Route: 7/8',
    delivery: 'Story',
    size: '1080x1920',
    version: '',
    take: '3',
    date: '2026-11-27',
  };
  it('have their parts put in, and nothing that a file system does not take', () => {
    expect(fileNameOf('{project}_{scene} {size} v{take}', facts)).toBe('Night-line_Route-7-8-1080x1920-v3');
    expect(fileNameOf('..{delivery}?', facts)).toBe('Story');
    expect(fileNameOf('///', facts)).toBe('untitled');
  });
  it('say which parts there are not, which stay as they are', () => {
    expect(strangeParts('{scene} {client} {date}')).toEqual(['client']);
    expect(fileNameOf('{client}-{date}', facts)).toBe('{client}-2026-11-27');
  });
  it('are each there once', () => {
    expect(eachOnce(['a.gif', 'a.mp4', 'A.gif', 'a.gif'])).toEqual(['a.gif', 'a.mp4', 'A-2.gif', 'a-3.gif']);
  });
});

describe('a film', () => {
  const shotsOf = (fade: number, ...scenes: (typeof first)[]) => {
    const film = filmOf('f', 'Film', scenes, { fade });
    return { film, shots: [...film.order].reverse().map((id) => film.layers[id] as DrawingLayer) };
  };
  it('has its scenes one after another, by the clock and as large as they fit', () => {
    const { film, shots } = shotsOf(0, first, second);
    // 80 frames at 50 a second are 40 at 25.
    expect(film).toMatchObject({ width: 100, height: 50, length: 90, rate: { num: 25, den: 1 } });
    expect(shots.map(({ from, to }) => [from, to])).toEqual([
      [0, 50],
      [50, 90],
    ]);
    expect(shots[1]?.params.scale).toEqual({ value: [50 / 300, 50 / 300] });
    checkProject({ ...project, scenes: { ...project.scenes, f: film }, order: [...project.order, 'f'] });
  });
  it('passes from one into the next within so many frames, at most half of either', () => {
    const { film, shots } = shotsOf(10, first, second);
    expect(film.length).toBe(80);
    expect(shots[1]).toMatchObject({ from: 40, to: 80 });
    expect(shotsOf(1_000, first, second).film.length).toBe(70);
  });
  it('mixes two opaque pictures by shares that add up to one', () => {
    const program = compileScene(wholeScene(shotsOf(10, first, second).film, project), NO_LIBRARY);
    for (const [frame, share] of [
      [41, 0.1],
      [45, 0.5],
      [50, 1],
    ] as const) {
      const opacities = program.at(frame).marks.map((mark) => (mark.op === 'group' ? mark.alpha : 1));
      expect(opacities.at(-1) ?? 0).toBeCloseTo(share, 6);
    }
  });
  it('says which delivery shows a scene that is gone', () => {
    const gone = { ...delivery, scenes: ['a', 'x'] };
    expect(() => sceneOfDelivery(gone, project)).toThrow('“Story” shows a scene that was deleted');
    expect(sceneOfDelivery(delivery, project)).toBe(first);
  });
});

describe('deliveries', () => {
  const kept = done(project, addDelivery(delivery));
  it('are kept, changed, moved and taken away', () => {
    checkProject(kept);
    const two = done(kept, addDelivery({ ...delivery, id: 'e', name: 'Page' }), moveDelivery('e', 0));
    expect(two.deliveries.map((d) => d.id)).toEqual(['e', 'd']);
    const changed = done(two, setDelivery('e', { settings: { format: 'gif', hold: 2, scale: 99 } }));
    expect(changed.deliveries[0]?.settings).toEqual({ format: 'gif', hold: 2, scale: 8 });
    expect(done(changed, removeDelivery('d')).deliveries.map((d) => d.id)).toEqual(['e']);
  });
  it('outlive their scene, and are made of what it is by then', () => {
    const longer = done(kept, setScene('a', { length: 75 }));
    const scene = sceneOfDelivery(longer.deliveries[0] as Delivery, longer);
    expect(planRender(scene, settingsOf(longer.deliveries[0] as Delivery, scene)).frames).toHaveLength(75);
    const without = done(kept, removeScene('a'));
    checkProject(without);
    expect(without.deliveries).toHaveLength(1);
  });
  it('are refused without a scene, or with a format or settings that there are not', () => {
    expect(() => done(kept, setDelivery('d', { scenes: [] }))).toThrow('“Story” has to show a scene');
    expect(() => done(kept, setDelivery('d', { settings: { format: 'tape' } }))).toThrow('no format “tape”');
    const wrong = (settings: object) => ({ ...kept, deliveries: [{ ...delivery, settings }] });
    expect(() => checkProject(wrong({ format: 'mp4', sound: true }))).toThrow('sound');
    expect(() => checkProject(wrong({ format: 'gif', hold: -1 }))).toThrow('deliveries[0].settings.hold');
  });
  it('came with format 9', () => {
    const { deliveries: _none, ...older } = project;
    expect((upgraded({ ...older, version: 8 }) as Project).deliveries).toEqual([]);
  });
});
