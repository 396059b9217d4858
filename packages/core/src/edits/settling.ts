/**
 * What follows from other words and needs their fonts: words that were split are laid out anew, and moves come from outside still. A
 * version is made where there are no fonts: there it is marked what is left, and whoever draws it settles that first.
 */
import { countingIds, type MakeId, newProject } from '../document/make';
import { type Edit, together } from '../document/patches';
import type { Id, Project, Scene, Unsettled } from '../document/types';
import { textOfWord } from '../properties/words';
import { compileScene } from '../scene/compile';
import type { Library, Program } from '../scene/program';
import { nestedIn, wholeScene } from '../scene/whole';
import { applyEdit } from './apply';
import { mayBeNearer, outsideAgain } from './outside';
import { setWord } from './words';

/** The sets of words that say something else than before, while their parts do not yet. */
const wordsLeft = (scene: Scene, was: Scene): readonly Id[] =>
  scene.sets
    .filter(({ id, word }) => {
      const before = was.sets.find((set) => set.id === id)?.word;
      return word && before && textOfWord(word) !== textOfWord(before);
    })
    .map(({ id }) => id);

const unsettledIn = (scene: Scene, was: Scene): Unsettled | null => {
  const left = { words: wordsLeft(scene, was), outside: mayBeNearer(scene, was) };
  return left.words.length + left.outside.length > 0 ? left : null;
};

/** A project, each of its scenes with what is left to settle in it since it was as before. */
export const withUnsettled = (project: Project, before: Project): Project => {
  const marked = Object.values(project.scenes).flatMap((scene): (readonly [Id, Scene])[] => {
    const was = before.scenes[scene.id];
    const unsettled = was && was !== scene ? unsettledIn(scene, was) : null;
    return unsettled ? [[scene.id, { ...scene, unsettled }]] : [];
  });
  return marked.length > 0 ? { ...project, scenes: { ...project.scenes, ...Object.fromEntries(marked) } } : project;
};

const withScene = (project: Project, scene: Scene): Project => ({
  ...project,
  scenes: { ...project.scenes, [scene.id]: scene },
});

/** Parts that come have ids by their words: they are the same wherever they are made. */
const says = (project: Project, id: Id, set: Id, programOf: (project: Project) => Program): Project => {
  const scene = project.scenes[id];
  const word = scene?.sets.find((own) => own.id === set)?.word;
  if (!scene || !word) return project;
  const edit = setWord(id, set, textOfWord(word), scene.poster, programOf(project), countingIds(`${set}-`));
  try {
    return applyEdit(project, edit).doc;
  } catch (error) {
    // Its font is missing, or it says nothing: its parts stay as the project has them.
    if (error instanceof RangeError) return project;
    throw error;
  }
};

const settledOne = (project: Project, id: Id, library: Library): Project => {
  const { unsettled, ...scene } = project.scenes[id] as Scene;
  if (!unsettled) return project;
  const programOf = (doc: Project) => compileScene(wholeScene(doc.scenes[id] as Scene, doc), library);
  const before = withScene(project, scene);
  const said = unsettled.words.reduce((doc, set) => says(doc, id, set, programOf), before);
  const layers = new Set([...unsettled.outside, ...mayBeNearer(said.scenes[id] as Scene, scene)]);
  return outsideAgain(programOf(said), [...layers]).reduce((doc, edit) => applyEdit(doc, edit).doc, said);
};

/** A project in which nothing is left to settle in a scene and in those that it nests, once their fonts are there. */
export const settledIn = (project: Project, id: Id, library: Library): Project => {
  const scene = project.scenes[id];
  const ids = scene ? [...nestedIn(scene, project.scenes).toReversed(), id] : [];
  return ids.reduce((doc, own) => settledOne(doc, own, library), project);
};

/** A scene that was taken out of its project with all that it nests, and nothing left to settle. */
export const settledScene = (whole: Scene, library: Library): Scene => {
  const { nested = {}, eases = [], ...own } = whole;
  const project = { ...newProject('', '', [own, ...Object.values(nested)]), eases };
  const settled = settledIn(project, own.id, library);
  return wholeScene(settled.scenes[own.id] as Scene, settled);
};

/** The scenes of a project in which something is left to settle. */
export const unsettledScenes = ({ scenes }: Project): readonly Scene[] =>
  Object.values(scenes).filter(({ unsettled }) => unsettled);

/**
 * An edit that makes a project as it is `shown`, with what follows from it for words that were split. Refused while a font of theirs
 * is not here.
 */
export const settling = (edit: Edit, shown: Project, library: Library, makeId: MakeId): Edit => {
  const words = unsettledScenes(shown).flatMap((scene) => {
    const program = compileScene(wholeScene(scene, shown), library);
    const said = scene.sets.filter(({ id }) => scene.unsettled?.words.includes(id));
    return said.flatMap(({ id, word }) =>
      word ? [setWord(scene.id, id, textOfWord(word), scene.poster, program, makeId)] : [],
    );
  });
  return together(edit.label, [...words, edit]);
};
