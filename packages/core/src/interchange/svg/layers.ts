/** A drawing that was read, as layers whose recipes can be edited. */
import { type MakeId, newDrawing, newItem } from '../../document/make';
import type { DrawingLayer, Gradient, Id, Item, PathValue, Point, Scene, Vertex } from '../../document/types';
import { remembered } from '../../document/remembered';
import { FAR, MOST_STOPS } from '../../document/params';
import { LIMITS } from '../../document/limits';
import { thousands } from '../../document/text';
import { apply, type Matrix, multiply, translation } from '../../geometry/matrix';
import { outlineOfPath } from '../../geometry/outline';
import { areaOf, outlinesOf } from '../../geometry/polygons';
import { decomposed } from '../../edits/place';
import { pathOfOutline } from '../../motion/paths';
import { MOST_DEPTH } from '../../recipe/card';
import type { SvgInk } from './paints';
import { nodesBox, type SvgDrawing, type SvgGroup, type SvgNode, type SvgShape, type SvgText } from './read';

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
  return nodes.length === 1 && only?.kind === 'group' && !only.clip && only.opacity === 1
    ? partsOf(only.children)
    : nodes;
};

/** What is in a group, or in the one group that it holds: each part by itself clipped and faded as all these are. */
export const insideOf = remembered((group: SvgGroup): readonly SvgNode[] => {
  const around = [group];
  let inner = group;
  for (let [only] = inner.children; inner.children.length === 1 && only?.kind === 'group'; [only] = inner.children) {
    inner = only;
    around.push(inner);
  }
  const doing = around.filter(({ clip, opacity }) => clip !== null || opacity < 1);
  return inner.children.map((child) =>
    doing.reduceRight<SvgNode>((node, of) => ({ ...of, name: child.name, children: [node] }), child),
  );
});

const clampCoordinate = (n: number) => Math.min(FAR, Math.max(-FAR, n));
const tidy = (n: number) => clampCoordinate(Math.round(n * 1e3) / 1e3 + 0);

const moved = (path: PathValue, scale: number, [dx, dy]: Point): PathValue => ({
  ...path,
  vertices: path.vertices.map(([x, y, ix, iy, ox, oy]): Vertex => [
    tidy((x - dx) * scale),
    tidy((y - dy) * scale),
    tidy(ix * scale),
    tidy(iy * scale),
    tidy(ox * scale),
    tidy(oy * scale),
  ]),
});

class Builder {
  readonly items: Item[] = [];

  constructor(
    private readonly makeId: MakeId,
    private readonly scale: number,
    private readonly origin: Point,
  ) {}

  private add(item: Item): Id {
    this.items.push(item);
    return item.id;
  }

  private place([x, y]: Point): Point {
    return [tidy((x - this.origin[0]) * this.scale), tidy((y - this.origin[1]) * this.scale)];
  }

  private ink(ink: SvgInk): { [key: string]: string | Gradient | Point } {
    if (ink.style === 'solid') return { style: 'solid', color: ink.color };
    const stops = ink.stops.slice(0, MOST_STOPS);
    return { style: ink.style, gradient: { stops }, from: this.place(ink.from), to: this.place(ink.to) };
  }

  private path(path: PathValue): Id {
    return this.add(newItem(this.makeId(), 'path', { path: moved(path, this.scale, this.origin) }));
  }

  private group(name: string, children: readonly Id[], opacity: number): Id {
    const values: { [key: string]: number } = opacity < 1 ? { opacity } : {};
    return this.add({ ...newItem(this.makeId(), 'group', values), name, children });
  }

  private shape(shape: SvgShape): Id {
    const { fill, stroke } = shape;
    const paths = shape.paths.map((p) => this.path(p));
    const fills = fill ? [this.add(newItem(this.makeId(), 'fill', { ...this.ink(fill), rule: shape.rule }))] : [];
    const strokes = stroke
      ? [
          this.add(
            newItem(this.makeId(), 'stroke', {
              ...this.ink(stroke.ink),
              width: Math.min(10_000, stroke.width * this.scale),
              cap: stroke.cap,
              join: stroke.join,
              miterLimit: stroke.miterLimit,
              dashes: stroke.dashes.map((d) => Math.min(10_000, d * this.scale)),
              dashOffset: tidy(stroke.dashOffset * this.scale),
            }),
          ),
        ]
      : [];
    const paints = shape.strokeFirst ? [...strokes, ...fills] : [...fills, ...strokes];
    return this.group(shape.name, [...paths, ...paints], shape.opacity);
  }

