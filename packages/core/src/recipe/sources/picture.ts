import { asset, cutout, isUncut, percent } from '../../document/params';
import { IDENTITY, scaling } from '../../geometry/matrix';
import { pictureSource } from '../types';

/** A picture of the project, or what is cut out of it, its middle at the origin. */
export const picture = pictureSource({
  kind: 'picture',
  label: 'Picture',
  params: {
    asset: asset('File', 'picture'),
    cut: cutout('Cut-out'),
    size: percent('Size', 1, { min: 0.001, max: 1_000 }),
  },
  summary: (v, nameOf) => (v.asset === '' ? 'No file yet' : `${nameOf(v.asset)}${isUncut(v.cut) ? '' : ', cut out'}`),
  marks: (v, { supplies, tell }) => {
    if (v.asset === '') return [];
    const file = supplies.assets[v.asset];
    if (file?.kind !== 'picture') {
      tell('shows a picture that is gone');
      return [];
    }
    const matrix = v.size === 1 ? IDENTITY : scaling(v.size);
    return [{ op: 'picture', asset: file, cut: isUncut(v.cut) ? null : v.cut, matrix, alpha: 1 }];
  },
});
