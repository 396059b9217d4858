/** Opening a project: the server's document with what this browser still has to send, its log, and where to look first. */
import { HISTORY } from '@kite/api/history';
import type { Id, Scene } from '@kite/core/document/types';
import { compileScene } from '@kite/core/scene/compile';
import { openingFrame } from '@kite/core/scene/opening';
import { wholeScene } from '@kite/core/scene/whole';
import { toast } from '../../ui/toast';
import { createStore } from 'zustand/vanilla';
import { ask } from '../../api/client';
import { myself } from '../../app/person';
import { Preview } from '../../preview/client';
import { BrowserMaterials } from '../../preview/materials';
import { Editor } from './editor';
import { Saver, type SaverEvents } from './saver';
import { firstState } from './state';
import { entryOf, startsLate, stepsOf } from './steps';

/** What the saver tells: to the editor, once there is one, and to whoever edits. */
const told = (editor: () => Editor | null): SaverEvents => ({
  onState: (saving) => editor()?.set({ saving }),
  onSaved: (revisions) => editor()?.saved(revisions),
  onRebased: (rebased) => editor()?.rebased(rebased),
  onLost: (labels) =>
    toast.warning(`The project was changed elsewhere, and this no longer fits: ${labels.join(', ')}.`),
  onRefused: (label, reason) =>
    toast.error(`“${label}” could not be saved and was taken back; everything else is kept. ${reason}`, {
      duration: 15_000,
    }),
  onTakenOver: (labels) =>
    toast.info(
      `Taken over from a tab that could not send ${labels.length === 1 ? 'it' : 'them'}: ${labels.join(', ')}.`,
    ),
});

const opened = async (project: Id, scene: Id | undefined, preview: Preview): Promise<Editor> => {
  let editor: Editor | null = null;
  const { saver, doc, waiting } = await Saver.open(
    project,
    told(() => editor),
  );
  try {
    // It reads the document while the page does what else there is to do.
    preview.onFailure = () => doc;
    preview.open(doc);
    const sceneId = scene !== undefined && doc.scenes[scene] ? scene : (doc.order[0] as Id);
    const materials = new BrowserMaterials();
    const whole = wholeScene(doc.scenes[sceneId] as Scene, doc);
    // Words are seen too; without their fonts the scene opens all the same.
    const [known] = await Promise.all([
      ask(HISTORY.edits, { id: project }),
      materials.fontsReady(whole, doc.assets)?.catch(() => undefined),
    ]);
    const frame = openingFrame(compileScene(whole, materials.library(doc.assets)));
    preview.expect(sceneId, frame);
    editor = new Editor(
      createStore(() => firstState(doc, sceneId, frame)),
      preview,
      saver,
      materials,
    );
    // What was saved since the document was read comes once more by the line.
    const log = [
      ...known.filter(({ revision }) => revision <= saver.revision),
      ...waiting.map((edit) => entryOf(edit, myself())),
    ];
    editor.set({ log, ...stepsOf(log, myself().id), moreBefore: startsLate(known) });
    return editor;
  } catch (error) {
    saver.close();
    throw error;
  }
};

/** Opens a project at one of its scenes, or its first. Rejects with what is in the way; nothing stays open then. */
export const openEditor = async (project: Id, scene: Id | undefined): Promise<Editor> => {
  // It starts while the project is on its way.
  const preview = new Preview();
  try {
    return await opened(project, scene, preview);
  } catch (error) {
    preview.close();
    throw error;
  }
};
