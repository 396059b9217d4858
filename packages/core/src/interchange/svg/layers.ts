/** A drawing that was read, as layers whose recipes can be edited. */
import { type MakeId, newDrawing, newItem } from '../../document/make';
import type {
  BlendMode,
  DrawingLayer,
  Gradient,
  Id,
  Item,
  PathValue,
  PictureAsset,
  Point,
  Scene,
  Value,
  Vertex,
} from '../../document/types';
import { remembered } from '../../document/remembered';
import { FAR, MOST_STOPS } from '../../document/params';
import { LIMITS } from '../../document/limits';
import { thousands } from '../../document/text';
import { cornersOf } from '../../geometry/bounds';
import { apply, IDENTITY, type Matrix, multiply, scaling, translation } from '../../geometry/matrix';
import { outlineOfPath } from '../../geometry/outline';
import { areaOf, outlinesOf } from '../../geometry/polygons';
import { inGroups } from '../../edits/drawn';
import { pathOfOutline, vertexThrough } from '../../motion/paths';
import { MOST_DEPTH } from '../../recipe/card';
import {
  isPlain,
  nodesBox,
  type SvgAlong,
  type SvgCut,
  type SvgDrawing,
  type SvgEffect,
  type SvgGroup,
  type SvgInk,
  type SvgNode,
  type SvgPicture,
  type SvgShape,
  type SvgStroke,
  type SvgText,
  type SvgTiles,
} from './nodes';
import { fitted } from './transform';

export interface SvgPlacing {
  /** Scene pixels to a pixel of the drawing. */
  readonly scale: number;
  /** Where the drawing's middle stands in the scene. */
  readonly at: Point;
  readonly layers: 'one-each' | 'one-for-all';
}

/** The parts that can be chosen: the drawing's top, or where that is one group, what is in it. */
export const partsOf = (nodes: readonly SvgNode[]): readonly SvgNode[] => {
  const [only] = nodes;
  return nodes.length === 1 && only?.kind === 'group' && isPlain(only) ? partsOf(only.children) : nodes;
};

/** What is in a group, or in the one group that it holds: what is done to all of these is done to each part by itself. */
export const insideOf = remembered((group: SvgGroup): readonly SvgNode[] => {
  const around = [group];
  let inner = group;
  for (let [only] = inner.children; inner.children.length === 1 && only?.kind === 'group'; [only] = inner.children) {
    inner = only;
    around.push(inner);
  }
  // The rows and columns of a pattern are one thing.
  if (around.some(({ tiles }) => tiles)) return [group];
  const doing = around.filter((one) => !isPlain(one));
  return inner.children.map((child) =>
    doing.reduceRight<SvgNode>((node, of) => ({ ...of, name: child.name, children: [node] }), child),
  );
});

/** The addresses of the files in a drawing, each once. */
export const filesIn = (nodes: readonly SvgNode[]): readonly string[] => {
  const files = new Set<string>();
  const look = (all: readonly SvgNode[]): void => {
    for (const node of all) {
      if (node.kind === 'picture') files.add(node.file);
      if (node.kind !== 'group') continue;
      look(node.children);
      if (node.cut && node.cut.by !== 'outlines') look(node.cut.nodes);
    }
  };
  look(nodes);
  return [...files];
};

/** Pictures of the project by the addresses of their files in the drawing. */
export type SvgFiles = ReadonlyMap<string, PictureAsset>;

const clampCoordinate = (n: number) => Math.min(FAR, Math.max(-FAR, n));
const tidy = (n: number) => clampCoordinate(Math.round(n * 1e3) / 1e3 + 0);

type Values = { readonly [key: string]: Value };

const isIdentity = (m: Matrix): boolean => m.every((v, i) => v === IDENTITY[i]);

class Builder {
  readonly items: Item[] = [];
  readonly notes = new Set<string>();
  /** From the drawing's pixels to the layer's. */
  private readonly scaled: Matrix;

