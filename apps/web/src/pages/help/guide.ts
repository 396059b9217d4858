/** The pages of the guide, in their order: what `docs/guide/README.md` lists. */
import list from '../../../../../docs/guide/README.md?raw';

export interface GuidePage {
  readonly slug: string;
  readonly title: string;
}

export const GUIDE: readonly GuidePage[] = [...list.matchAll(/^\d+\. \[(.+?)\]\(([\w-]+)\.md\)$/gm)].map(
  ([, title, slug]) => ({ slug: slug as string, title: title as string }),
);

/** What of the help is made from the application itself. */
export const MADE: readonly GuidePage[] = [
  { slug: 'cards', title: 'Cards' },
  { slug: 'keyboard', title: 'Keyboard' },
  { slug: 'formulas', title: 'Formulas: the language' },
];
