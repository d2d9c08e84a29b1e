/**
 * npm test: installs what is missing, then types, lint, format, unit, server and end to end. The last line says
 * "N passed, N failed".
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

function tool(path, ...args) {
  return spawnSync(process.execPath, [join(ROOT, 'node_modules', path), ...args], { cwd: ROOT, stdio: 'inherit' }).status === 0;
}

await withSentences(async () => {
  installModules();
  const { ensureBrowser } = await import('./browser.mjs');
  ensureBrowser();
  const { ensurePostgres } = await import('./postgres.mjs');
  ensurePostgres();
  build();
});

count('types of the page', tool('typescript/bin/tsc', '-p', 'apps/web'));
count('types of the tests', tool('typescript/bin/tsc', '-p', 'tsconfig.tests.json'));
count('lint', tool('eslint/bin/eslint.js', '.', '--max-warnings', '0'));
count('format', tool('prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '.'));

// The scripts are ES modules that tests import as they are.
const env = {
  ...process.env,
  NODE_OPTIONS: `${process.env.NODE_OPTIONS ?? ''} --experimental-vm-modules --disable-warning=ExperimentalWarning`,
};
const report = join(folder, 'jest.json');
const jest = (...args) => {
  spawnSync(process.execPath, [join(ROOT, 'node_modules/jest/bin/jest.js'), '--json', `--outputFile=${report}`, ...args], {
    cwd: ROOT,
    env,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  try {
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(readFileSync(report, 'utf8'));
    passed += numPassedTests;
    failed += numFailedTests + numRuntimeErrorTestSuites;
  } catch {
    count('jest', false);
  }
};
const only = process.argv.slice(2);
if (only.length) jest(...only);
else {
  jest('--selectProjects', 'core', 'cli', 'web');
  // One at a time: each starts servers and browsers of its own.
  jest('--selectProjects', 'server', 'e2e', '--runInBand', '--forceExit');
}

rmSync(folder, { recursive: true, force: true });
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
