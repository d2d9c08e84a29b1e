import {
  type BandMeasure,
  type Clock,
  type Scenario,
  type Encounter,
  type EncounterReadout,
  type Project,
  type UnitHead,
  unitHeads,
  clockTime,
  fixed,
  clockTicks,
  linear,
  unitIn,
  withUnit,
} from '@insidia/core';
import { Suspense, memo } from 'react';
import { Link, useLocation } from 'react-router';
import { useTheme } from '../../app/theme';
import { useView } from '../../app/view';
import type { EncounterAnswer } from '../../readout/protocol';
import { useAppSelector } from '../../store/store';
import { Measure, PeakPressure } from '../readout/Measure';
import { WarnMark } from '../../visuals/WarnMark';
import { useAsOf } from '../../parts/asOf';
import { guarded } from '../../parts/guarded';
import { later } from '../../parts/later';
import { RunsState } from '../readout/RunsState';

const BatchPart = later(async () => (await import('../readout/BatchPart')).BatchPart);

const WIDTH = 308;
/** What a batch of an encounter is told by; everything else of it is on the board. */
const BATCH_MEASURES: readonly BandMeasure[] = ['won', 'length', 'peakPressureShare', 'longestWithoutLull', 'dose'];

/** The fights of an encounter: who wins, how long, how hard, who hurts; before and after an edit; and the runs behind the numbers. */
export const EncounterPanel = guarded(
  'The readout',
  function EncounterPanel({ project, encounter, heads }: { project: Project; encounter: Encounter; heads: ReadonlyMap<string, UnitHead> }) {
    const { answer, failure, pending } = useAppSelector((state) => state.readout.encounter);
    const lastChange = useAppSelector((state) => state.document.lastChange);
    const own = answer?.scenario.id === encounter.id ? answer : null;
    const of = useAsOf(own, { project, encounter, heads });
    const [{ tier, skill, turned }] = useView(project);
    const cell: Scenario = {
      kind: 'encounter',
      id: encounter.id,
      ...(tier && { tier }),
      ...(skill && { skill }),
      ...(turned && { turned }),
    };
    return (
      <aside aria-label="Readout" aria-busy={pending} className="scroll flex min-h-0 flex-col border-l bg-sheet px-4 pb-3 pt-[10px]">
        <div className="section-head">
          <h3>Readout</h3>
          <span className="note truncate">
            {encounter.name}
            {own ? `, ${own.now.summary.runs} runs, seeds ${own.now.summary.firstSeed} on` : ''}
          </span>
          <span className="flex-1" />
          {own && <RunsState pending={pending} enough={own.enough} runs={own.now.summary.runs} />}
        </div>
        {lastChange && own?.before && (
          <p className="mt-1 shrink-0 truncate border-y border-hair py-1 text-table" title={lastChange}>
            {lastChange}
          </p>
        )}
        {failure && (
          <p role="alert" className="mt-3 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1.5 text-table">
            This encounter can’t be run: {failure}.
          </p>
        )}
        {!own && !failure && <p className="mt-6 text-ink-3">Running the first fights …</p>}
        {own && <Results answer={own} {...of} />}
        {own && (
          <Suspense>
            <BatchPart project={project.id} cell={cell} measures={BATCH_MEASURES} clock={encounter.clock} />
          </Suspense>
        )}
      </aside>
    );
  },
);

interface ResultsProps {
  answer: EncounterAnswer;
  project: Project;
  encounter: Encounter;
  heads: ReadonlyMap<string, UnitHead>;
}

