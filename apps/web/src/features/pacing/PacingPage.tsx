import {
  CURVE_ABOUT,
  type CurveName,
  type CurvePoint,
  type Encounter,
  type IntendedCurve,
  type PacingPictureOptions,
  type Project,
  intendedFor,
  lullsOf,
  pacedWaves,
  pacingColumns,
  shareInside,
  unitIn,
} from '@insidia/core';
import { useMemo, useState } from 'react';
import { Link, Navigate, useLocation, useParams } from 'react-router';
import { useView } from '../../app/view';
import { Choose } from '../../fields/Choose';
import { runCells } from '../../server/batches';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { READING, useCells } from '../../server/useCells';
import { useCurves } from '../../server/useCurves';
import { PacingChart } from '../../visuals/PacingChart';
import { useWidth } from '../../visuals/useWidth';
import { Findings } from './Findings';
import { withPoints } from './intentions';
import { Intended } from './Intended';
import { savePacingCsv, savePacingPng } from './savePacing';
import { type Axis, type Strip, rulers, stripsOf } from './strips';
import { NotHere } from '../../parts/NotHere';

const RUNS = 200;
/** What can be shown over the clock; lulls are shaded behind each. */
const SHOWN = ['pressure', 'engaged', 'tempo', 'health'] as const;

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
    <NotHere
      asked={id}
      nothing="No encounter yet"
      about="Pacing shows the pressure of an encounter over its clock, tier by tier. Make an encounter first."
      others={project.encounters}
      to={(one) => ({ pathname: `/projects/${project.id}/pacing/${one}`, search })}
    >
      <Link
        className={project.encounters.length ? 'btn' : 'btn btn-primary'}
        to={{ pathname: `/projects/${project.id}/encounters`, search }}
      >
        To the encounters
      </Link>
    </NotHere>
  );
}

