import { applyPatches, changeOf, type Patch } from '@kite/core/document/patches';
import { demoProject } from '@kite/demo/project';
import { describe, expect, it } from 'vitest';
import type { Entry, Step } from './steps';
import { changeBack, overwritten } from './undoing';

const base = demoProject();
const [scene, other] = base.order as [string, string];
const name = (of: string, value: string): Patch[] => [{ op: 'replace', path: ['scenes', of, 'name'], value }];

const NOW = Date.parse('2026-11-28T10:00:00Z');
/** Each on top of the one before. */
const logOf = (...edits: readonly (readonly [by: string, patches: Patch[]])[]) => {
  let doc = base;
  const log = edits.map(([by, patches], i): Entry => {
    const { inverse, doc: next } = changeOf(doc, patches);
    doc = next;
    return { id: `e${i}`, label: `E${i}`, patches, inverse, by: { id: by, name: by }, at: new Date(NOW).toISOString() };
  });
  return { doc, log };
};
const stepOf = ({ id, label, inverse }: Entry): Step => ({ id, entry: id, label, inverse: inverse ?? [] });

describe('a step is taken back', () => {
  it('as it was made, where nobody else did anything since', () => {
    const { doc, log } = logOf(['me', name(scene, 'Mine')]);
    expect(changeBack(doc, log, stepOf(log[0]!), 'me')?.doc).toEqual(base);
  });
  it('alone, where others changed something else', () => {
    const { doc, log } = logOf(['me', name(scene, 'Mine')], ['you', name(other, 'Yours')]);
    const back = changeBack(doc, log, stepOf(log[0]!), 'me');
    expect(back?.doc).toEqual(applyPatches(base, name(other, 'Yours')));
    expect(back?.patches).toHaveLength(1);
  });
  it('not, where what it was about is gone', () => {
    const { doc, log } = logOf(
      ['me', name(scene, 'Mine')],
      [
        'you',
        [
          { op: 'remove', path: ['scenes', scene] },
          { op: 'replace', path: ['order'], value: base.order.slice(1) },
        ],
      ],
    );
    expect(changeBack(doc, log, stepOf(log[0]!), 'me')).toBeNull();
  });
});

describe('what others did over one’s own', () => {
  const { log } = logOf(['me', name(scene, 'Mine')], ['you', name(scene, 'Yours')], ['you', name(other, 'Else')]);
  const [mine, ...theirs] = log as [Entry, ...Entry[]];
  it('is the same value, changed a moment later', () => {
    expect(overwritten(theirs, [mine], 'me', NOW + 1_000).map(({ id }) => id)).toEqual(['e1']);
    expect(overwritten(theirs, [mine], 'me', NOW + 60_000)).toEqual([]);
  });
  it('is no list that is brought together', () => {
    const order: Entry = { ...mine, patches: [{ op: 'replace', path: ['order'], value: [] }] };
    expect(overwritten([{ ...order, by: { id: 'you', name: 'You' } }], [order], 'me', NOW)).toEqual([]);
  });
});
