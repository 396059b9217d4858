/** The values of a set of parameters at a frame. */
import type { Params, Values } from '../document/params';
import type { Properties } from '../document/types';
import { type Copy, type Sampler, samplerOf } from './sampler';

export interface Reader<P extends Params> {
  readonly at: (frame: number, copy?: Copy) => Values<P>;
  readonly constant: boolean;
  /** Whether each copy of a repeater has values of its own. */
  readonly perCopy: boolean;
}

/** What stands in for the keyframes of a property, by its key: the property's formula. */
export type Computing = (key: string) => Sampler | undefined;

/** Reads all the values of a set of parameters. */
export const reader = <P extends Params>(params: P, properties: Properties, computing?: Computing): Reader<P> => {
  const samplers: [string, Sampler][] = Object.keys(params).map((key) => [
    key,
    computing?.(key) ?? samplerOf(params[key] as Params[string], properties[key]),
  ]);
  const constant = samplers.every(([, s]) => s.constant);
  const perCopy = samplers.some(([, s]) => s.perCopy);
  const read = (frame: number, copy?: Copy) => {
    const values: Record<string, unknown> = {};
    for (const [key, sampler] of samplers) values[key] = sampler.at(frame, copy);
    return values as Values<P>;
  };
  if (!constant) return { at: read, constant, perCopy };
  const values = read(0);
  return { at: () => values, constant, perCopy };
};
