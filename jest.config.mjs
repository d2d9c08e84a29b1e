import { fileURLToPath } from 'node:url';
import { SWC } from './scripts/jest/swc.cjs';

const own = (path) => fileURLToPath(new URL(path, import.meta.url));
const shared = {
  testEnvironment: own('scripts/jest/plain-environment.cjs'),
  runtime: own('scripts/jest/plain-runtime.cjs'),
  testEnvironmentOptions: { customExportConditions: ['source', 'node', 'node-addons', 'require', 'default'] },
  transform: { '^.+\\.(t|j)sx?$': ['@swc/jest', SWC] },
};
const project = (name, folder, more = {}) => ({
  ...shared,
  displayName: name,
  rootDir: folder,
  testMatch: ['<rootDir>/**/*.test.ts', '<rootDir>/**/*.test.tsx'],
  testPathIgnorePatterns: ['/dist/', '/node_modules/'],
  ...more,
});

/**
 * What a project stands on. Each has a file of its own: Jest runs a set-up once a file, for whichever project comes first.
 * @param needs built: the build of the sources; database: and a PostgreSQL; browser: and an Insidia and a Chromium
 */
const standing = (needs) => ({ globalSetup: own(`scripts/jest/stand-${needs}.mjs`), globalTeardown: own('scripts/jest/world-end.mjs') });

export default {
  // On a machine that does ten other things a test takes ten times as long. What waits fails by a time-out of its own.
  testTimeout: 1_800_000,
  projects: [
    project('core', 'packages/core/src', { setupFiles: ['<rootDir>/testing/property-seed.ts'] }),
    project('web', 'apps/web/src'),
    project('cli', 'apps/cli/src', standing('built')),
    project('server', 'apps/server/src', standing('database')),
    project('e2e', 'e2e', standing('browser')),
  ],
};
