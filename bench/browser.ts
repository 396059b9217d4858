/** Figures that only a browser has: frames really drawn while playing, and how soon a drag is answered. */
import { newProject } from '@kite/core/document/make';
import type { Project, Scene } from '@kite/core/document/types';
import type { Page } from '@playwright/test';
import { withEditor } from '../e2e/support/browser';
import { median } from './median';

const playedIn = async (page: Page): Promise<number> => {
  await page.waitForTimeout(500);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(1_000);
  const rate = await page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const picture = document.querySelector('[data-testid=picture]');
        let changes = 0;
        const observer = new MutationObserver(() => changes++);
        if (picture) observer.observe(picture, { attributeFilter: ['data-frame'] });
        setTimeout(() => resolve(changes / 4), 4_000);
      }),
  );
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  return rate;
};

/** Distinct frames on screen a second, for each scene, over four seconds of playing. */
export const previewRates = (demo: Project): Promise<Record<string, number>> =>
  withEditor(demo, async (page) => {
    const rates: Record<string, number> = {};
    for (const id of demo.order) {
      const name = demo.scenes[id]?.name ?? id;
      await page.getByRole('button', { name: `Scene ${name}`, exact: true }).click();
      rates[name] = await playedIn(page);
    }
    return rates;
  });

const middle = (values: readonly number[]): number => Number(median(values).toFixed(1));

const alone = (scene: Scene) => newProject('alone', scene.name, [scene]);

/** Moves of the pointer, each after the one before was answered: milliseconds from each to the picture that shows it. */
const answered = (page: Page, [x, y]: readonly [number, number], [dx, dy]: readonly [number, number]) =>
  page.evaluate(
    async ([x, y, dx, dy]) => {
      const picture = document.querySelector('[data-testid=picture]') as HTMLCanvasElement;
      const found: number[] = [];
      for (let i = 1; i <= 60; i++) {
        const drawn = new Promise<void>((resolve) => {
          const observer = new MutationObserver(() => {
            observer.disconnect();
            resolve();
          });
          observer.observe(picture, { attributeFilter: ['data-drawn'] });
        });
        const start = performance.now();
        window.dispatchEvent(
          new PointerEvent('pointermove', {
            clientX: x! + i * dx!,
            clientY: y! + i * dy!,
            pointerId: 1,
            bubbles: true,
          }),
        );
        await drawn;
        found.push(performance.now() - start);
        await new Promise((next) => setTimeout(next, 30));
      }
      return found;
    },
    [x, y, dx, dy],
  );

/** From a move of the pointer that drags the layer “Window 1” to the picture that shows it: the median of sixty, in ms. */
export const dragging = (scene: Scene): Promise<number> =>
  withEditor(alone(scene), async (page) => {
    await page.getByLabel('Layer Window 1', { exact: true }).getByText('Window 1').first().click();
    await page.waitForTimeout(500);
    const area = await page.getByTestId('canvas').boundingBox();
    if (!area) throw new Error('no canvas');
    // The first layer's star stands about here at the fitted size.
    const zoom = Math.min((area.width - 40) / scene.width, (area.height - 40) / scene.height);
    const x = area.x + (area.width - scene.width * zoom) / 2 + 60 * zoom;
    const y = area.y + (area.height - scene.height * zoom) / 2 + (60 - 30) * zoom;
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 5, y + 5);
    await page.mouse.move(x + 8, y + 8);
    await page.waitForTimeout(300);
    const times = await answered(page, [x + 8, y + 8], [2, 1]);
    await page.mouse.up();
    return middle(times);
  });

