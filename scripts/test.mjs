/**
 * npm test: installs what is missing, then types, lint, format, golden digests, whether the format's reference is fresh and
 * additions are as small as said, unit, server and end to end. The last line says "N passed, N failed". `npm test -- NAME`
 * runs the tests whose path has NAME in it, and nothing else; `npm run test:quick` those of what has changed since the last
 * commit (or since the one named), without the browser's.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT, build, installModules, withSentences } from './system.mjs';

const folder = mkdtempSync(join(tmpdir(), 'insidia-test-'));
let passed = 0;
let failed = 0;

function count(name, ok) {
  if (ok) passed++;
  else failed++;
  console.log(`${ok ? 'ok' : 'FAILED'}: ${name}`);
}

function node(path, ...args) {
  return spawnSync(process.execPath, [join(ROOT, path), ...args], { cwd: ROOT, stdio: 'inherit' }).status === 0;
}

function jest(...args) {
  const report = join(folder, 'jest.json');
  rmSync(report, { force: true });
  spawnSync(process.execPath, [join(ROOT, 'node_modules/jest/bin/jest.js'), '--json', `--outputFile=${report}`, ...args], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  try {
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(readFileSync(report, 'utf8'));
    passed += numPassedTests;
    failed += numFailedTests + numRuntimeErrorTestSuites;
  } catch {
    count('jest', false);
  }
}

const [first, ...rest] = process.argv.slice(2);
const quick = first === '--quick';
const named = quick || first === undefined ? [] : [first, ...rest];

await withSentences(async () => {
  installModules();
  const { ensurePostgres } = await import('./postgres.mjs');
  ensurePostgres();
  if (quick) return;
  const { ensureBrowser } = await import('./browser.mjs');
  ensureBrowser();
  build();
  process.env.INSIDIA_TEST_BUILT = 'yes';
});

const TSC = 'node_modules/typescript/bin/tsc';
const ESLINT = 'node_modules/eslint/bin/eslint.js';
const PRETTIER = 'node_modules/prettier/bin/prettier.cjs';

if (quick) {
  const since = rest[0] ?? 'HEAD';
  const touched = changedSince(since);
  console.log(touched.length ? `since ${since}: ${touched.join(' ')}` : `nothing has changed since ${since}`);
  const code = touched.filter((path) => /\.(ts|tsx|mjs|cjs|js)$/.test(path));
  if (touched.some((path) => /\.tsx?$/.test(path))) count('types', node(TSC, '-p', 'tsconfig.tests.json'));
  if (code.length) count('lint', node(ESLINT, '--max-warnings', '0', '--no-warn-ignored', ...code));
  if (touched.length) count('format', node(PRETTIER, '--check', '--log-level', 'warn', '--ignore-unknown', ...touched));
  if (code.length) jest('--selectProjects', 'core', 'cli', 'web', 'server', '--passWithNoTests', '--findRelatedTests', ...code);
} else if (named.length) jest('--testPathPatterns', ...named);
else {
  count('types', node(TSC, '-p', 'tsconfig.tests.json'));
  count('lint', node(ESLINT, '.', '--max-warnings', '0'));
  count('format', node(PRETTIER, '--check', '--log-level', 'warn', '.'));
  count('golden', node('scripts/golden.mjs', '--check'));
  count('reference', node('scripts/reference.mjs', '--check'));
  count('additions', node('scripts/additions.mjs'));
  // Jest leaves a processor to whoever types; nobody does.
  jest('--selectProjects', 'core', 'cli', 'web', '--maxWorkers=100%');
  // One at a time: they share a server and a browser, and each is to have both processors.
  jest('--selectProjects', 'server', 'e2e', '--runInBand', '--forceExit');
}

/** Paths of files that a commit, the index or the working tree have otherwise than that commit; new ones too. */
function changedSince(commit) {
  const git = (...args) => spawnSync('git', args, { cwd: ROOT, encoding: 'utf8' }).stdout.split('\n').filter(Boolean);
  return [...new Set([...git('diff', '--name-only', '--diff-filter=d', commit), ...git('ls-files', '--others', '--exclude-standard')])];
}

rmSync(folder, { recursive: true, force: true });
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
