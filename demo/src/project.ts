import { newProject } from '@kite/core/document/make';
import type { Project } from '@kite/core/document/types';
import { ProjectBuilder } from './builder';
import { climbingPlant } from './climbingPlant';
import { fogAndLamp } from './fogAndLamp';
import { lampFan } from './lampFan';
import { lateTicket } from './lateTicket';
import { markReveal } from './markReveal';
import { nextStop } from './nextStop';
import { nightPass } from './nightPass';
import { ridersByHour } from './ridersByHour';
import { routeTitle } from './routeTitle';
import { stretchedWords } from './stretchedWords';
import { turningSign } from './turningSign';
import { windowGrid } from './windowGrid';

/** The demo project: the same document on every run. */
export const demoProject = (): Project => {
  const project = new ProjectBuilder(newProject('night-tram', 'Quillhaven Night Tram', []));
  markReveal(project);
  routeTitle(project);
  nextStop(project);
  lampFan(project);
  ridersByHour(project);
  windowGrid(project);
  turningSign(project);
  stretchedWords(project);
  climbingPlant(project);
  fogAndLamp(project);
  nightPass(project);
  lateTicket(project);
  return project.doc;
};