  constructor(
    private readonly makeId: MakeId,
    private readonly scale: number,
    origin: Point,
    private readonly files: SvgFiles,
  ) {
    this.scaled = multiply(scaling(scale), translation(-origin[0], -origin[1]));
  }

  private add(kind: string, values: Values = {}, more: Partial<Pick<Item, 'name' | 'children'>> = {}): Id {
    const item = { ...newItem(this.makeId(), kind, values), ...more };
    this.items.push(item);
    return item.id;
  }

  /** Cards in groups whose pixels are those of a matrix of the drawing, the outermost with a name. */
  private placed(name: string, m: Matrix, opacity: number, cards: readonly Id[]): Id {
    const [outer, ...inner] = inGroups(multiply(this.scaled, m), cards, this.makeId(), this.makeId);
    const fades = opacity < 1 ? newItem(outer.id, outer.kind, { opacity }).params : {};
    this.items.push({ ...outer, name, params: { ...outer.params, ...fades } }, ...inner);
    return outer.id;
  }

  private ink(ink: SvgInk, m: Matrix): Values {
    if (ink.style === 'solid') return { style: 'solid', color: ink.color };
    const { style, from, to } = ink;
    const gradient: Gradient = { stops: ink.stops.slice(0, MOST_STOPS) };
    const place = (p: Point): Point => {
      const [x, y] = apply(m, p);
      return [tidy(x), tidy(y)];
    };
    return { style, gradient, from: place(from), to: place(to) };
  }

  private path(path: PathValue, m: Matrix): Id {
    const vertices = path.vertices.map((v) => vertexThrough(m, v).map(tidy) as unknown as Vertex);
    return this.add('path', { path: { ...path, vertices } });
  }

  private fill(ink: SvgInk, m: Matrix, rule: SvgShape['rule']): Id {
    const oval: Values = ink.style === 'radial' ? { breadth: Math.min(100, Math.max(0.01, ink.breadth)) } : {};
    return this.add('fill', { ...this.ink(ink, m), ...oval, rule });
  }

  /** `scale` pixels of the layer's make one of the stroke's. */
  private stroke(stroke: SvgStroke, m: Matrix, scale: number): Id {
    return this.add('stroke', {
      ...this.ink(stroke.ink, m),
      width: Math.min(10_000, stroke.width * scale),
      cap: stroke.cap,
      join: stroke.join,
      miterLimit: stroke.miterLimit,
      dashes: stroke.dashes.map((d) => Math.min(10_000, d * scale)),
      dashOffset: tidy(stroke.dashOffset * scale),
    });
  }

  private paints(
    { fill, stroke, strokeFirst }: Pick<SvgShape, 'fill' | 'stroke' | 'strokeFirst'>,
    m: Matrix,
    scale: number,
    rule: SvgShape['rule'],
  ): Id[] {
    const fills = fill ? [this.fill(fill, m, rule)] : [];
    const strokes = stroke ? [this.stroke(stroke, m, scale)] : [];
    return strokeFirst ? [...strokes, ...fills] : [...fills, ...strokes];
  }

  private shape(shape: SvgShape): Id {
    const own = isIdentity(shape.matrix);
    const [m, scale] = own ? [this.scaled, this.scale] : [IDENTITY, 1];
    const cards = [...shape.paths.map((p) => this.path(p, m)), ...this.paints(shape, m, scale, shape.rule)];
    if (!own) return this.placed(shape.name, shape.matrix, shape.opacity, cards);
    return this.add('group', faint(shape.opacity), { name: shape.name, children: cards });
  }

  private text(text: SvgText): Id {
    const source = this.add('text', {
      text: text.text,
      font: { family: text.family || 'Inter', weight: text.weight, italic: text.italic },
      size: Math.min(5_000, Math.max(0.1, text.size)),
      tracking: Math.min(10_000, Math.max(-1_000, text.tracking)),
      align: text.align,
    });
    const along = text.along ? [this.along(text.along)] : [];
    const paints = this.paints(text, IDENTITY, 1, 'nonzero');
    return this.placed(text.name, text.matrix, text.opacity, [source, ...along, ...paints]);
  }

