/** What a drawing is read as: a tree of shapes, texts, pictures and groups, in pixels of the drawing. */
import type { BlendMode, GradientStop, PathValue, Point, Value } from '../../document/types';
import { type Box, boxThrough, grown, intersection, outlineBox, union } from '../../geometry/bounds';
import { apply, IDENTITY, longestOf, type Matrix, multiply, translation } from '../../geometry/matrix';
import { outlineOfPath, transformed } from '../../geometry/outline';
import { strokeReach } from '../../recipe/marks';

export type SvgInk =
  | { readonly style: 'solid'; readonly color: string }
  | { readonly style: 'linear'; readonly stops: readonly GradientStop[]; readonly from: Point; readonly to: Point }
  | {
      readonly style: 'radial';
      readonly stops: readonly GradientStop[];
      readonly from: Point;
      readonly to: Point;
      /** How wide it is across the way from its middle to its edge, as a share of that. */
      readonly breadth: number;
    };
export interface SvgStroke {
  readonly ink: SvgInk;
  readonly width: number;
  readonly cap: 'butt' | 'round' | 'square';
  readonly join: 'miter' | 'round' | 'bevel';
  readonly miterLimit: number;
  readonly dashes: readonly number[];
  readonly dashOffset: number;
}
interface NodeBase {
  readonly name: string;
  readonly opacity: number;
}
export interface SvgShape extends NodeBase {
  readonly kind: 'shape';
  /** From its own pixels, which paths, inks and widths are in. */
  readonly matrix: Matrix;
  readonly paths: readonly PathValue[];
  readonly rule: 'nonzero' | 'evenodd';
  readonly fill: SvgInk | null;
  readonly stroke: SvgStroke | null;
  readonly strokeFirst: boolean;
}
/** What a text lies along, in its own pixels. */
export interface SvgAlong {
  readonly path: PathValue;
  readonly stands: 'start' | 'middle' | 'end';
  /** How far it is moved on from there, as a share of the path. */
  readonly shift: number;
  readonly backwards: boolean;
}
export interface SvgText extends NodeBase {
  readonly kind: 'text';
  readonly text: string;
  /** From its own pixels, in which its line begins, ends or has its middle at the origin. */
  readonly matrix: Matrix;
  readonly family: string;
  readonly weight: number;
  readonly italic: boolean;
  readonly size: number;
  readonly tracking: number;
  readonly align: 'left' | 'center' | 'right';
  readonly along: SvgAlong | null;
  readonly fill: SvgInk | null;
  readonly stroke: SvgStroke | null;
  readonly strokeFirst: boolean;
}
export interface SvgPicture extends NodeBase {
  readonly kind: 'picture';
  /** The file, as a data address (RFC 2397). */
  readonly file: string;
  readonly matrix: Matrix;
  /** Where it lies, in its own pixels; missing sides are as long as the file's. */
  readonly at: Point;
  readonly width: number | null;
  readonly height: number | null;
  /** How it is fitted there: see fitted in transform.ts. */
  readonly fit: string;
}
/** What is done to a group as one picture. */
export type SvgEffect =
  | { readonly kind: 'blur'; readonly deviation: number; readonly way: 'both' | 'across' | 'down' }
  | {
      readonly kind: 'shadow';
      readonly move: Point;
      readonly deviation: number;
      /** How far its soft edge is whole, 0..1: see the shadow's card. */
      readonly spread: number;
      readonly color: string;
      readonly strength: number;
      readonly alone: boolean;
    }
  /** A card that has no lengths. */
  | { readonly kind: 'colors'; readonly card: string; readonly values: { readonly [key: string]: Value } };
/** Where a group shows: inside of areas that add up, or where other nodes are, by how opaque or how bright they are. */
export type SvgCut =
  | {
      readonly by: 'outlines';
      readonly areas: readonly Pick<SvgShape, 'paths' | 'rule' | 'matrix'>[];
      /** Whether what it cuts meets copies of itself: no seam shows between them. */
      readonly meets?: true;
    }
  | { readonly by: 'drawn' | 'brightness'; readonly nodes: readonly SvgNode[] };
/** Copies in rows and columns, from the nodes as they are. */
export interface SvgTiles {
  readonly columns: number;
  readonly rows: number;
  readonly across: Point;
  readonly down: Point;
}
export interface SvgGroup extends NodeBase {
  readonly kind: 'group';
  readonly children: readonly SvgNode[];
  /** `within`: what is in it blends among itself alone. */
  readonly blend: BlendMode | 'within';
  readonly tiles: SvgTiles | null;
  /** Whether it stands besides the shape that it comes with, as a marker or a pattern does: no part of its bounding box (SVG 2, 8.10). */
  readonly beside?: true;
  /** In order, before it is cut. */
  readonly effects: readonly SvgEffect[];
  readonly cut: SvgCut | null;
}
export type SvgNode = SvgShape | SvgText | SvgPicture | SvgGroup;

