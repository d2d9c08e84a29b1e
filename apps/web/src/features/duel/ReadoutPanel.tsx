import { type DuelOptions, IDLE_REASONS, type Readout, type Unit } from '@insidia/core';
import { type ReactNode, memo } from 'react';
import { fixed } from '../../fields/number';
import { NumberField } from '../../fields/NumberField';
import type { View } from '../../app/view';
import { useTheme } from '../../app/theme';
import { Choose } from '../../fields/Choose';
import { useAppSelector } from '../../store/store';
import { ApproachChart } from '../../visuals/ApproachChart';
import { Distribution } from '../../visuals/Distribution';
import { PaperGap } from './PaperGap';
import { TimeUseBar } from './TimeUseBar';
import { type Measured, changeSentence, survivalSentence, wordForUse } from './words';

const WIDTH = 308;

interface Props {
  enemy: Unit;
  party: Unit;
  duel: DuelOptions;
  onView: (change: Partial<Record<keyof View, string | number | undefined>>) => void;
  /** Who can stand on the other side. */
  others: Unit[];
}

/** The duel as it is now against the duel before the last change. */
export function ReadoutPanel({ enemy, party, duel, onView, others }: Props) {
  const { answer, failure, pending } = useAppSelector((state) => state.readout);
  const lastChange = useAppSelector((state) => state.document.lastChange);
  const other = others.some(({ id }) => id === party.id) ? party : enemy;
  return (
    <aside aria-label="Readout" aria-busy={pending} className="scroll flex min-h-0 flex-col border-l bg-sheet px-4 pb-3 pt-[10px]">
      <div className="section-head">
        <h3>Readout</h3>
        <span className="note truncate">
          {duel.copies === 1 ? 'duel with' : `${duel.copies} against`} the {party.name}
          {answer ? `, ${answer.now.summary.runs} ${answer.before ? 'paired ' : ''}runs` : ''}
        </span>
        <span className="flex-1" />
        <span className="text-label text-ink-3" aria-live="off">
          {pending ? '…' : answer ? `${(answer.took / 1000).toFixed(2)} s` : ''}
        </span>
      </div>
      <div className="mt-1 flex items-end gap-2">
        <Choose
          label="Against"
          value={other.id}
          options={others.map(({ id, name }) => ({ id, name }))}
          onChoose={(id) => onView({ against: id })}
        />
        <NumberField
          compact
          info={{ label: 'Copies', unit: '', min: 1, max: 12, whole: true, about: 'enemies in the duel' }}
          base={duel.copies}
          width={52}
          onCommit={(copies) => onView({ copies: copies === 1 ? undefined : copies })}
        />
        <NumberField
          compact
          info={{ label: 'From', unit: 'm', min: 0, max: 200, about: 'distance between the edges of the bodies at the start' }}
          base={duel.distance}
          width={66}
          onCommit={(distance) => onView({ distance })}
        />
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
      {answer && <Results now={answer.now} before={answer.before} changes={answer.changes} enemy={enemy} party={party} />}
    </aside>
  );
}

type ResultsProps = Pick<Props, 'enemy' | 'party'> & {
  now: Readout;
  before?: Readout;
  changes: Record<string, Measured['change']>;
};

