/** SVG drawings as a tree of shapes and groups, in pixels of the drawing. */
import { Invalid } from '../../check/problem';
import { asName, cutText, sound, thousands } from '../../document/text';
import type { PathValue, Point } from '../../document/types';
import { type Box, outlineBox, union } from '../../geometry/bounds';
import { apply, IDENTITY, meanScale, type Matrix, multiply } from '../../geometry/matrix';
import { outlineOfPath } from '../../geometry/outline';
import { MOST_LETTERS } from '../../document/params';
import { colorOf, gradientOf, shareOf, type SvgInk } from './paints';
import { parseSvg, SVG_LIMITS, type SvgElement } from './parse';
import { dataOf, pathsOf } from './shapes';
import { lengthOf, numbersOf, rulesOf, type Style, styleOf } from './style';
import { transformOf, sizeOf, viewportOf } from './transform';

export interface SvgStroke {
  readonly ink: SvgInk;
  readonly width: number;
  readonly cap: 'butt' | 'round' | 'square';
  readonly join: 'miter' | 'round' | 'bevel';
  readonly miterLimit: number;
  readonly dashes: readonly number[];
  readonly dashOffset: number;
}
export interface SvgShape {
  readonly kind: 'shape';
  readonly name: string;
  readonly paths: readonly PathValue[];
  readonly rule: 'nonzero' | 'evenodd';
  readonly fill: SvgInk | null;
  readonly stroke: SvgStroke | null;
  readonly strokeFirst: boolean;
  readonly opacity: number;
}
export interface SvgText {
  readonly kind: 'text';
  readonly name: string;
  readonly text: string;
  readonly matrix: Matrix;
  readonly at: Point;
  readonly family: string;
  readonly weight: number;
  readonly italic: boolean;
  readonly size: number;
  readonly tracking: number;
  readonly align: 'left' | 'center' | 'right';
  readonly fill: SvgInk | null;
  readonly opacity: number;
}
export interface SvgGroup {
  readonly kind: 'group';
  readonly name: string;
  readonly children: readonly SvgNode[];
  readonly opacity: number;
  /** Paths that it shows through; null for a group that is not clipped. */
  readonly clip: { readonly paths: readonly PathValue[]; readonly rule: 'nonzero' | 'evenodd' } | null;
}
export type SvgNode = SvgShape | SvgText | SvgGroup;

export interface SvgDrawing {
  readonly width: number;
  readonly height: number;
  readonly nodes: readonly SvgNode[];
  /** What could not be kept, each once. */
  readonly notes: readonly string[];
}

/** What is left out, and what it is called in the notes. */
const LEFT_OUT: Readonly<Record<string, string>> = {
  image: 'a picture inside the drawing is left out',
  foreignObject: 'foreign content is left out',
  script: 'a script is left out',
  animate: 'an animation is left out',
  animateTransform: 'an animation is left out',
  animateMotion: 'an animation is left out',
  set: 'an animation is left out',
  textPath: 'text on a path is left out',
};

interface Walk {
  readonly style: Style;
  readonly matrix: Matrix;
  readonly line: readonly SvgElement[];
  /** What percentages are of. */
  readonly size: readonly [number, number];
  readonly uses: number;
}

const MOST_USES = 32;
/** Copies that `use` may make in all. */
const MOST_NODES = 20_000;

const boxOf = (paths: readonly PathValue[]): Box | null =>
  paths.reduce<Box | null>((sum, path) => {
    const outline = outlineOfPath(path);
    return outline ? union(sum, outlineBox(outline)) : sum;
  }, null);

const textIn = (e: SvgElement): string => {
  const parts: string[] = [];
  e.children.forEach((child, i) => {
    parts.push(...e.text.filter((t) => t.before === i).map((t) => t.text), textIn(child));
  });
  parts.push(...e.text.filter((t) => t.before >= e.children.length).map((t) => t.text));
  return parts.join('');
};

const urlOf = (text: string | undefined): string | undefined =>
  /^url\(\s*['"]?#([^'")]+)['"]?\s*\)/.exec(text ?? '')?.[1];

class Reader {
  private readonly byId = new Map<string, SvgElement>();
  private readonly found = new Set<string>();
  private readonly rules: ReturnType<typeof rulesOf>;
  private made = 0;
  private points = 0;

