import {
  type BoardLens,
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
import { WarnMark } from '../../visuals/WarnMark';
import { guarded } from '../../parts/guarded';

const HEIGHT = 84;

/** The declared order of the tiers above, their measured pressure dose below; lines that cross are tiers out of order. */
export const RankingCheck = guarded(
  'The ranking check',
  function RankingCheck({
    project,
    lens,
    read,
    width,
  }: {
    project: Project;
    lens: BoardLens;
    read: ReadonlyMap<string, CellRead>;
    width: number;
  }) {
    const [shared, setShared] = useState(false);
    const { tiers } = project;
    const found = project.encounters.map(({ id, name }) => {
      const own = tiers.map((tier) => {
        const cell = cellAt({ subject: 'encounter', id }, { key: tier.id, name: tier.name, at: { tier: tier.id } }, lens);
        return { id: tier.id, values: read.get(scenarioKey(cell))?.values.dose ?? [] };
      });
      const known = own.filter(({ values }) => values.length > 0);
      return { id, name, ranks: ranked(known), steps: tierSteps(known) };
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
    const number = (id: string) => tiers.findIndex((tier) => tier.id === id) + 1;
    const nameOf = (id: string) => tiers.find((tier) => tier.id === id)?.name ?? id;
    return (
      <section className="border-t px-4 py-1.5" aria-label="Ranking check">
        <div className="section-head">
          <h3>Ranking check</h3>
          <span className="note min-w-0 flex-1 truncate">
            declared order of the tiers above, measured pressure dose below, with its interval
          </span>
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
              <span className="tier">{number(below)}</span> {nameOf(below)}: dose {shown(value(id), 2)} against {shown(value(below), 2)}
            </li>
          ))}
        </ul>
      </section>
    );
  },
);

interface LadderProps {
  name: string;
  ranks: readonly Rank[];
  steps: readonly Step[];
  width: number;
  to: number;
  number: (id: string) => number;
  tiers: readonly string[];
}

function Ladder({ name, ranks, steps, width, to, number, tiers }: LadderProps) {
  const declared = linear(0, Math.max(1, tiers.length - 1), 14, width - 34);
  const x = linear(0, to, 4, width - 24);
  const out = new Set(steps.filter(({ says }) => says === 'easier').flatMap(({ id, below }) => [id, below]));
  const words = ranks.map(({ id, value }) => `tier ${number(id)} ${shown(value, 2)}`).join(', ');
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={`${name}, pressure dose: ${words}`}>
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
        0
      </text>
      <text x={width - 24} y={81} textAnchor="end" className="t3">
        {shown(to, 2)}
      </text>
    </svg>
  );
}
