import { choice } from '../../document/params';

/** Which parts of texts a step moves, each by itself. */
export const each = choice(
  'Each',
  [
    { value: 'letters', label: 'Letter' },
    { value: 'words', label: 'Word' },
    { value: 'lines', label: 'Line' },
  ],
  'letters',
);
