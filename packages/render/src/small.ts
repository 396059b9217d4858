import type { Color, Scene } from '@kite/core/document/types';
import { sizeAt } from '@kite/core/geometry/size';
import { frameDrawer } from './frames';
import { type AtHand, materialsFor } from './materials';

/** Of the encoder, 0 to 100. */
const QUALITY = 92;

/** A frame of a scene as a WebP, drawn at `scale` times the scene's size; on `under` where it is transparent, if anything. */
export const smallPicture = async (
  scene: Scene,
  atHand: AtHand,
  frame: number,
  scale: number,
  under: Color | null,
): Promise<Uint8Array> => {
  const size = sizeAt(scene, scale);
  const drawer = frameDrawer(scene, await materialsFor(scene, atHand), { ...size, drawn: size, under });
  drawer.draw(frame);
  return drawer.canvas.encode('webp', QUALITY);
};
