/** States of the open project: kept, gone back to, opened by themselves. */
import { HISTORY } from '@kite/api/history';
import { become } from '@kite/core/edits/become';
import { bringBackScenes } from '@kite/core/edits/scenes';
import type { Id, Project } from '@kite/core/document/types';
import { useQuery } from '@tanstack/react-query';
import { toast } from '../../ui/toast';
import { ask } from '../../api/client';
import { myself } from '../../app/person';
import { queries } from '../../app/queries';
import { sayWrong } from '../../ui/says';
import type { Editor } from '../store/editor';
import type { State } from '../store/workspace';

const id = (editor: Editor): Id => editor.state.doc.id;

const stateOf = async (project: Id, state: string): Promise<Project> =>
  (await ask(HISTORY.state, { id: project, state })).document;

/** The document as it was; none is asked for where none is meant. */
export const useStateAt = (project: Id, state: string | null) =>
  useQuery({
    enabled: state !== null,
    queryKey: ['state', project, state],
    queryFn: () => stateOf(project, state ?? ''),
    staleTime: Infinity,
    retry: false,
  });

const checkpointsKey = (project: Id): readonly string[] => ['checkpoints', project];

/** The states of a project that are kept under names. */
export const useCheckpoints = (project: Id) =>
  useQuery({ queryKey: checkpointsKey(project), queryFn: () => ask(HISTORY.checkpoints, { id: project }) });

/** After one of them was changed. */
export const readCheckpoints = (project: Id): Promise<void> =>
  queries.invalidateQueries({ queryKey: checkpointsKey(project) });

/** One step as any other: undone at once, and everything since stays in the history. */
export const goBackTo = async (editor: Editor, { state, name }: State): Promise<void> => {
  try {
    await editor.allSaved();
    editor.edit(become(`Go back to “${name}”`, await stateOf(id(editor), state)));
  } catch (error) {
    sayWrong(error);
  }
};

export const openAsCopy = async (editor: Editor, { state }: State, open: (project: Id) => void): Promise<void> => {
  try {
    const copy = await ask(HISTORY.copyState, { id: id(editor), state });
    toast.success(`“${copy.name}” is a project of its own now.`, {
      action: { label: 'Open it', onClick: () => open(copy.id) },
    });
  } catch (error) {
    sayWrong(error);
  }
};

/** Keeps a state under a name: the one at a revision, or as it is now. */
export const keepState = async (editor: Editor, name: string, revision: number | null): Promise<void> => {
  try {
    await editor.allSaved();
    await ask(HISTORY.checkpoint, { id: id(editor) }, { name, revision, by: myself().name });
    await readCheckpoints(id(editor));
  } catch (error) {
    sayWrong(error);
  }
};

/** Puts a deleted scene back, with those that it nests, and shows it. */
export const bringSceneBack = async (editor: Editor, scene: Id): Promise<void> => {
  try {
    const { scenes, assets } = await ask(HISTORY.removedScene, { id: id(editor), scene });
    if (editor.edit(bringBackScenes(scenes, assets))) editor.showScene(scene);
  } catch (error) {
    sayWrong(error);
  }
};
