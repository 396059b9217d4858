/** What is around a nested scene that was opened in its place. */
import { lastMade } from '@kite/core/document/remembered';
import type { Scene } from '@kite/core/document/types';
import { inverted } from '@kite/core/geometry/matrix';
import { compileScene } from '@kite/core/scene/compile';
import type { Program } from '@kite/core/scene/program';
import { frameAround, matrixOfNest, settingsOfNest } from '@kite/core/scene/inPlace';
import { wholeScene } from '@kite/core/scene/whole';
import type { Surroundings } from '../../preview/messages';
import type { Editor } from './editor';
import type { Within } from './workspace';

/** The scene around the open one, where it is seen in its place. */
const programAround = (editor: Editor): Program | null => {
  const { within, doc } = editor.state;
  const scene = within && doc.scenes[within.scene];
  return scene ? compileScene(wholeScene(scene, doc), editor.library) : null;
};

const seenFrom = (program: Program, within: Within, frame: number, inner: Scene): Surroundings | null => {
  const at = frameAround(program, within, frame, inner, within.frame);
  const place = matrixOfNest(program, within, at, inner);
  const matrix = place && inverted(place);
  return (
    matrix && {
      scene: within.scene,
      layer: within.layer,
      frame: at,
      matrix,
      settings: settingsOfNest(program, within, at),
    }
  );
};

/** What was found last: it is asked for with every look at the open scene. */
const found = lastMade<Program, Surroundings | null>();

/** What is around the open scene at the playhead, as it is to be drawn; null where it is not seen in its place. */
export const surroundingsOf = (editor: Editor): Surroundings | null => {
  const { within, frame } = editor.state;
  const program = programAround(editor);
  if (!within || !program) return null;
  const { scene } = editor;
  return found(program, [within, frame, scene], () => seenFrom(program, within, frame, scene));
};
