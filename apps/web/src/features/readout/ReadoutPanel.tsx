import {
  type BandMeasure,
  type DuelOptions,
  duelScenario,
  IDLE_REASONS,
  type Project,
  type Readout,
  type Unit,
  type UnitHead,
  unitHeads,
  fixed,
  timeUseWords,
  CLOCKS,
  type Clock,
  type QuantityInfo,
  clockOfDuel,
  unitIn,
  duelHasGround,
  usualDistance,
} from '@insidia/core';
import { Suspense, memo } from 'react';
import { Link, useLocation } from 'react-router';
import { NumberField } from '../../fields/NumberField';
import { type View, WHOLE_PARTY, useView } from '../../app/view';
import { useTheme } from '../../app/theme';
import { Choose } from '../../fields/Choose';
import { useAppSelector } from '../../store/store';
import { ApproachChart } from '../../visuals/ApproachChart';
import { AttackUseTable } from './AttackUseTable';
import { FairnessPart } from './FairnessPart';
import { Measure, PeakPressure, WIDTH } from './Measure';
import { called } from './called';
import { PaperGap } from './PaperGap';
import { Part } from './Part';
import { Placement } from './Placement';
import { StylesPart } from './StylesPart';
import { TimeUseBar } from './TimeUseBar';
import type { Measured } from './words';
import { guarded } from '../../parts/guarded';
import { later } from '../../parts/later';
import { RunsState } from './RunsState';

const BatchPart = later(async () => (await import('./BatchPart')).BatchPart);

interface Props {
  project: Project;
  enemy: Unit;
  /** Those who stand against it. */
  party: readonly Unit[];
  duel: DuelOptions;
  onView: (change: Partial<Record<keyof View, string | number | undefined>>) => void;
  /** Who can stand on the other side. */
  others: readonly UnitHead[];
  /** The whole party stands against the enemy. */
  whole: boolean;
  /** The side whose bench this is. */
  side: Unit['side'];
}

const OPEN_GROUND = '*';

/** How far apart they begin. */
const FROM: Readonly<Record<Clock, QuantityInfo>> = {
  continuous: { label: 'From', unit: 'm', min: 0, max: 200, about: 'distance between the edges of the bodies at the start' },
  rounds: { label: 'From', unit: 'cells', min: 1, max: 45, whole: true, about: 'cells from one to the other at the start' },
};
/** What a batch of a duel is told by; everything else of it is on the board. */
const BATCH_MEASURES: readonly BandMeasure[] = ['timeToKill', 'timeToDown', 'dose', 'won'];

