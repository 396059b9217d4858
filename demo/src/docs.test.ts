/** The examples of docs/formulas.md work in the demo scene that they are written for. */
import { readFileSync } from 'node:fs';
import { applyEdit } from '@kite/core/edits/apply';
import type { Scene } from '@kite/core/document/types';
import { setFormula } from '@kite/core/edits/formulas';
import { referenceOf, storedText } from '@kite/core/formula/refs';
import { compileScene } from '@kite/core/scene/compile';
import { NO_LIBRARY } from '@kite/core/scene/program';
import { expect, it } from 'vitest';
import { demoProject } from './project';

it('every formula in the docs works', () => {
  const text = readFileSync(new URL('../../docs/formulas.md', import.meta.url), 'utf8');
  const examples = [...text.matchAll(/^ {4}(\S.*?)(\.[xy])? += (.*)$/gm)];
  expect(examples.length).toBeGreaterThan(10);
  const project = demoProject();
  const scene = Object.values(project.scenes).find((s) => s.name === 'Next stop strip') as Scene;
  for (const [line, path = '', part, formula = ''] of examples) {
    const to = referenceOf(path.trim(), scene, { layer: '', key: '' });
    if (typeof to === 'string' || to.kind !== 'property') throw new Error(`${line}: ${JSON.stringify(to)}`);
    const at = { scene: scene.id, ...to.to, ...(part && { part: part === '.x' ? (0 as const) : (1 as const) }) };
    const edited = applyEdit(project, setFormula(at, storedText(formula, scene, to.to))).doc.scenes[scene.id] as Scene;
    const { wiring } = compileScene(edited, NO_LIBRARY);
    expect([line, wiring.problems]).toEqual([line, []]);
    for (const frame of [0, 40, 90]) expect([line, wiring.computed(at)?.problemAt(frame)]).toEqual([line, null]);
  }
});
