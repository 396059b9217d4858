/** The families that come with the application, all under the SIL Open Font License. */
export interface Family {
  readonly name: string;
  /** Of its package: @fontsource/<id>. */
  readonly id: string;
  readonly weights: readonly number[];
  readonly italics: 'yes' | 'no';
  readonly style: 'sans' | 'serif' | 'slab' | 'mono' | 'display' | 'hand';
}

const ALL = [100, 200, 300, 400, 500, 600, 700, 800, 900];

export const SHIPPED: readonly Family[] = [
  { name: 'Inter', id: 'inter', weights: ALL, italics: 'yes', style: 'sans' },
  { name: 'Manrope', id: 'manrope', weights: ALL.slice(1, 8), italics: 'no', style: 'sans' },
  { name: 'Space Grotesk', id: 'space-grotesk', weights: ALL.slice(2, 7), italics: 'no', style: 'sans' },
  { name: 'Barlow Condensed', id: 'barlow-condensed', weights: ALL, italics: 'yes', style: 'sans' },
  { name: 'Oswald', id: 'oswald', weights: ALL.slice(1, 7), italics: 'no', style: 'sans' },
  { name: 'Anton', id: 'anton', weights: [400], italics: 'no', style: 'display' },
  { name: 'Unbounded', id: 'unbounded', weights: ALL.slice(1), italics: 'no', style: 'display' },
  { name: 'Lora', id: 'lora', weights: ALL.slice(3, 7), italics: 'yes', style: 'serif' },
  { name: 'Playfair Display', id: 'playfair-display', weights: ALL.slice(3), italics: 'yes', style: 'serif' },
  { name: 'Zilla Slab', id: 'zilla-slab', weights: ALL.slice(2, 7), italics: 'yes', style: 'slab' },
  { name: 'JetBrains Mono', id: 'jetbrains-mono', weights: ALL.slice(0, 8), italics: 'yes', style: 'mono' },
  { name: 'Caveat', id: 'caveat', weights: ALL.slice(3, 7), italics: 'no', style: 'hand' },
];
