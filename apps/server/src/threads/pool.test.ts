import { describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { join, relative } from 'node:path';
import { THREAD_FILES } from './pool';

/** What this process runs from sources, the server runs from its build. */
const built = (file: string) => join(__dirname, '../../dist', relative(join(__dirname, '..'), file));

describe('pools of threads', () => {
  test.each(Object.entries(THREAD_FILES))(
    '%s loads no ES module with require, where ending its thread would end the server',
    (_, { filename, name }) => {
      const load = `if (typeof require(${JSON.stringify(built(filename))})[${JSON.stringify(name)}] !== 'function') throw new Error('no such task')`;
      const { status, stderr } = spawnSync(process.execPath, ['--no-experimental-require-module', '-e', load], { encoding: 'utf8' });
      expect([status, stderr]).toEqual([0, '']);
    },
  );
});
