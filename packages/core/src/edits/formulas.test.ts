/** What edits leave of formulas and of what they read. */
import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { upgraded } from '../check/versions';
import { countingIds, FORMAT_VERSION } from '../document/make';
import type { Id, Layer, Point, Project, PropertyRef } from '../document/types';
import { addLayers, copiesOf, setLayers } from './layers';
import { bakeFormula, setFormula, turnFormula } from './formulas';
import { readersOf } from '../scene/follows';
import { paramAt } from '../properties/find';
import { setValue } from './properties';
import { splitLayers } from './timing';
import { joinSets } from './sets';
import { samplerOf } from '../motion/sampler';
import { bakedFormula } from '../formula/bake';
import { linkText, READY_FORMULAS } from '../formula/ready';
import { pathOf, shownText, storedText, type Target } from '../formula/refs';
import { bar, ref, sceneOf, done, programOf, valueAt, messages, strip } from '../test/formulas';

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
    expect(upgraded(old)).toMatchObject({ version: FORMAT_VERSION, scenes: { s: { sets: [] } } });
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
