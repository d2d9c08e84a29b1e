/** How tests compile TypeScript: as the projects' compiler options say, decorators with their metadata included. */
exports.SWC = {
  // Dynamic imports stay what they are: the scripts are ES modules.
  module: { type: 'commonjs', ignoreDynamic: true },
  jsc: {
    target: 'es2022',
    parser: { syntax: 'typescript', tsx: true, decorators: true },
    transform: { legacyDecorator: true, decoratorMetadata: true, useDefineForClassFields: false, react: { runtime: 'automatic' } },
  },
};
