import { describe, expect, it } from 'vitest';
import { caretAt, glyphOutlines, indexAt, layoutText, type TextStyle } from './layout';
import { fittedSize } from './fitting';
import { readPairs, writePairs } from './pairs';
import { packedPath, pathFrom, recording, replayed } from './recorded';
import { PLAIN, squareFace, squareFonts } from '../test/fonts';

// Each letter is 50 px wide.
/** Marks are glyphs of no width, of the cluster of their letter. */
const markedFace = {
  ...squareFace,
  shape: (text: string, features: string) =>
    squareFace.shape(text, features).map((glyph) => {
      const mark = /\p{M}/u.test(text[glyph.cluster]!);
      return mark ? { ...glyph, cluster: glyph.cluster - 1, advance: 0 } : glyph;
    }),
};
const laid = (style: Partial<TextStyle>) => layoutText(squareFace, { ...PLAIN, ...style });
const xs = (style: Partial<TextStyle>) => laid(style).glyphs.map((g) => Math.round(g.x * 100) / 100);
const texts = (style: Partial<TextStyle>) => {
  const text = style.text ?? PLAIN.text;
  return laid(style).lines.map((l) => text.slice(l.from, l.to));
};

describe('point text', () => {
  it.each([
    ['left', [0, 50, 100, 150]],
    ['center', [-100, -50, 0, 50]],
    ['right', [-200, -150, -100, -50]],
  ] as const)('set %s stands from, about or up to x = 0', (align, wanted) => {
    expect(xs({ align })).toEqual(wanted);
  });
  it('has a line to each line typed, a leading apart', () => {
    const { lines } = laid({ text: 'Last\n\ntram' });
    expect(lines.map((l) => [l.from, l.to, l.baseline])).toEqual([
      [0, 4, 0],
      [5, 5, 120],
      [6, 10, 240],
    ]);
  });
  it('is set in capitals letter by letter: no place in it moves', () => {
    expect(laid({ text: 'ßtraße', letters: 'upper' }).glyphs.map((g) => g.from)).toEqual([0, 1, 2, 3, 4, 5]);
  });
});

describe('spacing', () => {
  it('tracking goes between letters, not after the last', () => {
    expect(xs({ tracking: 100 })).toEqual([0, 60, 120, 180]);
    expect(xs({ tracking: 100, align: 'right' }).at(-1)).toBe(-50);
  });
  it('pairs by hand move what comes after them', () => {
    expect(xs({ text: 'AVAV', pairs: 'AV -40' })).toEqual([0, 46, 96, 142]);
  });
  it('pairs are read leniently and written back', () => {
    const pairs = readPairs('AV -40, To 20,nonsense, X 5');
    expect([...pairs]).toEqual([
      ['AV', -40],
      ['To', 20],
    ]);
    expect(writePairs(new Map([...pairs, ['fi', 0]]))).toBe('AV -40, To 20');
  });
  it('tracking goes after a letter with its marks, not between them, and not after what is invisible', () => {
    const marked = (text: string) => layoutText(markedFace, { ...PLAIN, text, tracking: 100 }).glyphs.map((g) => g.x);
    expect(marked('a\u0301b')).toEqual([0, 50, 60]);
    expect(marked('a\u00adb')).toEqual([0, 60, 60]);
    // To the left: the mark is drawn before its letter, which the next one is moved away from.
    expect(
      layoutText(markedFace, { ...PLAIN, text: 'א\u05b8ב', tracking: 100 }).glyphs.map((g) => [g.from, g.x]),
    ).toEqual([
      [2, 0],
      [0, 60],
      [0, 60],
    ]);
  });
  it('letters that are spaced out are not joined', () => {
    expect([xs({ text: 'fin' }).length, xs({ text: 'fin', tracking: 1 }).length]).toEqual([2, 3]);
  });
});

describe('in a box', () => {
  it('lines break at spaces, and a word too long has one to itself', () => {
    expect(texts({ text: 'The town sleeps', wrap: 260 })).toEqual(['The ', 'town ', 'sleeps']);
    expect(texts({ text: 'The town sleeps', wrap: 420 })).toEqual(['The town ', 'sleeps']);
  });
  it('stands about the middle, spaces at its ends aside', () => {
    const { lines } = laid({ text: 'The town sleeps', wrap: 420, align: 'right' });
    const letters = laid({ text: 'The town sleeps', wrap: 420, align: 'right' }).glyphs.filter((g) => g.id === 1);
    expect(lines).toHaveLength(2);
    const ends = [0, 1].map((n) => Math.max(...letters.filter((g) => g.line === n).map((g) => g.x + g.advance)));
    expect(ends).toEqual([210, 210]);
  });
  it('justified lines fill the width, the last one does not', () => {
    const style = { text: 'The town sleeps', wrap: 420, align: 'justify' } as const;
    const [first, last] = laid(style).lines;
    const letters = laid(style).glyphs.filter((g) => g.id === 1 && g.line === 0);
    expect([letters[0]?.x, Math.max(...letters.map((g) => g.x + g.advance))]).toEqual([-210, 210]);
    expect([first?.left, last?.left, last?.right]).toEqual([-210, -210, 90]);
  });
});