  private along({ path, stands, shift, backwards }: SvgAlong): Id {
    const children = [this.path(path, IDENTITY)];
    return this.add('along', { stands, shift: Math.min(10, Math.max(-10, shift)), backwards }, { children });
  }

  private picture(picture: SvgPicture): Id[] {
    const file = this.files.get(picture.file);
    if (!file) {
      this.notes.add('a picture that cannot be read is left out');
      return [];
    }
    const { width, height, at: corner } = picture;
    const ratio = file.width / file.height;
    const size = [
      width ?? (height === null ? file.width : height * ratio),
      height ?? (width === null ? file.height : width / ratio),
    ] as const;
    const { scale, at } = fitted(picture.fit, [file.width, file.height], size);
    const middle: Point = [
      corner[0] + at[0] + (file.width * scale[0]) / 2,
      corner[1] + at[1] + (file.height * scale[1]) / 2,
    ];
    const card = this.add('picture', { asset: file.id });
    const within = multiply(picture.matrix, [scale[0], 0, 0, scale[1], ...middle]);
    const shown = this.placed(picture.name, within, picture.opacity, [card]);
    const spare = file.width * scale[0] > size[0] + 1e-6 || file.height * scale[1] > size[1] + 1e-6;
    if (!spare) return [shown];
    // What is left of it where it fills more than its place.
    const [[x, y], [w, h]] = [corner, size];
    const vertices = cornersOf({ left: x, top: y, right: x + w, bottom: y + h }).map((p): Vertex => [...p, 0, 0, 0, 0]);
    const frame = this.path({ closed: true, vertices }, multiply(this.scaled, picture.matrix));
    const mask = this.add('mask', {}, { children: [frame] });
    return [this.add('group', {}, { name: picture.name, children: [shown, mask] })];
  }

  /** Masks that add up, or one by what it draws. */
  private cut(cut: SvgCut, depth: number): Id[] {
    if (cut.by !== 'outlines') {
      const children = cut.nodes.flatMap((node) => this.node(node, depth + 1));
      return [this.add('mask', { by: cut.by }, { children })];
    }
    // One of nothing hides all.
    if (cut.areas.length === 0) return [this.add('mask', {}, { children: [] })];
    return cut.areas.map(({ paths, rule, matrix }) => {
      // Masks show by the nonzero rule.
      const outlines = rule === 'evenodd' ? paths.flatMap((p) => outlineOfPath(p) ?? []) : [];
      const areas = rule === 'evenodd' ? outlinesOf(areaOf(outlines, 'evenodd')).map(pathOfOutline) : paths;
      const m = multiply(this.scaled, matrix);
      const children = areas.map((p) => this.path({ ...p, closed: true }, m));
      return this.add('mask', cut.meets ? { crisp: true } : {}, { children });
    });
  }

  private effect(effect: SvgEffect): Id {
    switch (effect.kind) {
      case 'blur':
        return this.add('blur', { amount: Math.min(500, effect.deviation * this.scale), way: effect.way });
      case 'shadow': {
        const [x, y] = effect.move;
        return this.add('shadow', {
          direction: (Math.atan2(y, x) * 180) / Math.PI,
          distance: Math.min(5_000, Math.hypot(x, y) * this.scale),
          // A softness is twice the deviation.
          softness: Math.min(1_000, effect.deviation * this.scale * 2),
          spread: effect.spread,
          color: effect.color,
          strength: effect.strength,
          alone: effect.alone,
        });
      }
      case 'colors':
        return this.add(effect.card, effect.values);
    }
  }

  private tiles({ columns, rows, across, down }: SvgTiles): Id[] {
    const line = (copies: number, way: Point): Id[] =>
      copies > 1 ? [this.add('repeater', { copies, position: [way[0] * this.scale, way[1] * this.scale] })] : [];
    return [...line(columns, across), ...line(rows, down)];
  }

