import { choice, switchParam } from '../../document/params';
import { pictureSource } from '../types';

/** The picture of all the layers behind its own, to be changed by the cards below it: effects then work on the whole scene. */
export const below = pictureSource({
  kind: 'below',
  label: 'All that is behind',
  params: {
    background: switchParam('With background', true),
    stays: choice(
      'It shows',
      [
        { value: 'over', label: 'Over that' },
        { value: 'instead', label: 'Instead' },
      ],
      'over',
    ),
  },
  summary: (v) => (v.background ? 'With the background' : 'Without the background'),
  behind: true,
  marks: ({ background }, { behind }) => behind(background),
});
