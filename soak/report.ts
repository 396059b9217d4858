/** Figures by what they count; `faults` are those that must be none. */
export type Figures = { readonly [what: string]: number };

/** Says where something went wrong, and how to find it again. */
export const fault = (what: string, seed: number, detail: string): void =>
  console.error(`FAULT ${what}, seed ${seed}: ${detail}`);

/** How long each took, in ms. */
export class Times {
  private readonly all: number[] = [];

  async of<T>(work: () => T | Promise<T>): Promise<T> {
    const from = performance.now();
    try {
      return await work();
    } finally {
      this.all.push(performance.now() - from);
    }
  }

  get longest(): number {
    return Math.round(this.all.reduce((most, ms) => Math.max(most, ms), 0));
  }

  get last(): number {
    return this.all.at(-1) ?? 0;
  }
}
