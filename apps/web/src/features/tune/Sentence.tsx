import type { Dial, Objective, Project, QuestionGoal, Scenario } from '@insidia/core';
import { CROWD } from './address';
import { Goals } from './Goals';
import { fightName } from './questions';

/** What is asked, in one sentence. */
export function Sentence({
  project,
  cell,
  objectives,
  own,
  dials,
  onGoals,
  onCrowd,
}: {
  project: Project;
  cell: Scenario;
  objectives: readonly Objective[];
  /** Goals of the question's own. */
  own: readonly QuestionGoal[];
  dials: readonly Dial[];
  onGoals: (text: string | undefined) => void;
  onCrowd: () => void;
}) {
  const wanted = objectives.filter(({ band }) => band).length;
  const copies = cell.duel?.copies ?? 1;
  const at = [project.tiers.find(({ id }) => id === cell.tier)?.name, project.skills.find(({ id }) => id === cell.skill)?.name].filter(
    Boolean,
  );
  const measures = objectives.length - wanted;
  const goals = [
    wanted > 0 && `${wanted} ${wanted === 1 ? 'goal' : 'goals'}`,
    measures > 0 && `${measures} ${measures === 1 ? 'measure' : 'measures'}`,
  ].filter(Boolean);
  return (
    <p className="px-4 pb-2 pt-1 text-ink-2">
      What moves <Goals project={project} cell={cell} objectives={objectives} own={own} label={goals.join(' and ')} onGoals={onGoals} /> of{' '}
      <b className="text-ink">{fightName(project, cell)}</b>, seen as <b className="text-ink">{at.length ? at.join(', ') : 'written'}</b>,
      of <b className="text-ink">{dials.length === 0 ? 'no number yet' : `${dials.length} ${dials.length === 1 ? 'number' : 'numbers'}`}</b>
      ?
      {cell.kind === 'duel' && copies === 1 && (
        <>
          {' '}
          One against one often ends the same way every time, and then nothing moves it:{' '}
          <button type="button" className="link" onClick={onCrowd}>
            ask about {CROWD} of them
          </button>
          .
        </>
      )}
    </p>
  );
}
