import { describe, expect, it } from 'vitest';
import { untold } from './untold';

const CARD = `import { choice, px as pixels } from '../../document/params';
import { label } from './other';
export const card = step({
  kind: 'card',
  label: 'Card',
  params: { size: pixels('Size', 4, { hint: 'of it' }), way: choice('Way', [{ value: 'a', label: 'A' }], 'a') },
  summary: (v: Values) => label({ label: v.size }),
});
const { label: own } = label('Size');
`;

describe('source that tells nothing', () => {
  it('is without properties of objects, and has all else', () => {
    const left = untold('card.ts', CARD, new Set(['label', 'summary', 'hint']), true);
    expect(left).toContain('px as pixels } from');
    expect(left).toMatch(
      /kind: 'card',\s+params: \{ size: pixels\('Size', 4, \{ +\}\), way: choice\('Way', \[\{ value: 'a', *\}\], 'a'\) \},\s+\}\);/,
    );
    // What is taken from an object stays.
    expect(left).toContain("const { label: own } = label('Size');");
  });
  it('is without what parameters are called, where nobody calls them', () => {
    const left = untold('card.ts', CARD, new Set(['label']), false);
    expect(left).toContain("pixels('', 4");
    expect(left).toContain("choice('', [");
    expect(left).toContain("label('Size')");
  });
  it('is what it was without them', () => {
    expect(untold('card.ts', CARD, new Set(['other']), true)).toBe(CARD);
  });
});
