import { readdirSync, readFileSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

/** What the build laid out; files are as `name.js`. */
const ASSETS = fileURLToPath(new URL('dist/assets/', import.meta.url));

const named = (name: string): string => {
  const file = readdirSync(ASSETS).find((each) => each.startsWith(`${name}-`) && each.endsWith('.js'));
  if (!file) throw new Error(`there is no ${name}`);
  return file;
};

/** A file and all that it needs before it runs. */
const withNeeded = (file: string, found = new Set<string>()): Set<string> => {
  if (found.has(file)) return found;
  found.add(file);
  const text = readFileSync(ASSETS + file, 'utf8');
  for (const [, other] of text.matchAll(/(?:\bfrom|\bimport)\s*["'`]\.\/([\w-]+\.js)["'`]/g)) withNeeded(other!, found);
  return found;
};

/** In bytes, as a browser gets them: those that Brotli does not make smaller are sent as they are. */
const weight = (files: Iterable<string>): number => {
  const sizeOf = (file: string) => statSync(ASSETS + file, { throwIfNoEntry: false })?.size;
  return [...files].reduce((sum, file) => sum + (sizeOf(`${file}.br`) ?? sizeOf(file)!), 0);
};

describe('what comes over the wire', () => {
  const first = withNeeded(named('index'));
  const editor = new Set([...first, ...withNeeded(named('EditorPage'))]);
  const worker = withNeeded(named('worker'));

  it('is few files: the first page, the editor, and the worker that is made of the same', () => {
    expect(first.size).toBeLessThanOrEqual(4);
    expect(editor.size).toBeLessThanOrEqual(9);
    const alone = [...worker].filter((file) => !editor.has(file));
    expect(alone).toEqual([named('worker')]);
  });

  it('weighs no more than it should, packed', () => {
    const look = readdirSync(ASSETS).filter((file) => file.endsWith('.css'));
    expect(look).toHaveLength(1);
    expect(weight([...first, ...look])).toBeLessThan(160_000);
    expect(weight(new Set([...editor, ...worker, ...look]))).toBeLessThan(398_000);
  });

  it('gives a worker nothing that only a page can run', () => {
    for (const file of [...worker, ...withNeeded(named('proofing'))])
      expect(readFileSync(ASSETS + file, 'utf8')).not.toMatch(/createRoot|document\.getElementById/);
  });
});