function Pacing({ project, encounter }: { project: Project; encounter: Encounter }) {
  const dispatch = useAppDispatch();
  const { search } = useLocation();
  const [view] = useView(project);
  const saving = useAppSelector((state) => state.document.saving);
  const busy = useAppSelector((state) => state.batches.since !== null);
  const [by, setBy] = useState<Axis>('tiers');
  const [of, setOf] = useState<CurveName>('pressure');
  const [selected, setSelected] = useState<string>();
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const strips = useMemo(
    () => stripsOf(project, encounter.id, by, { tier: view.tier, skill: view.skill, turned: view.turned }),
    [project, encounter.id, by, view.tier, view.skill, view.turned],
  );
  const keys = useMemo(() => strips.map(({ key }) => key), [strips]);
  const columns = useMemo(() => pacingColumns(encounter), [encounter]);
  const pressure = useCurves(project.id, keys, 'pressure');
  const quiet = useCurves(project.id, keys, 'quiet');
  const other = useCurves(project.id, of === 'pressure' ? [] : keys, of);
  const curves = of === 'pressure' ? pressure : other;
  const read = useCells(
    project.id,
    keys.map((cell) => ({ cell, columns })),
  );
  const { until, top } = rulers(encounter, curves, of, project.brief);
  const lacking = pressure ? keys.filter((key) => !pressure.get(key)?.runs) : [];
  const current = strips.find(({ id }) => id === selected) ?? strips.find(({ id }) => id === view.tier) ?? strips[0];
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
  const setPoints = (tier: string | undefined, points: CurvePoint[], what: string, mark?: string) =>
    changeCurves(what, () => withPoints(project.brief, encounter.id, tier, points), mark);
  const intended = current && intendedFor(project.brief, encounter.id, current.cell.tier);
  const median = current && pressure?.get(current.key)?.curve;
  const height = Math.max(96, Math.min(150, 560 / strips.length));
  const pictureOf = (strip: Strip, named: boolean): PacingPictureOptions | undefined => {
    const curve = curves?.get(strip.key)?.curve;
    const still = quiet?.get(strip.key)?.curve;
    const own = read?.get(strip.key);
    return (
      curve && {
        curve,
        clock: encounter.clock,
        percent: CURVE_ABOUT[of].percent,
        waves: pacedWaves(encounter, own?.runs ?? 0, (name) => own?.values[name] ?? []),
        lulls: still
          ? lullsOf(
              still.times,
              still.median.map((value) => value === 1),
            )
          : [],
        intended: of === 'pressure' ? intendedFor(project.brief, encounter.id, strip.cell.tier) : undefined,
        until,
        top,
        width: width - 32,
        height,
        named,
      }
    );
  };
  const pictures = () =>
    strips.flatMap((strip) => {
      const picture = pictureOf(strip, true);
      return picture ? [{ name: strip.name, picture }] : [];
    });
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
            {CURVE_ABOUT[of].label}
            {CURVE_ABOUT[of].unit && `, ${unitIn(encounter.clock, CURVE_ABOUT[of].unit)}`}: median, half and four fifths of the runs; shaded
            the lulls
          </span>
          <div className="w-[104px]">
            <Choose
              quiet
              label="Over the clock"
              value={of}
              options={SHOWN.map((id) => ({ id, name: CURVE_ABOUT[id].label }))}
              onChoose={(id) => setOf(SHOWN.find((one) => one === id) ?? 'pressure')}
            />
          </div>
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
                dispatch(
                  runCells(
                    project.id,
                    lacking.map((cell) => ({ cell, runs: RUNS })),
                  ),
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
          const judged = pressure?.get(strip.key)?.curve;
          const inside = judged && meant ? shareInside(judged, meant) : undefined;
          const picture = pictureOf(strip, i === 0);
          return (
            <section
              key={strip.key}
              aria-label={strip.name}
              className={`border-t px-4 pt-1 ${strip === current ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''}`}
              onPointerDown={() => setSelected(strip.id)}
              onFocus={() => setSelected(strip.id)}
            >
              <div className="section-head">
                {strip.number && <span className="tier self-center">{strip.number}</span>}
                <h3 title={strip.name}>{strip.name}</h3>
                <span className="note">
                  {found?.runs ? `${found.runs} runs` : ''}
                  {inside !== undefined && `; ${Math.round(100 * inside)} % of the time within what is intended`}
                </span>
              </div>
              {picture ? (
                <PacingChart
                  {...picture}
                  label={`${strip.name}: ${CURVE_ABOUT[of].label} over the clock`}
                  onPoints={of === 'pressure' ? (points, what, mark) => setPoints(strip.cell.tier, points, what, mark) : undefined}
                />
              ) : (
                <p className="py-4 text-ink-3">{curves ? 'Not run yet as it is now.' : READING}</p>
              )}
            </section>
          );
        })}
        <p className="flex gap-4 border-t px-4 pt-1.5 text-table">
          <button type="button" className="link" onClick={() => savePacingCsv(project, encounter, of, strips, curves)}>
            CSV
          </button>
          <button type="button" className="link" onClick={() => void savePacingPng(project, encounter, of, pictures())}>
            PNG
          </button>
        </p>
        <p className="px-4 py-2 text-label text-ink-3">
          A double click sets a point of the intended curve; drag it, or focus it and use the arrow keys; Delete takes it away.
        </p>
      </main>
      <aside aria-label="Findings" className="scroll flex min-h-0 flex-col border-l bg-sheet px-4 pb-3 pt-[10px]">
        <Intended
          project={project}
          encounter={encounter}
          current={current}
          intended={intended}
          median={median}
          onCurves={changeCurves}
          onPoints={setPoints}
        />
        {strips.map((strip) => (
          <Findings
            key={strip.key}
            project={project}
            encounter={encounter}
            strip={strip}
            curve={pressure?.get(strip.key)?.curve}
            read={read?.get(strip.key)}
            known={pressure !== null}
          />
        ))}
      </aside>
    </div>
  );
}
