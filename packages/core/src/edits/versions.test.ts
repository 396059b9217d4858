import { describe, expect, it } from 'vitest';
import { checkProject } from '../check/project';
import { upgraded } from '../check/versions';
import { newDelivery } from '../delivery/kept';
import { fileNameOf, nameFacts } from '../delivery/naming';
import { countingIds, newDrawing, newItem, newProject, newScene } from '../document/make';
import type { Asset, Delivery, DrawingLayer, Project, Scene } from '../document/types';
import { done } from '../test/done';
import { removeAsset } from './assets';
import { setFormula } from './formulas';
import { removeLayers } from './layers';
import { duplicateScene } from './scenes';
import { takeSwatch } from './swatches';
import { columnsOffered, linesOfVersions, ownValue, scenesOfVersions } from './versionOffers';
import {
  addColumns,
  addVersion,
  asVersion,
  fillByNames,
  fillVersions,
  removeColumn,
  setInVersion,
  shownIn,
} from './versions';

const SIZE = { width: 300, height: 250, rate: { num: 25, den: 1 }, length: 50, background: '#FFFFFF' } as const;
const picture = (id: string, width: number, height: number): Asset => ({
  ...{ id, name: `${id}.png`, sha: String(width).padStart(64, '0'), bytes: 10 },
  ...{ kind: 'picture', type: 'image/png', width, height },
});
const sceneSaying = (id: string, ...texts: readonly string[]): Scene => {
  const scene = newScene(id, `Scene ${id}`, SIZE);
  const layers = texts.map((text, i) =>
    newDrawing(scene, `l${i}`, `Line ${i}`, [
      newItem('t', 'text', { text }),
      newItem('f', 'fill', { color: '#1B1F4B' }),
    ]),
  );
  return { ...scene, layers: Object.fromEntries(layers.map((l) => [l.id, l])), order: layers.map(({ id }) => id) };
};
/** Two sizes of a banner that say the same, in a colour of the palette, beside a picture. */
const banner = (): Project => {
  const a = sceneSaying('a', 'Last tram 02:40', 'Plan my ride');
  const shown = newDrawing(a, 'p', 'Picture', [newItem('p', 'picture', { asset: 'moon', size: 50 })]);
  const withPicture = { ...a, layers: { ...a.layers, p: shown }, order: [...a.order, 'p'] };
  const project = newProject('p', 'Night line', [withPicture, sceneSaying('b', 'Last tram 02:40')]);
  const assets = { moon: picture('moon', 100, 100), lamp: picture('lamp', 200, 50) };
  const swatch = { id: 'ink', name: 'Ink', color: '#1B1F4B' } as const;
  const color = { scene: 'a', layer: 'l0', item: 'f', key: 'color' };
  const given = { ...project, assets, swatches: [swatch] };
  return done(given, takeSwatch(color, swatch, { write: 'curve', frame: 0 }));
};
const ids = countingIds('v');
/** All that is offered, as a table. */
const withTable = (project: Project = banner()): Project => done(project, addColumns(columnsOffered(project, ids)));
const columnNamed = (project: Project, name: string): string =>
  project.versions.columns.find((column) => column.name === name)?.id ?? '';
const paramOf = ({ scenes }: Project, scene: string, layer: string, item: string, key: string) =>
  (scenes[scene]?.layers[layer] as DrawingLayer).items[item]?.params[key];

describe('what may differ in versions', () => {
  it('are words by what they say, wherever they say it, swatches and pictures that are shown', () => {
    const project = withTable();
    expect(project.versions.columns).toMatchObject([
      { name: 'Plan my ride', kind: 'words', places: [{ scene: 'a', layer: 'l1', item: 't', key: 'text' }] },
      { name: 'Last tram 02:40', kind: 'words', places: [{ scene: 'a' }, { scene: 'b' }] },
      { name: 'Ink', kind: 'swatch', swatch: 'ink' },
      { name: 'moon.png', kind: 'picture', asset: 'moon' },
    ]);
    expect(columnsOffered(project, ids)).toEqual([]);
    expect(project.versions.columns.map((column) => ownValue(project, column))).toEqual([
      'Plan my ride',
      'Last tram 02:40',
      '#1B1F4B',
      'moon',
    ]);
    expect(scenesOfVersions(project)).toEqual(['a', 'b']);
  });

  it('goes with a copy of a scene, and is nothing where it was deleted', () => {
    const project = done(withTable(), duplicateScene('a', 'c'));
    const words = project.versions.columns[1];
    expect(words).toMatchObject({ places: [{ scene: 'a' }, { scene: 'b' }, { scene: 'c', layer: 'l0' }] });
    const without = done(project, removeLayers('a', ['l1']));
    expect(ownValue(without, without.versions.columns[0] as never)).toBe('Plan my ride');
    const gone = done(without, removeLayers('c', ['l1']));
    expect(ownValue(gone, gone.versions.columns[0] as never)).toBeNull();
  });
});

