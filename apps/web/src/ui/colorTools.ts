/** What a colour field offers besides its own picker, where the page around it has it. */
import { createContext } from 'react';

export interface ColorTools {
  readonly swatches: readonly { readonly id: string; readonly name: string; readonly color: string }[];
  /** Gives the id of the swatch that has the colour now. */
  readonly addSwatch: (color: string) => string;
  readonly removeSwatch: (id: string) => void;
  /** Lets a colour be taken from the canvas; calls back with it. */
  readonly sample: (take: (color: string) => void) => void;
}

export const ColorToolsContext = createContext<ColorTools | null>(null);

const PLACE = 'kite-colours';
const MOST = 16;

export const recentColors = (): string[] => {
  try {
    const list = JSON.parse(localStorage.getItem(PLACE) ?? '[]') as unknown;
    return Array.isArray(list) ? list.filter((c): c is string => typeof c === 'string').slice(0, MOST) : [];
  } catch {
    return [];
  }
};

export const rememberColor = (color: string): void =>
  localStorage.setItem(PLACE, JSON.stringify([color, ...recentColors().filter((c) => c !== color)].slice(0, MOST)));
