import {
  PLAY_BUDGET,
  type Habit,
  type PlayFound,
  type Project,
  type ProvedPlay,
  type Scenario,
  acceptanceOf,
  batchIdentity,
  cheapWarning,
  compileScenario,
  figuresOfPlay,
  runFights,
  sentenceOfPlay,
  withStyleOf,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { OpenWarning } from '../../fields/WarningParts';
import { changed } from '../../store/document';
import { useAppDispatch } from '../../store/store';
import { replayOf, throughBoard } from './links';
import { usePlaying } from './usePlaying';

interface Props {
  project: Project;
  cell: Scenario;
}

/** What makes a fight what it is; undefined: it can't be run. */
function fightOf(project: Project, cell: Scenario): string | undefined {
  try {
    return batchIdentity(compileScenario(project, cell), 1, 1);
  } catch {
    return undefined;
  }
}

/** What is done in a phase. */
const DOING: Record<string, string> = {
  written: 'As it is written.',
  alone: 'Each habit by itself.',
  drawn: 'Habits together, after what went well.',
  again: 'The best are run again.',
  stripped: 'What does it do as well without?',
  proved: 'It is proved on seeds that nothing has seen.',
  idle: 'How little is there to do?',
};

/** Ways of playing that win far more cheaply than as it is written, and how little a player needs to do. */
export function Cheapest({ project, cell }: Props) {
  const { playing, begin, cancel } = usePlaying();
  const { step, found, failure } = playing ?? {};
  const running = playing !== null && !found && failure === undefined;
  // Of another fight than was asked about: what changes none (a name, a style that is kept) leaves it as it was said.
  const now = useMemo(() => fightOf(project, cell), [project, cell]);
  const asked = useMemo(() => (playing ? fightOf(playing.project, cell) : undefined), [playing, cell]);
  return (
    <section aria-label="The cheapest way to win" className="border-t px-4 pb-3 pt-2">
      <div className="flex items-center gap-2">
        <h2 className="shrink-0 text-section">The cheapest way to win</h2>
        <span
          className="note min-w-0 flex-1 truncate"
          title="where to stand, what distance to keep, when to run, cover, heal and answer, whom first; aim and reactions stay"
        >
          by habits of the player, not by playing better
        </span>
        {running ? (
          <button type="button" className="btn shrink-0" onClick={cancel}>
            Stop
          </button>
        ) : (
          <button type="button" className="btn shrink-0" onClick={() => begin(project, cell)}>
            {found ? 'Look again' : 'Look for it'}
          </button>
        )}
      </div>
      {running && (
        <p className="mt-1 flex items-center gap-2 text-table text-ink-2" role="status">
          <progress className="h-2 w-24" value={step?.runs ?? 0} max={step?.of ?? PLAY_BUDGET.usual} aria-label="Runs of the search" />
          {step ? `${DOING[step.phase] ?? ''} ${step.runs.toLocaleString('en')} of ${step.of.toLocaleString('en')} runs` : 'Beginning …'}
        </p>
      )}
      {failure !== undefined && <p className="note mt-1">It can’t be looked for: {failure}.</p>}
      {found && <Ways project={project} cell={cell} found={found} old={asked !== now} />}
    </section>
  );
}

function Ways({ project, cell, found, old }: Props & { found: PlayFound; old: boolean }) {
  const dispatch = useAppDispatch();
  const { habits, written, ways, dullest, runs } = found;
  const warning = cheapWarning(cell, found);
  const accepted = warning && acceptanceOf(project, warning);
  return (
    <div className="mt-2">
      {old && <p className="note mb-1">Of the fight as it was before it was last changed.</p>}
      {warning && !accepted && (
        <ul aria-label="Warning" className="mb-2 border-l-[3px] border-warn bg-warn-wash px-2 py-1">
          <OpenWarning
            warning={warning}
            project={project}
            lens={{ tier: cell.tier, skill: cell.skill }}
            apply={(edit) => dispatch(changed(edit))}
          />
        </ul>
      )}
      {accepted && <p className="note mb-1">Accepted: {accepted.reason}.</p>}
      <table aria-label="Ways to play" className="w-full text-table">
        <thead>
          <tr className="text-left text-label text-ink-3">
            <th className="py-1 font-normal">played, on {written.runs.toLocaleString('en')} fresh seeds</th>
            <th className="w-[92px] text-right font-normal">won</th>
            <th className="w-[104px] text-right font-normal">dose</th>
            <th className="w-[236px]" aria-label="What to do with it" />
          </tr>
        </thead>
        <tbody>
          <Row says="as it is written" figures={written} />
          {ways.map((way) => (
            <WayRow key={way.play.join(' ')} project={project} cell={cell} habits={habits} way={way} />
          ))}
          {dullest && <WayRow project={project} cell={cell} habits={habits} way={dullest} idle />}
        </tbody>
      </table>
      <p className="note mt-1">
        {ways.length === 0 && `No way was found that wins far more cheaply: ${figuresOfPlay(written)}. `}
        {!dullest && 'Nothing of what the player does can be left out. '}
        {runs.toLocaleString('en')} runs, {habits.length} habits. Dose: all damage to the party as a share of its health.
      </p>
    </div>
  );
}

function Row({
  says,
  figures: { won, dose },
  children,
}: {
  says: string;
  figures: Pick<ProvedPlay, 'won' | 'dose'>;
  children?: React.ReactNode;
}) {
  const percent = (share: number) => Math.round(100 * share);
  return (
    <tr className="border-t border-hair align-baseline">
      <td className="py-1 pr-2">{says}</td>
      <td className="text-right">
        <b>{percent(won.value)} %</b>{' '}
        <span className="text-label text-ink-3">
          {percent(won.low)}–{percent(won.high)}
        </span>
      </td>
      <td className="text-right">
        <b>{dose.value.toFixed(2)}</b>{' '}
        <span className="text-label text-ink-3">
          {dose.low.toFixed(2)}–{dose.high.toFixed(2)}
        </span>
      </td>
      <td className="pl-2 text-right">{children}</td>
    </tr>
  );
}

/** Seeds on which a kept style is held against what was proved. */
const CHECKED = 20;

function WayRow({ project, cell, habits, way, idle }: Props & { habits: readonly Habit[]; way: ProvedPlay; idle?: boolean }) {
  const dispatch = useAppDispatch();
  const [kept, setKept] = useState<string>();
  const played = { ...cell, turned: [...(cell.turned ?? []), ...way.turns] };
  const keep = () => {
    const { project: document, style, left } = withStyleOf(project, cell, habits, way.play);
    dispatch(changed({ document, name: `Style kept: ${style.name}`.slice(0, 180) }));
    setKept(keptWords(project, document, cell, played, style.id, style.name, left));
  };
  return (
    <>
      <Row says={`${idle ? 'with as little to do as can be: ' : ''}${sentenceOfPlay(habits, way.play)}`} figures={way}>
        <span className="inline-flex items-baseline gap-3">
          <Link className="link" to={replayOf(project, played)}>
            as a replay
          </Link>
          <Link className="link" to={throughBoard(project, played)}>
            look through it
          </Link>
          <button type="button" className="link" disabled={kept !== undefined} onClick={keep}>
            keep as a style
          </button>
        </span>
      </Row>
      {kept !== undefined && (
        <tr>
          <td colSpan={4} className="pb-1 text-label text-ink-2" role="status">
            {kept}
          </td>
        </tr>
      )}
    </>
  );
}

/** What was kept, held against what was proved on the same seeds. */
function keptWords(
  project: Project,
  document: Project,
  cell: Scenario,
  played: Scenario,
  style: string,
  name: string,
  left: readonly string[],
): string {
  if (left.length) return `Kept as ${name}, without what no style can say: ${left.join(', ')}.`;
  const ran = (of: Project, which: Scenario) => runFights({ project: of, cell: which, firstSeed: 1, runs: CHECKED, columns: [] });
  const [tried, now] = [ran(project, played), ran(document, { ...cell, style })];
  const same = 'digests' in tried && 'digests' in now && Array.from(tried.digests).every((one, i) => one === now.digests[i]);
  return same
    ? `Kept as ${name}: the same fights, to the last bit.`
    : `Kept as ${name}; what the tier or the skill adds comes before it, so fights go a little otherwise than tried.`;
}
