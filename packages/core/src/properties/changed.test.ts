import { describe, expect, it } from 'vitest';
import { newDrawing, newItem, newProject, newScene } from '../document/make';
import type { Edit } from '../document/patches';
import { applyEdit } from '../edits/apply';
import { addLayers, removeLayers } from '../edits/layers';
import { renameProject, setScene } from '../edits/scenes';
import { setValue } from '../edits/properties';
import { whatChanged } from './changed';

const scene = newScene('s', 'Depot', {
  width: 10,
  height: 10,
  rate: { num: 25, den: 1 },
  length: 50,
  background: null,
});
const lamp = newDrawing(scene, 'l', 'Lamp', [newItem('r', 'rectangle')]);
const doc = newProject('p', 'Night', [{ ...scene, order: ['l'], layers: { l: lamp } }]);

const told = (edit: Edit, from = doc): string[] => {
  const { doc: after, patches, inverse } = applyEdit(from, edit);
  return whatChanged([after], patches, inverse).map(
    ({ where, what, from: was, to }) => `${[...where, what].join(' › ')}: ${was ?? '–'} → ${to ?? '–'}`,
  );
};
const write = { write: 'curve', frame: 0 } as const;

describe('what an edit changed', () => {
  it('is named by scene, layer and card, with short values before and after', () => {
    expect(told(renameProject('Day'))).toEqual(['Name of the project: “Night” → “Day”']);
    expect(told(setScene('s', { length: 60 }))).toContain('Depot › Length: 50 → 60');
    const half = setValue({ scene: 's', layer: 'l', key: 'opacity' }, 0.5, write);
    const { doc: faint } = applyEdit(doc, half);
    const more = setValue({ scene: 's', layer: 'l', key: 'opacity' }, 0.25, write);
    expect(told(more, faint)).toEqual(['Depot › Lamp › Opacity: 50 % → 25 %']);
    const size = setValue({ scene: 's', layer: 'l', item: 'r', key: 'centre' }, [40, 30], write);
    expect(told(size)).toEqual(['Depot › Lamp › Rectangle › Centre: – → 40 × 30']);
  });

  it('is told as a whole where something came or went, by the name that it had', () => {
    const other = newDrawing(scene, 'm', 'Moth', []);
    expect(told(addLayers('s', [other]))).toEqual(['Depot › Moth added: – → –']);
    expect(told(removeLayers('s', ['l']))).toEqual(['Depot › Lamp taken away: – → –']);
  });
});