const Results = memo(function Results({ answer, project, encounter, heads }: ResultsProps) {
  const { now } = answer;
  // Seconds and rounds are not compared.
  const alike = answer.before?.summary.clock === now.summary.clock;
  const before = alike ? answer.before : undefined;
  const changes = alike ? answer.changes : {};
  const tooFew = !answer.enough;
  const theme = useTheme();
  const { clock, cleared, outcomes, runs, digest, kinds, fairness } = now.summary;
  const enemies = kinds
    .filter(({ partyDamageShare }) => partyDamageShare.value > 0.004)
    .sort((a, b) => b.partyDamageShare.value - a.partyDamageShare.value);
  return (
    <>
      <section className="mt-[7px]" aria-label="Win share" data-measure="Win share">
        <div className="flex items-baseline gap-1.5 text-table">
          <b>Win share</b>
          <span className="flex-1 text-right">
            <b data-median={cleared.value}>{fixed(100 * cleared.value, 0)} %</b>
            {before && `; before ${fixed(100 * before.summary.cleared.value, 0)} %`}
          </span>
        </div>
        <svg
          width={WIDTH}
          height={16}
          role="img"
          aria-label={`won in ${fixed(100 * cleared.low, 0)} to ${fixed(100 * cleared.high, 0)} % of runs`}
        >
          <path d={`M0 8.5 H${WIDTH}`} className="axis" />
          <path d={`M${WIDTH * cleared.low} 8 H${WIDTH * cleared.high}`} stroke="var(--ink)" strokeWidth={4} />
          {before && <circle cx={WIDTH * before.summary.cleared.value} cy={8} r={3} fill="var(--ghost)" />}
          <circle cx={WIDTH * cleared.value} cy={8} r={4} fill="var(--ink)" />
        </svg>
        <p className="text-label text-ink-3">
          interval {fixed(100 * cleared.low, 0)}–{fixed(100 * cleared.high, 0)} %; down in {outcomes.partyDown} of {runs}
          {outcomes.timeOut > 0 && `, out of ${clock === 'rounds' ? 'rounds' : 'time'} in ${outcomes.timeOut}`}
        </p>
      </section>
      <Measure
        name="Length"
        measured={{ summary: now.summary.encounter.length, before: before?.summary.encounter.length, change: changes.length, tooFew }}
        values={now.values.length}
        valuesBefore={before?.values.length}
        unit={unitIn(clock, 's')}
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
      <Measure
        name="Longest without a lull"
        measured={{
          summary: now.summary.encounter.longestWithoutLull,
          before: before?.summary.encounter.longestWithoutLull,
          change: changes.longestWithoutLull,
          tooFew,
        }}
        values={now.values.longestWithoutLull}
        valuesBefore={before?.values.longestWithoutLull}
        unit={unitIn(clock, 's')}
        theme={theme}
      />
      {clock === 'continuous' && <Engaged answer={answer} />}
      <Score answer={answer} heads={heads} />
      <section className="mt-1.5 border-t border-hair pt-[5px]" aria-label="Who hurts the party">
        <div className="section-head">
          <h3>Who hurts the party</h3>
          <span className="note">share of damage</span>
        </div>
        <div className="mt-1 flex h-3 w-full">
          {enemies.map(({ id, name, partyDamageShare }) => (
            <span
              key={id}
              title={`${name} ${fixed(100 * partyDamageShare.value, 0)} %`}
              style={{ flexGrow: partyDamageShare.value, background: `var(--e-${heads.get(id)?.colour ?? 'ink'})` }}
              className="mr-px"
            />
          ))}
        </div>
        <p className="mt-1 text-label text-ink-2">
          {enemies
            .map(({ id, name, partyDamageShare }) => `${heads.get(id)?.name ?? name} ${fixed(100 * partyDamageShare.value, 0)}`)
            .join(', ') || 'Nobody does.'}
          {fairness.hits > 0 && `; no answer available for ${fixed(100 * fairness.unanswerableShare.value, 0)} % of it`}
        </p>
      </section>
      <Found answer={answer} project={project} />
      <Waves answer={answer} />
      <Seeds answer={answer} project={project} encounter={encounter} />
      <p className="mt-1 text-label text-ink-3">
        digest <span data-testid="digest">{digest}</span>
      </p>
    </>
  );
});

function Engaged({ answer: { now } }: { answer: EncounterAnswer }) {
  const { engaged, times, until, summary } = now;
  const most = Math.max(1, ...engaged.map((value) => value ?? 0));
  const x = linear(0, until, 14, WIDTH - 2);
  const y = linear(0, Math.ceil(most), 40, 6);
  const points: string[] = [];
  for (let i = 0; i < times.length && times[i] <= until; i++)
    if (engaged[i] !== undefined) points.push(`${x(times[i]).toFixed(1)} ${y(engaged[i] ?? 0).toFixed(1)}`);
  return (
    <section className="mt-1.5 border-t border-hair pt-[5px]" aria-label="Engaged at once">
      <div className="section-head">
        <h3>Engaged at once</h3>
        <span className="flex-1" />
        <span className="text-table">
          mean <b>{fixed(summary.encounter.engagedMean?.median ?? 0, 1)}</b>, peak{' '}
          <b>{fixed(summary.encounter.engagedPeak?.median ?? 0, 0)}</b>
        </span>
      </div>
      <svg width={WIDTH} height={56} role="img" aria-label="enemies in an attack against the party, mean over time">
        {points.length > 1 && (
          <path
            d={`M${x(0)} 40 L${points.join(' L')} L${points[points.length - 1].split(' ')[0]} 40Z`}
            fill="var(--dist)"
            stroke="var(--ink-2)"
          />
        )}
        <path d={`M${x(0)} 40.5 H${WIDTH - 2}`} className="axis" />
        {clockTicks(until, 4).map((tick) => (
          <text key={tick} x={x(tick)} y={53} textAnchor={x(tick) > WIDTH - 16 ? 'end' : 'middle'} className="t3">
            {clockTime(tick)}
          </text>
        ))}
        <text x={10} y={10} textAnchor="end" className="t3">
          {Math.ceil(most)}
        </text>
      </svg>
    </section>
  );
}

