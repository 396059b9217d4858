import { LIMITS } from '../../document/limits';
import { choice, number, switchParam, text } from '../../document/params';
import { budget, plays } from '../params';
import { formatKind } from '../types';

export const html5 = formatKind({
  format: 'html5',
  label: 'HTML5 banner',
  about: 'A zip for ad servers: page, script, clickTag and a fallback picture. It asks the network for nothing.',
  extension: 'zip',
  mime: 'application/zip',
  span: 'range',
  params: {
    loop: plays,
    // What ad servers ask for.
    stop: number('Stops after', 30, { min: 0, max: 3_600, hint: 'seconds, on its last picture; 0 is never' }),
    fallback: number('Fallback frame', 0, { unit: 'frames', min: 0, max: LIMITS.length, whole: true }),
    budget: budget('Weight at most', 150),
    // Where a click leads while the ad server says nothing else; nowhere, where it is empty.
    click: text('Click leads to', '', { most: 2_000, lines: 'one', form: 'address' }),
    areas: text('Click areas', '', { most: 4_000, lines: 'many', form: 'areas', hint: 'layer = address, a line each' }),
    replay: switchParam('Play again button', false),
    close: switchParam('Close button', false),
    pictures: choice(
      'Pictures',
      [
        { value: 'reduced', label: 'As small as they are shown' },
        { value: 'kept', label: 'As they were imported' },
      ],
      'reduced',
    ),
    density: number('Pixels of pictures', 1, {
      min: 1,
      max: 4,
      step: 0.5,
      hint: 'for each of the banner’s, on fine screens',
      when: ['pictures', 'reduced'],
    }),
  },
  fromScene: ({ poster }) => ({ fallback: poster }),
  transparent: true,
  shownAs: 'page',
});
