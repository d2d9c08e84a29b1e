/** Small documents of fights in rounds: a sketch as of any fight, with `rounds` wherever something is said in turns and cells. */
import { compile } from '../engine/compile';
import type { Compiled } from '../engine/tables';
import { Runner } from '../engine/run';
import { classFields } from '../model/field';
import { Project } from '../model/project';
import { EncounterRounds } from '../model/rounds';
import { filled, parseProject } from '../model/validate';
import { eachObject } from '../model/walk';
import { type FightSketch, sketched } from './builders';

/** @param sketch as of any fight; the encounter's `rounds` in `encounter`; @param trusted it is known to be valid: many times faster */
export function inTurns(sketch: FightSketch, trusted = false): Project {
  const project = filled(Project, sketched({ width: 20, depth: 20, ...sketch }) as never) as unknown as Project;
  for (const encounter of project.encounters) {
    encounter.clock = 'rounds';
    encounter.rounds ??= new EncounterRounds();
  }
  // What a fight in turns asks for begins as its class does.
  eachObject(Project, project, [], { project }, (type, object) => {
    const { said, groups } = classFields(type)!;
    if (object.rounds === undefined && said.get('rounds')?.inTurns?.(object)) object.rounds = new (groups.get('rounds')!())();
  });
  const plain = JSON.parse(JSON.stringify(project)) as Project;
  return trusted ? plain : parseProject(plain);
}

export const turnTables = (sketch: FightSketch): Compiled => compile(inTurns(sketch), { encounter: 'fight' });

/** The same for a sketch that is known to be valid. */
export const turnTablesTrusted = (sketch: FightSketch): Compiled => compile(inTurns(sketch, true), { encounter: 'fight' });

export const foughtInTurns = (sketch: FightSketch, seed = 1) => new Runner(turnTables(sketch)).run(seed);