describe('where a line may end', () => {
  // Unicode Line Breaking Algorithm (UAX 14), rules in brackets.
  it.each([
    ['after a hyphen (LB21)', 'night-tram', 350, ['night-', 'tram']],
    ['between ideographs (LB31), not before what closes them (LB13)', '東京へ行く。夜', 200, ['東京へ行', 'く。夜']],
    ['not before what closes', '東京へ行。夜', 200, ['東京へ', '行。夜']],
    ['around a dash (LB17)', 'late—later', 250, ['late—', 'later']],
    ['not at a space that is not to be broken at (LB12)', 'two\u00a0forty now', 400, ['two\u00a0forty ', 'now']],
    ['not within a number (LB25)', 'at 1,250.50', 250, ['at ', '1,250.50']],
  ])('%s', (_, text, wrap, wanted) => {
    expect(texts({ text, wrap })).toEqual(wanted);
  });
});

describe('a soft hyphen', () => {
  const soft = 'Stra\u00adssen\u00adbahn';
  const shown = (wrap: number) => {
    const { glyphs, lines } = laid({ text: soft, wrap });
    return lines.map(({ width }, n) => [glyphs.filter((g) => g.line === n && g.id === 1).length, width]);
  };
  it('is nothing within a line, and a hyphen at its end', () => {
    expect(shown(600)).toEqual([[12, 600]]);
    // Four letters and a hyphen, then eight.
    expect(shown(500)).toEqual([
      [9, 450],
      [4, 200],
    ]);
    expect(shown(250)).toEqual([
      [5, 250],
      [5, 250],
      [4, 200],
    ]);
  });
  it('is no place to break at where its hyphen has no room', () => {
    expect(shown(400)).toEqual([
      [5, 250],
      [8, 400],
    ]);
    expect(laid({ text: 'ab\u00adcd', wrap: 100 }).lines).toHaveLength(1);
  });
});

describe('from right to left', () => {
  /** The letters of each line as they are seen. */
  const seen = (style: Partial<TextStyle> & { text: string }) => {
    const { glyphs, lines } = laid(style);
    const inLine = (n: number) => glyphs.filter(({ line }) => line === n).sort((a, b) => a.x - b.x);
    return lines.map((_, n) =>
      inLine(n)
        .map(({ from }) => style.text[from])
        .join(''),
    );
  };
  it('letters follow each other to the left, numbers and other scripts in them to the right (UAX 9)', () => {
    expect(seen({ text: 'אבג' })).toEqual(['גבא']);
    expect(seen({ text: 'tram אבג now' })).toEqual(['tram גבא now']);
    expect(seen({ text: 'אב 24 גד' })).toEqual(['דג 24 בא']);
    expect(seen({ text: 'אב tram גד' })).toEqual(['דג tram בא']);
  });
  it('lines break as they are read, and spaces at their ends hang over the left', () => {
    expect(seen({ text: 'אבג דהו זח', wrap: 350 })).toEqual([' והד גבא', 'חז']);
    const [first] = laid({ text: 'אבג דהו זח', wrap: 350, align: 'left' }).lines;
    expect([first?.left, first?.right, first?.width]).toEqual([-225, 175, 350]);
  });
  it('the last line of a justified text ends on the right', () => {
    const { lines } = laid({ text: 'אבג דהו זח', wrap: 400, align: 'justify' });
    expect([lines[1]?.left, lines[1]?.right]).toEqual([100, 200]);
  });
  it('a caret before the first letter is on its right', () => {
    const layout = laid({ text: 'אבג' });
    expect([0, 1, 3].map((i) => caretAt(layout, i).at[0])).toEqual([150, 100, 0]);
    expect([indexAt(layout, [149, 0]), indexAt(layout, [1, 0]), indexAt(layout, [999, 0])]).toEqual([0, 3, 0]);
  });
});

