/** The scripts beside the sources are not type-checked: what they take from the core by name has to be there. */
import { expect, test } from '@jest/globals';
import * as core from '@insidia/core';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const SCRIPTS = join(__dirname, '../../../scripts');

/** Names read as `core.name`, or out of braces: `const { name, … } = core()`. */
function takenFrom(text: string): string[] {
  const read = [...text.matchAll(/\bcore\.(\w+)/g)].map(([, name]) => name);
  const braces = [...text.matchAll(/\{([^{}]*)\} = (?:core\(\)|require\(workerData\.core\))/g)].flatMap(([, list]) =>
    list
      .split(',')
      .map((one) => one.trim())
      .filter((one) => one && !one.startsWith('...')),
  );
  return [...read, ...braces];
}

const scripts = readdirSync(SCRIPTS, { recursive: true, encoding: 'utf8' }).filter(
  (name) => name.endsWith('.mjs') && name !== 'additions.mjs',
);

test.each(scripts)('%s takes from the core what it has', (script) => {
  const names = takenFrom(readFileSync(join(SCRIPTS, script), 'utf8'));
  expect(names.filter((name) => !(name in core))).toEqual([]);
});

test('what is taken is found at all, and what is missing is told', () => {
  const names = scripts.flatMap((script) => takenFrom(readFileSync(join(SCRIPTS, script), 'utf8')));
  expect(names).toEqual(expect.arrayContaining(['scenarioKey', 'Batch', 'traceWith']));
  expect(takenFrom('const { one, ...rest } = core(); core.two()')).toEqual(['two', 'one']);
});

test('the crowds that are timed can be fought', async () => {
  const { campsTables, crowdProject, hallTables } = (await import('../../../scripts/bench/crowd.mjs' as string)) as {
    campsTables: (from: typeof core, units: number) => core.Compiled;
    hallTables: (from: typeof core) => core.Compiled;
    crowdProject: (from: typeof core, options: { walled: boolean }) => core.Project;
  };
  const fought = (compiled: core.Compiled, units: number, seconds = 1) => {
    const run = new core.Runner({ ...compiled, limit: seconds * 1e6 }).run(1);
    expect([run.outcome, run.units]).toEqual(['timeOut', units]);
  };
  for (const walled of [false, true]) fought(core.compile(crowdProject(core, { walled }), { encounter: 'crowd' }), 26);
  fought(campsTables(core, 64), 64);
  fought(hallTables(core), 2 + 495, 60);
});
