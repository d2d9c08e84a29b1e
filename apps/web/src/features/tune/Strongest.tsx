import type { Dial, Objective, Project, Scenario } from '@insidia/core';
import { useScreening } from './useScreening';
import { headOf } from './words';
import { Popover } from '../../fields/Popover';

/** Numbers that are named. */
export const STRONGEST = 10;

interface Props {
  project: Project;
  cell: Scenario;
  objectives: Objective[];
  onFound: (dials: readonly Dial[]) => void;
}

/** All numbers of the fight turned at once, to find those that move a goal most. */
export function Strongest({ project, cell, objectives, onFound }: Props) {
  const { state, begin, cancel } = useScreening(onFound);
  if (state && !state.failure) {
    const share = state.pairs ? state.done / state.pairs : 0;
    const seconds = (Date.now() - state.began) / 1000;
    return (
      <span className="flex items-center gap-2 text-label text-ink-2" role="status">
        <progress className="h-2 w-24" value={state.done} max={state.pairs} aria-label="Turning all numbers" />
        {state.numbers} numbers at once, {Math.round(100 * share)} %
        {share > 0.1 && `, ${Math.ceil((seconds * (1 - share)) / share)} s left`}
        <button type="button" className="link" onClick={cancel}>
          stop
        </button>
      </span>
    );
  }
  return (
    <span className="flex items-center gap-2">
      <Popover
        label="The ten that move most"
        width={280}
        trigger={
          <button type="button" className="link">
            the ten that move most …
          </button>
        }
      >
        {(close) => (
          <>
            <p className="mb-2 text-table text-ink-2">
              All numbers of the fight’s enemies are turned at once, a tenth up or down by a coin each, and what moves it is found from the
              pattern. Then they are run one by one. What is 0 is left out: it has no tenth. Which of them?
            </p>
            {objectives.map((objective, i) => (
              <button
                key={objective.column + objective.statistic}
                type="button"
                className="block w-full border-t border-hair py-1 text-left hover:bg-well"
                onClick={() => {
                  close();
                  begin(project, cell, objectives, i, STRONGEST);
                }}
              >
                that move {headOf(objective)}
              </button>
            ))}
          </>
        )}
      </Popover>
      {state?.failure && <span className="text-label text-warn">not run: {state.failure}</span>}
    </span>
  );
}
