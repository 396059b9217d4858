import type { CutOut, PictureAsset } from '../document/types';

/** A text that stands for a picture as it is shown. */
export const pictureKey = (asset: PictureAsset, cut: CutOut | null): string =>
  cut ? `${asset.sha}:${JSON.stringify(cut)}` : asset.sha;
