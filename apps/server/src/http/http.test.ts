/** The doors of the server: what each refuses, and in what words. */
import { join } from 'node:path';
import { demoProject } from '@kite/demo/project';
import { createCanvas } from '@napi-rs/canvas';
import type { FastifyInstance, InjectOptions } from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AccessKey, isLoopback } from '../access';
import { DbFailure } from '../store/db';
import { type Answer, askOn, openSite, type Site } from '../test/site';

let site: Site;
beforeAll(async () => {
  site = await openSite('http');
});
afterAll(() => site.close());

const ask = (options: InjectOptions): Promise<Answer> => askOn(site.app, options);
const head = (): Promise<string> => site.projects.create(demoProject());

describe('a save', () => {
  const rename = (id: string, value: unknown) => ({
    id,
    label: 'Rename',
    patches: [{ op: 'replace', path: ['name'], value }],
  });
  const send = (id: string, base: number, saves: unknown) =>
    ask({ method: 'PATCH', url: `/api/projects/${id}`, payload: { base, saves } as object });

  it('that is refused stops none of the others', async () => {
    const id = await head();
    const { status, body } = await send(id, 0, [rename('a', 'One'), rename('b', 7), rename('c', 'Two')]);
    expect([status, body.revision]).toEqual([200, 2]);
    expect(body.refused).toEqual([
      { id: 'b', message: 'name: got 7, wanted a text of 1 to 200 whole characters', field: 'name' },
    ]);
    const opened = await ask({ method: 'GET', url: `/api/projects/${id}` });
    expect(opened.body.document).toMatchObject({ name: 'Two' });
  });
  it.each([
    ['NUL', 'Tram\0', 'saves[0].patches'],
    ['half a character', '🚋'.slice(0, 1), 'saves[0].patches'],
  ])('with %s is refused by its field, and no other', async (_name, text, field) => {
    const id = await head();
    const { status, body } = await send(id, 0, [rename('bad', text), rename('good', 'Tram 🚋')]);
    expect([status, body.revision]).toEqual([200, 1]);
    expect(body.refused).toMatchObject([{ id: 'bad', field }]);
    const label = await send(id, 1, [{ ...rename('l', 'x'), label: 'La\0bel' }]);
    expect(label.body.refused).toMatchObject([{ id: 'l', field: 'saves[0].label' }]);
  });
  it('that is no JSON, or none that an object may be made of, is refused', async () => {
    const url = `/api/projects/${await head()}`;
    for (const payload of ['', '{"base": 0,', '{"base": 0, "saves": [], "__proto__": {}}']) {
      const { status, body } = await ask({
        method: 'PATCH',
        url,
        payload,
        headers: { 'content-type': 'application/json' },
      });
      expect([status, body.error?.message]).toEqual([400, 'The request could not be read.']);
    }
  });
  it.each([
    ['no list', 'all', 'saves'],
    ['nothing', [], 'saves'],
    ['a save without an id', [{ label: 'x', patches: [] }], 'patches'],
  ])('of %s is refused whole', async (_name, saves, field) => {
    const { status, body } = await send(await head(), 0, saves);
    expect([status, body.error?.code, body.error?.field]).toEqual([400, 'invalid', field]);
  });
});

