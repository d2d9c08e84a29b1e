/**
 * Jest's module loader, compiling into the process's own realm instead of a sandbox: the other half of the plain
 * environment. What is imported while a test runs (the scripts are ES modules) is loaded by Node itself.
 */
const { compileFunction, constants } = require('node:vm');
const Runtime = require('jest-runtime').default;

module.exports = class PlainRuntime extends Runtime {
  constructor(...all) {
    super(...all);
    const { executor } = this;
    if (typeof executor?.compile !== 'function') throw new Error('this version of Jest compiles modules in another place');
    executor.compile = (source, filename) =>
      compileFunction(source, executor.injectedModuleParameters, {
        filename,
        importModuleDynamically: constants.USE_MAIN_CONTEXT_DEFAULT_LOADER,
      });
  }
};
