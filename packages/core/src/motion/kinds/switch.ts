import { type Kind, step } from './types';

export const onOff: Kind<'switch'> = {
  kind: 'switch',
  wanted: () => 'true or false',
  is: (_param, v) => typeof v === 'boolean',
  // Of what is not quite a switch only true is on.
  fitted: (_param, v) => v === true,
  mix: step,
  heights: (v) => [v ? 1 : 0],
  says: (_param, v) => (v ? 'on' : 'off'),
};
