/** The families that come with the application, all under the SIL Open Font License. */
export interface Family {
  readonly name: string;
  /** Of its package: @fontsource/<id>. */
  readonly id: string;
  readonly weights: readonly number[];
  readonly italics: 'yes' | 'no';
  readonly style: 'sans' | 'serif' | 'slab' | 'mono' | 'display' | 'hand';
  /** The files of a face by what they hold, as its package calls them; letters are looked up in this order. */
  readonly subsets: readonly string[];
}

const ALL = [100, 200, 300, 400, 500, 600, 700, 800, 900];

const LATIN = ['latin', 'latin-ext'];
const VIETNAMESE = [...LATIN, 'vietnamese'];
const CYRILLIC = ['cyrillic', 'cyrillic-ext'];

export const SHIPPED: readonly Family[] = [
  {
    name: 'Inter',
    id: 'inter',
    weights: ALL,
    italics: 'yes',
    style: 'sans',
    subsets: [...VIETNAMESE, ...CYRILLIC, 'greek', 'greek-ext'],
  },
  {
    name: 'Manrope',
    id: 'manrope',
    weights: ALL.slice(1, 8),
    italics: 'no',
    style: 'sans',
    subsets: [...VIETNAMESE, ...CYRILLIC, 'greek'],
  },
  {
    name: 'Space Grotesk',
    id: 'space-grotesk',
    weights: ALL.slice(2, 7),
    italics: 'no',
    style: 'sans',
    subsets: VIETNAMESE,
  },
  {
    name: 'Barlow Condensed',
    id: 'barlow-condensed',
    weights: ALL,
    italics: 'yes',
    style: 'sans',
    subsets: VIETNAMESE,
  },
  {
    name: 'Oswald',
    id: 'oswald',
    weights: ALL.slice(1, 7),
    italics: 'no',
    style: 'sans',
    subsets: [...VIETNAMESE, ...CYRILLIC],
  },
  { name: 'Anton', id: 'anton', weights: [400], italics: 'no', style: 'display', subsets: VIETNAMESE },
  {
    name: 'Unbounded',
    id: 'unbounded',
    weights: ALL.slice(1),
    italics: 'no',
    style: 'display',
    subsets: [...VIETNAMESE, ...CYRILLIC],
  },
  {
    name: 'Rubik',
    id: 'rubik',
    weights: ALL.slice(2),
    italics: 'yes',
    style: 'sans',
    subsets: [...LATIN, ...CYRILLIC, 'hebrew', 'arabic'],
  },
  {
    name: 'Lora',
    id: 'lora',
    weights: ALL.slice(3, 7),
    italics: 'yes',
    style: 'serif',
    subsets: [...VIETNAMESE, ...CYRILLIC],
  },
  {
    name: 'Playfair Display',
    id: 'playfair-display',
    weights: ALL.slice(3),
    italics: 'yes',
    style: 'serif',
    subsets: [...VIETNAMESE, 'cyrillic'],
  },
  { name: 'Zilla Slab', id: 'zilla-slab', weights: ALL.slice(2, 7), italics: 'yes', style: 'slab', subsets: LATIN },
  {
    name: 'JetBrains Mono',
    id: 'jetbrains-mono',
    weights: ALL.slice(0, 8),
    italics: 'yes',
    style: 'mono',
    subsets: [...VIETNAMESE, ...CYRILLIC, 'greek'],
  },
  {
    name: 'Caveat',
    id: 'caveat',
    weights: ALL.slice(3, 7),
    italics: 'no',
    style: 'hand',
    subsets: [...LATIN, ...CYRILLIC],
  },
];
