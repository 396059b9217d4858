/** What things on the canvas snap to, and the state that shows it while something is dragged. */
import { isShown } from '@kite/core/scene/groups';
import type { Id, Point } from '@kite/core/document/types';
import type { Box } from '@kite/core/geometry/bounds';
import { linesOf, snapBox, type SnapLine, type Snapped, snapPoint, type SnapTargets } from '@kite/core/geometry/snap';
import { isWarp } from '@kite/core/geometry/warp';
import { applyThrough, type Through, throughBoth } from '@kite/core/geometry/through';
import type { Mark } from '@kite/core/recipe/types';
import { cornersThrough, layerBox, layerBoxInScene } from '@kite/core/scene/bounds';
import type { Editor } from '../store/editor';
import { useAids } from './looks/aids';

/** Screen pixels within which things snap. */
const WITHIN = 6;
const MOST_VERTICES = 3_000;

const verticesOf = (mark: Mark, world: Through, into: Point[]): void => {
  if (mark.op === 'group') {
    // What is bent by a mesh is a picture, without vertices of its own.
    if (mark.bend && isWarp(mark.bend)) return;
    const inside = mark.bend ? throughBoth(world, mark.bend) : world;
    for (const inner of mark.marks) verticesOf(inner, inside, into);
    return;
  }
  if (mark.op === 'picture') return;
  const m = throughBoth(world, mark.matrix);
  for (const { points: p } of mark.outlines) {
    for (let k = 0; k < p.length && into.length < MOST_VERTICES; k += 6) into.push(applyThrough(m, [p[k]!, p[k + 1]!]));
  }
};

/** The layers that a layer hangs from stay out of it with those that hang from the layer. */
const hangs = (editor: Editor, id: Id, from: ReadonlySet<Id>): boolean => {
  const { layers } = editor.scene;
  for (let at: Id | null = id; at !== null; at = layers[at]?.parent ?? null) if (from.has(at)) return true;
  return false;
};

/** Everything shown that is not being moved, with the scene, its guides and the lines that are switched on. */
export const snapTargets = (editor: Editor, moving: ReadonlySet<Id>): SnapTargets => {
  const { scene, program } = editor;
  const { frame } = editor.state;
  const aids = useAids.getState();
  const whole: Box = { left: 0, top: 0, right: scene.width, bottom: scene.height };
  const lines: SnapLine[] = [...linesOf(whole)];
  const points: Point[] = [];
  const boxes: Box[] = [];
  for (const id of scene.order) {
    const layer = scene.layers[id];
    if (!layer || !isShown(scene, layer, frame) || hangs(editor, id, moving)) continue;
    const box = layerBoxInScene(program, id, frame);
    const own = layerBox(program, id, frame);
    if (!box || !own) continue;
    boxes.push(box);
    lines.push(...linesOf(box));
    const world = program.throughAt(id, frame);
    points.push(...cornersThrough(world, own));
    for (const mark of program.marksAt(id, frame)) verticesOf(mark, world, points);
  }
  const across = (axis: 0 | 1, at: number): SnapLine => ({
    axis,
    at,
    from: 0,
    to: axis === 0 ? scene.height : scene.width,
  });
  if (aids.guides) {
    lines.push(...scene.guides.x.map((x) => across(0, x)), ...scene.guides.y.map((y) => across(1, y)));
  }
  if (aids.thirds) {
    for (const n of [1, 2]) lines.push(across(0, (scene.width * n) / 3), across(1, (scene.height * n) / 3));
  }
  if (aids.grid) {
    for (let x = aids.gridSize; x < scene.width; x += aids.gridSize) lines.push(across(0, x));
    for (let y = aids.gridSize; y < scene.height; y += aids.gridSize) lines.push(across(1, y));
  }
  return { lines, points, boxes };
};

const NOTHING: Snapped = { by: [0, 0], lines: [], gaps: [] };

const snapsNow = (event: { ctrlKey: boolean; metaKey: boolean }): boolean =>
  useAids.getState().snap && !event.ctrlKey && !event.metaKey;

/** Follows one drag: what it is moved to is snapped and shown. Ctrl lets go. */
export class Snapping {
  private readonly targets: SnapTargets;

  constructor(
    private readonly editor: Editor,
    moving: readonly Id[],
    private readonly zoom: number,
    /** What is there to snap to besides the other layers. */
    besides: readonly SnapLine[] = [],
  ) {
    const targets = snapTargets(editor, new Set(moving));
    this.targets = { ...targets, lines: [...targets.lines, ...besides] };
  }

  box(box: Box, event: { ctrlKey: boolean; metaKey: boolean }): Point {
    return this.show(snapsNow(event) ? snapBox(box, this.targets, WITHIN / this.zoom) : NOTHING);
  }

  point(point: Point, event: { ctrlKey: boolean; metaKey: boolean }): Point {
    const [dx, dy] = this.show(snapsNow(event) ? snapPoint(point, this.targets, WITHIN / this.zoom) : NOTHING);
    return [point[0] + dx, point[1] + dy];
  }

  private show(snapped: Snapped): Point {
    this.editor.set({ snapped: snapped.lines.length + snapped.gaps.length > 0 ? snapped : null });
    return snapped.by;
  }
}
