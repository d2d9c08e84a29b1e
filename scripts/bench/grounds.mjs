/** What a new runner's first four runs take, on ground that nobody knows yet and on ground that is known, against the same seeds warm. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../system.mjs';
import { processor } from './processor.mjs';

/**
 * Least processor time of so many rounds; ground that nobody knows is the same ground a little wider each time.
 * @returns {{unknown: number, known: number}} ratios to warm
 */
export function newRunners({ Runner, compileScenario, parseProject }, id = 'evening-shift', rounds = 7) {
  const project = parseProject(JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8')));
  const arena = project.arenas.find((one) => one.id === project.encounters.find((encounter) => encounter.id === id).arena);
  const scenario = { kind: 'encounter', id, tier: 'bloom', skill: 'regular' };
  const four = (runner) => processor(() => [1, 2, 3, 4].forEach((seed) => runner.run(seed)));
  const took = { unknown: [], warm: [], known: [] };
  for (let round = -2; round < rounds; round++) {
    arena.width += 0.02;
    const compiled = compileScenario(project, scenario);
    const runner = new Runner(compiled);
    const times = { unknown: four(runner), warm: four(runner), known: four(new Runner(compiled)) };
    // The first rounds are the compiler's.
    if (round >= 0) for (const [name, list] of Object.entries(took)) list.push(times[name]);
  }
  const [unknown, warm, known] = ['unknown', 'warm', 'known'].map((name) => Math.min(...took[name]));
  return { unknown: unknown / warm, known: known / warm };
}
