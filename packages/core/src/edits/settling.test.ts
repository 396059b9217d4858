import { describe, expect, it } from 'vitest';
import type { Move } from '../document/moves';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { Edit } from '../document/patches';
import type { DrawingLayer, Id, Project, Scene } from '../document/types';
import { READY_MOVES } from '../moves/ready';
import { layerBoxInScene } from '../scene/bounds';
import { compileScene } from '../scene/compile';
import type { Library } from '../scene/program';
import { wholeScene } from '../scene/whole';
import { done } from '../test/done';
import { squareFonts } from '../test/fonts';
import { applyMove } from './moves';
import { awayIn, stayingOutside } from './outside';
import { setValue } from './properties';
import { duplicateScene } from './scenes';
import { settledIn, settledScene, settling, unsettledScenes } from './settling';
import { splitText } from './text';
import { columnsOffered, ownValue } from './versionOffers';
import { addColumns, addVersion, asVersion, putVersion, setInVersion } from './versions';
import { setWord } from './words';

const LIBRARY: Library = { assets: {}, fonts: squareFonts };
const NO_FONTS: Library = { assets: {}, fonts: { find: () => null } };
const SIZE = { width: 900, height: 400, rate: { num: 25, den: 1 }, length: 50, background: '#FFFFFF' } as const;

/** A line “Last tram” in a scene, in the middle. */
const line = ((): Project => {
  const scene = newScene('s', 'Scene', SIZE);
  const cards = [newItem('t', 'text', { text: 'Last tram', size: 60 }), newItem('f', 'fill')];
  const layer = newDrawing(scene, 'l', 'Line', cards, { position: [450, 200] });
  return newProject('p', 'Night line', [{ ...scene, layers: { l: layer }, order: ['l'] }]);
})();
const sceneOf = (doc: Project, id: Id = 's') => doc.scenes[id] as Scene;
const programOf = (doc: Project, library = LIBRARY) => compileScene(wholeScene(sceneOf(doc), doc), library);
const fresh = countingIds('n');
const split = (doc: Project) =>
  done(doc, splitText({ scene: 's', layer: 'l', item: 't' }, 'letters', 0, programOf(doc), fresh));
const withColumns = (doc: Project) => done(doc, addColumns(columnsOffered(doc, fresh)));
/** The project in which a version says something else than its only words. */
const withVersion = (doc: Project, text: string) =>
  done(
    doc,
    addVersion({ id: 'v', name: 'Other', values: {} }),
    setInVersion('v', doc.versions.columns[0]?.id ?? '', text),
  );
const shown = (doc: Project, text: string, library = LIBRARY) =>
  settledIn(asVersion(withVersion(doc, text), 'v'), 's', library);

/** Where each layer of the scene is, from the back to the front, and by which name. */
const places = (doc: Project, frame: number) => {
  const program = programOf(doc);
  return sceneOf(doc).order.map((id) => [
    sceneOf(doc).layers[id]?.name,
    Object.values(layerBoxInScene(program, id, frame) ?? {}).map((n) => Math.round(n * 1000) / 1000),
  ]);
};
/** As the editor does it by hand. */
const byHand = (doc: Project, edit: Edit): Project => {
  const next = done(doc, edit);
  const more = stayingOutside(doc, next, (scene) => compileScene(scene, LIBRARY));
  return more ? done(next, more) : next;
};
const typed = (doc: Project, text: string) =>
  setWord('s', sceneOf(doc).sets[0]?.id ?? '', text, 0, programOf(doc), countingIds('h'));
/** “Slide in” from outside, from the left. */
const outside = { ...(READY_MOVES.find(({ name }) => name === 'Slide in') as Move), angle: 180, outside: true } as Move;
const moved = (doc: Project) =>
  done(doc, applyMove('s', sceneOf(doc).order, 'm', outside, 0, awayIn(programOf(doc), 0), fresh));

