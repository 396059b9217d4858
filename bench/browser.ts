/** Figures that only a browser has: frames really drawn while playing, and how soon a drag is answered. */
import { newProject } from '@kite/core/document/make';
import type { Project, Scene } from '@kite/core/document/types';
import { withEditor } from '../e2e/support/browser';

/** Distinct frames on screen a second, for each scene, over four seconds of playing. */
export const previewRates = (demo: Project): Promise<Record<string, number>> =>
  withEditor(demo, async (page) => {
    const rates: Record<string, number> = {};
    for (const id of demo.order) {
      const name = demo.scenes[id]?.name ?? id;
      await page.getByRole('button', { name: `Scene ${name}`, exact: true }).click();
      await page.waitForTimeout(500);
      await page.getByRole('button', { name: 'Play', exact: true }).click();
      await page.waitForTimeout(1_000);
      rates[name] = await page.evaluate(
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
    }
    return rates;
  });

/** From a move of the pointer to the picture that shows it, in a scene of 200 layers: the median of sixty, in ms. */
export const drag200 = (scene: Scene): Promise<number> =>
  withEditor(newProject('crowd', 'Crowd', [scene]), async (page) => {
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
    const times: number[] = await page.evaluate(
      async ([px, py]) => {
        const picture = document.querySelector('[data-testid=picture]') as HTMLCanvasElement;
        const found: number[] = [];
        for (let i = 0; i < 60; i++) {
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
              clientX: (px as number) + 8 + i * 2,
              clientY: (py as number) + 8 + i,
              pointerId: 1,
              bubbles: true,
            }),
          );
          await drawn;
          found.push(performance.now() - start);
          await new Promise((r) => setTimeout(r, 30));
        }
        return found;
      },
      [x, y],
    );
    await page.mouse.up();
    const sorted = times.toSorted((a, b) => a - b);
    return Number((sorted[Math.floor(sorted.length / 2)] ?? NaN).toFixed(1));
  });

/** From a turn of the wheel over the timeline to the ribbons redrawn at the new scale, all 500 layers open: the median of forty, in ms. */
export const ribbons500 = (scene: Scene): Promise<number> =>
  withEditor(newProject('rows', 'Rows', [scene]), async (page) => {
    await page.getByTestId('layer-row').first().waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Control+Shift+A');
    await page.getByTestId('bead').first().waitFor();
    await page.waitForTimeout(1_000);
    return page.evaluate(async () => {
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
      return Number((found.toSorted((a, b) => a - b)[20] ?? NaN).toFixed(1));
    });
  });
