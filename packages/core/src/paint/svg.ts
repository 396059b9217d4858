/** Display list → SVG (SVG 2; Compositing and Blending Level 1 for blend modes). */
import type { CutOut, GradientStop, PictureAsset, Point } from '../document/types';
import { type Box, boxThrough, grown, outlineBox, union } from '../geometry/bounds';
import { areaOn } from './crisp';
import { NEAREST, weightAt } from '../geometry/homography';
import { type Bend, isWarp, matrixOfBend } from '../geometry/warp';
import type { Matrix } from '../geometry/matrix';
import type { Outline } from '../geometry/outline';
import { areaOf, outlinesOf } from '../geometry/polygons';
import type { Size } from '../geometry/size';
import { dataOf } from '../geometry/trace';
import { opacityOf } from '../picture/pixels';
import { boxOfMarks, deviationOf, markBox, markThrough } from '../recipe/marks';
import type { AreaCut, Cut, GroupMark, Ink, Mark } from '../recipe/types';
import type { DisplayList } from '../scene/program';

const short = (n: number): string => String(Math.round(n * 1e3) / 1e3 + 0);
const list = (...numbers: readonly number[]): string => numbers.map(short).join(' ');

/** A hex colour as SVG 1.1 programs read it: its alpha apart. */
const colorOf = (hex: string): { readonly color: string; readonly alpha: number } => ({
  color: hex.slice(0, 7),
  alpha: opacityOf(hex),
});

const attribute = (name: string, value: string | number, missing: string | number): string =>
  value === missing ? '' : ` ${name}="${typeof value === 'number' ? short(value) : value}"`;

