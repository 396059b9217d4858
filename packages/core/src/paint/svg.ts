/** Display list → SVG (SVG 2; Compositing and Blending Level 1 for blend modes). What SVG has no means for is a picture in it. */
import type { BlendMode, CutOut, GradientStop, PictureAsset, Point } from '../document/types';
import { type Box, boxOutline, boxThrough, grown, intersection, outlineBox, union } from '../geometry/bounds';
import { inverted, type Matrix } from '../geometry/matrix';
import type { Outline } from '../geometry/outline';
import { areaOf, outlinesOf } from '../geometry/polygons';
import type { Size } from '../geometry/size';
import { dataOf } from '../geometry/trace';
import { opacityOf } from '../picture/pixels';
import { boxOfMarks, deviationOf, flatFill, grouped, markBox } from '../recipe/marks';
import type { AreaCut, Cut, CutMode, GroupMark, GrowthCut, Ink, Mark, PictureMark } from '../recipe/types';
import type { DisplayList } from '../scene/program';
import type { Frame } from './canvas';
import { areaOn } from './crisp';
import { chainOf, lackOf } from './svgMeans';

const short = (n: number): string => String(Math.round(n * 1e3) / 1e3 + 0);
const list = (...numbers: readonly number[]): string => numbers.map(short).join(' ');

/** A hex colour as SVG 1.1 programs read it: its alpha apart. */
const colorOf = (hex: string): { readonly color: string; readonly alpha: number } => ({
  color: hex.slice(0, 7),
  alpha: opacityOf(hex),
});

const attribute = (name: string, value: string | number, missing: string | number): string =>
  value === missing ? '' : ` ${name}="${typeof value === 'number' ? short(value) : value}"`;

/** With six digits, for what sides of a thousand pixels and more are multiplied by. */
const exact = (n: number): string => String(Math.round(n * 1e6) / 1e6 + 0);

/** Turns and sizes are the first four. */
const transformOf = (m: Matrix): string => {
  if (m.every((v, i) => Math.abs(v - [1, 0, 0, 1, 0, 0][i]!) < 1e-9)) return '';
  const numbers = m.map((v, i) => (i < 4 ? exact(v) : short(v)));
  return ` transform="matrix(${numbers.join(' ')})"`;
};

/** A canvas draws no stroke along what stays on one spot; SVG would draw its round caps. */
const goesSomewhere = ({ points }: Outline): boolean =>
  points.some((coordinate, i) => Math.abs(coordinate - points[i % 2]!) > 5e-4);

/** Outlines with what else they have; of none there is no element, since browsers animate no path to an empty one. */
const pathOf = (outlines: readonly Outline[], attributes: string): string =>
  outlines.length === 0 ? '' : `<path d="${dataOf(outlines)}"${attributes}/>`;

const stop = ({ at, color }: GradientStop): string => {
  const c = colorOf(color);
  return `<stop offset="${short(at)}" stop-color="${c.color}"${attribute('stop-opacity', c.alpha, 1)}/>`;
};

/** Names for the pictures in an SVG, the same for the same one, for which their addresses are put in. */
export interface Inside {
  /** A picture's file; null for one that is not here. */
  readonly pictureAt: (asset: PictureAsset, cut: CutOut | null) => string | null;
  /** A picture of marks, on nothing: `view` is from their pixels to its own. */
  readonly drawn: (marks: readonly Mark[], frame: Frame) => string;
}

/** What masks are painted with: what is brighter shows more. */
const [WHITE, BLACK] = ['#FFFFFF', '#000000'] as const;
type MaskColor = typeof WHITE | typeof BLACK;

const sidesOf = ({ left, top, right, bottom }: Box, written = short): string =>
  `x="${written(left)}" y="${written(top)}" width="${written(right - left)}" height="${written(bottom - top)}"`;

/** All that is seen and a little more, so that the edge of a mask is no edge of what it shows. */
const allOf = (seen: Box): Box => grown(seen, 1);
const everywhere = (color: MaskColor, seen: Box): string => `<rect ${sidesOf(allOf(seen))} fill="${color}"/>`;

/** Blends that do with brightness what a cut does with the areas before it. */
const JOINING: { readonly [M in CutMode]: BlendMode } = {
  add: 'screen',
  hide: 'multiply',
  show: 'multiply',
  exclude: 'exclusion',
};

const shows = ({ mode }: Cut): boolean => mode === 'add' || mode === 'show';
/** Whether a clip does what a cut does. */
const isHard = (cut: Cut): cut is AreaCut =>
  'outlines' in cut && cut.feather <= 0 && !cut.inverted && cut.strength >= 1;

/** How far a chain of effects spreads what is in it, in the pixels of its marks. */
const reachOf = (chain: readonly GroupMark[]): number =>
  chain.reduce((sum, { effect }) => sum + (effect ? effect.by.reach * effect.scale : 0), 0);