  /** What is done to a group, below what is in it. */
  private done({ tiles, effects, cut }: SvgGroup, depth: number): Id[] {
    return [
      ...(tiles ? this.tiles(tiles) : []),
      ...effects.map((effect) => this.effect(effect)),
      ...(cut ? this.cut(cut, depth) : []),
    ];
  }

  /** Deeper groups than a recipe takes are laid out in the last one. */
  node(node: SvgNode, depth = 0): Id[] {
    if (node.kind === 'shape') return [this.shape(node)];
    if (node.kind === 'text') return [this.text(node)];
    if (node.kind === 'picture') return this.picture(node);
    const children = node.children.flatMap((child) => this.node(child, depth + 1));
    if (depth >= MOST_DEPTH - 4 && isPlain(node)) return children;
    const blend: Values = node.blend === 'normal' ? {} : { blend: node.blend };
    return [
      this.add(
        'group',
        { ...faint(node.opacity), ...blend },
        { name: node.name, children: [...children, ...this.done(node, depth + 1)] },
      ),
    ];
  }

  /** A part alone in its layer needs no group of its own. */
  top(node: SvgNode): Id[] {
    return node.kind === 'group' && isPlain(node)
      ? node.children.flatMap((child) => this.node(child, 1))
      : this.node(node);
  }
}

const faint = (opacity: number): Values => (opacity < 1 ? { opacity } : {});

export interface SvgLayers {
  /** Front to back. */
  readonly layers: readonly DrawingLayer[];
  readonly notes: readonly string[];
}

/** A part as a layer shows it: how it blends is said by the layer. */
const unblended = (nodes: readonly SvgNode[]): { readonly nodes: readonly SvgNode[]; readonly blend: BlendMode } => {
  const [only] = nodes;
  return nodes.length === 1 && only?.kind === 'group' && only.blend !== 'within'
    ? { nodes: [{ ...only, blend: 'normal' }], blend: only.blend }
    : { nodes, blend: 'normal' };
};

/**
 * Layers for chosen parts of a drawing. What is last in an SVG is in front. Pictures whose files are not there are left out, and that is
 * noted.
 */
export const layersOfSvg = (
  drawing: SvgDrawing,
  chosen: readonly SvgNode[],
  scene: Scene,
  name: string,
  { scale, at, layers: how }: SvgPlacing,
  makeId: MakeId,
  files: SvgFiles = new Map(),
): SvgLayers => {
  const groups = how === 'one-each' ? chosen.map((node) => [node]) : [chosen];
  const notes = new Set(drawing.notes);
  const layers = groups.flatMap((parts): DrawingLayer[] => {
    const { nodes, blend } = unblended(parts);
    const box = nodesBox(nodes) ?? nodesBox(nodes, IDENTITY, true);
    if (!box) return [];
    const middle: Point = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
    const builder = new Builder(makeId, scale, middle, files);
    const recipe = nodes.flatMap((node) => (nodes.length === 1 ? builder.top(node) : builder.node(node)));
    for (const note of builder.notes) notes.add(note);
    const [only] = nodes;
    const title = nodes.length === 1 && only ? only.name : name;
    if (builder.items.length > LIMITS.items) {
      notes.add(`“${title}” has more than ${thousands(LIMITS.items)} parts and is left out`);
      return [];
    }
    if (recipe.length === 0) return [];
    const position = apply(translation(at[0], at[1]), [
      (middle[0] - drawing.width / 2) * scale,
      (middle[1] - drawing.height / 2) * scale,
    ]);
    const layer = newDrawing(scene, makeId(), title, builder.items, {
      position: [tidy(position[0]), tidy(position[1])],
      tag: 'leaf',
    });
    return [{ ...layer, recipe, blend }];
  });
  return { layers: layers.reverse(), notes: [...notes].sort() };
};
