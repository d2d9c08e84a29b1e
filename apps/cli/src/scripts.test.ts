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

const scripts = readdirSync(SCRIPTS).filter((name) => name.endsWith('.mjs') && name !== 'additions.mjs');

test.each(scripts)('%s takes from the core what it has', (script) => {
  const names = takenFrom(readFileSync(join(SCRIPTS, script), 'utf8'));
  expect(names.filter((name) => !(name in core))).toEqual([]);
});

test('what is taken is found at all, and what is missing is told', () => {
  const names = scripts.flatMap((script) => takenFrom(readFileSync(join(SCRIPTS, script), 'utf8')));
  expect(names).toEqual(expect.arrayContaining(['scenarioKey', 'Batch', 'traceWith']));
  expect(takenFrom('const { one, ...rest } = core(); core.two()')).toEqual(['two', 'one']);
});