describe('a version', () => {
  const project = withTable();
  const [button, title, ink, moon] = ['Plan my ride', 'Last tram 02:40', 'Ink', 'moon.png'].map((name) =>
    columnNamed(project, name),
  ) as [string, string, string, string];
  const values = { [title]: 'Letzte Bahn 02:40', [ink]: '#FF5D5D', [moon]: 'lamp' };
  const made = done(project, addVersion({ id: 'de', name: 'Deutsch', values }));

  it('is the project with its own words in every place, its colour and its picture', () => {
    const shown = asVersion(made, 'de');
    checkProject(JSON.parse(JSON.stringify(shown)));
    for (const scene of ['a', 'b']) {
      expect(paramOf(shown, scene, 'l0', 't', 'text')).toEqual({ value: 'Letzte Bahn 02:40' });
    }
    expect(paramOf(shown, 'a', 'l1', 't', 'text')).toEqual(paramOf(made, 'a', 'l1', 't', 'text'));
    expect(paramOf(shown, 'a', 'l0', 'f', 'color')).toEqual({ value: '#FF5D5D', swatch: 'ink' });
    expect(shown.assets.moon).toMatchObject({ id: 'moon', name: 'lamp.png', width: 200 });
    // As wide as the one before: half of its own size.
    expect(paramOf(shown, 'a', 'p', 'p', 'size')).toEqual({ value: 25 });
    // What was given is as it was.
    expect(paramOf(made, 'a', 'l0', 't', 'text')).toEqual({ value: 'Last tram 02:40' });
  });
  it('is the same object for the same project, and leaves scenes alone that it says nothing in', () => {
    expect(asVersion(made, 'de')).toBe(asVersion(made, 'de'));
    const one = done(made, addVersion({ id: 'x', name: 'X', values: { [button]: 'Go' } }));
    expect(asVersion(one, 'x').scenes.b).toBe(one.scenes.b);
    expect(() => asVersion(one, 'none')).toThrow('there is no version "none"');
  });
  it('says its words for all of the time, where keyframes or a formula said others', () => {
    const place = { scene: 'b', layer: 'l0', item: 't', key: 'text' };
    const computed = done(made, setFormula(place, '"Last " + round(frame)'));
    const shown = asVersion(computed, 'de');
    expect(paramOf(shown, 'b', 'l0', 't', 'text')).toEqual({ value: 'Letzte Bahn 02:40' });
    expect((shown.scenes.b?.layers.l0 as DrawingLayer).items.t?.formulas).toBeUndefined();
  });
  it('has nothing where nothing is said, nor in a column that was removed', () => {
    const empty = done(made, setInVersion('de', title, ''));
    expect(empty.versions.rows[0]?.values).toEqual({ [ink]: '#FF5D5D', [moon]: 'lamp' });
    expect(done(made, removeColumn(ink)).versions.rows[0]?.values).toEqual({ [title]: values[title], [moon]: 'lamp' });
  });
  it('lets two pictures change places', () => {
    const both = done(
      made,
      addColumns([{ id: 'other', name: 'Other', kind: 'picture', asset: 'lamp' }]),
      setInVersion('de', 'other', 'moon'),
    );
    const { assets } = asVersion(both, 'de');
    expect([assets.moon?.name, assets.lamp?.name]).toEqual(['lamp.png', 'moon.png']);
  });
  it('keeps the picture that it shows', () => {
    expect(() => done(made, removeAsset('lamp'))).toThrow('it is shown in the version “Deutsch”');
  });
});