/** How a group is laid over what is behind it. */
const styleOf = ({ blend }: GroupMark): string => {
  if (blend === 'normal') return '';
  if (blend === 'within') return ' style="isolation:isolate"';
  return ` style="mix-blend-mode:${blend === 'plus' ? 'plus-lighter' : blend}"`;
};

/** Pixels of one picture that is drawn, at the most. */
const MOST_PIXELS = 32_000_000;

/** Writes marks, of which a box is seen, in the pixels of the scene. */
class Writer {
  readonly defs: string[] = [];
  /** The names of pictures that could not be read. */
  readonly unread = new Set<string>();
  /** What was drawn, as SVG has no means for it. */
  readonly lacks = new Set<string>();
  private readonly ids = new Map<string, number>();
  private readonly files = new Set<string>();

  constructor(
    /** How many of the file's pixels one of these is, across and down. */
    private readonly scale: Point,
    private readonly inside: Inside,
  ) {}

  /** Each kind has numbers of its own: the same name is always the same kind of thing. */
  private define(kind: string, make: (id: string) => string): string {
    const number = (this.ids.get(kind) ?? 0) + 1;
    this.ids.set(kind, number);
    const id = `${kind}${number}`;
    this.defs.push(make(id));
    return id;
  }

  /** The attributes that paint with an ink. */
  private ink(name: 'fill' | 'stroke', ink: Ink): string {
    if (ink.style === 'solid') {
      const { color, alpha } = colorOf(ink.color);
      return ` ${name}="${color}"${attribute(`${name}-opacity`, alpha, 1)}`;
    }
    const { from, to } = ink;
    const stops = ink.gradient.stops.map(stop).join('');
    const id = this.define(ink.style, (own) =>
      ink.style === 'linear'
        ? `<linearGradient id="${own}" gradientUnits="userSpaceOnUse" x1="${short(from[0])}" y1="${short(from[1])}" x2="${short(to[0])}" y2="${short(to[1])}">${stops}</linearGradient>`
        : `<radialGradient id="${own}" gradientUnits="userSpaceOnUse" cx="${short(from[0])}" cy="${short(from[1])}" r="${short(Math.hypot(to[0] - from[0], to[1] - from[1]))}">${stops}</radialGradient>`,
    );
    return ` ${name}="url(#${id})"`;
  }

  mark(mark: Mark, seen: Box): string {
    const lack = lackOf(mark);
    if (lack !== null) return this.drawn(mark, lack, seen);
    const alpha = attribute('opacity', Math.min(1, mark.alpha), 1);
    switch (mark.op) {
      case 'fill':
        return pathOf(
          mark.outlines,
          `${transformOf(mark.matrix)}${this.ink('fill', mark.ink)}${attribute('fill-rule', mark.rule, 'nonzero')}${alpha}`,
        );
      case 'stroke':
        return pathOf(
          mark.outlines.filter(goesSomewhere),
          `${transformOf(mark.matrix)} fill="none"${this.ink('stroke', mark.ink)}` +
            ` stroke-width="${short(mark.width)}"${attribute('stroke-linecap', mark.cap, 'butt')}` +
            `${attribute('stroke-linejoin', mark.join, 'miter')}${attribute('stroke-miterlimit', mark.miterLimit, 4)}` +
            `${mark.dashes.length > 0 ? ` stroke-dasharray="${list(...mark.dashes)}"` : ''}` +
            `${attribute('stroke-dashoffset', mark.dashOffset, 0)}${alpha}`,
        );
      case 'picture':
        return this.picture(mark, alpha);
      case 'group': {
        const chain = mark.effect ? chainOf(mark) : [];
        const within = grown(seen, reachOf(chain));
        const inner = this.all(chain.at(-1) ?? mark, within);
        const cut = mark.cuts ? this.cut(inner, mark.cuts, within) : inner;
        return `<g${this.effect(chain)}${alpha}${styleOf(mark)}>${cut}</g>`;
      }
    }
  }

  /** A picture's file is defined once, and used wherever it is shown. */
  private picture({ asset, cut, matrix }: PictureMark, alpha: string): string {
    const name = this.inside.pictureAt(asset, cut);
    if (name === null) {
      this.unread.add(asset.name);
      return '';
    }
    if (!this.files.has(name)) {
      const [right, bottom] = [asset.width / 2, asset.height / 2];
      this.files.add(name);
      this.defs.push(`<image id="${name}" ${sidesOf({ left: -right, top: -bottom, right, bottom })} href="${name}"/>`);
    }
    return `<use href="#${name}"${transformOf(matrix)}${alpha}/>`;
  }

  private all({ marks }: Pick<GroupMark, 'marks'>, seen: Box): string {
    return marks.map((mark) => this.mark(mark, seen)).join('');
  }

