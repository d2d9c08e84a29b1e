const shared = {
  testEnvironment: 'node',
  testEnvironmentOptions: { customExportConditions: ['source', 'node', 'node-addons', 'require', 'default'] },
  transform: {
    '^.+\\.(t|j)sx?$': [
      '@swc/jest',
      {
        // Dynamic imports stay what they are: the scripts are ES modules.
        module: { type: 'commonjs', ignoreDynamic: true },
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', tsx: true, decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false, react: { runtime: 'automatic' } },
        },
      },
    ],
  },
};
const project = (name, folder, more = {}) => ({
  ...shared,
  displayName: name,
  rootDir: folder,
  testMatch: ['<rootDir>/**/*.test.ts', '<rootDir>/**/*.test.tsx'],
  testPathIgnorePatterns: ['/dist/', '/node_modules/'],
  ...more,
});

export default {
  projects: [
    project('core', 'packages/core/src', { setupFiles: ['<rootDir>/testing/property-seed.ts'] }),
    project('cli', 'apps/cli/src'),
    project('server', 'apps/server/src'),
    project('web', 'apps/web/src'),
    project('e2e', 'e2e'),
  ],
};
