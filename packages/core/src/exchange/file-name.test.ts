import { expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { fileName } from './file-name';

test('a name that every system takes, whatever the project is called', () => {
  expect([
    fileName('First Bell 12 at 3.50.png'),
    fileName('a/b\\c:d*e?f"g<h>i|j.csv'),
    fileName('../../etc/passwd'),
    fileName('CON.csv'),
    fileName('nul'),
    fileName('...'),
    fileName('verdance.insidia.json'),
    fileName('\u202egnp.exe'),
  ]).toEqual([
    'First Bell 12 at 3.50.png',
    'a-b-c-d-e-f-g-h-i-j.csv',
    '-..-etc-passwd',
    'CON-.csv',
    'nul-',
    'insidia',
    'verdance.insidia.json',
    '-gnp.exe',
  ]);
  expect(fileName(`${'x'.repeat(500)}.insidia.json`)).toHaveLength(120);
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 300 }), (name) => {
      const safe = fileName(name);
      expect(safe.length).toBeGreaterThan(0);
      expect([...safe].length).toBeLessThanOrEqual(120);
      // eslint-disable-next-line no-control-regex
      expect(safe).not.toMatch(/[\u0000-\u001f\\/:*?"<>|]|^[. ]/);
    }),
  );
});
