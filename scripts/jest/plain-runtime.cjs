/**
 * Jest's module loader, compiling into the process's own realm instead of a sandbox: the other half of the plain
 * environment. What is imported while a test runs (the scripts are ES modules) is loaded by Node itself, and so are
 * packages: once for a process, not once for every file of tests.
 */
const { createRequire } = require('node:module');
const { isAbsolute } = require('node:path');
const { compileFunction, constants } = require('node:vm');
const Runtime = require('jest-runtime').default;

/** The name of a package, not of a file: our own packages are sources, and Jest's have to be the ones of the test. */
const isPackage = (name) => !name.startsWith('.') && !isAbsolute(name) && !/^(@insidia|@jest|jest|expect|node:)/.test(name);

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

  requireModuleOrMock(from, name) {
    return isPackage(name) ? createRequire(from)(name) : super.requireModuleOrMock(from, name);
  }
};
