/**
 * A test environment without a sandbox: tests and what they test run in the process's own realm, where a look at a global
 * costs nothing. In a sandbox each one goes through an interceptor, and a fight of thousands takes seven times as long.
 * What a file added to the globals goes with it, but for what sources and packages set as they were loaded: they stay.
 */
const { TestEnvironment } = require('jest-environment-node');

/**
 * Globals that belong to modules which all test files share. The first is made by whoever loads class-validator first, which may be
 * Node itself, for a script; what the shared sources wrote into it would be gone with that file.
 */
const kept = new Set(['classValidatorMetadataStorage']);

module.exports = class PlainEnvironment extends TestEnvironment {
  constructor(config, context) {
    super(config, context);
    this.before = Object.getOwnPropertyDescriptors(globalThis);
    this.exit = process.exit;
    // The runner has loaded the framework in this realm already; each file brings its own.
    delete globalThis[Symbol.for('EVENT_HANDLERS')];
    this.global = globalThis;
    this.moduleMocker = new this.moduleMocker.constructor(globalThis);
  }

  async teardown() {
    await super.teardown();
    for (const key of Reflect.ownKeys(globalThis)) {
      if (kept.has(key)) continue;
      const before = this.before[key];
      if (before === undefined) Reflect.deleteProperty(globalThis, key);
      else if (before.configurable) Object.defineProperty(globalThis, key, before);
    }
    process.exit = this.exit;
    this.global = null;
  }
};
module.exports.kept = kept;
