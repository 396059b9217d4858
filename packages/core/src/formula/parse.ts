/**
 * Text to tree. The grammar, from what binds least:
 *
 *     or  →  and  →  not  →  = != < <= > >=  →  + -  →  * /  →  -  →  ^  →  .x .y
 *
 * with numbers, percentages, colours, texts, names, calls, vectors and references in braces as its leaves. All operators
 * of a level go from the left, but for `^`, which goes from the right; comparisons do not chain.
 */
import {
  FormulaError,
  MOST_CHARACTERS,
  MOST_ITEMS,
  MOST_NESTING,
  MOST_NODES,
  type Node,
  type Sign,
  type Span,
} from './types';

interface Token {
  readonly kind: 'number' | 'percent' | 'color' | 'text' | 'word' | 'ref' | 'sign' | 'part' | 'end';
  readonly text: string;
  readonly at: Span;
}

const PATTERNS: readonly (readonly [Token['kind'], RegExp])[] = [
  ['percent', /(?:\d+(?:\.\d+)?|\.\d+)%/y],
  ['number', /(?:\d+(?:\.\d+)?|\.\d+)(?:e[+-]?\d+)?/iy],
  ['color', /#[0-9a-f]+/iy],
  ['text', /"(?:[^"\\]|\\.)*"/sy],
  ['part', /\.[xyz](?![\w])/y],
  ['word', /[a-z_]\w*/iy],
  ['sign', /<=|>=|!=|==|[-+*/^<>=(),[\]]/y],
];
const BLANK = /\s*/y;
/** A reference in braces; names in it may be quoted, and then hold anything. */
const REFERENCE = /\{((?:[^{}"]|"(?:[^"\\]|\\.)*")*)\}/y;

const matchAt = (pattern: RegExp, text: string, at: number): RegExpExecArray | null => {
  pattern.lastIndex = at;
  return pattern.exec(text);
};

const OPEN: Readonly<Record<string, string>> = {
  '"': 'This text has no closing quote.',
  '{': 'This reference has no closing brace.',
};

const tokensOf = (text: string): Token[] => {
  if (text.length > MOST_CHARACTERS) {
    throw new FormulaError(`A formula has at most ${MOST_CHARACTERS} characters.`, [MOST_CHARACTERS, text.length]);
  }
  const tokens: Token[] = [];
  for (let at = 0; ;) {
    at += matchAt(BLANK, text, at)?.[0].length ?? 0;
    if (at >= text.length) return [...tokens, { kind: 'end', text: '', at: [text.length, text.length] }];
    const ref = matchAt(REFERENCE, text, at);
    const found = ref
      ? (['ref', ref[0]] as const)
      : PATTERNS.map(([kind, pattern]) => [kind, matchAt(pattern, text, at)?.[0]] as const).find(
          (pair): pair is readonly [Token['kind'], string] => pair[1] !== undefined,
        );
    if (!found) {
      const sign = String.fromCodePoint(text.codePointAt(at) ?? 0);
      throw new FormulaError(OPEN[sign] ?? `“${sign}” means nothing here.`, [at, at + sign.length]);
    }
    const [kind, value] = found;
    tokens.push({ kind, text: ref?.[1] ?? value, at: [at, at + value.length] });
    at += value.length;
  }
};

/** The tokens of a kind. A text that cannot be read has none. */
const tokensIn = (text: string, kind: Token['kind']): readonly Token[] => {
  try {
    return tokensOf(text).filter((t) => t.kind === kind);
  } catch (error) {
    if (error instanceof FormulaError) return [];
    throw error;
  }
};

/** The places of all references of a text: what stands between their braces, and where. */
export const referencesIn = (text: string): readonly { readonly path: string; readonly at: Span }[] =>
  tokensIn(text, 'ref').map((t) => ({ path: t.text, at: t.at }));

/** A text with some of its names written otherwise. */
export const withNames = (text: string, instead: { readonly [name: string]: string }): string => {
  let done = '';
  let from = 0;
  for (const { text: name, at } of tokensIn(text, 'word')) {
    const other = Object.hasOwn(instead, name) ? instead[name] : undefined;
    if (other === undefined) continue;
    done += text.slice(from, at[0]) + other;
    [, from] = at;
  }
  return done + text.slice(from);
};

const COLOR = /^#(?:[0-9a-f]{6}|[0-9a-f]{8})$/i;
const COMPARE: readonly string[] = ['=', '!=', '<', '<=', '>', '>='];
const ESCAPES: Readonly<Record<string, string>> = { n: '\n' };
const unquoted = (text: string): string =>
  text.slice(1, -1).replace(/\\(.)/gs, (_all, sign: string) => ESCAPES[sign] ?? sign);

class Parser {
  private at = 0;
  private depth = 0;
  private nodes = 0;

  constructor(private readonly tokens: readonly Token[]) {}

  private get token(): Token {
    return this.tokens[this.at] as Token;
  }

  private get ended(): boolean {
    return this.token.kind === 'end';
  }

  private is(...signs: readonly string[]): boolean {
    const { kind, text } = this.token;
    return (kind === 'sign' || kind === 'word') && signs.includes(text);
  }

  private take(): Token {
    const { token } = this;
    this.at++;
    return token;
  }

  private expect(sign: string, after: string): Token {
    if (this.is(sign)) return this.take();
    throw new FormulaError(`Wanted “${sign}” ${after}, got ${named(this.token)}.`, this.token.at);
  }

  private made<N extends Node>(node: N): N {
    if (++this.nodes > MOST_NODES) throw new FormulaError(`A formula has at most ${MOST_NODES} parts.`, this.token.at);
    return node;
  }

  whole(): Node {
    if (this.ended) throw new FormulaError('There is nothing here yet.', this.token.at);
    const node = this.any();
    if (!this.ended) {
      throw new FormulaError(`Wanted an operator or the end, got ${named(this.token)}.`, this.token.at);
    }
    return node;
  }

  private any(): Node {
    if (++this.depth > MOST_NESTING) {
      throw new FormulaError(`Parts may lie at most ${MOST_NESTING} deep in each other.`, this.token.at);
    }
    const node = this.leftward(['or'], () => this.leftward(['and'], () => this.not()));
    this.depth--;
    return node;
  }

  private binary(sign: string, left: Node, right: Node): Node {
    return this.made({
      op: 'binary',
      sign: (sign === '==' ? '=' : sign) as Sign,
      left,
      right,
      at: [left.at[0], right.at[1]],
    });
  }

  private leftward(signs: readonly string[], inner: () => Node): Node {
    let left = inner();
    while (this.is(...signs)) {
      const sign = this.take().text;
      left = this.binary(sign, left, inner());
    }
    return left;
  }

  private not(): Node {
    const signs: Token[] = [];
    while (this.is('not')) signs.push(this.take());
    return this.unary('not', signs, this.compared());
  }

  private unary(sign: '-' | 'not', signs: readonly Token[], of: Node): Node {
    return signs.reduceRight<Node>(
      (inner, token) => this.made({ op: 'unary', sign, of: inner, at: [token.at[0], of.at[1]] }),
      of,
    );
  }

  private compared(): Node {
    const left = this.sum();
    if (!this.is(...COMPARE, '==')) return left;
    const sign = this.take().text;
    return this.binary(sign, left, this.sum());
  }

  private sum(): Node {
    return this.leftward(['+', '-'], () => this.leftward(['*', '/'], () => this.signed()));
  }

  private signed(): Node {
    const signs: Token[] = [];
    while (this.is('-')) signs.push(this.take());
    return this.unary('-', signs, this.power());
  }

  /** From the right: 2 ^ 3 ^ 2 is 2 ^ 9. A sign stands before all of it: -2 ^ 2 is -4. */
  private power(): Node {
    const base = this.parts();
    if (!this.is('^')) return base;
    this.take();
    if (++this.depth > MOST_NESTING) {
      throw new FormulaError(`Parts may lie at most ${MOST_NESTING} deep in each other.`, this.token.at);
    }
    const right = this.signed();
    this.depth--;
    return this.binary('^', base, right);
  }

  private parts(): Node {
    let of = this.leaf();
    while (this.token.kind === 'part') {
      const token = this.take();
      of = this.made({
        op: 'part',
        of,
        part: 'xyz'.indexOf(token.text.charAt(1)) as 0 | 1 | 2,
        at: [of.at[0], token.at[1]],
      });
    }
    return of;
  }

  private list(close: string, after: string): Node[] {
    const items: Node[] = [];
    if (this.is(close)) return items;
    for (;;) {
      items.push(this.any());
      if (items.length > MOST_ITEMS) throw new FormulaError(`At most ${MOST_ITEMS} parts fit here.`, this.token.at);
      if (!this.is(',')) break;
      this.take();
    }
    if (!this.is(close)) {
      throw new FormulaError(`Wanted “,” or “${close}” ${after}, got ${named(this.token)}.`, this.token.at);
    }
    return items;
  }

  private leaf(): Node {
    const token = this.take();
    const { text, at } = token;
    switch (token.kind) {
      case 'number':
        if (!Number.isFinite(Number(text))) throw new FormulaError('This number is too large.', at);
        return this.made({ op: 'number', value: Number(text), percent: false, at });
      case 'percent':
        return this.made({ op: 'number', value: Number(text.slice(0, -1)) / 100, percent: true, at });
      case 'color':
        if (!COLOR.test(text)) throw new FormulaError('A colour has six digits, or eight: #FFB23E.', at);
        return this.made({ op: 'color', value: text.toUpperCase(), at });
      case 'text':
        return this.made({ op: 'text', value: unquoted(text), at });
      case 'ref':
        return this.made({ op: 'ref', path: text.trim(), at });
      case 'word':
        if (text === 'and' || text === 'or' || text === 'not') break;
        return this.is('(') ? this.call(token) : this.made({ op: 'name', name: text, at });
      case 'sign':
        if (text === '(') {
          const inner = this.any();
          this.expect(')', 'after this');
          return inner;
        }
        if (text === '[') {
          const items = this.list(']', 'in this vector');
          const end = this.take().at[1];
          if (items.length === 0) throw new FormulaError('A vector needs numbers: [12, -4].', [at[0], end]);
          return this.made({ op: 'vector', items, at: [at[0], end] });
        }
        break;
      default:
        break;
    }
    throw new FormulaError(`Wanted a value, got ${named(token)}.`, at);
  }

  private call(name: Token): Node {
    this.take();
    const args = this.list(')', `in ${name.text}`);
    const end = this.take().at[1];
    return this.made({ op: 'call', name: name.text, args, at: [name.at[0], end] });
  }
}

const named = (token: Token): string => (token.kind === 'end' ? 'the end' : `“${token.text}”`);

/** The tree of a formula, or what keeps it from being read. */
export const parse = (text: string): Node | FormulaError => {
  try {
    return new Parser(tokensOf(text)).whole();
  } catch (error) {
    if (error instanceof FormulaError) return error;
    throw error;
  }
};
