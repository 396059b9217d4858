import { describe, expect, it } from 'vitest';
import { newKnob } from '../document/knobs';
import { newController, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { DrawingLayer, Gradient, Layer, Project, Scene } from '../document/types';
import { keepEffects } from './effects';
import { addKey } from './keyframes';
import { addKnob } from './knobs';
import { addLayers } from './layers';
import { setValue } from './properties';
import { addSwatch, detachSwatches, removeSwatch, setSwatch, swatchAt, takeSwatch, usesOfSwatches } from './swatches';
import { done } from '../test/done';

const size = { width: 400, height: 300, rate: { num: 25, den: 1 }, length: 100, background: null } as const;
const first = newScene('s', 'One', size);
const amber = { id: 'amber', name: 'Amber', color: '#FFB23E' };
const base = done(
  newProject('p', 'Project', [first]),
  addSwatch(amber),
  addLayers('s', [
    newDrawing(first, 'a', 'Dot', [newItem('ae', 'ellipse'), newItem('af', 'fill'), newItem('ao', 'outline')]),
    newController(first, 'rig', 'Rig'),
  ]),
  addKnob('s', 'rig', newKnob('tone', 'color', 'Tone')),
);
const at = (item: string, layer = 'a', key = 'color') => ({ scene: 's', layer, item, key });
const curve = (frame: number) => ({ write: 'curve', frame }) as const;
const scene = (doc: Project) => doc.scenes.s as Scene;
const item = (doc: Project, id: string) => (scene(doc).layers.a as DrawingLayer).items[id];
const fill = (doc: Project) => item(doc, 'af')?.params.color;

describe('a swatch', () => {
  const taken = done(base, takeSwatch(at('af'), amber, curve(0)));
  it('is followed by what is taken from it: cards, knobs, keyframes, kept effects', () => {
    const all = done(
      taken,
      takeSwatch(at('ao'), amber, curve(0)),
      takeSwatch(at('tone', 'rig', 'value'), amber, curve(0)),
      keepEffects('kept', 'Edge', scene(taken).layers.a as DrawingLayer, ['ao']),
    );
    expect(usesOfSwatches(all)).toEqual(new Map([['amber', 2]]));
    const edge = done(all, keepEffects('kept2', 'Edge 2', scene(all).layers.a as DrawingLayer, ['ao']));
    const next = done(edge, setSwatch('amber', { color: '#C00000' }));
    const red = { value: '#C00000', swatch: 'amber' };
    expect(fill(next)).toEqual(red);
    expect(item(next, 'ao')?.params.color).toEqual(red);
    const rig = scene(next).layers.rig as Layer;
    expect(rig.kind === 'controller' && rig.knobs.tone?.params.value).toEqual(red);
    expect(next.effects.find(({ id }) => id === 'kept2')?.cards[0]?.params.color).toEqual(red);
    expect(next.swatches).toEqual([{ ...amber, color: '#C00000' }]);
  });
  it('is followed by the keyframe that was set to it, and by no other', () => {
    const keyed = done(
      base,
      setValue(at('af'), '#111111', curve(0)),
      addKey(at('af'), 0),
      addKey(at('af'), 20),
      takeSwatch(at('af'), amber, { write: 'curve', frame: 20 }),
      setSwatch('amber', { color: '#00FF00' }),
    );
    expect(fill(keyed)).toMatchObject({
      keys: [
        { frame: 0, value: '#111111' },
        { frame: 20, value: '#00FF00', swatch: 'amber' },
      ],
    });
    expect([0, 20, 10].map((frame) => swatchAt(fill(keyed), frame))).toEqual([undefined, 'amber', undefined]);
  });
  it('is followed by the stops of a gradient', () => {
    const gradient: Gradient = {
      stops: [
        { at: 0, color: '#FFB23E', swatch: 'amber' },
        { at: 1, color: '#FFB23E' },
      ],
    };
    const next = done(
      base,
      setValue(at('af', 'a', 'gradient'), gradient, curve(0)),
      setSwatch('amber', { color: '#00FF00' }),
    );
    expect(item(next, 'af')?.params.gradient).toEqual({
      value: {
        stops: [
          { at: 0, color: '#00FF00', swatch: 'amber' },
          { at: 1, color: '#FFB23E' },
        ],
      },
    });
  });
  it('lets go what gets another colour, what is detached, and all when it is taken away', () => {
    expect(fill(done(taken, setValue(at('af'), '#123456', curve(0))))).toEqual({ value: '#123456' });
    expect(fill(done(taken, detachSwatches([at('af')])))).toEqual({ value: '#FFB23E' });
    const gone = done(taken, removeSwatch('amber'));
    expect(fill(gone)).toEqual({ value: '#FFB23E' });
    expect(gone.swatches).toEqual([]);
    // Copied to a project without it, a colour stays what it is.
    const other = done(newProject('q', 'Other', [first]), addLayers('s', [scene(taken).layers.a as Layer]));
    expect(fill(other)).toEqual({ value: '#FFB23E' });
  });
});
