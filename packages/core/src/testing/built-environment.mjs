/**
 * A test environment that hands tests the built core, loaded outside the sandbox in which tests run: there every look at a
 * global costs, and a fight of a thousand generated ones takes four times as long.
 */
import { TestEnvironment } from 'jest-environment-node';
import { createRequire } from 'node:module';

export default class BuiltEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    this.global.builtCore = createRequire(import.meta.url)('../../dist/index.js');
  }
}
