/** The keys that formulas are kept by beside what holds them: `rotation`, or `position.y` for one part of a point. */
import type { PropertyRef } from '../document/types';

type Named = Pick<PropertyRef, 'key' | 'part'>;

export const formulaKey = ({ key, part }: Named): string => (part === undefined ? key : `${key}.${'xy'.charAt(part)}`);

export const propertyOfKey = (name: string): Named => {
  const part = name.endsWith('.x') ? 0 : name.endsWith('.y') ? 1 : undefined;
  return part === undefined ? { key: name } : { key: name.slice(0, -2), part };
};
