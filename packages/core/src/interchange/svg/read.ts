/** SVG drawings as a tree of shapes, texts, pictures and groups, in pixels of the drawing. */
import { Invalid } from '../../check/problem';
import { thousands } from '../../document/text';
import { BLEND_MODES, type PathValue } from '../../document/types';
import { isSimilar } from '../../edits/place';
import { lengthTable } from '../../geometry/length';
import { IDENTITY, meanScale, type Matrix, multiply, scaling, translation } from '../../geometry/matrix';
import { outlineOfPath } from '../../geometry/outline';
import { clipOf, maskOf, withinView } from './cuts';
import { effectsOfFilter } from './filters';
import { markersOf } from './markers';
import {
  blendsBehind,
  boxOfPaths,
  groupOf,
  isPainted,
  isPlain,
  type SvgDrawing,
  type SvgNode,
  withoutUnpainted,
} from './nodes';
import { shareOf } from './paints';
import { paintedOf } from './painted';
import { parseSvg, SVG_LIMITS, type SvgElement } from './parse';

import { dataOf, pathsOf } from './shapes';
import { lengthOf, rulesOf, type Style, styleOf } from './style';
import { textsOf } from './texts';
import { fitOf, transformAbout, sizeOf, viewportOf } from './transform';
import { MOST_USES, nameOf, type Reading, textIn, type Walk } from './walk';

/** What is left out, and what it is called in the notes. */
const LEFT_OUT: Readonly<Record<string, string>> = {
  foreignObject: 'foreign content is left out',
  script: 'a script is left out',
  animate: 'an animation is left out',
  animateTransform: 'an animation is left out',
  animateMotion: 'an animation is left out',
  set: 'an animation is left out',
};

/** Copies that `use` may make in all. */
const MOST_NODES = 20_000;

class Reader implements Reading {
  readonly byId = new Map<string, SvgElement>();
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

  note(text: string): void {
    this.found.add(text);
  }

  style(line: readonly SvgElement[], parent: Style): Style {
    return styleOf(line, this.rules, parent);
  }

  read(): SvgDrawing {
    const view = viewportOf(this.root, [0, 0], sizeOf(this.root));
    const style = this.style([this.root], {});
    const walk: Walk = { style, matrix: view.matrix, line: [this.root], size: view.inner, uses: 0, area: false };
    const nodes = withoutUnpainted(this.children(this.root, walk));
    return { width: view.width, height: view.height, nodes, notes: [...this.found].sort() };
  }

  children(e: SvgElement, walk: Walk): readonly SvgNode[] {
    return e.children.flatMap((child) => this.element(child, walk));
  }

  private element(e: SvgElement, outer: Walk): readonly SvgNode[] {
    const left = LEFT_OUT[e.name];
    if (left) {
      this.note(left);
      return [];
    }
    if (++this.made > MOST_NODES) {
      this.note(`what comes after ${thousands(MOST_NODES)} elements, all copies counted, is left out`);
      return [];
    }
    const line = [...outer.line, e];
    const style = this.style(line, outer.style);
    if (style.display === 'none') return [];
    const about = transformAbout(style.transform, style['transform-origin'], outer.size);
    // What is used is moved as a part of that: clips and masks go along.
    const moved = e.name === 'use' ? multiply(about, placeOf(e, outer)) : about;
    const walk: Walk = { ...outer, style, matrix: multiply(outer.matrix, moved), line };
    const made = this.content(e, walk);
    return made.length === 0 ? [] : this.dressed(e, made, walk);
  }

  private content(e: SvgElement, walk: Walk): readonly SvgNode[] {
    switch (e.name) {
      case 'g':
      case 'a':
        return this.children(e, walk);
      case 'switch': {
        const first = e.children.find(isRead);
        return first ? this.element(first, walk) : [];
      }
      case 'svg':
        return this.view(e, { ...walk, matrix: multiply(walk.matrix, placeOf(e, walk)) });
      case 'use':
        return this.use(e, walk);
      case 'text':
        return textsOf(e, walk, this);
      case 'image':
        return this.picture(e, walk);
      default: {
        const data = dataOf(e, walk.size);
        return data === null ? [] : this.shape(e, data, walk);
      }
    }
  }

