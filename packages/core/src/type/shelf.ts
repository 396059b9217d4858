/** Which file answers for a font, and the faces that have been fetched. */
import type { Assets, FontAsset, FontChoice } from '../document/types';
import { SHIPPED } from './shipped';
import type { Face, Fonts } from './types';

/** What stands in for a family that is not here. */
export const STAND_IN = SHIPPED[0]!.name;

/** Where a face's files are to be had from. */
export type FontFile =
  | { readonly from: 'asset'; readonly sha: string; readonly weight: number }
  | { readonly from: 'application'; readonly family: string; readonly weight: number; readonly italic: boolean };

interface Answer {
  readonly file: FontFile;
  readonly is: FontChoice;
}

const nearest = <T>(list: readonly T[], weightOf: (item: T) => number, weight: number): T | undefined =>
  list.reduce<T | undefined>(
    (best, item) =>
      best === undefined || Math.abs(weightOf(item) - weight) < Math.abs(weightOf(best) - weight) ? item : best,
    undefined,
  );

const ofAssets = (choice: FontChoice, assets: Assets): Answer | null => {
  const family = Object.values(assets).filter((a): a is FontAsset => a.kind === 'font' && a.family === choice.family);
  const sloped = family.filter((a) => a.italic === choice.italic);
  const held = (a: FontAsset): number =>
    a.weights ? Math.min(a.weights[1], Math.max(a.weights[0], choice.weight)) : a.weight;
  const best = nearest(sloped.length > 0 ? sloped : family, held, choice.weight);
  if (!best) return null;
  const weight = held(best);
  return {
    file: { from: 'asset', sha: best.sha, weight },
    is: { family: best.family, weight, italic: best.italic },
  };
};

const ofApplication = (choice: FontChoice): Answer | null => {
  const family = SHIPPED.find((f) => f.name === choice.family);
  if (!family) return null;
  const weight = nearest(family.weights, (w) => w, choice.weight) ?? 400;
  const italic = choice.italic && family.italics === 'yes';
  return {
    file: { from: 'application', family: family.id, weight, italic },
    is: { family: family.name, weight, italic },
  };
};

/** The user's own fonts come before the application's; a family that is nowhere is stood in for. */
const answerFor = (choice: FontChoice, assets: Assets): Answer =>
  ofAssets(choice, assets) ?? ofApplication(choice) ?? (ofApplication({ ...choice, family: STAND_IN }) as Answer);

const keyOf = (file: FontFile): string => JSON.stringify(file);
const same = (a: FontChoice, b: FontChoice) => a.family === b.family && a.weight === b.weight && a.italic === b.italic;

/** Faces that have been fetched, for as long as the program runs. */
export class FontShelf {
  private readonly faces = new Map<string, Face>();
  private readonly failed = new Set<string>();
  private fetching = new Map<string, Promise<void>>();
  private last: { assets: Assets; count: number; fonts: Fonts } | null = null;

  constructor(
    /** The files of a face, each an OpenType font. */
    private readonly files: (file: FontFile) => Promise<readonly Uint8Array[]>,
  ) {}

  /** The fonts at hand now: the same object until one comes in. */
  fonts(assets: Assets): Fonts {
    const { last } = this;
    if (last?.assets === assets && last.count === this.faces.size) return last.fonts;
    const known = new Map<string, ReturnType<Fonts['find']>>();
    const fonts: Fonts = {
      find: (choice) => {
        const key = JSON.stringify(choice);
        let found = known.get(key);
        if (found === undefined) {
          found = this.find(choice, assets);
          known.set(key, found);
        }
        return found;
      },
    };
    this.last = { assets, count: this.faces.size, fonts };
    return fonts;
  }

  private find(choice: FontChoice, assets: Assets): ReturnType<Fonts['find']> {
    const { file, is } = answerFor(choice, assets);
    const face = this.faces.get(keyOf(file));
    if (face) return { face, instead: same(choice, is) ? null : is };
    const other = answerFor({ ...choice, family: STAND_IN }, {});
    const standIn = this.faces.get(keyOf(other.file));
    // One that could not be fetched is stood in for; one on its way is waited for.
    return standIn && this.failed.has(keyOf(file)) ? { face: standIn, instead: other.is } : null;
  }

  /** Fetches the faces that are missing. Resolves when all that can be had are here; true if any came in. */
  async fetch(choices: readonly FontChoice[], assets: Assets): Promise<boolean> {
    const before = this.faces.size;
    const wanted = choices.map((choice) => answerFor(choice, assets).file);
    await Promise.all(wanted.map((file) => this.fetchOne(file)));
    const broken = choices.filter((choice) => this.failed.has(keyOf(answerFor(choice, assets).file)));
    await Promise.all(broken.map((choice) => this.fetchOne(answerFor({ ...choice, family: STAND_IN }, {}).file)));
    return this.faces.size > before;
  }

  private fetchOne(file: FontFile): Promise<void> {
    const key = keyOf(file);
    if (this.faces.has(key) || this.failed.has(key)) return Promise.resolve();
    let under = this.fetching.get(key);
    if (!under) {
      under = this.load(file, key).finally(() => this.fetching.delete(key));
      this.fetching.set(key, under);
    }
    return under;
  }

  private async load(file: FontFile, key: string): Promise<void> {
    try {
      const [bytes, { faceOf }] = await Promise.all([this.files(file), import('./harfbuzz')]);
      this.faces.set(key, faceOf(bytes, file.weight));
    } catch {
      this.failed.add(key);
    }
  }
}
