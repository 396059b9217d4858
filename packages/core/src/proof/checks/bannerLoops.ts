import { ofBanners } from '../banners';

const MOST_PLAYS = 3;

export const bannerLoops = ofBanners(
  'bannerLoops',
  'Banners that play more than three times',
  ({ delivery, moves, seconds }) =>
    moves > MOST_PLAYS * seconds + 1e-6
      ? `“${delivery.name}” plays more than ${MOST_PLAYS} times, which is what ad servers allow.`
      : null,
  { says: `Play it ${MOST_PLAYS} times`, set: ['loop', MOST_PLAYS] },
);
