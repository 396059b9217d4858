// What the commands share: install when the lock file changed, build when a source did.
import { execFile, execFileSync, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { brotliCompress, gzip as gzipCompress } from 'node:zlib';

export const root = fileURLToPath(new URL('..', import.meta.url));
process.chdir(root);

const stampFile = (name) => join(root, 'node_modules', `.kite-${name}`);
const isStamped = (name, value) => existsSync(stampFile(name)) && readFileSync(stampFile(name), 'utf8') === value;
const stamp = (name, value) => {
  mkdirSync(join(root, 'node_modules'), { recursive: true });
  writeFileSync(stampFile(name), value);
};

const hashOf = (...parts) => {
  const hash = createHash('sha256');
  for (const part of parts) hash.update(part);
  return hash.digest('hex');
};

/** Installs from the lock file, unless that was done for this lock file and Node. */
export const install = () => {
  const value = hashOf(readFileSync('package-lock.json'), process.version);
  if (isStamped('installed', value)) return;
  console.log('Installing packages ...');
  const args = ['ci', '--include=dev', '--no-audit', '--no-fund', '--loglevel=error'];
  const npm = process.env.npm_execpath;
  if (npm) execFileSync(process.execPath, [npm, ...args], { stdio: 'inherit' });
  else execFileSync('npm', args, { stdio: 'inherit' });
  stamp('installed', value);
};

const onDebian = () =>
  existsSync('/etc/os-release') && /^ID(_LIKE)?=.*debian/m.test(readFileSync('/etc/os-release', 'utf8'));

/** Installs a browser of Debian's as root, or says what to do. */
export const debianPackage = (name, browser, variable) => {
  if (process.getuid?.() !== 0 || !onDebian()) {
    console.error(`This needs ${browser}: run "sudo apt-get install ${name}", or set ${variable} to its path.`);
    process.exit(1);
  }
  console.log(`Installing ${browser} ...`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  execFileSync('apt-get', ['update', '-qq'], { stdio: 'inherit', env });
  execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], { stdio: 'inherit', env });
};

const SOURCES = ['packages', 'apps', 'demo', 'docs/guide', 'bench', 'soak', 'e2e/support', 'scripts'];

function* sources(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.name === 'node_modules' || entry.name === 'dist') continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else yield path;
  }
}

const brotli = promisify(brotliCompress);
const gzip = promisify(gzipCompress);
const PACKED = /\.(html|js|css|svg|wasm|json|map|ttf|otf)$/;

/** Lays a Brotli and a gzip copy beside each file that becomes smaller by it: the server sends what a browser takes. */
const pack = async (folder) => {
  const files = [...sources(folder)].filter((path) => PACKED.test(path));
  await Promise.all(
    files.map(async (file) => {
      const bytes = readFileSync(file);
      for (const [ending, packed] of [
        ['br', await brotli(bytes)],
        ['gz', await gzip(bytes, { level: 9 })],
      ]) {
        if (packed.length < bytes.length) writeFileSync(`${file}.${ending}`, packed);
      }
    }),
  );
};

/** Lays out the empty database that new data folders begin with, which takes seconds and half a gigabyte. */
export const layOutDatabase = async () => {
  const value = hashOf(readFileSync('package-lock.json'), readFileSync('apps/server/src/store/postgres.ts'));
  if (isStamped('laid-out', value) && existsSync('dist/emptyDb/PG_VERSION')) return;
  rmSync('dist/emptyDb', { recursive: true, force: true });
  await promisify(execFile)(process.execPath, ['dist/layOut.mjs', 'dist/emptyDb']);
  stamp('laid-out', value);
};

/** Builds all programs and the pages, unless no source changed. */
export const build = async () => {
  const files = SOURCES.flatMap((folder) => [...sources(folder)]).sort();
  const value = hashOf(
    readFileSync('package-lock.json'),
    ...files.flatMap((file) => [file, String(statSync(file).size), readFileSync(file)]),
  );
  if (isStamped('built', value) && existsSync('dist/server.mjs') && existsSync('apps/web/dist/index.html')) return;
  console.log('Building ...');
  const { bundle } = await import('./bundle.mjs');
  await bundle();
  const pages = async () => {
    const { build: viteBuild } = await import('vite');
    await viteBuild({ root: 'apps/web', configFile: 'apps/web/vite.config.ts', logLevel: 'warn' });
    await pack('apps/web/dist');
  };
  await Promise.all([layOutDatabase(), pages()]);
  stamp('built', value);
};

/** Runs one of our own programs to its end, passing signals on. Gives its exit code. */
export const run = (file, args, env = {}) =>
  new Promise((resolve) => {
    const child = spawn(process.execPath, ['--enable-source-maps', file, ...args], {
      stdio: 'inherit',
      env: { ...process.env, ...env },
    });
    for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
    child.on('exit', (code) => resolve(code ?? 1));
  });

/** Runs a command of an installed package; true if it succeeded. */
export const tool = (name, args, env = {}) => {
  try {
    execFileSync(join(root, 'node_modules/.bin', name), args, { stdio: 'inherit', env: { ...process.env, ...env } });
    return true;
  } catch {
    return false;
  }
};
