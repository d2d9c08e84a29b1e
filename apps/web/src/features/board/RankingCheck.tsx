import {
  type BandMeasure,
  type BoardLens,
  columnOf,
  type Clock,
  commonClock,
  goalIn,
  isTold,
  lessIsHarder,
  RANKING_MEASURES,
  rankValues,
  type RankBy,
  cellAt,
  type Project,
  type Rank,
  type Step,
  scenarioKey,
  ranked,
  tierSteps,
  shown,
  linear,
  roundUp,
} from '@insidia/core';
import { useState } from 'react';
import type { CellRead } from '../../server/api';
import { Choose } from '../../fields/Choose';
import { Mini } from '../../fields/Mini';
import { NumberField } from '../../fields/NumberField';
import { Popover } from '../../fields/Popover';
import { WarnMark } from '../../visuals/WarnMark';
import { guarded } from '../../parts/guarded';

const HEIGHT = 84;

/** The declared order of the tiers above, what they measure by below; lines that cross are tiers out of order. */
export const RankingCheck = guarded(
  'The ranking check',
  function RankingCheck({
    project,
    lens,
    read,
    width,
    by,
    onBy,
  }: {
    project: Project;
    lens: BoardLens;
    read: ReadonlyMap<string, CellRead>;
    width: number;
    by: readonly RankBy[];
    onBy: (by: readonly RankBy[]) => void;
  }) {
    const [shared, setShared] = useState(false);
    const { tiers } = project;
    const found = project.encounters.map(({ id, name }) => {
      const own = tiers.map((tier) => {
        const cell = cellAt({ subject: 'encounter', id }, { key: tier.id, name: tier.name, at: { tier: tier.id } }, lens);
        const kept = read.get(scenarioKey(cell))?.values;
        return { id: tier.id, values: (measure: BandMeasure) => kept?.[columnOf(measure, 'encounter')] ?? [] };
      });
      const known = rankValues(own, by).filter(({ values }) => values.length > 0);
      return { id, name, ranks: ranked(known), steps: tierSteps(known, lessIsHarder(by)) };
    });
    const measured = found.filter(({ ranks }) => ranks.length > 1);
    if (tiers.length < 2 || !measured.length) return null;
    const most = (ranks: readonly Rank[]) =>
      roundUp(Math.max(...ranks.map(({ interval, value }) => Math.min(interval.high, 2 * value + 0.01))));
    const all = Math.max(...measured.map(({ ranks }) => most(ranks)));
    const each = (width - 24) / Math.max(5, measured.length);
    const wrong = measured.flatMap(({ name, steps, ranks }) =>
      steps
        .filter(({ says }) => says !== 'harder')
        .map((step) => ({ name, step, value: (id: string) => ranks.find((rank) => rank.id === id)?.value ?? NaN })),
    );
    const clock = commonClock(project.encounters.map((one) => one.clock));
    const called = by.length > 1 ? 'weighted sum' : goalIn(by[0].measure, clock).label;
    const number = (id: string) => tiers.findIndex((tier) => tier.id === id) + 1;
    const nameOf = (id: string) => tiers.find((tier) => tier.id === id)?.name ?? id;
    return (
      <section className="border-t px-4 py-1.5" aria-label="Ranking check">
        <div className="section-head">
          <h3>Ranking check</h3>
          <span className="note min-w-0 flex-1 truncate">declared order of the tiers above, {called} below, with its interval</span>
          <RankedBy by={by} onBy={onBy} called={called} clock={clock} />
          <span className="text-label text-ink-3">axis</span>
          <span role="radiogroup" aria-label="Axis">
            {[false, true].map((one) => (
              <button
                key={String(one)}
                type="button"
                role="radio"
                aria-checked={shared === one}
                className="switch"
                onClick={() => setShared(one)}
              >
                {one ? `shared, 0–${shown(all, 1)}` : 'each its own'}
              </button>
            ))}
          </span>
        </div>
        <div className="flex">
          {measured.map((one) => (
            <Ladder
              key={one.id}
              {...one}
              width={each}
              to={shared ? all : most(one.ranks)}
              number={number}
              called={called}
              less={lessIsHarder(by)}
              tiers={tiers.map(({ id }) => id)}
            />
          ))}
        </div>
        <ul className="text-table" aria-label="Tiers out of order">
          {wrong.map(({ name, step: { below, id, says }, value }) => (
            <li key={`${name} ${id}`} className="flex items-center gap-1.5 leading-[18px]">
              <WarnMark label={says === 'easier' ? 'problem' : 'notice'} quiet={says !== 'easier'} />
              <b>{name}:</b>
              <span className="tier">{number(id)}</span> {nameOf(id)} is {says === 'easier' ? 'no harder' : 'not measurably harder'} than{' '}
              <span className="tier">{number(below)}</span> {nameOf(below)}: {called} {shown(value(id), 2)} against {shown(value(below), 2)}
            </li>
          ))}
        </ul>
      </section>
    );
  },
);

