/** Bad input, at every door: refused with a clear sentence, nothing changed, no stack shown. */
import { demoProject } from '@kite/demo/project';
import { strToU8, zipSync } from 'fflate';
import { createServer } from 'node:net';
import { request } from 'node:http';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runProgram } from './support/server';
import { FORMAT_VERSION } from '@kite/core/document/make';
import { expect, test } from './support/test';

const HOSTILE: readonly (readonly [string, Uint8Array, RegExp])[] = (() => {
  const demo = JSON.stringify(demoProject());
  const archive = (text: string) => zipSync({ 'project.json': strToU8(text) });
  const whole = archive(demo);
  return [
    ['truncated', whole.slice(0, whole.length - 40), /damaged or cut short|no project.json/],
    ['newer', archive(demo.replace(`"version":${FORMAT_VERSION}`, '"version":99')), /newer than the \d/],
    [
      'huge',
      archive(demo.replace('"width":1920', '"width":19200000')),
      /width: got 19200000, wanted a whole number from 1 to 8192/,
    ],
    [
      'copies',
      archive(demo.replace('"copies":{"value":24}', '"copies":{"value":1000000}')),
      /copies.value: got 1000000, wanted a number from 0 to 1000/,
    ],
    ['climbing', zipSync({ '../../evil.json': strToU8('{}') }), /points outside the archive/],
    ['bomb', zipSync({ 'project.json': new Uint8Array(60 * 2 ** 20) }), /unpacks to more than/],
    ['infinite', archive(demo.replace('"width":1920', '"width":1e999')), /width: got Infinity/],
    ['text', strToU8('not an archive'), /not a zip file/],
  ];
})();

test('hostile archives are refused by the page, the API and the command line', async ({ page, server }) => {
  const count = async () => (await server.api<unknown[]>('GET', '/projects')).body.length;
  const before = await count();
  await page.goto(server.url);
  const folder = mkdtempSync(join(tmpdir(), 'kite-bad-'));
  for (const [name, bytes, message] of HOSTILE) {
    const answer = await server.api<{ error: { message: string; code: string } }>('POST', '/projects/import', bytes);
    expect(answer.status, name).toBe(400);
    expect(answer.body.error.message, name).toMatch(message);
    expect(JSON.stringify(answer.body), name).not.toMatch(/ at |\.ts|\.mjs|node_modules/);

    const file = join(folder, `${name}.kite`);
    writeFileSync(file, bytes);
    const { code, text } = await runProgram('kite', ['check', file]);
    expect(code, name).toBe(2);
    expect(text, name).toMatch(message);
    expect(text, name).not.toMatch(/\n\s+at /);
  }
  await page.getByLabel('Project archive').setInputFiles(join(folder, 'copies.kite'));
  await expect(page.getByText(/“copies.kite” was not imported: .*copies.value: got 1000000/)).toBeVisible();
  const drawing = { name: 'mark.svg', mimeType: 'image/svg+xml', buffer: Buffer.from('<svg/>') };
  await page.getByLabel('Project archive').setInputFiles(drawing);
  await expect(page.getByText('“mark.svg” was not imported: it is not the archive of a project.')).toBeVisible();
  expect(await count()).toBe(before);
});

test('bad saves change nothing and name the field', async ({ server }) => {
  const [card] = (await server.api<{ id: string }[]>('GET', '/projects')).body;
  const read = async () =>
    (await server.api<{ revision: number; document: { order: string[] } }>('GET', `/projects/${card?.id}`)).body;
  const before = await read();
  const path = ['scenes', before.document.order[0], 'width'];
  const save = (patches: unknown, base = before.revision) =>
    server.api<{ error?: { message: string }; refused?: { message: string }[] }>('PATCH', `/projects/${card?.id}`, {
      base,
      saves: [{ id: 'x', label: 'Bad', patches }],
    });
  const cases: readonly (readonly [unknown, RegExp])[] = [
    [[{ op: 'replace', path, value: -4 }], /width: got -4, wanted a whole number from 1 to 8192/],
    [[{ op: 'replace', path: ['__proto__', 'x'], value: 1 }], /may not be changed/],
    [[{ op: 'replace', path: ['scenes', 'nope', 'width'], value: 1 }], /patch 0 does not fit/],
    [[{ op: 'move', path }], /patches: got a list of 1, wanted 1 to/],
    ['all', /patches: got the text "all"/],
    [[{ op: 'replace', path: ['id'], value: 'other' }], /keeps its id/],
  ];
  for (const [patches, message] of cases) {
    const { status, body } = await save(patches);
    expect(status).toBe(200);
    expect(body.refused?.[0]?.message).toMatch(message);
  }
  const stale = await save([{ op: 'replace', path: ['name'], value: 'x' }], 9_999);
  expect([stale.status, stale.body.error?.message]).toEqual([
    409,
    'The project was changed elsewhere in the meantime.',
  ]);
  expect(await read()).toEqual(before);
});