  private text(text: SvgText): Id {
    const m: Matrix = multiply(
      [this.scale, 0, 0, this.scale, -this.origin[0] * this.scale, -this.origin[1] * this.scale],
      text.matrix,
    );
    const { rotation, scale } = decomposed(m);
    const source = newItem(this.makeId(), 'text', {
      text: text.text,
      font: { family: text.family || 'Inter', weight: text.weight, italic: text.italic },
      size: Math.min(5_000, Math.max(0.1, text.size)),
      tracking: Math.min(10_000, Math.max(-1_000, text.tracking)),
      align: text.align,
    });
    const paints = text.fill ? [this.add(newItem(this.makeId(), 'fill', this.solid(text.fill)))] : [];
    const [x, y] = apply(m, text.at);
    return this.add({
      ...newItem(this.makeId(), 'group', {
        position: [tidy(x), tidy(y)],
        scale: [scale[0], scale[1]],
        rotation,
        opacity: text.opacity,
      }),
      name: text.name,
      children: [this.add(source), ...paints],
    });
  }

  /** Text is placed by its group, whose pixels a gradient of the drawing does not know. */
  private solid(ink: SvgInk): { [key: string]: string } {
    return { style: 'solid', color: ink.style === 'solid' ? ink.color : (ink.stops[0]?.color ?? '#000000') };
  }

  private mask({ paths, rule }: NonNullable<SvgGroup['clip']>): Id {
    const outlines = paths.flatMap((p) => outlineOfPath(p) ?? []);
    // Masks show by the nonzero rule.
    const areas = rule === 'evenodd' ? outlinesOf(areaOf(outlines, 'evenodd')).map(pathOfOutline) : paths;
    const children = areas.map((p) => this.path({ ...p, closed: true }));
    return this.add({ ...newItem(this.makeId(), 'mask'), children });
  }

  /** Deeper groups than a recipe takes are laid out in the last one. */
  node(node: SvgNode, depth = 0): Id[] {
    if (node.kind === 'shape') return [this.shape(node)];
    if (node.kind === 'text') return [this.text(node)];
    const children = node.children.flatMap((child) => this.node(child, depth + 1));
    if (depth >= MOST_DEPTH - 4 && !node.clip && node.opacity === 1) return children;
    const masks = node.clip ? [this.mask(node.clip)] : [];
    return [this.group(node.name, [...children, ...masks], node.opacity)];
  }

  /** A part alone in its layer needs no group of its own. */
  top(node: SvgNode): Id[] {
    return node.kind === 'group' && !node.clip && node.opacity === 1
      ? node.children.flatMap((child) => this.node(child, 1))
      : this.node(node);
  }
}

export interface SvgLayers {
  /** Front to back. */
  readonly layers: readonly DrawingLayer[];
  readonly notes: readonly string[];
}

/** Layers for chosen parts of a drawing. What is last in an SVG is in front. */
export const layersOfSvg = (
  drawing: SvgDrawing,
  chosen: readonly SvgNode[],
  scene: Scene,
  name: string,
  { scale, at, layers: how }: SvgPlacing,
  makeId: MakeId,
): SvgLayers => {
  const groups = how === 'one-each' ? chosen.map((node) => [node]) : [chosen];
  const notes = new Set(drawing.notes);
  const layers = groups.flatMap((nodes): DrawingLayer[] => {
    const box = nodesBox(nodes);
    if (!box) return [];
    const middle: Point = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
    const builder = new Builder(makeId, scale, middle);
    const recipe = nodes.flatMap((node) => (nodes.length === 1 ? builder.top(node) : builder.node(node)));
    const [only] = nodes;
    const title = nodes.length === 1 && only ? only.name : name;
    if (builder.items.length > LIMITS.items) {
      notes.add(`“${title}” has more than ${thousands(LIMITS.items)} parts and is left out`);
      return [];
    }
    const position = apply(translation(at[0], at[1]), [
      (middle[0] - drawing.width / 2) * scale,
      (middle[1] - drawing.height / 2) * scale,
    ]);
    const layer = newDrawing(scene, makeId(), title, builder.items, {
      position: [tidy(position[0]), tidy(position[1])],
      tag: 'leaf',
    });
    return [{ ...layer, recipe }];
  });
  return { layers: layers.reverse(), notes: [...notes].sort() };
};
