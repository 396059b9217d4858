/** Checks of a project in the worker: a little at a time, so that frames are drawn in between. */
import { sameThings } from '@kite/core/document/remembered';
import type { Id, Project, Scene } from '@kite/core/document/types';
import { settledIn } from '@kite/core/edits/settling';
import { asVersion } from '@kite/core/edits/versions';
import { paint } from '@kite/core/paint/canvas';
import type { Context2D } from '@kite/core/paint/surface';
import type { Tools } from '@kite/core/paint/target';
import { type Asked, isOtherwise, proofOf, proofOfVersion } from '@kite/core/proof/look';
import { listSeen } from '@kite/core/proof/seen';
import type { Finding, Rules, See, Steps } from '@kite/core/proof/types';
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

/** What was found, and what it hangs on beside the scene. */
interface Known {
  readonly from: readonly unknown[];
  readonly findings: readonly Finding[];
}

/**
 * What was found before, where it hangs on the same; else it is looked for, a turn at a time, unless there is nothing to look for. null once
 * it is not wanted any more.
 */
const once = async (
  kept: Map<Id | null, Known>,
  version: Id | null,
  from: readonly unknown[],
  proof: () => Promise<Steps<readonly Finding[]> | null> | Steps<readonly Finding[]>,
  wanted: () => boolean,
): Promise<readonly Finding[] | null> => {
  const known = kept.get(version);
  if (known && sameThings(known.from, from)) return known.findings;
  const steps = await proof();
  let until = performance.now() + TURN;
  let step = steps?.next();
  while (step && !step.done) {
    if (performance.now() > until) {
      await turn();
      if (!wanted()) return null;
      until = performance.now() + TURN;
    }
    step = steps?.next();
  }
  const findings = step?.value ?? [];
  kept.set(version, { from, findings });
  return findings;
};

export class Proofing {
  /** What was found in scenes that have not changed since: in themselves, and as each version has them. */
  private readonly known = new WeakMap<Scene, Map<Id | null, Known>>();

  constructor(
    private readonly materials: BrowserMaterials,
    private readonly tools: Tools,
  ) {}

  /** All that is to be said of a project and its versions; null once it is not wanted any more. */
  async of(doc: Project, wish: ProofWish, wanted: () => boolean): Promise<readonly Finding[] | null> {
    const found: Finding[] = [];
    for (const id of doc.order) {
      const own = doc.scenes[id];
      if (!own) continue;
      const asked = await this.askedOf(id, doc, wish);
      const from = [asked.library, doc.deliveries, JSON.stringify(wish)];
      const kept = this.keptOf(wholeScene(own, doc));
      const usual = await once(kept, null, from, () => proofOf(own, asked), wanted);
      if (!usual) return null;
      found.push(...usual);
      for (const version of doc.versions.rows) {
        const proof = async () => {
          // Making a version takes a moment: what is to be drawn is drawn before.
          await turn();
          const shown = asVersion(doc, version.id);
          if (!isOtherwise(own, doc, shown)) return null;
          return proofOfVersion(id, version, await this.askedOf(id, shown, wish), usual);
        };
        const ofVersion = [...from, doc.versions.columns, version.values, version.name];
        const more = await once(kept, version.id, ofVersion, proof, wanted);
        if (!more) return null;
        found.push(...more);
      }
    }
    return wanted() ? found : null;
  }

  private keptOf(scene: Scene): Map<Id | null, Known> {
    const kept = this.known.get(scene) ?? new Map<Id | null, Known>();
    this.known.set(scene, kept);
    return kept;
  }

  /** What checks of a scene need, once its fonts and pictures are there. */
  private async askedOf(id: Id, project: Project, { rules, weights }: ProofWish): Promise<Asked> {
    const { assets } = project;
    const scene = project.scenes[id];
    if (scene) {
      const whole = wholeScene(scene, project);
      await (this.materials.fontsReady(whole, assets) ?? null);
      await (this.materials.picturesReady(whole, assets) ?? null);
    }
    const library = this.materials.library(assets);
    return {
      project: settledIn(project, id, library),
      library,
      rules,
      weights: new Map(weights),
      seeing: seeing(library, this.tools),
    };
  }
}