  /** What is seen of a mark as a picture, whose pixels are those of the file, or larger where they would be too many. */
  private drawn(mark: Mark, lack: string, seen: Box): string {
    const whole = markBox(mark);
    const part = whole && intersection(whole, seen);
    if (!part) return '';
    const count = (part.right - part.left) * this.scale[0] * (part.bottom - part.top) * this.scale[1];
    const share = Math.sqrt(Math.min(1, MOST_PIXELS / count));
    const [across, down] = [this.scale[0] * share, this.scale[1] * share];
    const [left, top] = [Math.floor(part.left * across), Math.floor(part.top * down)];
    const [right, bottom] = [Math.ceil(part.right * across), Math.ceil(part.bottom * down)];
    this.lacks.add(lack);
    // How it is laid over the others is left to who reads it.
    const alone: Mark = mark.op === 'group' ? { ...mark, alpha: 1, blend: 'normal' } : { ...mark, alpha: 1 };
    const view: Matrix = [across, 0, 0, down, -left, -top];
    const name = this.inside.drawn([alone], { width: right - left, height: bottom - top, view });
    const place = { left: left / across, top: top / down, right: right / across, bottom: bottom / down };
    const style = mark.op === 'group' ? styleOf(mark) : '';
    return `<image ${sidesOf(place, exact)} preserveAspectRatio="none" href="${name}"${attribute('opacity', Math.min(1, mark.alpha), 1)}${style}/>`;
  }

  /** The filter of a chain of effects, as one: of filters inside filters browsers cut off what spreads. */
  private effect(chain: readonly GroupMark[]): string {
    const box = chain[0] && markBox(chain[0]);
    if (!box) return '';
    const primitives = chain.toReversed().flatMap(({ effect }, i) => {
      if (!effect) return [];
      const own = effect.by.svg(effect.scale) ?? '';
      return i === 0 ? [own] : [`<feOffset result="after${i}"/>`, own.replaceAll('"SourceGraphic"', `"after${i}"`)];
    });
    return primitives.length > 0 ? ` filter="url(#${this.filter(box, primitives.join(''))})"` : '';
  }

  /** What cuts leave of an element. */
  private cut(inner: string, cuts: readonly Cut[], seen: Box): string {
    const [, ...rest] = cuts;
    if (!rest.every(({ mode }) => mode === 'show' || mode === 'hide')) {
      return `<g mask="url(#${this.maskOf(this.joined(cuts, seen), seen)})">${inner}</g>`;
    }
    // What only narrows down is done to the picture itself, one after another.
    return cuts.reduce((left, cut) => {
      const by = isHard(cut)
        ? `clip-path="url(#${this.clip(cut, seen)})"`
        : `mask="url(#${this.maskOf(this.left(cut, seen), seen)})"`;
      return `<g ${by}>${left}</g>`;
    }, inner);
  }

  private clip(cut: AreaCut, seen: Box): string {
    const { outlines, matrix } = areaOn(cut);
    const transform = transformOf(matrix);
    const left = (): string => {
      if (shows(cut)) return pathOf(outlines, transform);
      const back = inverted(matrix);
      if (!back) return `<rect ${sidesOf(allOf(seen))}/>`;
      // What is hidden is a hole in all that can be seen, drawn in the pixels of the clip.
      const holes = [boxOutline(boxThrough(back, allOf(seen))), ...outlinesOf(areaOf(outlines))];
      return pathOf(holes, ` clip-rule="evenodd"${transform}`);
    };
    return this.define('clip', (own) => `<clipPath id="${own}">${left()}</clipPath>`);
  }

  /** What one area leaves, by how bright it is. */
  private left(cut: Cut, seen: Box): string {
    return shows(cut) ? this.area(cut, WHITE, seen) : everywhere(WHITE, seen) + this.area(cut, BLACK, seen);
  }

  /** What areas leave of one another, by how bright it is: as the canvas's compositing has it with opacities (paint/cuts.ts). */
  private joined([first, ...rest]: readonly Cut[], seen: Box): string {
    if (!first) return '';
    const over = rest.map((cut) => {
      const area = this.area(cut, cut.mode === 'hide' ? BLACK : WHITE, seen);
      const whole = cut.mode === 'add' || cut.mode === 'hide' ? area : everywhere(BLACK, seen) + area;
      return `<g style="mix-blend-mode:${JOINING[cut.mode]}">${whole}</g>`;
    });
    return `<g style="isolation:isolate">${everywhere(BLACK, seen)}${this.left(first, seen)}${over.join('')}</g>`;
  }