describe('the table as text', () => {
  const project = withTable();
  const at = (row: number, column: number) => ({ row, column });
  it('is filled from a cell on, rows coming as they are needed', () => {
    const filled = done(
      project,
      fillVersions(
        [
          ['Go', 'Late'],
          ['Ride', ''],
        ],
        at(0, 0),
        ids,
      ),
    );
    expect(linesOfVersions(filled).slice(1)).toEqual([
      ['Version 1', 'Go', 'Late', '', ''],
      ['Version 2', 'Ride', '', '', ''],
    ]);
    const named = done(filled, fillVersions([['Deutsch'], ['English'], ['Svenska']], at(0, -1), ids));
    expect(named.versions.rows.map(({ name }) => name)).toEqual(['Deutsch', 'English', 'Svenska']);
  });
  it('keeps the places of lines where nothing stands: what was there is as in the project', () => {
    const filled = done(project, fillVersions([['Go'], ['Ride'], ['Stay']], at(0, 0), ids));
    const other = done(filled, fillVersions([['Los'], [''], ['Bleib']], at(0, 0), ids));
    expect(
      linesOfVersions(other)
        .slice(1)
        .map((line) => line[1]),
    ).toEqual(['Los', '', 'Bleib']);
  });
  it('comes back as it was written, whatever the order of its columns', () => {
    const filled = done(project, fillVersions([['Go', 'Late', '#ff5d5d', 'lamp.png']], at(0, 0), ids));
    const lines = linesOfVersions(filled);
    expect(lines[1]).toEqual(['Version 1', 'Go', 'Late', '#FF5D5D', 'lamp.png']);
    const back = done(project, fillVersions(lines, at(0, -1), ids));
    expect(linesOfVersions(back)).toEqual(lines);
    const turned = done(
      project,
      fillVersions(
        lines.map((line) => line.toReversed()),
        at(0, 0),
        ids,
      ),
    );
    expect(linesOfVersions(turned)).toEqual(lines);
  });
  it('goes by the names of versions where it has a head', () => {
    const filled = done(
      project,
      fillVersions(
        [
          ['Deutsch', 'Los'],
          ['Svenska', 'Åk'],
        ],
        at(0, -1),
        ids,
      ),
    );
    const more = [
      ['Last tram 02:40', 'Version'],
      ['Sista', 'Svenska'],
      ['Dernier', 'Français'],
    ];
    expect(linesOfVersions(done(filled, fillVersions(more, at(0, 0), ids))).slice(1)).toEqual([
      ['Deutsch', 'Los', '', '', ''],
      ['Svenska', 'Åk', 'Sista', '', ''],
      ['Français', '', 'Dernier', '', ''],
    ]);
  });
  it('of a file goes by any column that it names, and says where it names none', () => {
    const lines = [
      ['Town', 'Plan my ride', 'Hour', 'Version'],
      ['Quillhaven', 'Go', '2', 'Deutsch'],
    ];
    expect(linesOfVersions(done(project, fillByNames(lines, ids))).slice(1)).toEqual([['Deutsch', 'Go', '', '', '']]);
    expect(() =>
      done(
        project,
        fillByNames(
          [
            ['Town', 'Version'],
            ['Quillhaven', 'Deutsch'],
          ],
          ids,
        ),
      ),
    ).toThrow('the first line names no column of this table');
  });
  it('refuses what is no colour and no picture, by its column', () => {
    const filling = (text: string, column: number) => () => done(project, fillVersions([[text]], at(0, column), ids));
    expect(filling('red', 2)).toThrow('“red” in “Ink” is no colour, as #FFB23E is');
    expect(filling('sun.png', 3)).toThrow('“sun.png” in “moon.png” is no picture of this project');
  });
});

describe('deliveries of versions', () => {
  const table = withTable();
  const filled = done(table, fillVersions([['Deutsch'], ['Svenska']], { row: 0, column: -1 }, ids));
  const delivery = (fields: Partial<Delivery>): Delivery => ({
    ...newDelivery('d', 'GIF', ['a'], { format: 'gif' }),
    ...fields,
  });
  it('show each of them where they are to, and the project else', () => {
    const names = (fields: Partial<Delivery>, of = filled) =>
      shownIn(delivery(fields), of).map(({ version }) => version?.name ?? null);
    expect(names({ everyVersion: true })).toEqual(['Deutsch', 'Svenska']);
    expect(names({})).toEqual([null]);
    expect(names({ everyVersion: true }, table)).toEqual([null]);
  });
  it('have the name of the version in that of the file, asked for or not', () => {
    const called = (file: string, version: string | null) =>
      fileNameOf(
        file,
        nameFacts({
          ...{ project: filled, scene: filled.scenes.a as Scene, delivery: delivery({}), take: 2 },
          ...{ plan: SIZE, version: version === null ? null : { name: version }, time: new Date(0) },
        }),
      );
    expect(called('{scene}-{version}-v{take}', 'Deutsch')).toBe('Scene-a-Deutsch-v2');
    expect(called('{scene}-v{take}', 'På svenska')).toBe('Scene-a-v2-På-svenska');
    expect(called('{scene}-{version}-v{take}', null)).toBe('Scene-a-v2');
  });
  it('came with format 11: what {version} was is {take}', () => {
    const { versions: _none, ...rest } = filled;
    const { everyVersion: _none2, ...old } = delivery({ file: '{scene}-v{version}' });
    const read = upgraded({ ...rest, version: 10, deliveries: [old] }) as Project;
    expect(checkProject(read)).toMatchObject({
      versions: { columns: [], rows: [] },
      deliveries: [{ file: '{scene}-v{take}', everyVersion: false }],
    });
  });
});