  constructor(private readonly root: SvgElement) {
    const sheets: string[] = [];
    const collect = (e: SvgElement): void => {
      const { id } = e.attributes;
      if (id !== undefined && !this.byId.has(id)) this.byId.set(id, e);
      if (e.name === 'style') sheets.push(textIn(e));
      e.children.forEach(collect);
    };
    collect(root);
    this.rules = rulesOf(sheets.join('\n'));
  }

  private note(text: string): void {
    this.found.add(text);
  }

  private style(line: readonly SvgElement[], parent: Style): Style {
    return styleOf(line, this.rules, parent);
  }

  read(): SvgDrawing {
    const view = viewportOf(this.root, [0, 0], sizeOf(this.root));
    const style = this.style([this.root], {});
    const walk: Walk = { style, matrix: view.matrix, line: [this.root], size: view.inner, uses: 0 };
    const nodes = this.children(this.root, walk);
    return { width: view.width, height: view.height, nodes, notes: [...this.found].sort() };
  }

  private children(e: SvgElement, walk: Walk): SvgNode[] {
    return e.children.flatMap((child) => this.element(child, walk));
  }

  private element(e: SvgElement, outer: Walk): SvgNode[] {
    const left = LEFT_OUT[e.name];
    if (left) this.note(left);
    if (left || ++this.made > MOST_NODES) return [];
    const line = [...outer.line, e];
    const style = this.style(line, outer.style);
    if (style.display === 'none') return [];
    const matrix = multiply(outer.matrix, transformOf(style.transform));
    const walk: Walk = { ...outer, style, matrix, line };
    const made = this.content(e, walk);
    return made.length === 0 ? [] : this.dressed(e, made, walk);
  }

  private content(e: SvgElement, walk: Walk): SvgNode[] {
    switch (e.name) {
      case 'g':
      case 'a':
        return this.children(e, walk);
      case 'switch': {
        const [first] = e.children;
        return first ? this.element(first, walk) : [];
      }
      case 'svg': {
        const view = viewportOf(e, walk.size);
        const { attributes: a } = e;
        const [x, y] = [lengthOf(a.x, walk.size[0], 0), lengthOf(a.y, walk.size[1], 0)];
        const matrix = multiply(walk.matrix, multiply([1, 0, 0, 1, x, y], view.matrix));
        return this.children(e, { ...walk, matrix, size: view.inner });
      }
      case 'use':
        return this.use(e, walk);
      case 'text':
        return this.text(e, walk);
      default: {
        const data = dataOf(e, walk.size);
        return data === null ? [] : this.shape(e, data, walk);
      }
    }
  }

  private use(e: SvgElement, walk: Walk): SvgNode[] {
    const { attributes: a } = e;
    const href = a.href ?? '';
    if (href && !href.startsWith('#')) {
      this.note('a part of another file is left out');
      return [];
    }
    const target = this.byId.get(href.slice(1));
    if (!target || walk.uses >= MOST_USES || walk.line.includes(target)) return [];
    const [x, y] = [lengthOf(a.x, walk.size[0], 0), lengthOf(a.y, walk.size[1], 0)];
    const moved: Walk = { ...walk, matrix: multiply(walk.matrix, [1, 0, 0, 1, x, y]), uses: walk.uses + 1 };
    if (target.name !== 'symbol') return this.element(target, moved);
    const size = [a.width, a.height].map((v, i) => (v === undefined ? null : lengthOf(v, walk.size[i] ?? 0, 0))) as [
      number | null,
      number | null,
    ];
    const view = viewportOf(target, walk.size, size);
    const line = [...moved.line, target];
    return this.children(target, {
      ...moved,
      style: this.style(line, moved.style),
      line,
      matrix: multiply(moved.matrix, view.matrix),
      size: view.inner,
    });
  }

  /** What applies to an element as a whole: opacity, clips, and what is only noted. */
  private dressed(e: SvgElement, made: SvgNode[], walk: Walk): SvgNode[] {
    const { style } = walk;
    if (style.mask && style.mask !== 'none') this.note('a mask is left out');
    if (style.filter && style.filter !== 'none') this.note('a filter is left out');
    if (style['mix-blend-mode'] && style['mix-blend-mode'] !== 'normal') this.note('a blend mode is left out');
    const opacity = shareOf(style.opacity);
    const clip = this.clip(urlOf(style['clip-path']), made, walk);
    const [only] = made;
    if (!clip && made.length === 1 && only && only.kind !== 'group')
      return [{ ...only, name: nameOf(e, only.name), opacity: only.opacity * opacity }];
    const isGroup = e.name === 'g' || e.name === 'svg' || e.name === 'a' || e.name === 'use';
    if (!clip && opacity === 1 && !isGroup) return made;
    return [{ kind: 'group', name: nameOf(e, 'Group'), children: made, opacity, clip }];
  }