describe('strange addresses', () => {
  const NAMES = ['%00', '__proto__', 'constructor', 'toString', 'hasOwnProperty', '%F0%9F', 'x'.repeat(3_000)];
  const PLACES: readonly (readonly [InjectOptions['method'], (name: string) => string, object?])[] = [
    ['GET', (n) => `/api/projects/${n}`],
    [
      'PATCH',
      (n) => `/api/projects/${n}`,
      { base: 0, saves: [{ id: 'a', label: 'x', patches: [{ op: 'remove', path: ['x'] }] }] },
    ],
    ['POST', (n) => `/api/projects/${n}/rename`, { name: 'x' }],
    ['POST', (n) => `/api/projects/${n}/duplicate`],
    ['POST', (n) => `/api/projects/${n}/restore`],
    ['DELETE', (n) => `/api/projects/${n}`],
    ['GET', (n) => `/api/projects/${n}/archive`],
    ['GET', (n) => `/api/assets/${n}`],
    ['POST', (n) => `/api/assets?name=${n}`],
    ['POST', (n) => `/api/assets?name=a&name=${n}`],
    ['GET', (n) => `/api/fonts/${n}/400/normal/0`],
    ['GET', (n) => `/api/fonts/Inter/${n}/normal/0`],
    ['GET', (n) => `/api/fonts/Inter/400/${n}/0`],
    ['GET', (n) => `/api/fonts/Inter/400/normal/${n}`],
    ['POST', (n) => `/api/renders/${n}/cancel`],
    ['POST', (n) => `/api/renders/${n}/retry`],
    ['DELETE', (n) => `/api/renders/${n}`],
    ['GET', (n) => `/api/renders/${n}/file?download&download`],
    ['GET', (n) => `/api/renders/${n}/picture`],
    ['GET', (n) => `/api/renders/batch/${n}/files`],
    ['GET', (n) => `/api/projects/${n}/deliveries`],
    ['POST', (n) => `/api/projects/${n}/deliveries/render`, { deliveries: ['__proto__'] }],
    ['GET', (n) => `/api/renders/${n}/banner/index.html`],
    ['GET', (n) => `/api/renders/x/banner/${n}`],
    ['DELETE', (n) => `/api/sizes/${n}`],
    ['POST', () => '/api/projects', { name: '__proto__', scene: 'constructor', size: { toString: 1 } }],
    ['POST', () => '/api/renders', { project: '__proto__', scene: 'constructor', settings: { format: 'toString' } }],
  ];
  it.each(PLACES.map(([method, of, payload]) => ({ method, of, payload, shown: `${method} ${of('…')}` })))(
    'are never the server’s fault: $shown',
    async ({ method, of, payload }) => {
      for (const name of NAMES) {
        const { status, body } = await ask({ method, url: of(name), ...(payload && { payload }) });
        expect(status, name.slice(0, 20)).toBeLessThan(500);
        expect(body.error?.message.length ?? 0).toBeLessThanOrEqual(500);
      }
    },
  );
  it('scenes called by what every object has are not found', async () => {
    const project = await head();
    for (const scene of ['__proto__', 'constructor', 'toString']) {
      const settings = { format: 'png', scale: 1, frame: 0 };
      const { status } = await ask({ method: 'POST', url: '/api/renders', payload: { project, scene, settings } });
      expect(status).toBe(404);
    }
  });
  it('messages about a thousand fields stay short', async () => {
    const fields = Object.fromEntries(Array.from({ length: 1_000 }, (_, i) => [`field${i}`, i]));
    const { status, body } = await ask({ method: 'POST', url: '/api/projects', payload: fields });
    expect(status).toBe(400);
    expect(body.error?.message.length).toBeLessThanOrEqual(500);
  });
});

describe('a picture that is cut short', () => {
  const canvas = createCanvas(64, 48);
  canvas.getContext('2d').fillRect(4, 4, 40, 30);
  it.each([
    ['PNG', canvas.toBuffer('image/png')],
    ['JPEG', canvas.toBuffer('image/jpeg')],
    ['WebP', canvas.toBuffer('image/webp')],
  ])('is refused, and taken whole: %s', async (name, bytes) => {
    const send = (payload: Buffer) =>
      ask({
        method: 'POST',
        url: `/api/assets?name=${name}`,
        payload,
        headers: { 'content-type': 'application/octet-stream' },
      });
    expect((await send(bytes)).status).toBe(201);
    const cut = await send(bytes.subarray(0, bytes.length - 20));
    expect([cut.status, cut.body.error?.message]).toEqual([400, expect.stringMatching(/cut short|cannot be read/)]);
  });
});

