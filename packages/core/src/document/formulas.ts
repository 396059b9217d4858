/** The keys that formulas are kept by beside what holds them: `rotation`, or `position.y` for one part of a point. */
import type { Formula, Id, Layer, PropertyRef } from './types';

type Named = Pick<PropertyRef, 'key' | 'part'>;

export const formulaKey = ({ key, part }: Named): string => (part === undefined ? key : `${key}.${'xy'.charAt(part)}`);

export const propertyOfKey = (name: string): Named => {
  const part = name.endsWith('.x') ? 0 : name.endsWith('.y') ? 1 : undefined;
  return part === undefined ? { key: name } : { key: name.slice(0, -2), part };
};

/** Every formula of a layer, of its cards and of its knobs, on or off, and what it is for. */
export const formulasOn = (
  layer: Layer,
): { readonly of: Named & { readonly item?: Id }; readonly formula: Formula }[] => {
  const parts = layer.kind === 'drawing' ? layer.items : layer.kind === 'controller' ? layer.knobs : {};
  const holders = [
    [undefined, layer.formulas] as const,
    ...Object.values(parts).map((p) => [p.id, p.formulas] as const),
  ];
  return holders.flatMap(([item, formulas]) =>
    Object.entries<Formula>(formulas ?? {}).map(([name, formula]) => ({
      of: { ...(item !== undefined && { item }), ...propertyOfKey(name) },
      formula,
    })),
  );
};
