/** A scenario as the engine takes it. */
import { type CompileOptions, compile } from '../engine/compile';
import type { Compiled } from '../engine/tables';
import type { Project } from '../model/project';
import { turnedProject } from '../model/turn';
import { duelOptions } from './duel';
import { type Scenario, usualMember } from './scenario';

/** What to hand to `compile`: an enemy meets the first party member at the distance of a readout. @throws Error for what is not there */
export function scenarioOptions(project: Project, { kind, id, tier, skill, style, players, without, duel }: Scenario): CompileOptions {
  const lens = { tier, skill, style, players };
  if (kind === 'encounter') return { encounter: id, ...lens, ...(without && { without }) };
  const against = duel?.against ?? usualMember(project);
  if (against === undefined) throw new Error(`${project.name} has no party member to duel against`);
  return duelOptions(project, lens, { ...duel, enemy: id, against });
}

/** @throws Error for what is not there */
export function compileScenario(project: Project, scenario: Scenario, stepSeconds?: number): Compiled {
  const now = scenario.turned?.length ? turnedProject(project, scenario.turned) : project;
  return compile(now, { ...scenarioOptions(now, scenario), stepSeconds });
}
