import { type Curve, type Encounter, type Project, findingsOf, intendedFor, pacedWaves } from '@insidia/core';
import { useState } from 'react';
import { Link, useLocation } from 'react-router';
import type { CellRead } from '../../server/api';
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
}

/** What stands out at a tier, in sentences: each opens its instant, its wave, and what causes it. */
export const Findings = guarded('The findings', function Findings({ project, encounter, strip, curve, read }: Props) {
  const { search } = useLocation();
  const [open, setOpen] = useState<string>();
  const waves = pacedWaves(encounter, read?.runs ?? 0, (name) => read?.values[name] ?? []);
  const list = curve ? findingsOf(curve, waves, intendedFor(project.brief, encounter.id, strip.cell.tier)) : [];
  return (
    <section className="mt-3 border-t border-hair pt-1.5" aria-label={`Findings at ${strip.name}`}>
      <div className="section-head">
        {strip.number && <span className="tier self-center">{strip.number}</span>}
        <h3>{strip.name}</h3>
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
                  {finding.kind !== 'below' && (
                    <>
                      {' '}
                      <button
                        type="button"
                        className="link ml-2"
                        aria-expanded={open === key}
                        onClick={() => setOpen(open === key ? undefined : key)}
                      >
                        {open === key ? 'close' : 'cause …'}
                      </button>
                    </>
                  )}
                </span>
              </div>
              {open === key && <CauseOf project={project} encounter={encounter} strip={strip} window={finding.window} />}
            </li>
          );
        })}
      </ul>
      {curve && !list.length && <p className="text-table text-ink-3">Nothing stands out.</p>}
      {!curve && <p className="text-table text-ink-3">Not run yet.</p>}
    </section>
  );
});
