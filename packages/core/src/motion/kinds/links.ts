/** Links to what else is in the project: a file, a scene, a layer. None yet is an empty text. */
import { isId } from '../../document/is';
import { type Kind, step } from './types';

const link = <K extends 'asset' | 'scene' | 'layer'>(kind: K): Kind<K, unknown, string> => ({
  kind,
  wanted: () => 'an id, or nothing',
  is: (_param, v) => v === '' || isId(v),
  // Whether what it names is there is seen where the whole project is.
  fitted: (_param, v) => v,
  mix: step,
  says: (_param, v) => (v === '' ? 'none' : 'chosen'),
});

export const asset = link('asset');
export const scene = link('scene');
export const layer = link('layer');
