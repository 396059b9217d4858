/** The colours of the Quillhaven Night Tram. */
export const PALETTE = {
  midnight: '#1B1F4B',
  amber: '#FFB23E',
  teal: '#2EC4B6',
  fog: '#E9ECF5',
  coral: '#FF5D5D',
  ink: '#10132E',
} as const;
