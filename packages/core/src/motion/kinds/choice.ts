import { type Kind, type ParamOf, step } from './types';

const isOne = ({ choices }: ParamOf<'choice'>, v: unknown): boolean => choices.some((c) => c.value === v);

export const choice: Kind<'choice'> = {
  kind: 'choice',
  wanted: ({ choices }) => `one of ${choices.map((c) => c.value).join(', ')}`,
  is: isOne,
  fitted: (param, v) => (isOne(param, v) ? v : param.default),
  accept: (param) => (v) => (isOne(param, v) ? v : null),
  mix: step,
  says: ({ choices }, v) => choices.find((c) => c.value === v)?.label ?? v,
};