  /** What stands in an svg or a symbol, through its view box, and no more of it than that shows. */
  private view(e: SvgElement, walk: Walk, size?: readonly [number | null, number | null]): readonly SvgNode[] {
    const view = viewportOf(e, walk.size, size);
    const inside = { ...walk, matrix: multiply(walk.matrix, view.matrix), size: view.inner };
    return withinView(this.children(e, inside), view, walk.matrix, walk.style);
  }

  private use(e: SvgElement, walk: Walk): readonly SvgNode[] {
    const { attributes: a } = e;
    const href = a.href ?? '';
    if (href && !href.startsWith('#')) {
      this.note('a part of another file is left out');
      return [];
    }
    const target = this.byId.get(href.slice(1));
    if (!target || walk.uses >= MOST_USES || walk.line.includes(target)) return [];
    const inside: Walk = { ...walk, uses: walk.uses + 1 };
    if (target.name !== 'symbol') return this.element(target, inside);
    const size = [a.width, a.height].map((v, i) => (v === undefined ? null : lengthOf(v, walk.size[i] ?? 0, 0))) as [
      number | null,
      number | null,
    ];
    const line = [...inside.line, target];
    return this.view(target, { ...inside, style: this.style(line, inside.style), line }, size);
  }

  private picture(e: SvgElement, walk: Walk): readonly SvgNode[] {
    const { attributes: a } = e;
    if (walk.style.visibility === 'hidden' || walk.area || !a.href) return [];
    if (!/^data:image\/(png|jpe?g|webp|gif)[;,]/i.test(a.href)) {
      this.note(
        a.href.startsWith('data:')
          ? 'a picture of a kind that is not read is left out'
          : 'a picture in a file of its own is left out',
      );
      return [];
    }
    const side = (text: string | undefined, whole: number) => {
      const long = lengthOf(text, whole, 0);
      return long > 0 ? long : null;
    };
    const [w, h] = walk.size;
    return [
      {
        kind: 'picture',
        name: nameOf(e, 'Picture'),
        file: a.href,
        matrix: walk.matrix,
        at: [lengthOf(a.x, w, 0), lengthOf(a.y, h, 0)],
        width: side(a.width, w),
        height: side(a.height, h),
        fit: fitOf(e),
        opacity: 1,
      },
    ];
  }

  /** What applies to an element as a whole: filters, clips, masks, opacity and blend modes, in this order. */
  private dressed(e: SvgElement, made: readonly SvgNode[], walk: Walk): readonly SvgNode[] {
    const { style } = walk;
    const mode = style['mix-blend-mode'] ?? 'normal';
    const blend = BLEND_MODES.find((one) => one === mode);
    if (!blend) this.note('a blend mode is left out');
    const effects = walk.area ? [] : effectsOfFilter(style.filter, walk.matrix, this);
    const clip = clipOf(style['clip-path'], made, walk, this);
    const mask = walk.area ? null : maskOf(style.mask, made, walk, this);
    const within = isolates(style) && mode === 'normal' && made.some(blendsBehind);
    const looks = { opacity: shareOf(style.opacity), blend: within ? ('within' as const) : (blend ?? 'normal') };
    const painted = made.filter(isPainted);
    const [only] = painted;
    const bare = effects.length === 0 && !clip && !mask && looks.blend === 'normal';
    if (bare && painted.length === 1 && only && only.kind !== 'group') {
      const named = { ...only, name: nameOf(e, only.name), opacity: only.opacity * looks.opacity };
      return made.map((node) => (node === only ? named : node));
    }
    const name = nameOf(e, only?.name ?? 'Group');
    // One mask is cut by another around it.
    const inner = clip && mask ? [groupOf(name, made, { effects, cut: clip })] : made;
    const group = groupOf(
      name,
      inner,
      clip && mask ? { ...looks, cut: mask } : { ...looks, effects, cut: clip ?? mask },
    );
    return isPlain(group) && !HOLDERS.has(e.name) ? made : [group];
  }

