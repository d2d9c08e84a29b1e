import type { Project } from '@insidia/core';
import { useEffect, useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useAppSelector } from '../store/store';
import { type Seen, firstSteps, isBeginning } from './firstSteps';
import { KEPT, type Kept, keepSteps, keptSteps } from './keptSteps';
import { sharedSearch } from './sections';

/** A line of six steps under the top bar of a project that has just begun: each is done by doing it, and it can be put away. */
export function FirstSteps({ project }: { project: Project }) {
  const { pathname, search } = useLocation();
  const running = useAppSelector((state) => state.batches.since !== null);
  const [kept, setKept] = useState<Kept>(() => {
    const found = keptSteps(project.id);
    return { ...found, begun: found.begun || isBeginning(project) };
  });
  const keep = (next: Kept) => keepSteps(project.id, next);
  useEffect(() => {
    const read = () => setKept(keptSteps(project.id));
    addEventListener(KEPT, read);
    return () => removeEventListener(KEPT, read);
  }, [project.id]);
  // What has begun goes on, however much the project has grown by the time it is opened again.
  useEffect(() => {
    if (kept.begun && !keptSteps(project.id).begun) keepSteps(project.id, kept);
  }, [project.id, kept]);
  const here = pathname.split('/')[3];
  const now: Seen | undefined = here === 'replay' ? 'fight' : here === 'board' && running ? 'board' : undefined;
  useEffect(() => {
    if (!kept.begun || kept.over || !now || kept.seen.includes(now)) return;
    keep({ ...kept, seen: [...kept.seen, now] });
  });
  const shown = kept.begun && !kept.over;
  // What is not shown is not worked out at every edit.
  const steps = useMemo(() => (shown ? firstSteps(project, new Set(kept.seen)) : []), [shown, project, kept.seen]);
  if (!shown) return null;
  const next = steps.find(({ done }) => !done);
  return (
    <nav aria-label="First steps" className="flex h-8 min-w-0 items-center gap-3 border-b bg-well px-4 text-table">
      <span className="shrink-0 text-ink-3">first steps</span>
      <ol className="flex shrink-0 gap-3">
        {steps.map((step) => (
          <li key={step.id} aria-current={step === next ? 'step' : undefined}>
            <Link
              className={`flex items-center gap-1 ${step === next ? 'font-semibold' : 'text-ink-2'}`}
              to={{ pathname: `/projects/${project.id}/${step.path}`, search: sharedSearch(search) }}
              aria-label={`${step.name}: ${step.done ? 'done' : 'to do'}`}
            >
              <svg width={10} height={10} aria-hidden>
                {step.done ? (
                  <path d="M1 5 L4 8 L9 1.5" fill="none" stroke="var(--ink)" strokeWidth={1.8} />
                ) : (
                  <circle cx={5} cy={5} r={3.5} fill="none" stroke="var(--ink-2)" strokeWidth={step === next ? 2 : 1} />
                )}
              </svg>
              {step.name}
            </Link>
          </li>
        ))}
      </ol>
      <span className="min-w-0 flex-1 truncate text-ink-2" aria-live="polite" title={next?.how}>
        {next ? next.how : 'All six done: the rest is yours.'}
      </span>
      <button type="button" className="link shrink-0" onClick={() => keep({ ...kept, over: true })}>
        put away
      </button>
    </nav>
  );
}
