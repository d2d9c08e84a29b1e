import {
  type Brief,
  type Cell,
  type CurvePoint,
  type Encounter,
  type IntendedCurve,
  type PacedWave,
  type Project,
  cellKey,
  findingsOf,
  idFor,
  intendedFor,
  quantileOf,
  shareInside,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Link, Navigate, useLocation, useParams } from 'react-router';
import { useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { NumberField } from '../../fields/NumberField';
import { type CellRead, api } from '../../store/api';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { useCells } from '../../store/useCells';
import { type CellCurve, useCurves } from '../../store/useCurves';
import { PacingChart } from '../../visuals/PacingChart';
import { WarnMark } from '../../visuals/WarnMark';
import { roundUp } from '../../visuals/scale';
import { useWidth } from '../../visuals/useWidth';

const RUNS = 200;

/** Pressure over the clock at every tier, against what it is meant to be. */
export function PacingPage() {
  const project = useAppSelector((state) => state.document.document);
  const { encounter: id } = useParams();
  const { search } = useLocation();
  if (!project) return null;
  const encounter = project.encounters.find((one) => one.id === id);
  if (encounter) return <Pacing key={encounter.id} project={project} encounter={encounter} />;
  if (id === undefined && project.encounters.length)
    return <Navigate to={{ pathname: `/projects/${project.id}/pacing/${project.encounters[0].id}`, search }} replace />;
  return (
    <main className="mx-auto mt-20 w-[440px]">
      <h1 className="text-page">{id === undefined ? 'No encounter yet' : `There is no ${id} here`}</h1>
      <p className="mt-2 text-ink-2">Pacing shows the pressure of an encounter over its clock, tier by tier. Make an encounter first.</p>
      <Link className="btn btn-primary mt-4" to={{ pathname: `/projects/${project.id}/encounters`, search }}>
        To the encounters
      </Link>
    </main>
  );
}

interface Strip {
  id?: string;
  name: string;
  number?: number;
  cell: Cell;
  key: string;
}

function Pacing({ project, encounter }: { project: Project; encounter: Encounter }) {
  const dispatch = useAppDispatch();
  const { search } = useLocation();
  const [view] = useView(project);
  const saving = useAppSelector((state) => state.document.saving);
  const busy = useAppSelector((state) => state.batches.since !== null);
  const [by, setBy] = useState<'tiers' | 'skills'>('tiers');
  const [selected, setSelected] = useState<string>();
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const strips = useMemo((): Strip[] => {
    const list = by === 'tiers' ? project.tiers : project.skills;
    const all: { id?: string; name: string }[] = list.length ? list : [{ name: 'as written' }];
    return all.map(({ id, name }, i) => {
      const tier = by === 'tiers' ? id : view.tier;
      const skill = by === 'skills' ? id : view.skill;
      const cell: Cell = { kind: 'encounter', id: encounter.id, ...(tier && { tier }), ...(skill && { skill }) };
      return { id, name, cell, key: cellKey(cell), ...(by === 'tiers' && id && { number: i + 1 }) };
    });
  }, [project, encounter.id, by, view.tier, view.skill]);
  const keys = useMemo(() => strips.map(({ key }) => key), [strips]);
  const columns = useMemo(() => encounter.waves.flatMap(({ id }) => [`wave ${id} started`, `wave ${id} rest`]), [encounter.waves]);
  const curves = useCurves(project.id, keys);
  const read = useCells(
    project.id,
    keys.map((cell) => ({ cell, columns })),
  );
  const { until, top } = rulers(encounter, curves, project.brief);
  const lacking = curves ? keys.filter((key) => !curves.get(key)?.runs) : [];
  const own = strips.find(({ id }) => id === selected) ?? strips.find(({ id }) => id === view.tier) ?? strips[0];
  const changeCurves = (name: string, how: (all: IntendedCurve[]) => IntendedCurve[], mark?: string) =>
    dispatch(
      changed({
        document: {
          ...project,
          brief: { ...(project.brief ?? { bands: [] }), bands: project.brief?.bands ?? [], curves: how(project.brief?.curves ?? []) },
        },
        name: `Pacing of ${encounter.name}: ${name}`,
        mark,
      }),
    );
  /** Changes the curve that counts at a tier, or makes one for every tier. */
  const setPoints = (tier: string | undefined, points: CurvePoint[], what: string, mark?: string) =>
    changeCurves(
      what,
      (all) => {
        const now = intendedFor(project.brief, encounter.id, tier);
        if (now)
          return points.length ? all.map((one) => (one.id === now.id ? { ...one, points } : one)) : all.filter(({ id }) => id !== now.id);
        const id = idFor(
          `curve-${encounter.id}`,
          all.map((one) => one.id),
        );
        return points.length ? [...all, { id, encounter: encounter.id, tolerance: 0.01, points }] : all;
      },
      mark,
    );
  const intended = own && intendedFor(project.brief, encounter.id, own.cell.tier);
  const median = own && curves?.get(own.key)?.curve;
  const height = Math.max(96, Math.min(150, 560 / strips.length));
  return (
    <div className="grid min-h-0 grid-cols-[var(--list-w)_minmax(0,1fr)_var(--readout-w)]">
      <nav aria-label="Encounters" className="scroll flex min-h-0 flex-col border-r bg-well">
        <h2 className="px-4 pb-2 pt-3 text-section">Encounters</h2>
        {project.encounters.map(({ id, name }) => (
          <Link
            key={id}
            aria-current={id === encounter.id ? 'page' : undefined}
            to={{ pathname: `/projects/${project.id}/pacing/${id}`, search }}
            className={`truncate border-t border-hair px-4 py-2 ${id === encounter.id ? 'bg-sheet font-semibold shadow-[inset_3px_0_0_var(--ink)]' : ''}`}
          >
            {name}
          </Link>
        ))}
      </nav>
      <main className="scroll flex min-h-0 min-w-0 flex-col" ref={ref}>
        <header className="flex items-center gap-3 px-4 pb-1.5 pt-2.5">
          <h1 className="text-page">{encounter.name}</h1>
          <span className="note min-w-0 flex-1 truncate">
            pressure, % of full health a second: median, half and four fifths of the runs; dashed what is intended
          </span>
          <div className="w-[92px]">
            <Choose
              quiet
              label="Side by side"
              value={by}
              options={[
                { id: 'tiers', name: 'by tier' },
                { id: 'skills', name: 'by skill' },
              ]}
              onChoose={(id) => setBy(id === 'skills' ? 'skills' : 'tiers')}
            />
          </div>
          {lacking.length > 0 && (
            <button
              type="button"
              className="btn btn-primary"
              disabled={saving !== 'saved' || busy}
              onClick={() =>
                void api.runCells(
                  project.id,
                  lacking.map((cell) => ({ cell, runs: RUNS })),
                )
              }
            >
              {busy ? 'Running …' : `Run what lacks (${lacking.length})`}
            </button>
          )}
        </header>
        {strips.map((strip, i) => {
          const found = curves?.get(strip.key);
          const meant = intendedFor(project.brief, encounter.id, strip.cell.tier);
          const inside = found?.curve && meant ? shareInside(found.curve, meant) : undefined;
          return (
            <section
              key={strip.key}
              aria-label={strip.name}
              className={`border-t px-4 pt-1 ${strip === own ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''}`}
              onPointerDown={() => setSelected(strip.id)}
              onFocus={() => setSelected(strip.id)}
            >
              <div className="section-head">
                {strip.number && <span className="tier self-center">{strip.number}</span>}
                <h3>{strip.name}</h3>
                <span className="note">
                  {found?.runs ? `${found.runs} runs` : ''}
                  {inside !== undefined && `; ${Math.round(100 * inside)} % of the time within what is intended`}
                </span>
              </div>
              {found?.curve ? (
                <PacingChart
                  label={`${strip.name}: pressure over the clock`}
                  curve={found.curve}
                  waves={wavesOf(encounter, read?.get(strip.key))}
                  intended={meant}
                  until={until}
                  top={top}
                  width={width - 32}
                  height={height}
                  named={i === 0}
                  onPoints={(points, what, mark) => setPoints(strip.cell.tier, points, what, mark)}
                />
              ) : (
                <p className="py-4 text-ink-3">{curves ? 'Not run yet as it is now.' : 'Reading …'}</p>
              )}
            </section>
          );
        })}
        <p className="px-4 py-2 text-label text-ink-3">
          A double click sets a point of the intended curve; drag it, or focus it and use the arrow keys; Delete takes it away.
        </p>
      </main>
      <aside aria-label="Findings" className="scroll flex min-h-0 flex-col border-l bg-sheet px-4 pb-3 pt-[10px]">
        <div className="section-head">
          <h3>What is intended</h3>
          <span className="note">
            {intended ? (intended.tier ? `at ${nameOf(project, intended.tier)}` : 'at every tier') : 'nothing yet'}
          </span>
        </div>
        <div className="mt-1 flex flex-wrap items-end gap-1.5">
          {intended && (
            <NumberField
              info={{ label: 'Tolerance ±', unit: '%/s', min: 0, max: 1000, about: 'how far the pressure may lie from the curve' }}
              base={Number((100 * intended.tolerance).toPrecision(6))}
              width={92}
              onCommit={(value, mark) =>
                changeCurves(
                  'tolerance',
                  (all) => all.map((one) => (one.id === intended.id ? { ...one, tolerance: value / 100 } : one)),
                  mark,
                )
              }
            />
          )}
          {median && own && (
            <button type="button" className="btn" onClick={() => setPoints(own.cell.tier, pointsFrom(median), 'from the present median')}>
              From the present median
            </button>
          )}
          {intended && own?.cell.tier && !intended.tier && (
            <button
              type="button"
              className="btn"
              onClick={() =>
                changeCurves(`a curve of its own at ${own.name}`, (all) => [
                  ...all,
                  {
                    ...structuredClone(intended),
                    id: idFor(
                      `curve-${encounter.id}-${own.cell.tier}`,
                      all.map(({ id }) => id),
                    ),
                    tier: own.cell.tier,
                  },
                ])
              }
            >
              Its own at {nameOf(project, own.cell.tier)}
            </button>
          )}
          {intended && (
            <button
              type="button"
              className="btn"
              onClick={() => changeCurves('no intended curve', (all) => all.filter(({ id }) => id !== intended.id))}
            >
              Take it away
            </button>
          )}
        </div>
        {strips.map((strip) => {
          const found = curves?.get(strip.key)?.curve;
          const list = found
            ? findingsOf(found, wavesOf(encounter, read?.get(strip.key)), intendedFor(project.brief, encounter.id, strip.cell.tier))
            : [];
          return (
            <section key={strip.key} className="mt-3 border-t border-hair pt-1.5" aria-label={`Findings at ${strip.name}`}>
              <div className="section-head">
                {strip.number && <span className="tier self-center">{strip.number}</span>}
                <h3>{strip.name}</h3>
              </div>
              <ul className="text-table">
                {list.map((finding) => (
                  <li key={`${finding.kind} ${finding.at}`} className="flex gap-1.5 py-0.5">
                    <span className="pt-[3px]">
                      <WarnMark label={finding.kind} quiet={finding.kind === 'peak'} />
                    </span>
                    <span className="min-w-0 first-letter:uppercase">
                      <Link
                        className="hover:underline"
                        to={{ pathname: `/projects/${project.id}/replay/${encounter.id}`, search: replayQuery(strip, finding.at) }}
                      >
                        {finding.sentence}
                      </Link>
                      {finding.wave && (
                        <>
                          {' '}
                          <Link className="link" to={{ pathname: `/projects/${project.id}/encounters/${encounter.id}`, search }}>
                            {encounter.waves.find(({ id }) => id === finding.wave)?.name}
                          </Link>
                        </>
                      )}
                    </span>
                  </li>
                ))}
              </ul>
              {found && !list.length && <p className="text-table text-ink-3">Nothing stands out.</p>}
              {!found && <p className="text-table text-ink-3">Not run yet.</p>}
            </section>
          );
        })}
      </aside>
    </div>
  );
}

const nameOf = (project: Project, tier: string) => project.tiers.find(({ id }) => id === tier)?.name ?? tier;

function replayQuery({ cell }: Strip, at: number): string {
  const query = new URLSearchParams({ seed: '1', at: at.toFixed(2) });
  if (cell.tier) query.set('tier', cell.tier);
  if (cell.skill) query.set('skill', cell.skill);
  return query.toString();
}

/** The waves of an encounter with the medians of what has been run. */
function wavesOf({ waves }: Encounter, read: CellRead | undefined): PacedWave[] {
  const median = (name: string) => {
    const values = (read?.values[name] ?? []).filter((value) => value === value).sort((a, b) => a - b);
    return values.length * 2 >= (read?.runs ?? 0) && values.length ? quantileOf(values, 0.5) : undefined;
  };
  return waves.map(({ id, name }) => {
    const [started, rest] = [median(`wave ${id} started`), median(`wave ${id} rest`)];
    return { id, name, ...(started !== undefined && { started }), ...(rest !== undefined && { rest }) };
  });
}

/** How far the rulers go: as long as half of the runs of some tier last, as high as nine in ten reach or as is intended. */
function rulers(
  encounter: Encounter,
  curves: ReadonlyMap<string, CellCurve> | null,
  brief: Brief | undefined,
): { until: number; top: number } {
  let until = 0;
  let top = 0;
  for (const { curve } of curves?.values() ?? []) {
    curve?.median.forEach((value, bin) => {
      if (value === undefined) return;
      until = Math.max(until, curve.times[bin]);
      top = Math.max(top, curve.p90[bin] ?? 0);
    });
  }
  for (const { encounter: of, points, tolerance } of brief?.curves ?? [])
    if (of === encounter.id)
      for (const { at, value } of points) {
        until = Math.max(until, at);
        top = Math.max(top, value + tolerance);
      }
  return { until: until || encounter.limit, top: roundUp(top || 0.05) };
}

/** Seven points on the present median, evenly over as long as half of the runs last: something to begin with. */
function pointsFrom({ times, median }: { times: number[]; median: (number | undefined)[] }): CurvePoint[] {
  const known = median.flatMap((value, bin) => (value === undefined ? [] : [{ at: times[bin], value }]));
  const count = Math.min(7, known.length);
  return Array.from({ length: count }, (_, i) => known[Math.round((i * (known.length - 1)) / Math.max(1, count - 1))]).map(
    ({ at, value }) => ({
      at: Number(at.toFixed(1)),
      value: Number(value.toFixed(4)),
    }),
  );
}
