/** Innermost loops over pixels in WebAssembly, where that is to be had. */
import { LOOPS_WASM } from './loopsWasm';

/** What this needs of WebAssembly (WebAssembly JavaScript Interface, 5), which is nowhere but in what runs it. */
declare const WebAssembly: {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object) => { readonly exports: unknown };
};
declare const atob: (base64: string) => string;

/** What loops.wat exports. */
interface Loops {
  readonly memory: { readonly buffer: ArrayBuffer };
  readonly level: (from: number, count: number, ...rest: readonly [...numbers: number[], folded: boolean]) => void;
  readonly turned: (from: number, count: number, ...rest: readonly [...numbers: number[], folded: boolean]) => void;
  readonly shade: (count: number, start: number, slope: number) => void;
  /** All bits that are set in every pixel of the run. */
  readonly channels: (count: number) => number;
  readonly brightness: (count: number) => number;
}

/** Where in its memory pixels and tables are, in bytes, as loops.wat has it; and so the longest run that it takes. */
export const [PIXELS, TABLES] = [131_072, 196_608];
export const WIDEST = (TABLES - PIXELS) / 4;

let loops: Loops | null | undefined;
/** null where it is not to be had: too old a browser, or a page whose policy forbids it. There is one memory: nothing stays in it. */
export const compiledLoops = (): Loops | null => {
  if (loops !== undefined) return loops;
  try {
    const bytes = Uint8Array.from(atob(LOOPS_WASM), (c) => c.charCodeAt(0));
    loops = new WebAssembly.Instance(new WebAssembly.Module(bytes)).exports as Loops;
  } catch {
    loops = null;
  }
  return loops;
};

/** Changes all pixels in place by a table, run after run; gives all bits that are set in every one of them. null where it cannot. */
export const throughLoop = (
  by: 'channels' | 'brightness',
  pixels: Uint32Array,
  table: readonly number[],
): number | null => {
  const own = compiledLoops();
  if (!own) return null;
  const { buffer } = own.memory;
  new Uint32Array(buffer, TABLES, table.length).set(table);
  let all = -1;
  for (let from = 0; from < pixels.length; from += WIDEST) {
    const some = pixels.subarray(from, from + WIDEST);
    const run = new Uint32Array(buffer, PIXELS, some.length);
    run.set(some);
    all &= own[by](some.length);
    some.set(run);
  }
  return all;
};