/** Members told one by one before those of a kind are told together. */
const ONE_BY_ONE = 4;

function byWhom(members: EncounterAnswer['now']['summary']['members']): [unit: string, mean: number][] {
  const each = members.map(({ unit, score }): [string, number] => [unit, score?.mean ?? 0]);
  if (each.length <= ONE_BY_ONE) return each;
  const sums = new Map<string, number>();
  for (const [unit, mean] of each) sums.set(unit, (sums.get(unit) ?? 0) + mean);
  return [...sums];
}

/** What the fight is worth, and to whom; nothing where nobody is worth anything. */
function Score({ answer: { now, before }, heads }: { answer: EncounterAnswer } & Pick<ResultsProps, 'heads'>) {
  const { score } = now.summary.encounter;
  if (!score || (score.min === 0 && score.max === 0)) return null;
  const was = before?.summary.encounter.score?.mean;
  const members = byWhom(now.summary.members).map(([unit, mean]) => `${heads.get(unit)?.name ?? unit} ${fixed(mean, 1)}`);
  return (
    <section className="mt-1.5 border-t border-hair pt-[5px]" aria-label="Score" data-measure="Score">
      <div className="flex items-baseline gap-1.5 text-table">
        <b>Score</b>
        <span className="flex-1 text-right">
          {was !== undefined && `before ${fixed(was, 1)}; `}mean <b data-mean={score.mean}>{fixed(score.mean ?? 0, 1)}</b>, in most runs{' '}
          {fixed(score.p10, 0)}–{fixed(score.p90, 0)}
        </span>
      </div>
      <p className="text-label text-ink-3">{members.join(', ')} by kills</p>
    </section>
  );
}