const WEIGHT = { label: 'Weight', unit: '', min: 0.01, max: 1000, about: 'of its share of the lowest tier’s value' };

/** What tiers are ranked by: one measure, or several with weights. */
function RankedBy({
  by,
  onBy,
  called,
  clock,
}: {
  by: readonly RankBy[];
  onBy: (by: readonly RankBy[]) => void;
  called: string;
  clock: Clock;
}) {
  const offered = RANKING_MEASURES.filter((id) => isTold(id, clock) || by.some(({ measure }) => measure === id));
  const options = offered.map((id) => ({ id, name: goalIn(id, clock).label }));
  const free = offered.find((measure) => !by.some((one) => one.measure === measure));
  const change = (i: number, more: Partial<RankBy>) => onBy(by.map((one, j) => (j === i ? { ...one, ...more } : one)));
  return (
    <Popover
      label="Ranked by"
      width={330}
      align="end"
      trigger={
        <button type="button" className="link" aria-label={`Ranked by ${called}`}>
          by {called}
        </button>
      }
    >
      <div className="flex flex-col gap-1.5">
        {by.map(({ measure, weight }, i) => (
          <div key={measure} className="flex items-end gap-1.5">
            <div className="w-[190px]">
              <Choose
                label={`Measure ${i + 1}`}
                value={measure}
                options={options.filter(({ id }) => id === measure || !by.some((one) => one.measure === id))}
                onChoose={(id) => change(i, { measure: id as BandMeasure })}
              />
            </div>
            {by.length > 1 && (
              <>
                <NumberField compact info={WEIGHT} base={weight} width={70} onCommit={(next) => change(i, { weight: next })} />
                <Mini sign="remove" label={`Without measure ${i + 1}`} onClick={() => onBy(by.filter((_, j) => j !== i))} />
              </>
            )}
          </div>
        ))}
        {free && (
          <button type="button" className="link self-start" onClick={() => onBy([...by, { measure: free, weight: 1 }])}>
            and another …
          </button>
        )}
        {by.length > 1 && (
          <p className="text-label text-ink-3">
            Each as a share of the lowest tier’s mean, weighed and summed; where less is harder (wins, time-to-down, health left), two less
            that share.
          </p>
        )}
      </div>
    </Popover>
  );
}

interface LadderProps {
  name: string;
  ranks: readonly Rank[];
  steps: readonly Step[];
  width: number;
  to: number;
  number: (id: string) => number;
  called: string;
  less: boolean;
  tiers: readonly string[];
}

function Ladder({ name, ranks, steps, width, to, number, called, less, tiers }: LadderProps) {
  const declared = linear(0, Math.max(1, tiers.length - 1), 14, width - 34);
  // Harder is to the right, whichever way its numbers run.
  const x = less ? linear(to, 0, 4, width - 24) : linear(0, to, 4, width - 24);
  const out = new Set(steps.filter(({ says }) => says === 'easier').flatMap(({ id, below }) => [id, below]));
  const words = ranks.map(({ id, value }) => `tier ${number(id)} ${shown(value, 2)}`).join(', ');
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={`${name}, ${called}: ${words}`}>
      <text x={0} y={12} className={`t12 ${out.size ? 'tb' : ''}`} fill={out.size ? 'var(--warn)' : undefined}>
        {name}
      </text>
      <path d={`M4 66.5 H${width - 24}`} className="axis" />
      {ranks.map(({ id, value, interval }) => {
        const place = tiers.indexOf(id);
        const at = declared(place);
        const wrong = out.has(id);
        const colour = wrong ? 'var(--warn)' : 'var(--ink-2)';
        return (
          <g key={id}>
            <path d={`M${at} 36 L${x(value)} 62`} stroke={colour} strokeWidth={wrong ? 2 : 1} />
            <path d={`M${x(Math.max(0, interval.low))} 66 H${x(Math.min(to, interval.high))}`} stroke={colour} strokeWidth={4} />
            <circle cx={x(value)} cy={66} r={3.6} fill={colour} />
            <rect x={at - 7} y={21} width={14} height={14} fill="var(--sheet)" stroke={colour} />
            <text x={at} y={32} textAnchor="middle" className="tb">
              {number(id)}
            </text>
          </g>
        );
      })}
      <text x={4} y={81} className="t3">
        {less ? shown(to, 2) : 0}
      </text>
      <text x={width - 24} y={81} textAnchor="end" className="t3">
        {less ? 0 : shown(to, 2)}
      </text>
    </svg>
  );
}
