import type { CheckKind } from '../types';

/** Words that do not fit in the picture. */
export const cut: CheckKind = {
  kind: 'cut',
  about: 'Text that the edge of the picture cuts while it stands still',
  ofVersions: true,
  *find({ scene, texts }) {
    const { cut: all } = yield* texts();
    return all.map(({ layer, name, at: frame }) => ({
      ...{ check: 'cut', scene: scene.id, layer, frame },
      message: `“${name}” is cut by the edge of the picture.`,
    }));
  },
};
