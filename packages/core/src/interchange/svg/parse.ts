/** SVG text as a tree of elements. Nothing is fetched and nothing is run: what would be is left out by the reader. */
import { XMLParser } from 'fast-xml-parser';
import { Invalid } from '../../check/problem';
import { thousands } from '../../document/text';

export const SVG_LIMITS = {
  bytes: 8 * 2 ** 20,
  elements: 20_000,
  depth: 256,
  /** Points of all its paths, each as often as it is used. */
  points: 200_000,
} as const;

export interface SvgElement {
  readonly name: string;
  readonly attributes: { readonly [name: string]: string };
  readonly children: readonly SvgElement[];
  /** The text directly in it, with its place among the children. */
  readonly text: readonly { readonly before: number; readonly text: string }[];
}

type Raw = { readonly [key: string]: unknown };

const PARSER = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  removeNSPrefix: true,
  parseAttributeValue: false,
  parseTagValue: false,
  trimValues: false,
  processEntities: true,
  htmlEntities: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
});

/** How deep elements stand in each other, counted before the parser builds anything. */
const depthOf = (text: string): number => {
  let depth = 0;
  let most = 0;
  for (let at = text.indexOf('<'); at >= 0; at = text.indexOf('<', at + 1)) {
    const next = text[at + 1];
    if (next === '/') depth--;
    else if (next !== '!' && next !== '?') {
      const end = text.indexOf('>', at);
      if (end < 0) break;
      if (text[end - 1] !== '/') most = Math.max(most, ++depth);
    }
  }
  return most;
};

const build = (raw: readonly Raw[], counter: { left: number }): Pick<SvgElement, 'children' | 'text'> => {
  const children: SvgElement[] = [];
  const text: { before: number; text: string }[] = [];
  for (const node of raw) {
    const name = Object.keys(node).find((key) => key !== ':@');
    if (name === undefined) continue;
    if (name === '#text') {
      text.push({ before: children.length, text: String(node[name]) });
      continue;
    }
    if (--counter.left < 0) {
      throw new Invalid(`the drawing has more than ${thousands(SVG_LIMITS.elements)} elements`);
    }
    children.push({
      name,
      attributes: (node[':@'] ?? {}) as { [name: string]: string },
      ...build(node[name] as Raw[], counter),
    });
  }
  return { children, text };
};

/** What the parser says, and of a tag that never ends where it begins. */
const whyUnread = (error: unknown, text: string): string => {
  const said = error instanceof Error ? error.message : String(error);
  const at = /at position (\d+)/.exec(said)?.[1];
  if (at === undefined) return said;
  const [before, from] = [text.slice(0, Number(at)), text.slice(Number(at))];
  return `in line ${before.split('\n').length} a tag begins that has no end, “${from.slice(0, 30).split('\n')[0]}”`;
};

/** The root `svg` element; Invalid with what is wrong for anything else. */
export const parseSvg = (source: string): SvgElement => {
  if (source.length > SVG_LIMITS.bytes) {
    throw new Invalid(`the drawing is larger than ${SVG_LIMITS.bytes / 2 ** 20} MB`);
  }
  const text = source.replace(/^\uFEFF/, '');
  if (!/<(?:[\w.-]+:)?svg[\s>/]/i.test(text)) throw new Invalid('this is not an SVG drawing: it has no svg element');
  const entities = text.match(/<!ENTITY/g)?.length ?? 0;
  if (entities > 50) throw new Invalid(`the drawing defines ${entities} entities; at most 50 can be read`);
  if (depthOf(text) > SVG_LIMITS.depth) {
    throw new Invalid(`the drawing has elements nested more than ${SVG_LIMITS.depth} deep`);
  }
  let raw: Raw[];
  try {
    raw = PARSER.parse(text, false) as Raw[];
  } catch (error) {
    throw new Invalid(`the drawing cannot be read: ${whyUnread(error, text)}`);
  }
  const { children } = build(raw, { left: SVG_LIMITS.elements });
  const root = children.find((c) => c.name === 'svg');
  if (!root) throw new Invalid('this is not an SVG drawing: its first element is no svg');
  return root;
};