test('renders that cannot be are refused before they wait', async ({ server }) => {
  const cards = (await server.api<{ id: string; name: string }[]>('GET', '/projects')).body;
  const card = cards.find((c) => c.name === 'Quillhaven Night Tram');
  const { document } = (await server.api<{ document: { order: string[] } }>('GET', `/projects/${card?.id}`)).body;
  const ask = (settings: unknown, scene: unknown = document.order[0]) =>
    server.api<{ error: { message: string } }>('POST', '/renders', { project: card?.id, scene, settings });
  expect((await ask({ format: 'png', scale: 1, frame: 900 })).body.error.message).toContain('the last is 119');
  expect((await ask({ format: 'avi' })).body.error.message).toContain(
    'format: got the text "avi", wanted one of mp4, webm, mov',
  );
  expect((await ask({ format: 'png', scale: 1, frame: 0 }, 'nope')).status).toBe(404);
});

test('only its own names and origin are answered, under a content security policy', async ({ server }) => {
  const ask = (headers: Record<string, string>, method = 'GET') =>
    new Promise<{ status: number; policy: string }>((resolve, reject) => {
      const { hostname, port } = new URL(server.url);
      const call = request({ hostname, port, path: '/api/projects', method, headers }, (answer) => {
        answer.resume();
        resolve({ status: answer.statusCode ?? 0, policy: String(answer.headers['content-security-policy']) });
      });
      call.on('error', reject);
      call.end();
    });
  const { host } = new URL(server.url);
  expect((await ask({ host })).status).toBe(200);
  expect((await ask({ host: 'kite.example' })).status).toBe(403);
  expect((await ask({ host, origin: 'https://elsewhere.example' })).status).toBe(403);
  expect((await ask({ host, origin: 'null' }, 'POST')).status).toBe(403);
  expect((await ask({ host, origin: server.url })).status).toBe(200);
  expect((await ask({ host })).policy).toContain("default-src 'self'");
});

test('a second server on the same data folder, and a port that is taken, are refused in words', async ({ server }) => {
  const second = await runProgram('server', ['--data', server.data, '--port', '0']);
  expect(second.code).toBe(1);
  expect(second.text).toMatch(/data folder .* is in use by another server \(process \d+\)/);

  const taken = createServer();
  await new Promise<void>((ready) => taken.listen(0, '127.0.0.1', ready));
  const { port } = taken.address() as { port: number };
  const other = await runProgram('server', [
    '--data',
    mkdtempSync(join(tmpdir(), 'kite-port-')),
    '--port',
    String(port),
  ]);
  taken.close();
  expect(other.code).toBe(1);
  expect(other.text).toContain(`Port ${port} on 127.0.0.1 is taken`);

  const wrong = await runProgram('server', ['--port', 'many']);
  expect([wrong.code, wrong.text.trim()]).toEqual([1, '--port: got "many", wanted a whole number from 0 to 65535']);
});

test('a page that fails says so, and gives way to the next', async ({ page, server }) => {
  await page.goto(`${server.url}/renders`);
  await page.route('**/api/projects', (route) => route.fulfill({ json: [null] }));
  await page.getByRole('link', { name: 'Projects' }).click();
  await expect(page.getByRole('heading', { name: 'This page stopped working' })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Renders' })).toBeVisible();
  await page.unroute('**/api/projects');
  await page.goForward();
  await page.getByRole('button', { name: 'Load the page again' }).click();
  await expect(page.getByRole('heading', { name: 'Projects' })).toBeVisible();
});
