import { type Project, changesInWords, wordingSentence } from '@insidia/core';
import { useEffect, useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { TextField } from '../../fields/TextField';
import { type Revision, api } from '../../server/api';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { Against, type Other } from './Against';
import { WhatItDoes } from './WhatItDoes';

/** Every saved revision of the project with what changed, in words: compare any two, go back to one, name a baseline. */
export function HistoryPage() {
  const project = useAppSelector((state) => state.document.document);
  const revision = useAppSelector((state) => state.document.saved?.revision);
  return project && <History project={project} newest={revision ?? 0} />;
}

/** What is on the screen, saved or not. */
const NOW = 0;

function History({ project, newest }: { project: Project; newest: number }) {
  const { search } = useLocation();
  const dispatch = useAppDispatch();
  const [revisions, setRevisions] = useState<Revision[] | null>(null);
  const [next, setNext] = useState<number>();
  const [trouble, setTrouble] = useState<string | null>(null);
  const [from, setFrom] = useState<number>();
  const [to, setTo] = useState(NOW);
  const [other, setOther] = useState<Other>();
  const [documents, setDocuments] = useState<Record<number, Project>>({});
  useEffect(() => {
    api.revisions(project.id).then(
      (page) => {
        setRevisions(page.revisions);
        setNext(page.older);
      },
      (error: Error) => setTrouble(error.message),
    );
  }, [project.id, newest]);
  const more = () => {
    api.revisions(project.id, next).then(
      (page) => {
        setRevisions((list) => [...(list ?? []), ...page.revisions]);
        setNext(page.older);
      },
      (error: Error) => setTrouble(error.message),
    );
  };
  const older = from ?? revisions?.[1]?.number ?? revisions?.[0]?.number;
  const missing = [older, to].find((number) => number !== undefined && number !== NOW && !documents[number]);
  useEffect(() => {
    if (missing === undefined) return;
    api.revision(project.id, missing).then(
      ({ document }) => setDocuments((known) => ({ ...known, [missing]: document })),
      (error: Error) => setTrouble(error.message),
    );
  }, [project.id, missing]);
  const marked = [older, to].map((number) => (number === NOW ? project : number === undefined ? undefined : documents[number]));
  const [before, after] = other ? [other.before, other.after] : marked;
  const lines = useMemo(() => (before && after ? changesInWords(before, after) : null), [before, after]);
  const name = (number: number, words: string) => {
    api.nameRevision(project.id, number, words).then(
      () => setRevisions((list) => list?.map((one) => (one.number === number ? { ...one, name: words || undefined } : one)) ?? null),
      (error: Error) => setTrouble(error.message),
    );
  };
  const called = (number: number) =>
    number === NOW ? 'now' : (revisions?.find((one) => one.number === number)?.name ?? `revision ${number}`);
  return (
    <main className="grid min-h-0 grid-cols-[minmax(0,1fr)_minmax(0,1fr)]" aria-label="History">
      <section className="flex min-h-0 flex-col border-r px-4 pt-2" aria-label="Revisions">
        <div className="flex items-center gap-2">
          <h1 className="min-w-0 flex-1 text-page">History</h1>
          <Link className="btn" to={{ pathname: `/projects/${project.id}/enemies`, search }}>
            Back to the bench
          </Link>
        </div>
        <p className="note">Each save is a revision. Mark two to compare them; give one a name to keep it as a baseline.</p>
        {trouble && (
          <p role="alert" className="mt-2 border-l-[3px] border-warn bg-warn-wash px-2.5 py-1 text-table">
            {trouble}
          </p>
        )}
        <div className="scroll mt-2 min-h-0 flex-1">
          <table className="w-full table-fixed text-table">
            <thead className="sticky top-0 bg-paper">
              <tr className="text-left text-label text-ink-3">
                <th className="w-9 font-normal">from</th>
                <th className="w-7 font-normal">to</th>
                <th className="w-[84px] font-normal">when</th>
                <th className="font-normal">what</th>
                <th className="w-[112px] font-normal">name</th>
              </tr>
            </thead>
            <tbody>
              <tr className="h-7 border-t border-hair">
                <td />
                <td>
                  <input type="radio" name="to" aria-label="Compare to now" checked={to === NOW} onChange={() => setTo(NOW)} />
                </td>
                <td>now</td>
                <td className="text-ink-2">as on the screen</td>
                <td />
              </tr>
              {revisions?.map((one) => (
                <tr key={one.number} className="border-t border-hair align-top">
                  <td className="pt-1">
                    <input
                      type="radio"
                      name="from"
                      aria-label={`Compare from revision ${one.number}`}
                      checked={older === one.number}
                      onChange={() => {
                        setFrom(one.number);
                        setOther(undefined);
                      }}
                    />
                  </td>
                  <td className="pt-1">
                    <input
                      type="radio"
                      name="to"
                      aria-label={`Compare to revision ${one.number}`}
                      checked={to === one.number}
                      onChange={() => {
                        setTo(one.number);
                        setOther(undefined);
                      }}
                    />
                  </td>
                  <td className="pt-1" title={new Date(one.at).toLocaleString()}>
                    {new Date(one.at).toLocaleString([], {
                      day: 'numeric',
                      month: 'short',
                      hour: '2-digit',
                      minute: '2-digit',
                      hour12: false,
                    })}
                  </td>
                  <td className="break-words py-1 pr-2">
                    <span className="text-ink-3">{one.number}</span> {one.label}
                    {one.author && <span className="block text-label text-ink-3">{one.author}</span>}
                  </td>
                  <td className="py-0.5">
                    <TextField
                      quiet
                      label={`Name of revision ${one.number}`}
                      value={one.name ?? ''}
                      limit={80}
                      placeholder="baseline"
                      onCommit={(words) => name(one.number, words.trim())}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {next !== undefined && (
            <button className="btn my-2" onClick={more}>
              Older ones
            </button>
          )}
          {revisions?.length === 0 && <p className="py-2 text-ink-2">Nothing saved yet.</p>}
        </div>
      </section>
      <section className="flex min-h-0 flex-col bg-sheet px-4 pt-2" aria-label="Comparison">
        <div className="flex items-center gap-2">
          <h2 className="min-w-0 flex-1 truncate text-section">
            {other
              ? `From ${other.tier ? 'as it is ' : ''}${other.name}${other.tier ? '' : ' to now'}`
              : older === undefined
                ? 'Comparison'
                : `From ${called(older)} to ${called(to)}`}
          </h2>
          {other && (
            <button type="button" className="btn" onClick={() => setOther(undefined)}>
              Back to the revisions
            </button>
          )}
          {!other && older !== undefined && before && (
            <button
              type="button"
              className="btn"
              title="the older one becomes what is on the screen; undo takes that back"
              onClick={() => dispatch(changed({ document: before, name: `Went back to ${called(older)}` }))}
            >
              Go back to {called(older)}
            </button>
          )}
        </div>
        <div className="scroll mt-2 min-h-0 flex-1">
          {other && other.byName > 0 && (
            <p className="pb-1 text-label text-ink-3">
              {other.byName} {other.byName === 1 ? 'thing has' : 'things have'} another id there and {other.byName === 1 ? 'was' : 'were'}{' '}
              found by name.
            </p>
          )}
          {!lines && <p className="text-ink-3">Fetching …</p>}
          {lines?.length === 0 && <p className="text-ink-2">No difference.</p>}
          <ul aria-label="Differences" className="text-table">
            {lines?.map((line) => (
              <li key={line.path} className="border-t border-hair py-0.5" title={line.path}>
                {wordingSentence(line)}
              </li>
            ))}
          </ul>
          {before && after && (lines?.length ?? 0) > 0 && (
            <div className="mt-3 border-t pt-2">
              <WhatItDoes key={other ? `${other.name} ${other.tier}` : `${older} ${to}`} before={before} after={after} tier={other?.tier} />
            </div>
          )}
          <Against project={project} onOther={setOther} />
        </div>
      </section>
    </main>
  );
}