describe('a size that fits a box', () => {
  const fitted = (style: Partial<TextStyle>, fit: 'shrink' | 'fill', wrap: number, height: number) =>
    fittedSize(squareFace, { ...PLAIN, ...style, fit, wrap, height });
  it('is the largest at which the longest word is as wide as the box', () => {
    // Ten letters of half an em.
    expect(fitted({ text: 'Quillhaven' }, 'shrink', 250, 900)).toBeCloseTo(50, 2);
    expect(fitted({ text: 'at Quillhaven' }, 'fill', 250, 900)).toBeCloseTo(50, 1);
  });
  it('is the largest at which all lines are as high as the box', () => {
    // One line is an em high, two are 2.2.
    expect(fitted({ text: 'Tram' }, 'fill', 9_000, 30)).toBeCloseTo(30, 1);
    expect(fitted({ text: 'Tram\nnow' }, 'shrink', 9_000, 110)).toBeCloseTo(50, 2);
  });
  it('takes more lines where larger letters have room so', () => {
    // On one line 240 px wide at the most 9 letters of 53.3 px; on two, 4 letters are 2.2 ems high.
    expect(fitted({ text: 'Tram stop' }, 'fill', 240, 220)).toBeCloseTo(100, 1);
  });
  it('is its own where that fits, and 0 where nothing does', () => {
    expect(fitted({ text: 'Tram' }, 'shrink', 200, 100)).toBe(100);
    expect(fitted({ text: 'Tram' }, 'shrink', 1, 0)).toBeCloseTo(0, 1);
  });
});

describe('a caret', () => {
  const layout = laid({ text: 'ab\ncd' });
  it('stands before the letter of its place, at the end of a line after the last', () => {
    expect([0, 1, 2, 3, 5].map((i) => caretAt(layout, i).at)).toEqual([
      [0, 0],
      [50, 0],
      [100, 0],
      [0, 120],
      [100, 120],
    ]);
  });
  it('comes to the place nearest to a point', () => {
    expect([indexAt(layout, [-9, 0]), indexAt(layout, [60, -10]), indexAt(layout, [999, 0])]).toEqual([0, 1, 2]);
    expect([indexAt(layout, [20, 110]), indexAt(layout, [40, 110]), indexAt(layout, [999, 999])]).toEqual([3, 4, 5]);
  });
  it('goes into a ligature by shares of it', () => {
    expect(caretAt(laid({ text: 'fin' }), 1).at).toEqual([25, 0]);
  });
});

it('outlines stand where their glyphs do', () => {
  const [first, second] = glyphOutlines(squareFace, 100, laid({ text: 'ab' }).glyphs);
  expect([first!.points[0], first!.points[1], second!.points[0]]).toEqual([10, 0, 60]);
});

it('what was asked of fonts can be replayed without them', () => {
  const choice = { family: 'Any', weight: 400, italic: false };
  const { fonts, record } = recording(squareFonts);
  const face = fonts.find(choice)!.face;
  const before = layoutText(face, { ...PLAIN, text: 'Night fi' });
  const outlines = glyphOutlines(face, 100, before.glyphs);
  const again = replayed(JSON.parse(JSON.stringify(record))).find(choice)!.face;
  expect(layoutText(again, { ...PLAIN, text: 'Night fi' })).toEqual(before);
  // Faces draw in whole units, which this one does not.
  const rounded = (of: typeof outlines) => of.map(({ points }) => [...points].map((n) => n.toFixed(9)));
  expect(rounded(glyphOutlines(again, 100, before.glyphs))).toEqual(rounded(outlines));
  expect(replayed(record).find({ ...choice, weight: 700 })).toBeNull();
});

it('writes drawing commands by the ways between points, and reads the same', () => {
  const path = [
    ['M', 7864, -262],
    ['Q', 5702, -262, 4071, 541],
    ['L', 4071, 541],
    ['C', 0, 1, -2, 3, 16_000, -5],
    ['Z'],
    ['M', 1, 1],
    ['Z'],
  ] as const;
  expect(packedPath(path)).toBe('16384M7864-262Q-2162 0-3793 803L0 0C-4071-540-4073-538 11929-546ZM-15999 6Z');
  expect(pathFrom(packedPath(path))).toEqual(path);
  expect(pathFrom('')).toEqual([]);
  // In the units of the font where it is the same in them: 480 of 1,000 are 7,864.32 of 16,384, and 983 of 2,048 are 7,864.
  expect(packedPath([['M', 7864, -262], ['L', 4063, 541], ['Z']])).toBe('1000M480-16L-232 49Z');
  expect(pathFrom('1000M480-16L-232 49Z')).toEqual([['M', 7864, -262], ['L', 4063, 541], ['Z']]);
  expect(packedPath([['M', 7864, -264], ['Z']])).toBe('2048M983-33Z');
  expect(pathFrom('2048M983-33Z')).toEqual([['M', 7864, -264], ['Z']]);
});