/** From a move of the pointer along the ruler, over frames that were not drawn before, to the picture: the median and the longest of sixty, in ms. */
export const scrubbing = (scene: Scene): Promise<{ readonly median: number; readonly longest: number }> =>
  withEditor(alone(scene), async (page) => {
    await page.waitForTimeout(500);
    const ruler = await page.getByRole('slider', { name: 'Playhead' }).boundingBox();
    if (!ruler) throw new Error('no ruler');
    const [x, y] = [ruler.x + 20, ruler.y + ruler.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.waitForTimeout(300);
    const times = await answered(page, [x, y], [(ruler.width - 60) / 60, 0]);
    await page.mouse.up();
    return { median: middle(times), longest: Number(Math.max(...times).toFixed(1)) };
  });

/** Distinct frames on screen a second, over four seconds of playing. */
export const playing = (scene: Scene): Promise<number> => withEditor(alone(scene), playedIn);

/** From a press of an arrow key to “Saved”: the median of eleven, in ms. */
export const nudging = (project: Project): Promise<number> =>
  withEditor(project, async (page) => {
    await page.getByTestId('layer-row').first().click();
    await page.waitForTimeout(1_000);
    const nudges: number[] = [];
    for (let n = 0; n < 11; n++) {
      nudges.push(
        await page.evaluate(async () => {
          const state = document.querySelector('[data-testid=save-state]') as HTMLElement;
          const saved = new Promise<void>((resolve) => {
            let saving = false;
            const observer = new MutationObserver(() => {
              saving ||= state.textContent !== 'Saved';
              if (!saving || state.textContent !== 'Saved') return;
              observer.disconnect();
              resolve();
            });
            observer.observe(state, { subtree: true, characterData: true, childList: true });
          });
          const start = performance.now();
          const key = { key: 'ArrowRight', code: 'ArrowRight', bubbles: true };
          document.body.dispatchEvent(new KeyboardEvent('keydown', key));
          document.body.dispatchEvent(new KeyboardEvent('keyup', key));
          await saved;
          return performance.now() - start;
        }),
      );
      await page.waitForTimeout(400);
    }
    return middle(nudges);
  });

/**
 * From each of some presses of keys, one after the other, to the page as it is after it, in ms; what is shorter than the 16 that browsers
 * tell of counts as those. The first layer is selected before.
 */
export const pressing = <K extends string>(project: Project, keys: readonly K[]): Promise<Record<K, number>> =>
  withEditor(project, async (page) => {
    await page.getByTestId('layer-row').first().click();
    await page.waitForTimeout(1_000);
    await page.evaluate(() => {
      const own = window as unknown as { presses: number[] };
      own.presses = [];
      const told = (entries: PerformanceEntryList) =>
        own.presses.push(...entries.filter(({ name }) => name === 'keydown').map(({ duration }) => duration));
      new PerformanceObserver((list) => told(list.getEntries())).observe({
        type: 'event',
        durationThreshold: 16,
      } as PerformanceObserverInit);
    });
    const taken: (readonly [K, number])[] = [];
    for (const key of keys) {
      await page.keyboard.press(key);
      // What is told of late is told of once the page has nothing else to do.
      await page.waitForTimeout(2_000);
      taken.push([
        key,
        await page.evaluate(() => {
          const own = window as unknown as { presses: number[] };
          return Math.max(16, ...own.presses.splice(0));
        }),
      ]);
    }
    return Object.fromEntries(taken) as Record<K, number>;
  });

/** From the address of a project to its first picture: the median of three, in ms. */
export const opening = (project: Project): Promise<number> =>
  withEditor(project, async (page) => {
    const opened: number[] = [];
    for (let n = 0; n < 3; n++) {
      const start = performance.now();
      await page.reload({ waitUntil: 'commit' });
      await page.waitForFunction(() => document.querySelector('[data-testid=picture]')?.hasAttribute('data-frame'));
      opened.push(performance.now() - start);
    }
    return middle(opened);
  });

/** From a turn of the wheel over the timeline to the ribbons redrawn at the new scale, all 500 layers open: the median of forty, in ms. */
export const ribbons500 = (scene: Scene): Promise<number> =>
  withEditor(alone(scene), async (page) => {
    await page.getByTestId('layer-row').first().waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Control+Shift+A');
    await page.getByTestId('bead').first().waitFor();
    await page.waitForTimeout(1_000);
    const times = await page.evaluate(async () => {
      const timeline = document.querySelector('[aria-label=Timeline]') as HTMLElement;
      const { left, width, top } = timeline.getBoundingClientRect();
      const found: number[] = [];
      for (let i = 0; i < 40; i++) {
        const drawn = new Promise<void>((resolve) => {
          const observer = new MutationObserver(() => {
            observer.disconnect();
            resolve();
          });
          observer.observe(timeline, { subtree: true, attributeFilter: ['d'] });
        });
        const start = performance.now();
        timeline.dispatchEvent(
          new WheelEvent('wheel', {
            deltaY: i % 2 ? 60 : -80,
            ctrlKey: true,
            clientX: left + width / 2,
            clientY: top + 60,
            bubbles: true,
            cancelable: true,
          }),
        );
        await drawn;
        found.push(performance.now() - start);
        await new Promise((next) => setTimeout(next, 30));
      }
      return found;
    });
    return middle(times);
  });
