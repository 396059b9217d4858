import { describe, expect, it } from 'vitest';
import { readTable } from './pastedTable';

describe('a table that is pasted', () => {
  it('has a number in each line, with its name before it or behind it, under a head', () => {
    expect(readTable('Hour\tRiders\n22 to 24\t1,240\r\n00 to 02\t980\n')).toEqual({
      numbers: [1240, 980],
      names: ['22 to 24', '00 to 02'],
    });
    expect(readTable('40 %;Amber\n35 %;Teal')).toEqual({ numbers: [40, 35], names: ['Amber', 'Teal'] });
  });
  it('takes cells in quotation marks as spreadsheets write them', () => {
    expect(readTable('"Quill\nSquare"\t12\nSaltings\t7')).toEqual({
      numbers: [12, 7],
      names: ['Quill Square', 'Saltings'],
    });
  });
  it('is a column or a line of numbers alone', () => {
    expect(readTable('12\n−40.5\n3e2')).toEqual({ numbers: [12, -40.5, 300], names: null });
    expect(readTable('12\t40\t30')).toEqual({ numbers: [12, 40, 30], names: null });
  });
  it.each([
    ['12,500.5', 12_500.5],
    ['12.500,5', 12_500.5],
    ['12 500', 12_500],
    ['3,80', 3.8],
    ['1,234', 1_234],
    ['.5', 0.5],
  ])('%s is %d', (cell, value) => {
    expect(readTable(`Mill Lane\t${cell}`)?.numbers).toEqual([value]);
  });
  it('is none where one cell is pasted, or none says a number', () => {
    expect(readTable('12, 40, 30')).toBeNull();
    expect(readTable('Amber\nTeal')).toBeNull();
  });
});
