/** What there is to know of a formula before it works, read from its tree once. */
import { remembered } from '../document/remembered';
import type { Formula } from '../document/types';
import { parse } from './parse';
import { FormulaError, type Node } from './types';

/** A reference, as it stands between its braces, and the part of it that is read: its z stands in a property of its own. */
export interface Read {
  readonly path: string;
  readonly part: 0 | 1 | 2 | null;
}
export interface Facts {
  readonly tree: Node | FormulaError;
  /** Names of the functions that it calls. */
  readonly calls: ReadonlySet<string>;
  /** In the order in which they stand. */
  readonly reads: readonly Read[];
  /** Whether it stands on the property’s own value. */
  readonly readsValue: boolean;
  /** Whether it asks for its place in a set, or among the copies of a repeater. */
  readonly readsRank: boolean;
  /** Whether it asks how large texts are. */
  readonly readsSizes: boolean;
  /** Whether it asks where points of others stand in the picture. */
  readonly readsPlaces: boolean;
  /** Whether it uses eases, which may be kept under names. */
  readonly readsEases: boolean;
}

const SIZES: readonly string[] = ['textWidth', 'textHeight'];

const innerOf = (node: Node): readonly Node[] => {
  switch (node.op) {
    case 'part':
    case 'unary':
      return [node.of];
    case 'vector':
      return node.items;
    case 'binary':
      return [node.left, node.right];
    case 'call':
      return node.args;
    default:
      return [];
  }
};

const gathered = (text: string): Facts => {
  const tree = parse(text);
  const reads: Read[] = [];
  const [names, calls] = [new Set<string>(), new Set<string>()];
  const walk = (node: Node): void => {
    if (node.op === 'name') names.add(node.name);
    if (node.op === 'call') {
      calls.add(node.name);
      const [of] = node.args;
      if (node.name === 'xyz' && of?.op === 'ref') reads.push({ path: of.path.trim(), part: 2 });
    }
    if (node.op === 'ref') reads.push({ path: node.path.trim(), part: null });
    else if (node.op === 'part' && node.of.op === 'ref') reads.push({ path: node.of.path.trim(), part: node.part });
    else for (const inner of innerOf(node)) walk(inner);
  };
  if (!(tree instanceof FormulaError)) walk(tree);
  return {
    tree,
    calls,
    reads,
    readsValue: names.has('value'),
    readsRank: ['order', 'count', 'letter'].some((name) => names.has(name)),
    readsSizes: SIZES.some((name) => calls.has(name)),
    readsPlaces: calls.has('here'),
    readsEases: calls.has('ease'),
  };
};

/** The same object for the same formula. */
export const factsOf = remembered(({ text }: Formula): Facts => gathered(text));
