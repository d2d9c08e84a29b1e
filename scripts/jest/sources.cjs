/** Lets plain Node require TypeScript sources: for worker threads that tests start, which have no module loader of Jest's. */
const { transformFileSync } = require('@swc/core');
const { SWC } = require('./swc.cjs');

require.extensions['.ts'] = (module, filename) =>
  module._compile(transformFileSync(filename, { ...SWC, swcrc: false, configFile: false }).code, filename);
