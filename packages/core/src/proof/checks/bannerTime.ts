import { ofBanners } from '../banners';

const MOST_SECONDS = 30;

export const bannerTime = ofBanners(
  'bannerTime',
  'Banners that move for longer than 30 seconds',
  ({ delivery, moves }) => {
    if (moves <= MOST_SECONDS + 1e-6) return null;
    const long = moves === Infinity ? 'for ever' : `for ${Math.round(moves)} seconds`;
    return `“${delivery.name}” moves ${long}; ad servers allow ${MOST_SECONDS} seconds.`;
  },
  { says: `Stop after ${MOST_SECONDS} seconds`, set: ['stop', MOST_SECONDS] },
);
