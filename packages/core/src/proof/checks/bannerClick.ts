import { ofBanners } from '../banners';

export const bannerClick = ofBanners('bannerClick', 'Banners whose click leads nowhere', ({ delivery, settings }) =>
  settings.click === '' ? `A click on “${delivery.name}” leads nowhere unless the ad server says where.` : null,
);
