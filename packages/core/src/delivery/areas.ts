/** Parts of a banner that lead to pages of their own: a layer and an address in a line each. */
import type { Id, Scene } from '../document/types';

export interface ClickArea {
  readonly layer: Id;
  /** Of the layer: what is read out. */
  readonly name: string;
  readonly address: string;
}

/** The areas that a text asks for, and the names in it that no layer has. */
export const areasOf = (
  text: string,
  { layers, order }: Pick<Scene, 'layers' | 'order'>,
): { readonly areas: readonly ClickArea[]; readonly missing: readonly string[] } => {
  const areas: ClickArea[] = [];
  const missing: string[] = [];
  for (const line of text.split('\n').filter((l) => l.trim() !== '')) {
    const at = line.indexOf('=');
    const [name, address] = [line.slice(0, at).trim(), line.slice(at + 1).trim()];
    const layer = order.find((id) => layers[id]?.name === name);
    if (layer === undefined) missing.push(name);
    else areas.push({ layer, name, address });
  }
  return { areas, missing };
};