/** The duel as it is now against the duel before the last change. */
export const ReadoutPanel = guarded(
  'The readout',
  function ReadoutPanel({ project, enemy, party, duel, onView, others, whole, side }: Props) {
    const { answer, failure, pending } = useAppSelector((state) => state.readout.duel);
    const lastChange = useAppSelector((state) => state.document.lastChange);
    const [view] = useView(project);
    const clock = clockOfDuel(project, duel);
    const ground = duelHasGround(project, duel);
    const other = whole ? WHOLE_PARTY : side === 'enemy' ? party[0].id : enemy.id;
    const options = others.map(({ id, name }) => ({ id, name }));
    if (side === 'enemy' && others.length > 1) options.push({ id: WHOLE_PARTY, name: 'the whole party' });
    return (
      <aside aria-label="Readout" aria-busy={pending} className="scroll flex min-h-0 flex-col border-l bg-sheet px-4 pb-3 pt-[10px]">
        <div className="section-head">
          <h3>Readout</h3>
          <span className="note truncate">
            {enemiesWords(project, duel)} {whole ? 'the whole party' : `the ${party[0].name}`}
            {answer ? `, ${answer.done ? '' : 'the first '}${answer.now.summary.runs} ${answer.before ? 'paired ' : ''}runs` : ''}
          </span>
          <span className="flex-1" />
          {answer && <RunsState pending={pending} enough={answer.enough} runs={answer.now.summary.runs} />}
        </div>
        <div className="mt-1 flex items-end gap-1.5">
          <Choose label="Against" value={other} options={options} onChoose={(id) => onView({ against: id })} />
          {(ground || duel.arena !== undefined) && (
            <Choose
              label="On"
              value={duel.arena ?? OPEN_GROUND}
              options={[{ id: OPEN_GROUND, name: 'open ground' }, ...project.arenas.map(({ id, name }) => ({ id, name }))]}
              onChoose={(id) => onView({ arena: id === OPEN_GROUND ? undefined : id })}
            />
          )}
          <NumberField
            compact
            info={{ label: 'Copies', unit: '', min: 1, max: 12, whole: true, about: 'enemies in the duel' }}
            base={duel.copies}
            width={44}
            onCommit={(copies) => onView({ copies: copies === 1 ? undefined : copies })}
          />
          {ground ? (
            <NumberField
              compact
              info={FROM[clock]}
              base={duel.distance ?? usualDistance(clock)}
              width={58}
              onCommit={(distance) => onView({ distance })}
            />
          ) : (
            <span className="note pb-1">without ground</span>
          )}
        </div>
        <div className="mt-0.5 flex items-center gap-2">
          <Placement project={project} duel={duel} ground={ground} onView={onView} />
          <span className="flex-1" />
          {project.encounters.some((encounter) => encounter.clock === 'rounds') && (
            <DuelClock clock={clock} onChoose={(next) => onView({ clock: next, distance: undefined })} />
          )}
        </div>
        {lastChange && answer?.before && (
          <div className="mt-2 flex h-7 items-center gap-2 border-y border-hair text-table">
            <span className="min-w-0 flex-1 truncate" title={lastChange}>
              {lastChange}
            </span>
            <svg width={88} height={12} aria-hidden className="shrink-0">
              <path d="M0 6 H14" stroke="var(--ghost)" strokeWidth={1.4} />
              <text x={17} y={10} className="t2">
                before
              </text>
              <rect x={52} y={1} width={14} height={10} fill="var(--dist)" />
              <path d="M52 1 H66" stroke="var(--ink-2)" strokeWidth={1.4} />
              <text x={69} y={10} className="t2">
                now
              </text>
            </svg>
          </div>
        )}
        {failure && (
          <p role="alert" className="mt-3 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table">
            This duel can’t be run: {failure}.
          </p>
        )}
        {!answer && !failure && <p className="mt-6 text-ink-3">Running the first 200 duels …</p>}
        {answer && (
          <Results
            duel={duel}
            now={answer.now}
            before={answer.before}
            changes={answer.changes}
            tooFew={!answer.enough}
            enemy={enemy}
            party={party}
            project={project}
            whole={whole}
          />
        )}
        {answer && (
          <Suspense>
            <BatchPart project={project.id} cell={duelScenario(project, view, duel)} measures={BATCH_MEASURES} clock={clock} />
          </Suspense>
        )}
      </aside>
    );
  },
);

type ResultsProps = Pick<Props, 'enemy' | 'party' | 'project' | 'whole' | 'duel'> & {
  now: Readout;
  before?: Readout;
  changes: Record<string, Measured['change']>;
  tooFew: boolean;
};

/** Repaints when there is a new answer, not while one is awaited. */
const Results = memo(function Results({
  now,
  before: earlier,
  changes: moved,
  tooFew,
  enemy,
  party: members,
  project,
  whole,
  duel,
}: ResultsProps) {
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

/** Whether the duel goes by seconds or takes turns. */
function DuelClock({ clock, onChoose }: { clock: Clock; onChoose: (clock: Clock) => void }) {
  return (
    <span role="radiogroup" aria-label="The duel goes" className="flex shrink-0">
      {CLOCKS.map((each) => (
        <button key={each} type="button" role="radio" aria-checked={each === clock} className="switch" onClick={() => onChoose(each)}>
          {each === 'rounds' ? 'turns' : 'seconds'}
        </button>
      ))}
    </span>
  );
}

/** "duel with", "3 against", "1 and 2 Clippers against". */
function enemiesWords(project: Project, { copies = 1, company = [] }: DuelOptions): string {
  if (!company.length) return copies === 1 ? 'duel with' : `${copies} against`;
  const heads = unitHeads(project);
  const named = company.map(({ unit, count }) => `${count} ${heads.find(({ id }) => id === unit)?.name ?? unit}`);
  return `${copies} with ${named.join(', ')} against`;
}

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
