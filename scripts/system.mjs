/** What the scripts share: one-sentence errors, installing what is missing, whether something is stale. */
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));

/** Where Node that can keep what it has compiled keeps that of the server and its threads; what cannot does not read it. */
export const COMPILED = { NODE_COMPILE_CACHE: process.env.NODE_COMPILE_CACHE ?? join(ROOT, 'node_modules/.cache/insidia-compiled') };

/** An error a user can mend: printed as one sentence, without a stack. */
export class Sentence extends Error {}

export const isRoot = () => process.getuid?.() === 0;

/** Runs `act`; a Sentence ends the program with that sentence and exit code 1. */
export async function withSentences(act) {
  try {
    return await act();
  } catch (error) {
    if (!(error instanceof Sentence)) throw error;
    console.error(`insidia: ${error.message}`);
    process.exit(1);
  }
}

/** Installs Debian packages, or says what to do where that is not possible. @throws Sentence */
export function installPackages(names, otherwise) {
  if (!isRoot() || !existsSync('/usr/bin/apt-get')) throw new Sentence(otherwise);
  console.log(`installing ${names.join(', ')} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (...args) => spawnSync('apt-get', args, { env, stdio: ['ignore', 'ignore', 'pipe'], encoding: 'utf8' });
  const install = () => apt('install', '-y', '--no-install-recommends', ...names);
  if (install().status === 0) return;
  apt('update');
  const { status, stderr } = install();
  if (status !== 0) throw new Sentence(`${otherwise} (apt-get said: ${stderr.trim().split('\n').at(-1)})`);
}

/** node_modules as the lock file wants them. */
export function installModules() {
  const lock = join(ROOT, 'package-lock.json');
  const installed = join(ROOT, 'node_modules/.package-lock.json');
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
  console.log('installing node modules …');
  const { status } = spawnSync('npm', ['ci', '--no-audit', '--no-fund'], { cwd: ROOT, stdio: ['ignore', 'ignore', 'inherit'] });
  if (status !== 0) throw new Sentence('the node modules could not be installed: npm ci failed');
}

/** Builds what is older than its sources: libraries and server by tsc, which knows itself; the page by Vite. */
export function build() {
  // Types are checked once for everything, by npm test; here they would be checked a second time.
  const tsc = spawnSync(process.execPath, [join(ROOT, 'node_modules/typescript/bin/tsc'), '-b', '--noCheck'], {
    cwd: ROOT,
    stdio: 'inherit',
  });
  if (tsc.status !== 0) throw new Sentence('the TypeScript sources do not compile');
  const page = join(ROOT, 'apps/web/dist/index.html');
  const sources = ['apps/web/src', 'apps/web/index.html', 'apps/web/vite.config.ts', 'packages/core/src', 'package-lock.json'];
  if (existsSync(page) && statSync(page).mtimeMs > Math.max(...sources.map((path) => newest(join(ROOT, path))))) return;
  console.log('building the page …');
  try {
    // A test runner's NODE_ENV must not make it a development build.
    const env = { ...process.env, NODE_ENV: 'production' };
    execFileSync(process.execPath, [join(ROOT, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'], {
      cwd: join(ROOT, 'apps/web'),
      env,
      stdio: 'inherit',
    });
  } catch {
    throw new Sentence('the page could not be built');
  }
}

function newest(path) {
  const { mtimeMs } = statSync(path);
  if (!statSync(path).isDirectory()) return mtimeMs;
  return Math.max(mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))));
}
