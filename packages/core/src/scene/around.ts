/** What layers show of themselves, and to each other: what cuts them, what lies behind them, where they were. */
import type { Color, Id, Layer, Scene } from '../document/types';
import { boxOutline } from '../geometry/bounds';
import { IDENTITY } from '../geometry/matrix';
import { type Through, throughBack, throughBoth } from '../geometry/through';
import { marksThrough } from '../recipe/marksThrough';
import { flatFill, grouped, laidOver } from '../recipe/marks';
import { needsOf } from '../recipe/needs';
import { type Around, MOST_WORK, type Picture } from '../recipe/room';
import type { Mark } from '../recipe/types';
import { behindIn, drawnInCircle } from './follows';
import { groupsAround, inGroups, isShown, isThere } from './groups';

const NOTHING: Picture = { marks: [], work: 0 };

/** The background of a scene, as a mark. */
const groundOf = ({ width, height }: Scene, color: Color): Mark =>
  flatFill([boxOutline({ left: 0, top: 0, right: width, bottom: height })], color);

/** Of the layers of a scene, at any frame. */
interface Drawing<D extends Picture> {
  /** In the layer's own pixels, whether it shows or not. */
  readonly drawnAt: (layer: Layer, frame: number) => D;
  /** From the layer's own pixels to the scene's. */
  readonly throughOf: (layer: Layer, frame: number) => Through;
  readonly opacityAt: (layer: Layer, frame: number) => number;
}

interface Showing<D extends Picture> {
  /** What shows of a layer at a frame by itself, through a matrix; null where it does not show. */
  readonly shownAt: (
    layer: Layer,
    frame: number,
    through: (layer: Layer) => Through,
  ) => (D & { readonly mark: Mark | null }) | null;
  /** What a layer's recipe may ask; one that is cut by itself is shown nothing, at whichever layer the circle begins. */
  readonly around: (layer: Layer) => Around;
}

export const showing = <D extends Picture>(scene: Scene, { drawnAt, throughOf, opacityAt }: Drawing<D>): Showing<D> => {
  const shownAt: Showing<D>['shownAt'] = (layer, frame, through) => {
    if (!isShown(scene, layer, frame)) return null;
    const drawn = drawnAt(layer, frame);
    return {
      ...drawn,
      mark: laidOver(marksThrough(through(layer), drawn.marks), layer.blend, opacityAt(layer, frame)),
    };
  };
  /** From the scene's pixels to a layer's; null for one that is flattened. */
  const backTo = (layer: Layer, frame: number) => throughBack(throughOf(layer, frame));

  const around = (layer: Layer): Around => {
    const inCircle = (): string | null => {
      const circle = drawnInCircle(scene, layer);
      return circle && `would be cut by itself: ${[...circle, layer].map((l) => `“${l.name}”`).join(' → ')}`;
    };
    let said: string | null | undefined;
    return {
      picture: (id, frame) => {
        const other = scene.layers[id];
        if (!other || !needsOf(layer).layers.has(id)) return 'is cut by a layer that is gone';
        if (said === undefined) said = inCircle();
        if (said !== null) return said;
        const back = backTo(layer, frame);
        if (!back || !isThere(scene, other, frame)) return NOTHING;
        const { marks, work } = drawnAt(other, frame);
        const opacity = [other, ...groupsAround(scene, id)].reduce((all, of) => all * opacityAt(of, frame), 1);
        const mark = laidOver(marksThrough(throughBoth(back, throughOf(other, frame)), marks), 'normal', opacity);
        return { marks: mark ? [mark] : [], work };
      },
      behind: (frame, background) => {
        const back = backTo(layer, frame);
        if (!back) return NOTHING;
        const ground = background && scene.background !== null ? [groundOf(scene, scene.background)] : [];
        const marks: Mark[] = [];
        const layers: Id[] = [];
        let work = 0;
        for (const id of behindIn(scene, layer.id).toReversed()) {
          const other = scene.layers[id];
          const seen = other && shownAt(other, frame, (of) => throughBoth(back, throughOf(of, frame)));
          if (!seen) continue;
          work += seen.work;
          if (work > MOST_WORK) break;
          if (!seen.mark) continue;
          marks.push(seen.mark);
          layers.push(id);
        }
        const all = [
          ...marksThrough(back, ground),
          ...inGroups(scene, layers, marks, (group) => opacityAt(group, frame)),
        ];
        return { marks: all.length > 0 ? [grouped(all, { aside: true })] : [], work };
      },
      since: (then, now) => {
        const back = backTo(layer, now);
        return back ? throughBoth(back, throughOf(layer, then)) : IDENTITY;
      },
    };
  };
  return { shownAt, around };
};
