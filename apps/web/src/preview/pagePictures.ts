/** Pictures for small drawings on the page itself: whole, though something be cut out of them. */
import type { Pictures } from '@kite/core/paint/target';
import { assetUrl } from './materials';

const images = new Map<string, HTMLImageElement>();

/** Those that are here; `came` is called once for each other when it is. */
export const pagePictures = (came: () => void): Pictures => ({
  get: ({ sha }) => {
    let image = images.get(sha);
    if (!image) {
      image = new Image();
      image.src = assetUrl(sha);
      images.set(sha, image);
    }
    if (image.complete) return image.naturalWidth > 0 ? image : null;
    image.addEventListener('load', came, { once: true });
    return null;
  },
});
