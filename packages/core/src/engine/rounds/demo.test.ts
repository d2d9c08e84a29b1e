/** The demo's fights in turns: everything that units made for seconds bring along is met at least once. */
import { expect, test } from '@jest/globals';
import { withRounds } from '../../model/derive-rounds';
import { EncounterRounds } from '../../model/rounds';
import { EVENT } from '../../record/log';
import { demoProject } from '../../testing/demo';
import { compile } from '../compile';
import { Runner } from '../run';

const GROUNDS = ['squares', 'diagonals', 'hexagons', 'none'] as const;

function inTurns(ground: (typeof GROUNDS)[number]) {
  const project = demoProject();
  project.units = project.units.map((unit) => withRounds(unit, { round: 2, cell: 1 }));
  for (const encounter of project.encounters) {
    encounter.clock = 'rounds';
    encounter.rounds = Object.assign(new EncounterRounds(), { limit: 60, ground, order: 'byOrder' as const });
  }
  return project;
}

test.each(GROUNDS)('every encounter of the demo is fought to an end at every tier: %s', (ground) => {
  const project = inTurns(ground);
  let strikes = 0;
  for (const { id } of project.encounters) {
    for (const tier of [undefined, ...project.tiers.map((one) => one.id)]) {
      const runner = new Runner(compile(project, { encounter: id, tier }));
      const runs = [1, 2, 1].map((seed) => {
        const { outcome, digest, log, length } = runner.run(seed);
        expect(length).toBeLessThanOrEqual(60e6);
        expect(log.kind[log.length - 1]).toBe(EVENT.end);
        expect(outcome).not.toBe('runaway');
        for (let i = 0; i < log.length; i++) if (log.kind[i] === EVENT.hit) strikes++;
        return digest;
      });
      expect(runs[2]).toBe(runs[0]);
    }
  }
  expect(strikes).toBeGreaterThan(1000);
});