  private shape(e: SvgElement, data: string, walk: Walk): readonly SvgNode[] {
    const { style, matrix } = walk;
    if (style.visibility === 'hidden' || style.visibility === 'collapse') return [];
    // Counted by the numbers in it, before anything is made of them: a curve has three points of two.
    this.points += (data.match(/[\d.]+/g)?.length ?? 0) / 2;
    if (this.points > SVG_LIMITS.points) {
      throw new Invalid(`the drawing has more than ${thousands(SVG_LIMITS.points)} points`);
    }
    const name = nameOf(e, labelOf(e.name));
    const looks = { kind: 'shape', name, opacity: 1 } as const;
    if (walk.area) {
      const rule = style['clip-rule'] === 'evenodd' ? 'evenodd' : 'nonzero';
      const paths = pathsOf(data, matrix);
      const fill = { style: 'solid', color: '#000000' } as const;
      return paths.length === 0
        ? []
        : [{ ...looks, matrix: IDENTITY, paths, rule, fill, stroke: null, strokeFirst: false }];
    }
    const { outer, inner } = matricesOf(walk);
    const paths = pathsOf(data, inner);
    const drawn = pathsOf(data, IDENTITY);
    const [own, painted] = [boxOfPaths(drawn, IDENTITY), boxOfPaths(paths, IDENTITY)];
    if (!own || !painted) return [];
    const around = { own, painted };
    const nodes = [
      ...paintedOf({ ...looks, matrix: outer, paths }, around, inner, perDash(e, drawn), walk, this),
      ...markersOf(e, data, walk, this),
    ];
    return nodes.filter(isPainted).length > 1 ? [groupOf(name, nodes)] : nodes;
  }
}

/** Whether what blends in an element does so with what is in it alone, for no other reason (Compositing and Blending 1, 3.4). */
const isolates = ({ isolation, filter = 'none' }: Style): boolean => isolation === 'isolate' || filter !== 'none';

/** Whether a switch takes an element: extensions are what other programs keep for themselves (SVG 2, 5.9). */
const isRead = ({ attributes: { requiredExtensions, systemLanguage } }: SvgElement): boolean =>
  requiredExtensions === undefined && (systemLanguage === undefined || /(^|[\s,])en/.test(systemLanguage));

/** Elements that stay groups, as their drawing program has them. */
const HOLDERS: ReadonlySet<string> = new Set(['g', 'svg', 'a', 'use']);

/** Where x and y put what is in an element. */
const placeOf = ({ attributes: a }: SvgElement, { size: [w, h] }: Walk): Matrix =>
  translation(lengthOf(a.x, w, 0), lengthOf(a.y, h, 0));

/** What elements are called whose drawing program gave them no name. */
const LABELS: Readonly<Record<string, string>> = { rect: 'Rectangle', polyline: 'Line' };
const labelOf = (name: string): string => LABELS[name] ?? name.charAt(0).toUpperCase() + name.slice(1);

/** A matrix for paths, and one around them: what stretches a stroke unevenly stays around it. */
const matricesOf = ({ matrix, style }: Walk): { readonly outer: Matrix; readonly inner: Matrix } => {
  const even = isSimilar(matrix) || style['vector-effect'] === 'non-scaling-stroke';
  const scale = meanScale(matrix);
  if (even || !style.stroke || style.stroke === 'none' || scale === 0) return { outer: IDENTITY, inner: matrix };
  return { outer: multiply(matrix, scaling(1 / scale)), inner: scaling(scale) };
};

/** How many of its pixels make one that the dashes of an element are in (SVG 2, 9.6.1). */
const perDash = ({ attributes: a }: SvgElement, drawn: readonly PathValue[]): number => {
  const said = Number(a.pathLength);
  if (!(said > 0)) return 1;
  const whole = drawn.reduce((sum, path) => {
    const outline = outlineOfPath(path);
    return outline ? sum + lengthTable(outline).total : sum;
  }, 0);
  return whole / said;
};

/** Reads a drawing; Invalid for what is no SVG, or is too large or too deep. */
export const readSvg = (source: string): SvgDrawing => new Reader(parseSvg(source)).read();
