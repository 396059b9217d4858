/**
 * Drawing while a gesture lasts: what stands behind the changing layers, and what stands in front, is
 * drawn once and kept, so that a drag costs what the dragged layers cost. When the gesture ends the
 * picture is drawn whole again.
 */
import type { Id, Scene } from '@kite/core/document/types';
import { type Frame, paint, paintOver } from '@kite/core/paint/canvas';
import type { Tools } from '@kite/core/paint/target';
import type { Context2D } from '@kite/core/paint/surface';
import { blendsBehind } from '@kite/core/recipe/marks';
import { compileScene } from '@kite/core/scene/compile';
import type { DisplayList, Library } from '@kite/core/scene/program';
import { withFollowers } from '@kite/core/scene/follows';

/** The layers that a gesture changes, with all that follow them; null where it changes more than layers. */
const changedLayers = (before: Scene, now: Scene): ReadonlySet<Id> | null => {
  const keys = Object.keys(before) as (keyof Scene)[];
  const sameScene = keys.every((key) => key === 'layers' || before[key] === now[key]);
  if (!sameScene) return null;
  const changed = now.order.filter((id) => before.layers[id] !== now.layers[id]);
  // What followed before the gesture, and does so no longer, looks otherwise too.
  return new Set([...withFollowers(before, changed), ...withFollowers(now, changed)]);
};

interface Kept {
  readonly scene: Scene;
  readonly library: Library;
  readonly frame: number;
  readonly view: string;
  readonly first: number;
  readonly last: number;
  readonly behind: ImageBitmap;
  /** null where a layer in front blends with what is behind it: those are drawn each time. */
  readonly front: ImageBitmap | null;
}

export class GesturePainter {
  private kept: Kept | null = null;

  constructor(private readonly tools: Tools) {}

  forget(): void {
    this.kept?.behind.close();
    this.kept?.front?.close();
    this.kept = null;
  }

  /** Draws `now`, which a gesture made of `before`; null where it has to be drawn whole. */
  draw(
    context: Context2D,
    before: Scene,
    now: Scene,
    library: Library,
    frame: number,
    target: Frame,
  ): DisplayList | null {
    const changed = changedLayers(before, now);
    if (!changed || changed.size === 0) return null;
    const places = now.order.flatMap((id, i) => (changed.has(id) ? [i] : []));
    const [first, last] = [places[0] as number, places.at(-1) as number];
    // Little is won where most of the stack changes.
    if (last - first > now.order.length / 2) return null;
    const kept = this.keep(before, library, frame, target, first, last);
    const place = new Map(now.order.map((id, i) => [id, i]));
    const list = compileScene(now, library).at(frame, (id) => {
      const i = place.get(id) as number;
      return i <= last && (i >= first || kept.front === null);
    });
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, target.width, target.height);
    context.drawImage(kept.behind, 0, 0);
    paintOver(context, list, target, this.tools);
    if (kept.front) context.drawImage(kept.front, 0, 0);
    return list;
  }

  private keep(scene: Scene, library: Library, frame: number, target: Frame, first: number, last: number): Kept {
    const view = [target.width, target.height, ...target.view].join();
    const old = this.kept;
    if (
      old?.scene === scene &&
      old.library === library &&
      old.frame === frame &&
      old.view === view &&
      old.first === first &&
      old.last === last
    ) {
      return old;
    }
    this.forget();
    const program = compileScene(scene, library);
    const place = new Map(scene.order.map((id, i) => [id, i]));
    const placeOf = (id: Id) => place.get(id) as number;
    const behind = picture(target, (context) =>
      paint(
        context,
        program.at(frame, (id) => placeOf(id) > last),
        target,
        this.tools,
      ),
    );
    const inFront = program.at(frame, (id) => placeOf(id) < first);
    const front = blendsBehind(inFront.marks)
      ? null
      : picture(target, (context) => paintOver(context, inFront, target, this.tools));
    return (this.kept = { scene, library, frame, view, first, last, behind, front });
  }
}

/** A drawing as a bitmap: a canvas would be drawn anew each time it is used. */
const picture = ({ width, height }: Frame, draw: (context: Context2D) => void): ImageBitmap => {
  const canvas = new OffscreenCanvas(width, height);
  draw(canvas.getContext('2d') as unknown as Context2D);
  return canvas.transferToImageBitmap();
};
