/** Checks of a project in the worker: a little at a time, so that frames are drawn in between. */
import type { Id, Project, Scene } from '@kite/core/document/types';
import { paint } from '@kite/core/paint/canvas';
import type { Context2D } from '@kite/core/paint/surface';
import type { Tools } from '@kite/core/paint/target';
import { proofOf } from '@kite/core/proof/look';
import { listSeen } from '@kite/core/proof/seen';
import type { Finding, Rules, See } from '@kite/core/proof/types';
import { compileScene } from '@kite/core/scene/compile';
import type { Library } from '@kite/core/scene/program';
import { wholeScene } from '@kite/core/scene/whole';
import type { BrowserMaterials } from './materials';

/** The longest that a turn takes, in ms. */
const TURN = 8;

export interface ProofWish {
  readonly rules: Rules;
  /** What the last files of deliveries weigh, in bytes. */
  readonly weights: readonly (readonly [delivery: Id, bytes: number])[];
}

const turn = () => new Promise<void>((resolve) => setTimeout(resolve, 0));

const seeing = (library: Library, tools: Tools) => {
  const canvas = new OffscreenCanvas(1, 1);
  const context = canvas.getContext('2d', { willReadFrequently: true }) as OffscreenCanvasRenderingContext2D;
  return (scene: Scene): See => {
    const program = compileScene(scene, library);
    return (frame, view) => {
      const { width, height, matrix } = view;
      if (canvas.width !== width) canvas.width = width;
      if (canvas.height !== height) canvas.height = height;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, width, height);
      paint(context as unknown as Context2D, listSeen(program, frame, view), { width, height, view: matrix }, tools);
      return context.getImageData(0, 0, width, height).data;
    };
  };
};

export class Proofing {
  /** What was found in scenes that have not changed since, and what else it hangs on. */
  private readonly known = new WeakMap<
    Scene,
    { readonly from: readonly unknown[]; readonly findings: readonly Finding[] }
  >();

  constructor(
    private readonly materials: BrowserMaterials,
    private readonly tools: Tools,
  ) {}

  /** All that is to be said of a project; null once it is not wanted any more. */
  async of(doc: Project, { rules, weights }: ProofWish, wanted: () => boolean): Promise<readonly Finding[] | null> {
    const found: Finding[] = [];
    for (const id of doc.order) {
      const own = doc.scenes[id];
      if (!own) continue;
      const scene = wholeScene(own, doc);
      await (this.materials.fontsReady(scene, doc.assets) ?? null);
      await (this.materials.picturesReady(scene, doc.assets) ?? null);
      const library = this.materials.library(doc.assets);
      const from = [library, doc.deliveries, JSON.stringify([rules, weights])];
      const known = this.known.get(scene);
      if (known?.from.every((part, i) => part === from[i])) {
        found.push(...known.findings);
        continue;
      }
      const asked = { project: doc, library, rules, weights: new Map(weights), seeing: seeing(library, this.tools) };
      const steps = proofOf(own, asked);
      let until = performance.now() + TURN;
      let step = steps.next();
      while (!step.done) {
        if (performance.now() > until) {
          await turn();
          if (!wanted()) return null;
          until = performance.now() + TURN;
        }
        step = steps.next();
      }
      this.known.set(scene, { from, findings: step.value });
      found.push(...step.value);
    }
    return wanted() ? found : null;
  }
}
