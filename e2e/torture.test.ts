import { expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './support/world';

test('kills of the server, its database and a batch, odd documents and requests: nothing acknowledged is lost', () => {
  const { stdout, stderr, status } = spawnSync(
    process.execPath,
    [join(ROOT, 'scripts/torture.mjs'), '--documents', '300', '--requests', '200'],
    {
      encoding: 'utf8',
    },
  );
  expect([status, status === 0 ? '' : stderr]).toEqual([0, '']);
  expect(JSON.parse(stdout.trim().split('\n').at(-1)!)).toMatchObject({ serverKills: 4, databaseKills: 1, batchKills: 1, lost: 0 });
});