export interface SvgDrawing {
  readonly width: number;
  readonly height: number;
  readonly nodes: readonly SvgNode[];
  /** What could not be kept, each once. */
  readonly notes: readonly string[];
}

/** Whether a gradient is so far from round that it shows. */
export const isOval = (ink: SvgInk): boolean => ink.style === 'radial' && Math.abs(ink.breadth - 1) > 0.02;

export const groupOf = (
  name: string,
  children: readonly SvgNode[],
  how: Partial<Omit<SvgGroup, 'kind' | 'name' | 'children'>> = {},
): SvgGroup => ({
  kind: 'group',
  name,
  children,
  opacity: 1,
  blend: 'normal',
  tiles: null,
  effects: [],
  cut: null,
  ...how,
});

/** Whether a group does nothing to what is in it. */
export const isPlain = ({ opacity, blend, tiles, effects, cut }: SvgGroup): boolean =>
  opacity === 1 && blend === 'normal' && !tiles && effects.length === 0 && !cut;

/** Whether a node, or something in it, blends with what is behind it. */
export const blendsBehind = (node: SvgNode): boolean => {
  if (node.kind !== 'group' || node.blend === 'within') return false;
  if (node.blend !== 'normal') return true;
  return node.opacity === 1 && !node.cut && node.children.some(blendsBehind);
};

/** Whether there is anything to be seen of a node: what is not painted counts for the boxes of what is around it alone. */
export const isPainted = (node: SvgNode): boolean =>
  node.kind === 'group' ? node.children.some(isPainted) : node.kind !== 'shape' || Boolean(node.fill ?? node.stroke);

export const withoutUnpainted = (nodes: readonly SvgNode[]): readonly SvgNode[] =>
  nodes
    .filter(isPainted)
    .map((node) => (node.kind === 'group' ? { ...node, children: withoutUnpainted(node.children) } : node));

/** The box of paths through a matrix; null for none. */
export const boxOfPaths = (paths: readonly PathValue[], m: Matrix): Box | null =>
  paths.reduce<Box | null>((sum, path) => {
    const outline = outlineOfPath(path);
    return outline ? union(sum, outlineBox(transformed(m, outline))) : sum;
  }, null);

/** A guess: what a text covers is not known without its font. */
export const boxOfText = ({ text, size, align, along }: Pick<SvgText, 'text' | 'size' | 'align' | 'along'>): Box => {
  const lain = along && boxOfPaths([along.path], IDENTITY);
  if (lain) return grown(lain, size);
  const wide = text.length * size * 0.55;
  const left = align === 'left' ? 0 : align === 'right' ? -wide : -wide / 2;
  return { left, top: -0.8 * size, right: left + wide, bottom: 0.2 * size };
};

/** How far a group with tiles reaches beyond the first of them. */
const lastTile = ({ columns, rows, across, down }: SvgTiles): Point => [
  across[0] * (columns - 1) + down[0] * (rows - 1),
  across[1] * (columns - 1) + down[1] * (rows - 1),
];

const boxOfGroup = (group: SvgGroup, m: Matrix, seen: boolean): Box | null => {
  const { children, tiles, cut } = group;
  // The first tile is looked at once: tiles may stand in tiles.
  const first = nodesBox(children, m, seen);
  const [dx, dy] = tiles ? apply([m[0], m[1], m[2], m[3], 0, 0], lastTile(tiles)) : [0, 0];
  const box = first && tiles ? union(first, boxThrough(translation(dx, dy), first)) : first;
  if (!seen || !box || cut?.by !== 'outlines') return box;
  const areas = cut.areas.reduce<Box | null>(
    (sum, { paths, matrix }) => union(sum, boxOfPaths(paths, multiply(m, matrix))),
    null,
  );
  return areas && intersection(box, areas);
};

const boxOfNode = (node: SvgNode, m: Matrix, seen: boolean): Box | null => {
  switch (node.kind) {
    case 'group':
      return node.beside && !seen ? null : boxOfGroup(node, m, seen);
    case 'shape': {
      const through = multiply(m, node.matrix);
      const box = boxOfPaths(node.paths, through);
      if (!seen || !box || !node.stroke) return box;
      return grown(box, strokeReach(node.stroke) * longestOf(through));
    }
    case 'text':
      return boxThrough(multiply(m, node.matrix), boxOfText(node));
    case 'picture': {
      const [x, y] = node.at;
      const [w, h] = [node.width ?? node.height ?? 0, node.height ?? node.width ?? 0];
      return boxThrough(multiply(m, node.matrix), { left: x, top: y, right: x + w, bottom: y + h });
    }
  }
};

/** The bounding box of nodes (SVG 2, 8.10) through a matrix, or that of all that may be seen of them; null for nothing. */
export const nodesBox = (nodes: readonly SvgNode[], m: Matrix = IDENTITY, seen = false): Box | null =>
  nodes.reduce<Box | null>((sum, node) => union(sum, boxOfNode(node, m, seen)), null);
