/** The fights of the demo in floors: time per unit-step of a warm runner, the floor's beside it in the same process. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../system.mjs';
import { FLOOR_UNIT_STEPS, floor } from './floor.mjs';
import { processor } from './processor.mjs';

/** Unit-steps of one round, in floors. */
const FLOORS = 3;

/**
 * Runs and floors alternate; of each the least of so many rounds counts: what else the machine does only adds.
 * @returns {Record<string, {floors: number, milliseconds: number}>} by name of the encounter
 */
export function demoFights({ Runner, compileScenario, parseProject }, rounds = 9) {
  const project = parseProject(JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8')));
  const found = {};
  for (const { id, name } of project.encounters) {
    const compiled = compileScenario(project, { kind: 'encounter', id, tier: 'bloom', skill: 'regular' });
    const runner = new Runner(compiled);
    // As many seeds as make a floor's unit-steps several times; a unit counts for each step that it lives.
    let unitSteps = 0;
    let seeds = 0;
    while (unitSteps < FLOORS * FLOOR_UNIT_STEPS) runner.run(++seeds, (fight) => void (unitSteps += fight.alive.length));
    const run = () => {
      for (let seed = 1; seed <= seeds; seed++) runner.run(seed);
    };
    run();
    const took = { run: Infinity, floor: Infinity };
    for (let round = 0; round < rounds; round++) {
      took.run = Math.min(took.run, processor(run));
      took.floor = Math.min(
        took.floor,
        processor(() => Array.from({ length: FLOORS }, floor)),
      );
    }
    found[name] = { floors: took.run / unitSteps / (took.floor / FLOORS / FLOOR_UNIT_STEPS), milliseconds: took.run / seeds };
  }
  return found;
}