/** Sides of a thousand pixels and more are turned and sized by the first four: they have six digits. */
const transformOf = (m: Matrix): string => {
  if (m.every((v, i) => Math.abs(v - [1, 0, 0, 1, 0, 0][i]!) < 1e-9)) return '';
  const numbers = m.map((v, i) => (i < 4 ? String(Math.round(v * 1e6) / 1e6 + 0) : short(v)));
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

/** Where a picture's file is: usually a data address with the file in it; null for one that is not here. */
export type PictureAddress = (asset: PictureAsset, cut: CutOut | null) => string | null;

/** A group with an effect, and the groups in it that have nothing but an effect of their own, from the outside in. */
const chainOf = (group: GroupMark): readonly GroupMark[] => {
  const [only, ...more] = group.marks;
  const goesOn =
    only?.op === 'group' &&
    more.length === 0 &&
    only.effect &&
    only.alpha >= 1 &&
    only.blend === 'normal' &&
    !only.sum &&
    !only.cuts;
  return goesOn && !group.cuts ? [group, ...chainOf(only)] : [group];
};

/** A rectangle that holds all that may ever be seen. */
const around = ({ width, height }: Size): string =>
  `x="${-width}" y="${-height}" width="${3 * width}" height="${3 * height}"`;
const everywhere = (size: Size, color: string): string => `<rect ${around(size)} fill="${color}"/>`;

class Writer {
  readonly defs: string[] = [];
  readonly notes = new Set<string>();
  private readonly ids = new Map<string, number>();

  constructor(private readonly addressOf: PictureAddress) {}

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
    if (ink.grain > 0) this.notes.add('Grain in gradients is left out of the SVG.');
    if (ink.style === 'angular') {
      this.notes.add('SVG has no angular gradients: the first colour stands for each.');
      return this.ink(name, { style: 'solid', color: ink.gradient.stops[0]?.color ?? '#000000' });
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

  mark(mark: Mark, size: Size): string {
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
      case 'picture': {
        const { asset } = mark;
        const address = this.addressOf(asset, mark.cut);
        if (address === null) {
          this.notes.add(`The picture “${asset.name}” could not be read.`);
          return '';
        }
        return `<image x="${short(-asset.width / 2)}" y="${short(-asset.height / 2)}" width="${asset.width}" height="${asset.height}" href="${address}"${transformOf(mark.matrix)}${alpha}/>`;
      }
      case 'group': {
        const chain = mark.effect ? chainOf(mark) : [];
        const inner = (chain.at(-1) ?? mark).marks.map((m) => this.mark(m, size)).join('');
        const placed = mark.bend ? this.bent(mark.bend, mark.marks, inner) : inner;
        const blend = mark.blend === 'plus' ? 'plus-lighter' : mark.blend;
        const styles = [blend !== 'normal' && `mix-blend-mode:${blend}`, mark.sum && 'isolation:isolate'].filter(
          Boolean,
        );
        const style = styles.length > 0 ? ` style="${styles.join(';')}"` : '';
        const cut = mark.cuts ? this.cut(placed, mark.cuts, size) : placed;
        return `<g${this.effect(chain)}${alpha}${style}>${cut}</g>`;
      }
    }
  }

  /** What is mapped as a picture, as nearly as SVG can: it has matrices, and no perspective. */
  private bent(bend: Bend, marks: readonly Mark[], inner: string): string {
    const box = boxOfMarks(marks);
    if (!box) return '';
    this.notes.add(
      'Gradients, pictures and effects in depth, pinned or bent by a mesh are laid in the SVG without perspective.',
    );
    const middle: Point = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
    if (!isWarp(bend) && weightAt(bend, middle) < NEAREST) return '';
    return `<g${transformOf(matrixOfBend(bend, middle))}>${inner}</g>`;
  }

  /** The filter of a chain of effects, as one: of filters inside filters browsers cut off what spreads. */
  private effect(chain: readonly GroupMark[]): string {
    const box = chain[0] && markBox(chain[0]);
    if (!box) return '';
    const primitives = chain.toReversed().flatMap(({ effect }, i) => {
      if (!effect) return [];
      const own = effect.by.svg(effect.scale);
      if (own === null) {
        this.notes.add(
          'Squares, grain, clouds, patterns, ripples and warps are left out of the SVG, which has no means for them.',
        );
        return [];
      }
      return i === 0 ? [own] : [`<feOffset result="after${i}"/>`, own.replaceAll('"SourceGraphic"', `"after${i}"`)];
    });
    return primitives.length > 0 ? ` filter="url(#${this.filter(box, primitives.join(''))})"` : '';
  }

  /** What cuts leave of an element: by clips where hard areas only narrow it down, else by a mask. */
  private cut(inner: string, cuts: readonly Cut[], size: Size): string {
    const isHard = (cut: Cut): cut is AreaCut =>
      'outlines' in cut && cut.feather <= 0 && !cut.inverted && cut.strength >= 1;
    const [, ...rest] = cuts;
    if (!cuts.every(isHard) || !rest.every(({ mode }) => mode === 'show' || mode === 'hide')) {
      return `<g mask="url(#${this.maskOf(this.joined(cuts, size), size)})">${inner}</g>`;
    }
    return cuts.reduce((left, cut) => `<g clip-path="url(#${this.clip(cut, size)})">${left}</g>`, inner);
  }

  private clip(cut: AreaCut, { width, height }: Size): string {
    const { outlines, matrix } = areaOn(cut);
    const { mode } = cut;
    return this.define('clip', (own) => {
      if (mode === 'show' || mode === 'add') {
        return `<clipPath id="${own}">${pathOf(outlines, transformOf(matrix))}</clipPath>`;
      }
      // What is hidden is a hole in the whole picture, drawn in the pixels of the clip.
      const holes = dataOf(outlinesOf(areaOf(outlines)));
      const far = 10 * Math.max(width, height);
      return `<clipPath id="${own}"><path clip-rule="evenodd" d="M${list(-far, -far)}H${far}V${far}H${-far}Z${holes}"${transformOf(matrix)}/></clipPath>`;
    });
  }

  /** What areas leave, white where it shows: as the canvas's compositing has it (paint/cuts.ts). */
  private joined(cuts: readonly Cut[], size: Size): string {
    const masked = (by: string, what: string) => `<g mask="url(#${this.maskOf(by, size)})">${what}</g>`;
    return cuts.reduce((sum, cut, i) => {
      const area = this.area(cut, size);
      const outside = () => this.inverse(area, size);
      if (i === 0) return cut.mode === 'add' || cut.mode === 'show' ? area : outside();
      switch (cut.mode) {
        case 'add':
          return sum + area;
        case 'show':
          return masked(area, sum);
        case 'hide':
          return masked(outside(), sum);
        case 'exclude':
          return `<g style="isolation:isolate">${masked(outside(), sum)}<g style="mix-blend-mode:plus-lighter">${masked(this.inverse(sum, size), area)}</g></g>`;
      }
    }, '');
  }

  /** White where the area of a cut is, as strong as it counts. */
  private area(cut: Cut, size: Size): string {
    if ('growth' in cut) this.notes.add('What grows is shown whole in the SVG, which has no means for it.');
    const drawn = 'growth' in cut ? cut.growth.through.map((m) => markThrough(cut.matrix, m)) : [];
    const shape = 'outlines' in cut ? this.soft(cut) : this.white('marks' in cut ? cut.marks : drawn, size);
    return `<g${attribute('opacity', cut.strength, 1)}>${cut.inverted ? this.inverse(shape, size) : shape}</g>`;
  }

  /** White as opaque as marks are. */
  private white(marks: readonly Mark[], size: Size): string {
    const box = boxOfMarks(marks);
    if (!box) return '';
    const white = '<feColorMatrix type="matrix" values="0 0 0 0 1 0 0 0 0 1 0 0 0 0 1 0 0 0 1 0"/>';
    return `<g filter="url(#${this.filter(grown(box, 1), white)})">${marks.map((m) => this.mark(m, size)).join('')}</g>`;
  }

  /** White where outlines are, with a soft edge. */
  private soft(cut: AreaCut): string {
    const { feather, scale } = cut;
    const { outlines, matrix } = areaOn(cut);
    const deviation = deviationOf(feather) * scale;
    const path = pathOf(outlines, `${transformOf(matrix)} fill="#fff"`);
    const bare = outlines.reduce<Box | null>((sum, o) => union(sum, outlineBox(o)), null);
    return deviation > 0 && bare
      ? `<g filter="url(#${this.filter(grown(boxThrough(matrix, bare), deviation * 3), `<feGaussianBlur stdDeviation="${short(deviation)}"/>`)})">${path}</g>`
      : path;
  }

  /** White where an element is not. */
  private inverse(element: string, size: Size): string {
    const dark = `<g mask="url(#${this.maskOf(element, size)})">${everywhere(size, '#000')}</g>`;
    return `<g mask="url(#${this.maskOf(everywhere(size, '#fff') + dark, size)})">${everywhere(size, '#fff')}</g>`;
  }

  /** A mask by how bright an element is. */
  private maskOf(element: string, size: Size): string {
    return this.define(
      'mask',
      (own) => `<mask id="${own}" maskUnits="userSpaceOnUse" ${around(size)}>${element}</mask>`,
    );
  }

  private filter({ left, top, right, bottom }: Box, content: string): string {
    return this.define(
      'filter',
      (own) =>
        `<filter id="${own}" filterUnits="userSpaceOnUse" x="${short(left)}" y="${short(top)}" width="${short(right - left)}" height="${short(bottom - top)}" color-interpolation-filters="sRGB">${content}</filter>`,
    );
  }
}

/** A frame as an SVG document of a size in pixels, and what it could not keep. */
export const svgOf = (
  { width, height, background, marks }: DisplayList,
  size: Size,
  addressOf: PictureAddress,
): { readonly svg: string; readonly notes: readonly string[] } => {
  const writer = new Writer(addressOf);
  const body = marks.map((mark) => writer.mark(mark, { width, height })).join('\n');
  const ground = background ? colorOf(background) : null;
  const rect = ground
    ? `<rect width="${width}" height="${height}" fill="${ground.color}"${attribute('fill-opacity', ground.alpha, 1)}/>\n`
    : '';
  const defs = writer.defs.length > 0 ? `<defs>${writer.defs.join('')}</defs>\n` : '';
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}" viewBox="0 0 ${width} ${height}">\n${defs}${rect}${body}\n</svg>\n`;
  return { svg, notes: [...writer.notes] };
};
