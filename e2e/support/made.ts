/** Projects made in code and opened on the page. */
import { newDrawing, newItem, newProject, newScene } from '@kite/core/document/make';
import type { Edit } from '@kite/core/document/patches';
import { applyEdit } from '@kite/core/edits/apply';
import type { DrawingLayer, Ease, Id, Point, Scene, Value } from '@kite/core/document/types';
import { addLayers } from '@kite/core/edits/layers';
import { animate } from '@kite/core/edits/properties';
import { writeArchive } from '@kite/core/interchange/archive';
import { expect, type Page } from '@playwright/test';
import type { Server } from './server';

/** A scene of a test: 400 by 240, 100 frames at 25 a second. */
export const BLANK: Scene = newScene('s', 'Test', {
  width: 400,
  height: 240,
  rate: { num: 25, den: 1 },
  length: 100,
  background: '#10132E',
});

/** A disc, of 20 pixels unless it is wanted otherwise. */
export const discLayer = (id: Id, name: string, at: Point, color = '#FFB23E', width = 20): DrawingLayer =>
  newDrawing(
    BLANK,
    id,
    name,
    [newItem(`${id}e`, 'ellipse', { width, height: width }), newItem(`${id}f`, 'fill', { color })],
    { position: at },
  );

export const keyed = (layer: Id, key: string, keys: readonly (readonly [number, Value, Ease?])[]): Edit =>
  animate({ scene: 's', layer, key }, keys);

/** Sends a project with these layers to the server and opens it. */
export const openMade = async (
  page: Page,
  server: Server,
  name: string,
  layers: readonly DrawingLayer[],
  ...edits: readonly Edit[]
): Promise<string> => {
  const doc = [addLayers('s', layers), ...edits].reduce(
    (now, edit) => applyEdit(now, edit).doc,
    newProject('p', name, [BLANK]),
  );
  const { body } = await server.api<{ id: string }>('POST', '/projects/import', writeArchive(doc, new Map()));
  await page.goto(`${server.url}/projects/${body.id}`);
  await expect(page.getByTestId('canvas')).toBeVisible();
  return body.id;
};
