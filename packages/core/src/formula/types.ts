/** What formulas are made of: the tree that a text is read into, and the types of what its parts give. */
import type { Param } from '../document/params';

/** The most characters a formula may have, the most parts it may be made of, and how deep they may lie in each other. */
export const MOST_CHARACTERS = 4_000;
export const MOST_NODES = 1_000;
export const MOST_NESTING = 50;
export const MOST_ITEMS = 64;

/** From the first character to the one after the last. */
export type Span = readonly [start: number, end: number];

/** What is wrong with a formula and where. Caught where a formula comes in and kept as a value: it never leaves. */
export class FormulaError extends Error {
  constructor(
    message: string,
    readonly at: Span,
  ) {
    super(message);
    this.name = 'FormulaError';
  }
}

export type Sign = '+' | '-' | '*' | '/' | '^' | '<' | '<=' | '>' | '>=' | '=' | '!=' | 'and' | 'or';

interface Placed {
  readonly at: Span;
}
export type Node = Placed &
  (
    | { readonly op: 'number'; readonly value: number; readonly percent: boolean }
    | { readonly op: 'color'; readonly value: string }
    | { readonly op: 'text'; readonly value: string }
    | { readonly op: 'name'; readonly name: string }
    /** What stands between the braces. */
    | { readonly op: 'ref'; readonly path: string }
    | { readonly op: 'part'; readonly of: Node; readonly part: 0 | 1 | 2 }
    | { readonly op: 'vector'; readonly items: readonly Node[] }
    | { readonly op: 'unary'; readonly sign: '-' | 'not'; readonly of: Node }
    | { readonly op: 'binary'; readonly sign: Sign; readonly left: Node; readonly right: Node }
    | { readonly op: 'call'; readonly name: string; readonly args: readonly Node[] }
  );
export type NodeOf<O extends Node['op']> = Extract<Node, { readonly op: O }>;

export type Type =
  | {
      readonly kind:
        | 'number'
        | 'color'
        | 'text'
        | 'switch'
        | 'path'
        | 'gradient'
        | 'font'
        | 'asset'
        | 'scene'
        | 'layer'
        | 'cutout'
        | 'mesh'
        | 'growth'
        | 'strokes';
    }
  /** A size of 0 is not known before it runs. */
  | { readonly kind: 'vector'; readonly size: number };

export const NUMBER: Type = { kind: 'number' };
export const SWITCH: Type = { kind: 'switch' };
export const TEXT: Type = { kind: 'text' };
export const COLOR: Type = { kind: 'color' };
export const PATH: Type = { kind: 'path' };
export const vector = (size: number): Type => ({ kind: 'vector', size });
export const VECTOR = vector(2);

export const sizeOf = (type: Type): number | null => (type.kind === 'vector' ? type.size : null);

/** Whether a value of one type fits where the other is wanted. */
export const fitsType = (type: Type, wanted: Type): boolean => {
  if (type.kind !== wanted.kind) return false;
  const [a, b] = [sizeOf(type), sizeOf(wanted)];
  return a === b || a === 0 || b === 0;
};

export const typeName = (type: Type): string => {
  if (type.kind === 'vector') return type.size === 0 ? 'a list of numbers' : `a vector of ${type.size}`;
  if (type.kind === 'color') return 'a colour';
  if (type.kind === 'asset') return 'a file';
  return type.kind === 'cutout' ? 'a cut-out' : `a ${type.kind}`;
};

/** What a property gives to a formula, and wants of one. A choice is the text of its stored value. */
export const typeOf = (param: Param): Type => {
  switch (param.kind) {
    case 'point':
      return VECTOR;
    case 'numbers':
      return vector(0);
    case 'choice':
      return TEXT;
    default:
      return { kind: param.kind };
  }
};
