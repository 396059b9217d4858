/** Sizes to start from, by what they are for. */

export interface NamedSize {
  readonly label: string;
  readonly use: string;
  readonly width: number;
  readonly height: number;
  readonly fps: string;
  readonly seconds: number;
}

export const COMMON_SIZES: readonly NamedSize[] = [
  { label: 'Full HD', use: 'titles and video', width: 1920, height: 1080, fps: '30', seconds: 4 },
  { label: 'Square', use: 'posts', width: 1080, height: 1080, fps: '30', seconds: 4 },
  { label: 'Story', use: 'upright video', width: 1080, height: 1920, fps: '30', seconds: 6 },
  { label: 'Medium rectangle', use: 'banner', width: 300, height: 250, fps: '30', seconds: 8 },
  { label: 'Leaderboard', use: 'banner', width: 728, height: 90, fps: '30', seconds: 8 },
  { label: 'Skyscraper', use: 'banner', width: 160, height: 600, fps: '30', seconds: 8 },
  { label: 'Mobile banner', use: 'banner', width: 320, height: 50, fps: '30', seconds: 8 },
];
