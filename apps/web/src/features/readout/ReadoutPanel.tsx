import {
  type BandMeasure,
  type DuelOptions,
  duelScenario,
  type Project,
  type Unit,
  type UnitHead,
  unitHeads,
  CLOCKS,
  type Clock,
  type QuantityInfo,
  clockOfDuel,
  duelHasGround,
  usualDistance,
} from '@insidia/core';
import { Suspense, useState } from 'react';
import { NumberField } from '../../fields/NumberField';
import { type View, WHOLE_PARTY, useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { useAppSelector } from '../../store/store';
import { Placement } from './Placement';
import { guarded } from '../../parts/guarded';
import { useAsOf } from '../../parts/asOf';
import { later, laterWithin } from '../../parts/later';
import { RunsState } from './RunsState';

const BatchPart = later(async () => (await import('./BatchPart')).BatchPart);
const fetchResults = () => import('./DuelResults');
const Results = laterWithin(async () => (await fetchResults()).DuelResults);
// While the first duels run; where that fails it is fetched again, and said, once there is something to show.
fetchResults().catch(() => undefined);

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
    const { answer: newest, failure, pending } = useAppSelector((state) => state.readout.duel);
    // What was there before this view was may be of another enemy: names and figures would not belong together.
    const [found] = useState(newest);
    const answer = newest === found && newest?.scenario.id !== enemy.id ? null : newest;
    const of = useAsOf(answer, { project, enemy, party, whole, duel });
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
        {answer && <Results answer={answer} {...of} />}
        {answer && (
          <Suspense>
            <BatchPart project={project.id} cell={duelScenario(project, view, duel)} measures={BATCH_MEASURES} clock={clock} />
          </Suspense>
        )}
      </aside>
    );
  },
);

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