describe('words that were split', () => {
  it.each(['Night', 'Last bus', 'The very last tram', 'To\nsea'])(
    'say in a version what is typed by hand: %s',
    (text) => {
      const parts = withColumns(split(line));
      expect(parts.versions.columns).toMatchObject([{ name: 'Last tram', kind: 'words' }]);
      expect(places(shown(parts, text), 0)).toEqual(places(byHand(parts, typed(parts, text)), 0));
    },
  );

  it('keep the column that they had before, and are offered none', () => {
    const table = withColumns(line);
    const parts = split(table);
    expect(columnsOffered(parts, fresh)).toEqual([]);
    expect(ownValue(parts, parts.versions.columns[0]!)).toBe('Last tram');
    expect(places(shown(parts, 'Night bus'), 0)).toEqual(places(byHand(parts, typed(parts, 'Night bus')), 0));
  });

  it('are the same wherever they are laid out', () => {
    const version = asVersion(withVersion(withColumns(split(line)), 'The very last tram'), 'v');
    const once = settledIn(version, 's', LIBRARY);
    expect(settledIn(version, 's', LIBRARY)).toEqual(once);
    const sent = JSON.parse(JSON.stringify(wholeScene(sceneOf(version), version))) as Scene;
    expect(settledScene(sent, LIBRARY)).toEqual(JSON.parse(JSON.stringify(sceneOf(once))));
    expect(sceneOf(once).unsettled).toBeUndefined();
    expect(settledIn(once, 's', LIBRARY)).toBe(once);
  });

  it('are laid out in scenes that nest theirs', () => {
    const parts = withColumns(split(line));
    const nesting = newScene('n', 'Film', SIZE);
    const nest = newDrawing(nesting, 'l', 'Nest', [newItem('n', 'nest', { scene: 's' })]);
    const film: Project = {
      ...parts,
      scenes: { ...parts.scenes, n: { ...nesting, layers: { l: nest }, order: ['l'] } },
      order: ['s', 'n'],
    };
    const version = asVersion(withVersion(film, 'Night'), 'v');
    const whole = settledScene(wholeScene(sceneOf(version, 'n'), version), LIBRARY);
    expect(whole.nested?.s).toEqual(sceneOf(shown(parts, 'Night')));
  });

  it('stay as they are while their font is missing', () => {
    const parts = withColumns(split(line));
    const without = shown(parts, 'Night', NO_FONTS);
    expect(sceneOf(without).layers).toBe(sceneOf(parts).layers);
    expect(sceneOf(without).unsettled).toBeUndefined();
  });

  it('go into the project letter by letter, or not at all', () => {
    const parts = withVersion(withColumns(done(split(line), duplicateScene('s', 's2'))), 'The very last tram');
    const version = asVersion(parts, 'v');
    expect(unsettledScenes(version).map(({ id }) => id)).toEqual(['s', 's2']);
    const put = done(parts, settling(putVersion('v'), version, LIBRARY, fresh));
    expect(places(put, 0)).toEqual(places(settledIn(version, 's', LIBRARY), 0));
    expect(sceneOf(put).sets).toMatchObject([{ name: 'The very last tram' }]);
    expect(asVersion(put, 'v').scenes).toEqual(put.scenes);
    expect(() => done(parts, settling(putVersion('v'), version, NO_FONTS, fresh))).toThrow('not here yet');
  });
});

describe('moves from outside', () => {
  it('come from outside in a version, whatever that says', () => {
    const come = withColumns(moved(line));
    const ref = { scene: 's', layer: 'l', item: 't', key: 'text' };
    const long = 'The very last tram';
    const version = shown(come, long);
    expect(places(version, 0)).toEqual(places(byHand(come, setValue(ref, long, { write: 'curve', frame: 0 })), 0));
    // It touches the left edge from outside, and would not have as far away as the project's words.
    const right = (doc: Project) => layerBoxInScene(programOf(doc), 'l', 0)?.right;
    expect(right(version)).toBeCloseTo(0);
    expect(right(asVersion(withVersion(come, long), 'v'))).toBeGreaterThan(0);
  });

  it('bring each letter of a word from there, those too that come', () => {
    const come = withColumns(moved(split(line)));
    const version = shown(come, 'The very last tram');
    const program = programOf(version);
    const rights = sceneOf(version).order.map((id) => layerBoxInScene(program, id, 0)?.right ?? 0);
    expect(rights).toHaveLength(15);
    for (const right of rights) expect(right).toBeCloseTo(rights[0] as number);
    const cards = Object.values((sceneOf(version).layers[sceneOf(version).order[14] as Id] as DrawingLayer).items);
    expect(cards.map(({ kind }) => kind)).toEqual(['text', 'fill']);
  });

  it('are left alone where a version changes nothing of them', () => {
    const parts = withColumns(moved(split(line)));
    const version = asVersion(withVersion(parts, 'Last tram'), 'v');
    expect(unsettledScenes(version)).toEqual([]);
    expect(settledIn(version, 's', LIBRARY)).toBe(version);
  });
});
