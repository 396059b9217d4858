/** The editor's state: the open project, its clock, what is chosen, and the workspace around it. */
import type { Id, Project, Scene } from '@kite/core/document/types';
import { type Clock, clockAt } from './clock';
import { type Choosing, NOTHING_CHOSEN } from './selection';
import { newSession, type Session } from './session';
import { TIDY, type Workspace } from './workspace';

export type EditorState = Session & Clock & Choosing & Workspace;

export const firstState = (doc: Project, sceneId: Id, frame: number): EditorState => ({
  ...newSession(doc, sceneId),
  ...clockAt(frame),
  ...NOTHING_CHOSEN,
  ...TIDY,
});

export const sceneOf = (state: Pick<Session, 'doc' | 'sceneId'>): Scene => state.doc.scenes[state.sceneId] as Scene;

export const rangeOf = (state: EditorState): readonly [number, number] => state.range ?? [0, sceneOf(state).length];
