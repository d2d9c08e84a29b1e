import {
  type BandMeasure,
  type Curve,
  type Encounter,
  type Finding,
  type Project,
  findingsOf,
  intendedFor,
  lookAt,
  pacedWaves,
} from '@insidia/core';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import { WouldMove } from '../tune/WouldMove';
import type { CellRead } from '../../server/api';
import { READING } from '../../server/useCells';
import { WarnMark } from '../../visuals/WarnMark';
import { CauseOf } from './CauseOf';
import { type Strip, replayQuery } from './strips';
import { guarded } from '../../parts/guarded';

interface Props {
  project: Project;
  encounter: Encounter;
  strip: Strip;
  curve?: Curve;
  read?: CellRead;
  /** It is known what has been run. */
  known: boolean;
}

/** The measure that a finding is of. */
const MOVED: Record<Finding['kind'], BandMeasure> = {
  above: 'peakPressureShare',
  peak: 'peakPressureShare',
  noLull: 'longestWithoutLull',
  below: 'dose',
};

/** What stands out at a tier, in sentences: each opens its instant, its wave, and what causes it. */
export const Findings = guarded('The findings', function Findings({ project, encounter, strip, curve, read, known }: Props) {
  const { search } = useLocation();
  // What was asked stays asked, as it was when it was: more runs may move the peak by a bin.
  const [open, setOpen] = useState<Finding>();
  const waves = pacedWaves(encounter, read?.runs ?? 0, (name) => read?.values[name] ?? []);
  const list = curve ? findingsOf(curve, waves, intendedFor(project.brief, encounter.id, strip.cell.tier), encounter.clock) : [];
  const opened = open && nearest(list, open);
  const cause = open && (
    <>
      <CauseOf key={open.at} project={project} encounter={encounter} strip={strip} window={open.window} waves={waves} />
      <div className="mt-1 pl-4">
        <WouldMove key={open.kind} project={project} objective={lookAt(strip.cell, MOVED[open.kind])} />
      </div>
    </>
  );
  return (
    <section className="mt-3 border-t border-hair pt-1.5" aria-label={`Findings at ${strip.name}`}>
      <div className="section-head">
        {strip.number && <span className="tier self-center">{strip.number}</span>}
        <h3 title={strip.name}>{strip.name}</h3>
      </div>
      <ul className="text-table">
        {list.map((finding) => {
          const key = `${finding.kind} ${finding.at}`;
          return (
            <li key={key} className="py-0.5">
              <div className="flex gap-1.5">
                <span className="pt-[3px]">
                  <WarnMark label={finding.kind} quiet={finding.kind === 'peak'} />
                </span>
                <span className="min-w-0 flex-1 first-letter:uppercase">
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
                  {finding.kind === 'below' ? (
                    <span className="ml-2 inline-block">
                      <WouldMove project={project} objective={lookAt(strip.cell, MOVED.below)} />
                    </span>
                  ) : (
                    <>
                      {' '}
                      <button
                        type="button"
                        className="link ml-2"
                        aria-expanded={finding === opened}
                        onClick={() => setOpen(finding === opened ? undefined : finding)}
                      >
                        {finding === opened ? 'close' : 'cause …'}
                      </button>
                    </>
                  )}
                </span>
              </div>
              {finding === opened && cause}
            </li>
          );
        })}
        {open && !opened && (
          <li className="py-0.5 text-ink-2">
            asked of: {open.sentence}{' '}
            <button type="button" className="link" onClick={() => setOpen(undefined)}>
              close
            </button>
            {cause}
          </li>
        )}
      </ul>
      {curve && !list.length && <p className="text-table text-ink-3">Nothing stands out.</p>}
      {!curve && <p className="text-table text-ink-3">{known ? 'Not run yet.' : READING}</p>}
    </section>
  );
});

/** The finding of the same sort that is nearest to one of before, within three seconds of it. */
function nearest(list: readonly Finding[], { kind, at }: Finding): Finding | undefined {
  const [first] = list.filter((one) => one.kind === kind).sort((a, b) => Math.abs(a.at - at) - Math.abs(b.at - at));
  return first && Math.abs(first.at - at) <= 3 ? first : undefined;
}
