import type { CheckKind } from '../types';

/** A glance takes as long as this, however few words there are, in seconds. */
const GLANCE = 0.5;

const seconds = (s: number): string => `${s.toFixed(1)} s`;

/** Words that are gone, or moving, before they are read. */
export const reading: CheckKind = {
  kind: 'reading',
  about: 'Words that are seen too briefly to be read, or move all the while',
  ofVersions: true,
  *find({ scene, rules, texts }) {
    const { seen: all } = yield* texts();
    return all.flatMap(({ layer, name, words, seen, still, at: frame }) => {
      const needed = Math.max(GLANCE, words / rules.wordsPerSecond);
      const said = (message: string) => [{ check: 'reading', message, scene: scene.id, layer, frame }];
      if (seen < needed - 1e-6) {
        return said(`“${name}” is seen for ${seconds(seen)}; reading it takes ${seconds(needed)}.`);
      }
      if (still < needed - 1e-6) {
        return said(
          `“${name}” moves nearly all the while: it stands still for ${seconds(still)} of ${seconds(needed)}.`,
        );
      }
      return [];
    });
  },
};