  private clip(id: string | undefined, made: readonly SvgNode[], walk: Walk): SvgGroup['clip'] {
    const element = id === undefined ? undefined : this.byId.get(id);
    if (element?.name !== 'clipPath') return null;
    let { matrix } = walk;
    if (element.attributes.clipPathUnits === 'objectBoundingBox') {
      const box = nodesBox(made);
      if (!box) return null;
      this.note('a clip that follows the size of what it clips is fixed');
      matrix = [box.right - box.left, 0, 0, box.bottom - box.top, box.left, box.top];
    }
    const line = [element];
    const style = this.style(line, {});
    const nodes = this.children(element, {
      ...walk,
      style,
      line,
      matrix: multiply(matrix, transformOf(style.transform)),
      uses: walk.uses + 1,
    });
    const shapes = shapesIn(nodes);
    const rule = element.children.some((c) => this.style([element, c], style)['clip-rule'] === 'evenodd')
      ? 'evenodd'
      : 'nonzero';
    return { paths: shapes.flatMap((s) => s.paths), rule };
  }

  private ink(
    value: string | undefined,
    paths: readonly PathValue[],
    own: Box | null,
    walk: Walk,
    opacity: number,
  ): SvgInk | null {
    if (value === undefined || value === 'none') return null;
    const id = urlOf(value);
    if (id !== undefined) {
      const element = this.byId.get(id);
      if (element?.name === 'linearGradient' || element?.name === 'radialGradient') {
        const box = own ?? boxOf(paths);
        const context = {
          byId: this.byId,
          styleOf: (stop: SvgElement, parent: Style) => this.style([stop], parent),
          note: (text: string) => this.note(text),
        };
        if (box) return gradientOf(element, box, walk.matrix, opacity, context);
      }
      if (element?.name === 'pattern') this.note('a pattern is left out');
      const after = value.replace(/^url\([^)]*\)\s*/, '');
      return after && after !== 'none' ? this.ink(after, paths, own, walk, opacity) : null;
    }
    const color = colorOf(value, walk.style.color ?? 'black', opacity);
    return color ? { style: 'solid', color } : null;
  }

  private shape(e: SvgElement, data: string, walk: Walk): SvgNode[] {
    const { style, matrix } = walk;
    if (style.visibility === 'hidden' || style.visibility === 'collapse') return [];
    if (['marker-start', 'marker-mid', 'marker-end'].some((m) => style[m] && style[m] !== 'none')) {
      this.note('markers on lines are left out');
    }
    // Counted by the numbers in it, before anything is made of them: a curve has three points of two.
    this.points += (data.match(/[\d.]+/g)?.length ?? 0) / 2;
    if (this.points > SVG_LIMITS.points) {
      throw new Invalid(`the drawing has more than ${thousands(SVG_LIMITS.points)} points`);
    }
    const paths = pathsOf(data, matrix);
    if (paths.length === 0) return [];
    const own = boxOf(pathsOf(data, IDENTITY));
    const fill = this.ink(style.fill ?? 'black', paths, own, walk, shareOf(style['fill-opacity']));
    const stroke = this.stroke(paths, own, walk);
    if (!fill && !stroke) return [];
    return [
      {
        kind: 'shape',
        name: nameOf(e, labelOf(e.name)),
        paths,
        rule: style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero',
        fill,
        stroke,
        strokeFirst: /^\s*(stroke|markers\s+stroke)/.test(style['paint-order'] ?? ''),
        opacity: 1,
      },
    ];
  }

  private stroke(paths: readonly PathValue[], own: Box | null, walk: Walk): SvgStroke | null {
    const { style, matrix, size } = walk;
    const ink = this.ink(style.stroke, paths, own, walk, shareOf(style['stroke-opacity']));
    const diagonal = Math.sqrt((size[0] ** 2 + size[1] ** 2) / 2);
    const width = lengthOf(style['stroke-width'], diagonal, 1);
    if (!ink || width <= 0) return null;
    const [sx, sy] = [Math.hypot(matrix[0], matrix[1]), Math.hypot(matrix[2], matrix[3])];
    const scale = style['vector-effect'] === 'non-scaling-stroke' ? 1 : meanScale(matrix);
    if (Math.abs(sx - sy) > 0.01 * Math.max(sx, sy)) this.note('a stroke that is stretched unevenly is drawn even');
    const cap = style['stroke-linecap'];
    const join = style['stroke-linejoin'];
    return {
      ink,
      width: width * scale,
      cap: cap === 'round' || cap === 'square' ? cap : 'butt',
      join: join === 'round' || join === 'bevel' ? join : 'miter',
      miterLimit: Math.min(100, Math.max(1, lengthOf(style['stroke-miterlimit'], 1, 4))),
      dashes: (style['stroke-dasharray'] === 'none' ? [] : numbersOf(style['stroke-dasharray']))
        .slice(0, 16)
        .map((d) => Math.min(10_000, Math.abs(d) * scale)),
      dashOffset: lengthOf(style['stroke-dashoffset'], diagonal, 0) * scale,
    };
  }

  private text(e: SvgElement, walk: Walk): SvgNode[] {
    if (walk.style.visibility === 'hidden') return [];
    const spans = e.children.filter(
      (c) => c.name === 'tspan' && (c.attributes.x !== undefined || c.attributes.y !== undefined),
    );
    const own = (el: SvgElement, style: Style, from: Point): SvgNode[] => {
      const text = textIn(el).replace(/\s+/g, ' ').trim();
      const fill = this.ink(style.fill ?? 'black', [], null, walk, shareOf(style['fill-opacity']));
      if (!text || !fill) return [];
      if (el.children.some((c) => c.name === 'tspan')) this.note('text with several styles in a line takes the first');
      const size = lengthOf(style['font-size'], 16, 16);
      const weight = style['font-weight'] === 'bold' ? 700 : Number(style['font-weight']) || 400;
      const anchor = style['text-anchor'];
      return [
        {
          kind: 'text',
          name: asName(text, 'Text', 60),
          text: cutText(sound(text), MOST_LETTERS),
          matrix: walk.matrix,
          at: [numbersOf(el.attributes.x)[0] ?? from[0], numbersOf(el.attributes.y)[0] ?? from[1]],
          family: (style['font-family'] ?? '').split(',')[0]?.replace(/['"]/g, '').trim() ?? '',
          weight: Math.min(1000, Math.max(1, weight)),
          italic: style['font-style'] === 'italic' || style['font-style'] === 'oblique',
          size,
          tracking: Math.round((lengthOf(style['letter-spacing'], size, 0) / size) * 1000),
          align: anchor === 'middle' ? 'center' : anchor === 'end' ? 'right' : 'left',
          fill,
          opacity: 1,
        },
      ];
    };
    const start: Point = [numbersOf(e.attributes.x)[0] ?? 0, numbersOf(e.attributes.y)[0] ?? 0];
    if (spans.length === 0) return own(e, walk.style, start);
    return spans.flatMap((span) => own(span, this.style([...walk.line, span], walk.style), start));
  }
}

const labelOf = (name: string): string => name[0]?.toUpperCase() + name.slice(1);

/** The name that a drawing program gave, else its id, else what it is. */
const nameOf = ({ attributes: a }: SvgElement, missing: string): string =>
  asName((a.label ?? a['data-name'] ?? a.id ?? missing).replace(/_/g, ' ').trim(), missing, 60);

const shapesIn = (nodes: readonly SvgNode[]): SvgShape[] =>
  nodes.flatMap((n) => (n.kind === 'group' ? shapesIn(n.children) : n.kind === 'shape' ? [n] : []));

/** The box of what nodes fill, strokes aside; null for nothing. */
export const nodesBox = (nodes: readonly SvgNode[]): Box | null =>
  nodes.reduce<Box | null>((sum, node) => {
    if (node.kind === 'group') return union(sum, nodesBox(node.children));
    if (node.kind === 'shape') return union(sum, boxOf(node.paths));
    const [x, y] = apply(node.matrix, node.at);
    return union(sum, { left: x, top: y - node.size, right: x, bottom: y });
  }, null);

/** Reads a drawing; Invalid for what is no SVG, or is too large or too deep. */
export const readSvg = (source: string): SvgDrawing => new Reader(parseSvg(source)).read();
