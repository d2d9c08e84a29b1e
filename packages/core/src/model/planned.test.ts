import { expect, test } from '@jest/globals';
import { dummy, project, unit } from '../testing/builders';
import { plannedOf, plannedUnits } from './planned';

test('comings, growth, places and pools are counted; a pool may bring none of one, or nothing else', () => {
  const clipper = unit({ id: 'clipper' });
  const sporecask = unit({ id: 'sporecask' });
  const { encounters } = project({
    party: [dummy('warden', 100)],
    enemies: [
      { unit: clipper, group: { count: { min: 1, max: 2 } } },
      {
        unit: sporecask,
        group: {
          enemy: undefined,
          pool: [
            { enemy: 'sporecask', weight: 1 },
            { enemy: 'clipper', weight: 2 },
          ],
          count: { min: 2, max: 3 },
        },
      },
    ],
    wave: { repeat: { times: 2, count: 1.5 } },
    waves: [
      { id: 'w2', name: 'Two', groups: [{ id: 'both', enemy: 'clipper', at: ['p0', 'p1'], rule: 'each', count: { min: 4, max: 4 } }] },
    ],
  });
  // First wave: 2 + 3 units, then 7.5 rounded up; second: 4 at each of two places; and the Warden.
  expect(plannedUnits(encounters[0])).toBe(5 + 8 + 8 + 1);
  expect(plannedOf(encounters[0], 'clipper')).toEqual({ least: 1 + 2 + 8, most: 5 + 8 + 8 });
  expect(plannedOf(encounters[0], 'sporecask')).toEqual({ least: 0, most: 3 + 5 });
  expect(plannedOf(encounters[0], 'warden')).toEqual({ least: 1, most: 1 });
});