function Waves({ answer: { now } }: { answer: EncounterAnswer }) {
  const scored = now.summary.waves.some(({ score }) => (score?.max ?? 0) > 0);
  const { clock } = now.summary;
  const rounds = clock === 'rounds';
  const time = (value: number | undefined) => (rounds ? roundsOf(value) : timeOf(value));
  const span = (value: number) => withUnit(clock, fixed(value, rounds ? 0 : 1), 's');
  return (
    <section className="mt-1.5 border-t border-hair pt-[5px]" aria-label="Waves in numbers">
      <table className="w-full text-right text-table">
        <thead>
          <tr className="text-label text-ink-3">
            <th className="text-left font-normal">wave</th>
            <th className="font-normal">starts</th>
            <th className="font-normal">span</th>
            <th className="font-normal">rest after</th>
            <th
              className="font-normal"
              title={`highest pressure while it stood, % of the party’s full health a ${rounds ? 'round' : 'second'}: the median of each run’s peak`}
            >
              peak
            </th>
            <th className="font-normal" title="all that the party lost while it stood, as a share of its full health">
              dose
            </th>
            {scored && <th className="font-normal">score</th>}
          </tr>
        </thead>
        <tbody>
          {now.summary.waves.map((wave) => (
            <tr key={wave.id} className="border-t border-hair" title={`came in ${wave.came} of ${now.summary.runs} runs`}>
              <td className="max-w-[80px] truncate text-left">{wave.name}</td>
              <td>{time(wave.started?.median)}</td>
              <td>{time(wave.span?.median)}</td>
              <td>
                {(wave.overlap?.median ?? 0) > 0 ? `overlap ${span(wave.overlap!.median)}` : wave.rest ? span(wave.rest.median) : '—'}
              </td>
              <td>{wave.peakShare ? fixed(100 * wave.peakShare.median, 1) : '—'}</td>
              <td>{wave.dose ? fixed(wave.dose.median, 2) : '—'}</td>
              {scored && <td>{wave.score ? fixed(wave.score.median, 0) : '—'}</td>}
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="text-label text-ink-2" aria-label="What started the waves, and who waited">
        {now.waves.flatMap((wave) => {
          const words = howItCame(wave, clock);
          return words ? [<li key={wave.id}>{`${wave.name}: ${words}.`}</li>] : [];
        })}
      </ul>
    </section>
  );
}

const percent = (share: number) => `${fixed(100 * share, share < 0.01 ? 1 : 0)} %`;

/** What is worth saying of how a wave came: by its timeout or an event, not at all, or held up by the cap. */
function howItCame({ triggers, waited, waitedFor }: EncounterReadout['waves'][number], clock: Clock): string {
  const parts = [
    triggers.timeout > 0 && `started by its timeout in ${percent(triggers.timeout)} of runs`,
    triggers.event > 0 && `called by an event in ${percent(triggers.event)} of runs`,
    triggers.none > 0 && `did not come in ${percent(triggers.none)} of runs`,
    waited > 0 && `${fixed(waited, 1)} units a run wait ${withUnit(clock, fixed(waitedFor, 1), 's')} each for room under the cap`,
  ];
  return parts.filter(Boolean).join('; ');
}

/** Of a time or of a span, in rounds. */
const roundsOf = (value: number | undefined) => (value === undefined ? '—' : Number.isFinite(value) ? fixed(value, 0) : 'lives on');

const timeOf = (seconds: number | undefined) => (seconds === undefined ? '—' : Number.isFinite(seconds) ? clockTime(seconds) : 'lives on');

/** What only fighting shows: each with what to do, and the way to where it lies. */
function Found({ answer: { now, before }, project }: { answer: EncounterAnswer; project: Project }) {
  const { search } = useLocation();
  const lastChange = useAppSelector((state) => state.document.lastChange);
  // What was not so before is so since the last change.
  const since = (rule: string) =>
    lastChange && before && !before.warnings.some((one) => one.rule === rule) ? `, since “${lastChange}”` : '';
  if (!now.warnings.length) return null;
  const to = (path: string) => {
    const [, collection, id, part, partId] = path.split('/');
    if (collection !== 'units') return undefined;
    const side = unitHeads(project).find((head) => head.id === id)?.side === 'party' ? 'party' : 'enemies';
    return { pathname: `/projects/${project.id}/${side}/${id}${part === 'attacks' && partId ? `/attacks/${partId}` : ''}`, search };
  };
  return (
    <section className="mt-1.5 border-t border-hair pt-[5px]" aria-label="Found by fighting">
      <div className="section-head">
        <h3>Found by fighting</h3>
      </div>
      <ul className="text-table">
        {now.warnings.map(({ rule, path, message, mend, severity }) => {
          const place = to(path);
          return (
            <li key={`${rule} ${path}`} className="flex gap-1.5 py-0.5" title={`${mend.charAt(0).toUpperCase()}${mend.slice(1)}.`}>
              <span className="pt-[3px]">
                <WarnMark label={severity} quiet={severity === 'notice'} />
              </span>
              <span>
                {place ? (
                  <Link className="hover:underline" to={place}>
                    {message}
                  </Link>
                ) : (
                  message
                )}
                {rule === 'nobodyHurt' && since(rule)}.
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** The runs behind the numbers. */
function Seeds({ answer: { now }, project, encounter }: { answer: EncounterAnswer; project: Project; encounter: Encounter }) {
  const { search } = useLocation();
  const to = (seed: number) => {
    const query = new URLSearchParams(search);
    query.set('seed', String(seed));
    query.delete('at');
    query.delete('unit');
    return { pathname: `/projects/${project.id}/replay/${encounter.id}`, search: query.toString() };
  };
  return (
    <div className="mt-2 flex flex-wrap gap-1.5 border-t border-hair pt-2">
      <Link className="btn btn-primary" to={to(now.seeds.median)}>
        Open the median run
      </Link>
      <Link className="btn" to={to(now.seeds.worst)}>
        The worst
      </Link>
      {now.seeds.firstLost !== undefined && (
        <Link className="btn" to={to(now.seeds.firstLost)}>
          The first lost
        </Link>
      )}
    </div>
  );
}