describe('other sites', () => {
  const page = (headers: Record<string, string>, method: InjectOptions['method'] = 'GET', url = '/api/projects') =>
    ask({ method, url, headers });
  it('are not answered, by name, origin or fetch metadata', async () => {
    const cases: Record<string, string>[] = [
      { host: 'kite.example' },
      { origin: 'https://elsewhere.example' },
      { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors' },
      { 'sec-fetch-site': 'same-site', 'sec-fetch-mode': 'cors' },
      { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' },
    ];
    for (const headers of cases) expect((await page(headers)).body.error?.code).toBe('foreign');
    expect((await page({ 'sec-fetch-site': 'same-origin' })).status).toBe(200);
  });
  it('may link to pages', async () => {
    const followed = { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' };
    expect((await page(followed, 'GET', '/help')).status).not.toBe(403);
    expect((await page(followed, 'POST', '/help')).status).toBe(403);
  });
});

describe('beyond this machine', () => {
  let secret: string;
  let open: FastifyInstance;
  beforeAll(() => {
    const made = AccessKey.make(site.data);
    secret = made.secret;
    const { key } = made;
    open = site.appWith({ host: '0.0.0.0', names: ['tram.example'], key });
  });
  afterAll(() => open.close());
  const go = (url: string, headers: Record<string, string> = {}, remoteAddress = '10.0.0.9') =>
    open.inject({ url, remoteAddress, headers: { host: 'tram.example', ...headers } });

  it('nothing is shown without the key, whatever name is asked for', async () => {
    for (const host of ['tram.example', 'localhost', '127.0.0.1']) {
      expect((await go('/api/projects', { host })).statusCode).toBe(401);
      expect((await go('/', { host })).body).toContain('needs its access key');
    }
    expect((await go('/api/projects', { host: 'other.example' })).statusCode).toBe(403);
  });
  it('the link lets in, and the cookie keeps the door open', async () => {
    const entered = await go(`/enter?key=${secret}`);
    const cookie = String(entered.headers['set-cookie']);
    expect(cookie).toMatch(/^kite_key=.*HttpOnly; SameSite=Strict$/);
    expect((await go('/api/projects', { cookie: cookie.split(';')[0] as string })).statusCode).toBe(200);
    expect((await go('/api/projects', { cookie: 'kite_key=wrong' }, '10.0.0.8')).statusCode).toBe(401);
  });
  it('guessing is cut short', async () => {
    const tries = [];
    for (let i = 0; i < 14; i++) tries.push((await go(`/enter?key=guess${i}`, {}, '10.0.0.7')).statusCode);
    expect([tries[0], tries.at(-1)]).toEqual([401, 429]);
  });
  it('is known by its host', () => {
    expect(['localhost', '127.0.0.1', '127.8.8.8', '::1'].every(isLoopback)).toBe(true);
    expect(['0.0.0.0', '192.168.1.4', '::', 'tram.example'].some(isLoopback)).toBe(false);
  });
  it('a key is kept only as what it hashes to', () => {
    expect(AccessKey.of(site.data)?.fits(secret)).toBe(true);
    expect(AccessKey.of(site.data)?.fits(`${secret}x`)).toBe(false);
    expect(AccessKey.of(join(site.data, 'nowhere'))).toBeNull();
  });
});

describe('while what is stored is being opened', () => {
  const alone = { host: '127.0.0.1', names: [], key: null };
  const get = (app: FastifyInstance, url: string) => askOn(app, { method: 'GET', url });

  it('pages are given, and what is asked of it is answered once it is open', async () => {
    let opened!: () => void;
    const app = site.appWith(alone, new Promise<void>((done) => (opened = done)));
    const answers: string[] = [];
    const cards = get(app, '/api/projects').then(({ status }) => answers.push(`projects ${status}`));
    await get(app, '/').then(({ status }) => answers.push(`page ${status}`));
    opened();
    await cards;
    await app.close();
    expect(answers).toEqual(['page 200', 'projects 200']);
  });
  it('and cannot be, whoever asked is told', async () => {
    const app = site.appWith(alone, Promise.reject(new DbFailure('damaged', 'The database cannot be read')));
    const { status, body } = await get(app, '/api/projects');
    await app.close();
    expect([status, body.error?.message]).toEqual([
      503,
      'The database of the server cannot be reached. It has to be started again.',
    ]);
  });
});
