/** Where a fight with numbers turned is looked at. */
import { type Project, type Scenario, setupWords, turnsKey } from '@insidia/core';

/** The board with the numbers turned; from there every section. */
export function throughBoard(project: Project, { tier, skill, turned = [] }: Scenario) {
  const query = new URLSearchParams({ ...(tier && { tier }), ...(skill && { skill }), turned: turnsKey(turned) });
  return { pathname: `/projects/${project.id}/board`, search: query.toString() };
}

/** The fight as it is written, or with numbers turned: the address says so. */
export function replayOf(project: Project, { kind, id, tier, skill, duel, turned }: Scenario) {
  const query = new URLSearchParams({ ...(tier && { tier }), ...(skill && { skill }), seed: '1' });
  if (turned?.length) query.set('turned', turnsKey(turned));
  if (kind === 'encounter') return { pathname: `/projects/${project.id}/replay/${id}`, search: query.toString() };
  const first = project.units.find(({ side }) => side === 'party')?.id ?? '';
  query.set('enemy', id);
  query.set('members', duel?.against?.join(',') ?? first);
  for (const [word, value] of Object.entries(setupWords(duel ?? {}))) if (word !== 'against') query.set(word, value);
  return { pathname: `/projects/${project.id}/replay/duel`, search: query.toString() };
}
