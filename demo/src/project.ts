import { newProject } from '@kite/core/document/make';
import type { Project } from '@kite/core/document/types';
import { ProjectBuilder } from './builder';
import { lampFan } from './lampFan';
import { markReveal } from './markReveal';

/** The demo project: the same document on every run. */
export const demoProject = (): Project => {
  const project = new ProjectBuilder(newProject('night-tram', 'Quillhaven Night Tram', []));
  markReveal(project);
  lampFan(project);
  return project.doc;
};
