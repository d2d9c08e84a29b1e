import { type DuelOptions, IDLE_REASONS, type Project, type Unit, fixed, timeUseWords, unitHeads, unitIn } from '@insidia/core';
import { memo } from 'react';
import { Link, useLocation } from 'react-router';
import { useTheme } from '../../app/theme';
import type { DuelAnswer } from '../../readout/protocol';
import { useAppSelector } from '../../store/store';
import { ApproachChart } from '../../visuals/ApproachChart';
import { AttackUseTable } from './AttackUseTable';
import { FairnessPart } from './FairnessPart';
import { Measure, PeakPressure, WIDTH } from './Measure';
import { called } from './called';
import { PaperGap } from './PaperGap';
import { Part } from './Part';
import { StylesPart } from './StylesPart';
import { TimeUseBar } from './TimeUseBar';

interface Props {
  answer: DuelAnswer;
  /** The document of the answer, and what of it fights. */
  project: Project;
  enemy: Unit;
  /** Those who stand against it. */
  party: readonly Unit[];
  duel: DuelOptions;
  /** The whole party stands against the enemy. */
  whole: boolean;
}

/** What a duel comes to. Repaints when there is a new answer, not while one is awaited. */
export const DuelResults = memo(function DuelResults({ answer, enemy, party: members, project, whole, duel }: Props) {
  const { now, before: earlier, changes: moved } = answer;
  const tooFew = !answer.enough;
  const party = members[0];
  const { clock } = now.summary;
  // What went by another clock is no measure of this.
  const before = earlier?.summary.clock === clock ? earlier : undefined;
  const changes = before ? moved : {};
  const inTime = unitIn(clock, 's');
  const partyName = whole ? 'The party' : party.name;
  const kind = now.summary.kinds[now.enemyKind];
  const kindBefore = before?.summary.kinds[before.enemyKind];
  const theme = useTheme();
  const radii = enemy.body.radius + party.body.radius;
  const { cleared, outcomes, runs, firstSeed, digest } = now.summary;
  const idle = kind.timeUse && IDLE_REASONS.reduce((sum, reason) => sum + (kind.timeUse?.[reason].value ?? 0), 0);
  const worst = kind.timeUse && [...IDLE_REASONS].sort((a, b) => (kind.timeUse?.[b].value ?? 0) - (kind.timeUse?.[a].value ?? 0))[0];
  const ttd = now.timeToDown;
  const lastChange = useAppSelector((state) => state.document.lastChange);
  return (
    <>
      {now.unhurt && (
        <p className="mt-2 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table" aria-label="Nobody was hurt">
          {partyName} was not hurt in any of {runs} runs: {now.unhurt}
          {before && before.unhurt === undefined && lastChange && `; since “${lastChange}”`}.
        </p>
      )}
      <Measure
        name={called('timeToKill', clock)}
        measured={{ summary: kind.timeToKill, before: kindBefore?.timeToKill, change: changes.timeToKill, tooFew }}
        values={now.values.timeToKill}
        valuesBefore={before?.values.timeToKill}
        unit={inTime}
        survives={`${enemy.name} survives`}
        none={`${enemy.name} was never hurt`}
        theme={theme}
      />
      <Measure
        name={whole ? 'First down' : called('timeToDown', clock)}
        measured={{ summary: ttd, before: before?.timeToDown, change: changes.timeToDown, tooFew }}
        values={now.values.timeToDown}
        valuesBefore={before?.values.timeToDown}
        unit={inTime}
        survives={whole ? 'all stand' : `${party.name} stands`}
        theme={theme}
      />
      <PeakPressure
        measured={{
          summary: now.summary.encounter.peakPressureShare,
          before: before?.summary.encounter.peakPressureShare,
          change: changes.peakPressure,
          tooFew,
        }}
        values={now.values.peakPressure}
        valuesBefore={before?.values.peakPressure}
        unit={unitIn(clock, '%/s')}
        theme={theme}
      />
      <Part
        title="Approach"
        note={`the median duel, seed ${now.approach.seed}`}
        right={<OpenDuel project={project} duel={duel} seed={now.approach.seed} />}
      >
        {now.approach.groundless ? (
          <p className="text-table text-ink-2">Without ground everyone is in reach of everyone.</p>
        ) : (
          <ApproachChart
            approach={now.approach}
            unit={enemy}
            radii={radii}
            width={WIDTH}
            colourOf={(kind) => unitHeads(project).find(({ id }) => id === kind)?.colour}
          />
        )}
      </Part>
      <Part
        title="Idle reasons"
        note={idle === undefined ? `${enemy.name} never noticed anybody` : `${Math.round(100 * idle)} % of alerted time not attacking`}
      >
        {kind.timeUse && <TimeUseBar timeUse={kind.timeUse} unit={enemy} width={WIDTH} />}
        {worst && (idle ?? 0) > 0 && (
          <p className="mt-0.5 text-table text-ink-2">
            Most of the {clock === 'rounds' ? 'turns' : 'time'} it does not attack goes to: {timeUseWords(worst)}.
          </p>
        )}
      </Part>
      {clock === 'continuous' && (
        <Part
          title="Paper and simulated"
          note="by the numbers alone, and in the runs"
          right={<span className="text-label text-ink-3">paper&emsp;&emsp;runs</span>}
        >
          <PaperGap
            width={WIDTH}
            colour={`var(--e-${enemy.colour})`}
            rows={[
              { label: 'Damage a second', unit: '', paper: now.paper.enemy?.damagePerSecond, simulated: kind.damagePerAlertedSecond },
              { label: 'Time-to-kill', unit: 's', paper: now.paper.party?.timeToKill, simulated: kind.timeToKill?.median },
              { label: 'Time-to-down', unit: 's', paper: now.paper.enemy?.timeToKill, simulated: ttd?.median },
            ]}
          />
        </Part>
      )}
      <AttackUseTable kind={kind} />
      <FairnessPart fairness={now.summary.fairness} kind={kind} />
      <StylesPart project={project} clock={clock} />
      <p className="mt-2 border-t border-hair pt-1.5 text-label text-ink-3">
        {partyName} wins {fixed(100 * cleared.value, 0)} % ({fixed(100 * cleared.low, 0)}–{fixed(100 * cleared.high, 0)}), is down in{' '}
        {outcomes.partyDown} of {runs}
        {outcomes.timeOut > 0 && `, out of time in ${outcomes.timeOut}`}. Seeds {firstSeed}–{firstSeed + runs - 1}, digest{' '}
        <span data-testid="digest">{digest}</span>.
      </p>
    </>
  );
});

/** The run behind the chart, to be looked at instant by instant. */
function OpenDuel({ project, duel, seed }: { project: Project; duel: DuelOptions; seed: number }) {
  const { search } = useLocation();
  const query = new URLSearchParams(search);
  for (const [name, value] of Object.entries({
    enemy: duel.enemy,
    members: typeof duel.against === 'string' ? duel.against : duel.against.join(','),
    copies: String(duel.copies ?? 1),
    ...(duel.distance !== undefined && { distance: String(duel.distance) }),
    seed: String(seed),
  }))
    query.set(name, value);
  return (
    <Link className="link" to={{ pathname: `/projects/${project.id}/replay/duel`, search: query.toString() }}>
      open
    </Link>
  );
}
