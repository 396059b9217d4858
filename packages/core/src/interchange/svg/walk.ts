/** What the reading of an SVG's elements shares. */
import { asName } from '../../document/text';
import { inverted, type Matrix, multiply } from '../../geometry/matrix';
import type { Box } from '../../geometry/bounds';
import { nodesBox, type SvgNode } from './nodes';
import type { SvgElement } from './parse';
import type { Style } from './style';

/** Where the reader is. */
export interface Walk {
  readonly style: Style;
  /** From the pixels of the element to those of the drawing. */
  readonly matrix: Matrix;
  /** The elements from the root to this one. */
  readonly line: readonly SvgElement[];
  /** What percentages are of. */
  readonly size: readonly [width: number, height: number];
  /** How many elements refer to each other here. */
  readonly uses: number;
  /** Whether outlines alone count, as in a clip: all are filled. */
  readonly area: boolean;
  /** Of a marker: the style of the line that it stands on. */
  readonly context?: Style;
}

/** What parts of a drawing are read with. */
export interface Reading {
  readonly byId: ReadonlyMap<string, SvgElement>;
  /** Says what cannot be kept. */
  readonly note: (text: string) => void;
  readonly style: (line: readonly SvgElement[], parent: Style) => Style;
  readonly children: (element: SvgElement, walk: Walk) => readonly SvgNode[];
}

export const MOST_USES = 32;

/** The element that `url(#id)` names, where it is one of some names. */
export const referredTo = (
  text: string | undefined,
  reading: Reading,
  ...names: readonly string[]
): SvgElement | null => {
  const id = /^url\(\s*['"]?#([^'")]+)['"]?\s*\)/.exec(text ?? '')?.[1];
  const element = id === undefined ? undefined : reading.byId.get(id);
  return element && names.includes(element.name) ? element : null;
};

/** What an element draws that another one refers to, as a clip, a marker or a pattern. Nothing is inherited from who refers to it. */
export const referred = (
  element: SvgElement,
  walk: Walk,
  matrix: Matrix,
  reading: Reading,
  area = false,
): readonly SvgNode[] => {
  if (walk.uses >= MOST_USES) return [];
  const line = [element];
  return reading.children(element, {
    ...walk,
    style: reading.style(line, {}),
    line,
    matrix,
    uses: walk.uses + 1,
    area,
  });
};

/** The attributes of an element, and those that it takes from the ones it refers to (SVG 2, 13.2); the nearest counts. */
export const chainOf = (start: SvgElement, byId: Reading['byId']): readonly SvgElement[] => {
  const chain: SvgElement[] = [];
  for (let at: SvgElement | undefined = start; at && !chain.includes(at);) {
    chain.push(at);
    at = byId.get(/^#(.+)$/.exec(at.attributes.href ?? '')?.[1] ?? '');
  }
  return chain;
};
export const attributesOf = (chain: readonly SvgElement[]): SvgElement['attributes'] =>
  Object.assign({}, ...chain.toReversed().map(({ attributes }) => attributes)) as SvgElement['attributes'];

/** From shares of a box to its pixels (SVG 2, 8.11). */
export const ofBox = ({ left, top, right, bottom }: Box): Matrix => [right - left, 0, 0, bottom - top, left, top];

/** The box of nodes in the pixels of the element that they were read from; null for nothing. */
export const boxWithin = (nodes: readonly SvgNode[], { matrix }: Walk): Box | null => {
  const back = inverted(matrix);
  return back && nodesBox(nodes, back);
};

/** Lengths of an element that refers to a box: pixels, or shares of the box. */
export const unitsMatrix = (walk: Walk, units: string | undefined, boxOf: () => Box | null): Matrix | null => {
  if (units !== 'objectBoundingBox') return walk.matrix;
  const box = boxOf();
  return box && multiply(walk.matrix, ofBox(box));
};

export const textIn = (e: SvgElement): string => {
  const parts: string[] = [];
  e.children.forEach((child, i) => {
    parts.push(...e.text.filter((t) => t.before === i).map((t) => t.text), textIn(child));
  });
  parts.push(...e.text.filter((t) => t.before >= e.children.length).map((t) => t.text));
  return parts.join('');
};

/** The name that a drawing program gave, else its id, else what it is. */
export const nameOf = ({ attributes: a }: SvgElement, missing: string): string =>
  asName((a.label ?? a['data-name'] ?? a.id ?? missing).replace(/_/g, ' ').trim(), missing, 60);