/** Repaints when there is a new answer, not while one is awaited. */
const Results = memo(function Results({ now, before, changes, enemy, party }: ResultsProps) {
  const kind = now.summary.kinds[now.enemyKind];
  const kindBefore = before?.summary.kinds[before.enemyKind];
  const theme = useTheme();
  const radii = enemy.body.radius + party.body.radius;
  const { cleared, outcomes, runs, firstSeed, digest } = now.summary;
  const idle = kind.timeUse && IDLE_REASONS.reduce((sum, reason) => sum + (kind.timeUse?.[reason].value ?? 0), 0);
  const worst = kind.timeUse && [...IDLE_REASONS].sort((a, b) => (kind.timeUse?.[b].value ?? 0) - (kind.timeUse?.[a].value ?? 0))[0];
  const ttd = now.summary.members[0].timeToDown;
  return (
    <>
      <Measure
        name="Time-to-kill"
        measured={{ summary: kind.timeToKill, before: kindBefore?.timeToKill, change: changes.timeToKill }}
        values={now.values.timeToKill}
        valuesBefore={before?.values.timeToKill}
        unit="s"
        places={1}
        survives={`${enemy.name} survives`}
        none={`${enemy.name} was never hurt`}
        theme={theme}
      />
      <Measure
        name="Time-to-down"
        measured={{ summary: ttd, before: before?.summary.members[0].timeToDown, change: changes.timeToDown }}
        values={now.values.timeToDown}
        valuesBefore={before?.values.timeToDown}
        unit="s"
        places={1}
        survives={`${party.name} stands`}
        none=""
        theme={theme}
      />
      <Measure
        name="Peak pressure"
        measured={{
          summary: percent(now.summary.encounter.peakPressureShare),
          before: percent(before?.summary.encounter.peakPressureShare),
          change: scaled(changes.peakPressure),
        }}
        values={now.values.peakPressure.map((value) => value * 100)}
        valuesBefore={before?.values.peakPressure.map((value) => value * 100)}
        unit="%/s"
        places={1}
        survives=""
        none=""
        theme={theme}
      />
      <Part title="Approach" note={`the median duel, seed ${now.approach.seed}`}>
        <ApproachChart approach={now.approach} unit={enemy} radii={radii} width={WIDTH} />
      </Part>
      <Part
        title="Idle reasons"
        note={idle === undefined ? `${enemy.name} never noticed anybody` : `${Math.round(100 * idle)} % of alerted time not attacking`}
      >
        {kind.timeUse && <TimeUseBar timeUse={kind.timeUse} unit={enemy} width={WIDTH} />}
      </Part>
      <Part title="Paper and simulated" right={<span className="text-label text-ink-3">paper&emsp;&emsp;runs</span>}>
        <PaperGap
          width={WIDTH}
          colour={`var(--e-${enemy.colour})`}
          rows={[
            { label: 'Damage a second', unit: '', paper: now.paper.enemy?.damagePerSecond, simulated: kind.damagePerAlertedSecond },
            { label: 'Time-to-kill', unit: 's', paper: now.paper.party?.timeToKill, simulated: kind.timeToKill?.median },
            { label: 'Time-to-down', unit: 's', paper: now.paper.enemy?.timeToKill, simulated: ttd?.median },
          ]}
        />
        {worst && (idle ?? 0) > 0 && (
          <p className="mt-0.5 text-table text-ink-2">Most of the time it does not attack goes to: {wordForUse(worst)}.</p>
        )}
      </Part>
      <p className="mt-2 border-t border-hair pt-1.5 text-label text-ink-3">
        {party.name} wins {fixed(100 * cleared.value, 0)} % ({fixed(100 * cleared.low, 0)}–{fixed(100 * cleared.high, 0)}), is down in{' '}
        {outcomes.partyDown} of {runs}
        {outcomes.timeOut > 0 && `, out of time in ${outcomes.timeOut}`}. Seeds {firstSeed}–{firstSeed + runs - 1}, digest{' '}
        <span data-testid="digest">{digest}</span>.
      </p>
    </>
  );
});

const percent = (summary: Measured['summary']): Measured['summary'] =>
  summary && { ...summary, median: summary.median * 100, interval: { low: summary.interval.low * 100, high: summary.interval.high * 100 } };
const scaled = (change: Measured['change']): Measured['change'] =>
  change && { ...change, difference: change.difference * 100, low: change.low * 100, high: change.high * 100 };

interface MeasureProps {
  name: string;
  measured: Measured;
  values: number[];
  valuesBefore?: number[];
  unit: string;
  places: number;
  survives: string;
  none: string;
  theme: string;
}

/** One sentence first, then the picture. */
function Measure({ name, measured, values, valuesBefore, unit, places, survives, none, theme }: MeasureProps) {
  const { summary, before } = measured;
  const open = summary && summary.infinite > 0;
  const anyFinite = values.some(Number.isFinite);
  return (
    <section className="mt-[7px]" aria-label={name} data-measure={name}>
      <div className="flex h-4 items-baseline gap-1.5 text-table">
        <b className="whitespace-nowrap">{name}</b>
        <span className="min-w-0 flex-1 truncate text-right">
          {!summary ? (
            <span className="text-ink-3">{none}</span>
          ) : Number.isFinite(summary.median) ? (
            <>
              <b data-median={summary.median}>
                {fixed(summary.median, places)} {unit}
              </b>
              {open && <span className="text-ink-2">; {survivalSentence(summary, survives)}</span>}
            </>
          ) : (
            <span data-median="Infinity">
              <b>never</b>
              <span className="text-ink-2">; {survivalSentence(summary, survives)}</span>
            </span>
          )}
        </span>
      </div>
      <div className="truncate text-label text-ink-3">{changeSentence(measured, places)}</div>
      {summary && anyFinite && (
        <Distribution
          label={name}
          unit={unit}
          now={values}
          before={valuesBefore}
          median={summary.median}
          interval={summary.interval}
          medianBefore={before?.median}
          width={WIDTH}
          theme={theme}
        />
      )}
    </section>
  );
}

function Part({ title, note, right, children }: { title: string; note?: string; right?: ReactNode; children: ReactNode }) {
  return (
    <section className="mt-1.5 border-t border-hair pt-[5px]" aria-label={title}>
      <div className="section-head">
        <h3>{title}</h3>
        {note && <span className="note truncate">{note}</span>}
        <span className="flex-1" />
        {right}
      </div>
      <div className="mt-1">{children}</div>
    </section>
  );
}