  /** A colour where the area of a cut is, as strong as it counts. */
  private area(cut: Cut, color: MaskColor, seen: Box): string {
    const own = cut.inverted
      ? everywhere(color, seen) + this.shape(cut, color === WHITE ? BLACK : WHITE, seen)
      : this.shape(cut, color, seen);
    return `<g${attribute('opacity', cut.strength, 1)}>${own}</g>`;
  }

  /** A colour where the outlines of a cut are, or as opaque as its marks, or where something that grows has come to. */
  private shape(cut: Cut, color: MaskColor, seen: Box): string {
    if ('outlines' in cut) return this.soft(cut, color);
    if ('marks' in cut) return this.silhouette(cut.marks, color, seen);
    const all = flatFill([boxOutline(allOf(seen))], color);
    const come: GrowthCut = { ...cut, mode: 'show', inverted: false, strength: 1 };
    return this.drawn(grouped([all], { cuts: [come] }), 'the edges of what grows', seen);
  }

  /** A colour as opaque as marks are. */
  private silhouette(marks: readonly Mark[], color: MaskColor, seen: Box): string {
    const box = boxOfMarks(marks);
    if (!box) return '';
    const row = color === WHITE ? '0 0 0 0 1 ' : '0 0 0 0 0 ';
    const flat = `<feColorMatrix type="matrix" values="${row.repeat(3)}0 0 0 1 0"/>`;
    return `<g filter="url(#${this.filter(grown(box, 1), flat)})">${this.all({ marks }, seen)}</g>`;
  }

  /** A colour where outlines are, with a soft edge. */
  private soft(cut: AreaCut, color: MaskColor): string {
    const { feather, scale } = cut;
    const { outlines, matrix } = areaOn(cut);
    const deviation = deviationOf(feather) * scale;
    const path = pathOf(outlines, `${transformOf(matrix)} fill="${color}"`);
    const bare = outlines.reduce<Box | null>((sum, o) => union(sum, outlineBox(o)), null);
    return deviation > 0 && bare
      ? `<g filter="url(#${this.filter(grown(boxThrough(matrix, bare), deviation * 3), `<feGaussianBlur stdDeviation="${short(deviation)}"/>`)})">${path}</g>`
      : path;
  }

  /** A mask by how bright an element is. */
  private maskOf(element: string, seen: Box): string {
    return this.define(
      'mask',
      (own) => `<mask id="${own}" maskUnits="userSpaceOnUse" ${sidesOf(allOf(seen))}>${element}</mask>`,
    );
  }

  private filter(box: Box, content: string): string {
    return this.define(
      'filter',
      (own) =>
        `<filter id="${own}" filterUnits="userSpaceOnUse" ${sidesOf(box)} color-interpolation-filters="sRGB">${content}</filter>`,
    );
  }
}

/** A document, and what is to be known of it. */
export interface WrittenSvg {
  readonly svg: string;
  /** The names of pictures that could not be read. */
  readonly unread: ReadonlySet<string>;
  /** What is a picture in it, as SVG has no means for it. */
  readonly lacks: ReadonlySet<string>;
}

/** What is to be known of documents, as a delivery tells it. */
export const notesOf = (documents: readonly WrittenSvg[]): readonly string[] => {
  const unread = new Set(documents.flatMap((one) => [...one.unread]));
  const lacks = new Set(documents.flatMap((one) => [...one.lacks]));
  return [
    ...[...unread].map((name) => `The picture “${name}” could not be read.`),
    ...(lacks.size > 0 ? [`As pictures, since SVG has no means for them: ${[...lacks].join('; ')}.`] : []),
  ];
};

/** A frame as an SVG document of a size in pixels. */
export const svgOf = ({ width, height, background, marks }: DisplayList, size: Size, inside: Inside): WrittenSvg => {
  const scale: Point = [size.width / width, size.height / height];
  const writer = new Writer(scale, inside);
  const seen: Box = { left: 0, top: 0, right: width, bottom: height };
  const ground = background ? colorOf(background) : null;
  const rect = ground
    ? `<rect width="${width}" height="${height}" fill="${ground.color}"${attribute('fill-opacity', ground.alpha, 1)}/>\n`
    : '';
  const body = rect + marks.map((mark) => writer.mark(mark, seen)).join('\n');
  const defs = writer.defs.length > 0 ? `<defs>${writer.defs.join('')}</defs>\n` : '';
  // Where whole pixels have another shape than the scene, it is stretched to them, as a frame is.
  const [inPixels, shown] =
    Math.abs(scale[0] - scale[1]) < 1e-9
      ? [{ width, height }, body]
      : [size, `<g${transformOf([scale[0], 0, 0, scale[1], 0, 0])}>\n${body}\n</g>`];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}" viewBox="0 0 ${inPixels.width} ${inPixels.height}">\n${defs}${shown}\n</svg>\n`;
  return { svg, unread: writer.unread, lacks: writer.lacks };
};
