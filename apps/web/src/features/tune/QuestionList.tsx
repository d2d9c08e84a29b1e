import { LIMITS, type Project, type Question, cellsOfQuestion, idFor, nameFor } from '@insidia/core';
import { useMemo } from 'react';
import { useQuery } from '../../app/query';
import { ListButtons, moved } from '../../fields/Mini';
import { NewSheet } from '../../parts/NewSheet';
import { changed } from '../../store/document';
import { useAppDispatch, useAppSelector } from '../../store/store';
import { useCells } from '../../server/useCells';
import { type Asking, fightName, isAsKept, keysOfQuestion, lostOf, queryOf, questionFrom, withQuestions } from './questions';
import { useSince } from './useSince';

/** Cells whose state is asked for at once: more questions are told by their size alone. */
const MOST_KEYS = 2000;

/** Questions that the project keeps, each with whether its answer is there. */
export function QuestionList({ project, asking }: { project: Project; asking: Asking }) {
  const dispatch = useAppDispatch();
  const [query, setQuery] = useQuery();
  const questions = useMemo(() => project.tuning?.questions ?? [], [project.tuning]);
  const current = questions.find(({ id }) => id === query.get('question'));
  const change = (next: readonly Question[], name: string) => dispatch(changed({ document: withQuestions(project, next), name }));
  const keep = (name: string) => {
    const id = idFor(
      name,
      questions.map((one) => one.id),
    );
    const free = nameFor(
      name,
      questions.map((one) => one.name),
    );
    change([...questions, questionFrom(project, asking, { id, name: free })], `Question: ${free}`);
    setQuery({ question: id });
  };
  const rename = (question: Question, name: string) => {
    const free = nameFor(
      name,
      questions.filter((one) => one !== question).map((one) => one.name),
    );
    if (free === question.name) return;
    change(
      questions.map((one) => (one === question ? { ...one, name: free } : one)),
      `Question ${question.name}: name ${free}`,
    );
  };
  const asks = useMemo(() => {
    let room = MOST_KEYS;
    return questions.map((question) => {
      const keys = keysOfQuestion(project, question);
      room -= keys.length;
      return room >= 0 ? keys : [];
    });
  }, [project, questions]);
  const asked = useMemo(() => [...new Set(asks.flat())].map((cell) => ({ cell, columns: [] })), [asks]);
  const read = useCells(project.id, asked);
  const running = useAppSelector((state) => state.batches.cells);
  const since = useSince(
    project.id,
    questions.map((_, i) => asks[i].map((key) => read?.get(key)?.stale?.revision).find((one) => one !== undefined)),
  );
  const stateOf = (question: Question, keys: readonly string[], i: number): string => {
    const lost = lostOf(project, question);
    if (lost) return `${lost} ${lost === 1 ? 'number leads' : 'numbers lead'} nowhere`;
    if (!read || !keys.length) return 'asked';
    if (keys.some((key) => running[key])) return 'running';
    const lacking = keys.filter((key) => (read.get(key)?.runs ?? 0) < question.runs).length;
    if (!lacking) return 'answered';
    if (since[i]) return `not since ${since[i]}`;
    return lacking === keys.length ? 'not run' : `${lacking} of ${keys.length} to run`;
  };
  return (
    <section className="pb-2" aria-label="Questions">
      <div className="flex items-baseline gap-2 px-4 pb-1 pt-3">
        <h3 className="flex-1 text-section">Questions</h3>
        {questions.length < LIMITS.questions && (
          <NewSheet
            label="Keep this question"
            suggested={fightName(project, asking.cell)}
            onName={keep}
            trigger={
              <button type="button" className="link">
                keep this
              </button>
            }
          />
        )}
      </div>
      {questions.length === 0 && (
        <p className="px-4 pb-1 text-label text-ink-3">
          What is asked at the right can be kept here, in the project, and asked again after an edit.
        </p>
      )}
      <ul>
        {questions.map((question, i) => {
          const here = question === current;
          const [cell] = cellsOfQuestion(question);
          return (
            <li
              key={question.id}
              className={`border-t border-hair ${here ? 'bg-sheet shadow-[inset_3px_0_0_var(--ink)]' : ''}`}
              data-question={question.id}
            >
              <div className="flex items-center">
                <button
                  type="button"
                  aria-current={here ? 'page' : undefined}
                  className="min-w-0 flex-1 px-4 py-1 text-left"
                  onClick={() => setQuery(queryOf(project, question))}
                >
                  <span className={`block truncate ${here ? 'font-semibold' : ''}`} title={question.name}>
                    {question.name}
                  </span>
                  <span
                    className="block truncate text-label text-ink-3"
                    title={`${fightName(project, cell)}: ${stateOf(question, asks[i], i)}`}
                  >
                    {fightName(project, cell)}: {stateOf(question, asks[i], i)}
                  </span>
                </button>
                {here && (
                  <ListButtons
                    what={question.name}
                    index={i}
                    count={questions.length}
                    onMove={(by) => change(moved(questions, i, by), `${question.name} ${by < 0 ? 'earlier' : 'later'}`)}
                    onRemove={() => {
                      change(
                        questions.filter((one) => one !== question),
                        `Question ${question.name} taken out`,
                      );
                      setQuery({ question: undefined });
                    }}
                  />
                )}
              </div>
              {here && (
                <p className="flex flex-wrap gap-x-3 px-4 pb-1.5 text-label">
                  <NewSheet
                    label="Rename the question"
                    submit="Rename"
                    suggested={question.name}
                    onName={(name) => rename(question, name)}
                    trigger={
                      <button type="button" className="link">
                        rename
                      </button>
                    }
                  />
                  {!isAsKept(project, asking, question) && (
                    <>
                      <button
                        type="button"
                        className="link"
                        onClick={() =>
                          change(
                            questions.map((one) => (one === question ? questionFrom(project, asking, question) : one)),
                            `Question: ${question.name}`,
                          )
                        }
                      >
                        keep the change
                      </button>
                      <button type="button" className="link" onClick={() => setQuery(queryOf(project, question))}>
                        as it was kept
                      </button>
                    </>
                  )}
                </p>
              )}
              {here && question.ledTo && <p className="px-4 pb-1.5 text-label text-ink-2">led to: {question.ledTo}</p>}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
