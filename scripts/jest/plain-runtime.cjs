/**
 * Jest's module loader, compiling into the process's own realm instead of a sandbox: the other half of the plain
 * environment. Sources and packages are loaded once a process and shared by its test files, so that they are compiled once
 * and run warm; test files, and what the browser's tests share, are loaded anew for each. What is imported while a test runs
 * (the scripts are ES modules) is loaded by Node itself.
 */
const { isBuiltin } = require('node:module');
const { dirname } = require('node:path');
const { readFileSync } = require('node:fs');
const { compileFunction, constants } = require('node:vm');
const Runtime = require('jest-runtime').default;
const { kept } = require('./plain-environment.cjs');

const SHARED = /\/node_modules\/|\/src\//;
const OWN = /\.test\.tsx?$/;
const IN_OWN_REALM = { importModuleDynamically: constants.USE_MAIN_CONTEXT_DEFAULT_LOADER };

/** Modules by path, and where their lines stand in the sources, for stack traces. */
const shared = new Map();
const sourceMaps = new Map();
/** That of the test file which runs: a shared module may require another long after the file that first asked for it. */
const running = { runtime: undefined };
/** How deep in loading one another, and the globals before the first of them. */
let depth = 0;
let before;

module.exports = class PlainRuntime extends Runtime {
  constructor(...all) {
    super(...all);
    running.runtime = this;
    for (const [path, map] of sourceMaps) this.transformCache.getSourceMaps().set(path, map);
    const { executor } = this;
    if (typeof executor?.compile !== 'function') throw new Error('this version of Jest compiles modules in another place');
    executor.compile = (source, filename) => compileFunction(source, executor.injectedModuleParameters, { filename, ...IN_OWN_REALM });
  }

  requireModuleOrMock(from, name) {
    if (name === '@jest/globals' || isBuiltin(name)) return super.requireModuleOrMock(from, name);
    let path;
    try {
      path = this._resolution.resolveCjs(from, name);
    } catch {
      return super.requireModuleOrMock(from, name);
    }
    if (shared.has(path)) return shared.get(path).exports;
    return SHARED.test(path) && !OWN.test(path) ? this.share(path) : super.requireModuleOrMock(from, name);
  }

  share(path) {
    if (path.endsWith('.node')) return require(path);
    const module = { id: path, filename: path, path: dirname(path), exports: {}, loaded: false, parent: null, children: [], paths: [] };
    shared.set(path, module);
    if (depth++ === 0) before = new Set(Reflect.ownKeys(globalThis));
    try {
      if (path.endsWith('.json')) module.exports = JSON.parse(readFileSync(path, 'utf8'));
      else {
        module.require = Object.assign((name) => running.runtime.requireModuleOrMock(path, name), {
          resolve: (name) => running.runtime._resolution.resolveCjs(path, name),
          cache: {},
          extensions: {},
          main: undefined,
        });
        const code = this.transformCache.transform(path, undefined);
        const map = this.transformCache.getSourceMaps().get(path);
        if (map) sourceMaps.set(path, map);
        compileFunction(code, ['module', 'exports', 'require', '__dirname', '__filename'], { filename: path, ...IN_OWN_REALM }).call(
          module.exports,
          module,
          module.exports,
          module.require,
          module.path,
          path,
        );
      }
    } catch (error) {
      shared.delete(path);
      throw error;
    } finally {
      if (--depth === 0) for (const key of Reflect.ownKeys(globalThis)) if (!before.has(key)) kept.add(key);
    }
    module.loaded = true;
    return module.exports;
  }
};
