import { clockTime } from '@insidia/core';
import { useEffect, useState } from 'react';
import { NumberField } from '../../fields/NumberField';
import { Popover } from '../../fields/Popover';
import { YesNo } from '../../fields/YesNo';
import { api } from '../../server/api';
import { howFar } from '../../server/batches';
import { useAppSelector } from '../../store/store';

export interface HowMany {
  duel: number;
  encounter: number;
  /** Goes on until the measure is clear in each cell: off the edges of its band, or so narrow, %, but not past a cap. */
  until: boolean;
  narrower: number;
  cap: number;
}

interface Props {
  project: string;
  howMany: HowMany;
  onHowMany: (howMany: HowMany) => void;
  /** Cells that are stale or have not been run, of how many. */
  missing: number;
  all: number;
  onRun: (which: 'missing' | 'all') => void;
  /** What “missing” would run. */
  lacking: readonly { cell: string; runs: number }[];
  /** The document is not saved: what would be run is not what is seen. */
  unsaved: boolean;
}

/** s from which it is told beforehand how long it may take. */
const WORTH_TELLING = 5;
/** ms after the last change before the server is asked. */
const QUIET_MS = 500;

/** s that the server expects to need; undefined while that is not known. */
function useEstimate(project: string, cells: readonly { cell: string; runs: number }[], idle: boolean): number | undefined {
  const [found, setFound] = useState<{ key: string; seconds: number }>();
  const key = JSON.stringify(cells);
  useEffect(() => {
    const asked = JSON.parse(key) as { cell: string; runs: number }[];
    if (idle || !asked.length) return;
    let over = false;
    const timer = setTimeout(() => {
      api.estimateCells(project, asked).then(
        (seconds) => !over && setFound({ key, seconds }),
        () => undefined, // what can't be run says so where it is asked for
      );
    }, QUIET_MS);
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [project, key, idle]);
  return found?.key === key ? found.seconds : undefined;
}

/** Runs the board, says how far it is, and stops it. */
export function RunBar({ project, howMany, onHowMany, missing, all, onRun, lacking, unsaved }: Props) {
  const batches = useAppSelector((state) => state.batches);
  const busy = batches.since !== null;
  const [now, setNow] = useState(0);
  const seconds = useEstimate(project, lacking, unsaved || busy);
  useEffect(() => {
    if (!busy) return;
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [busy]);
  if (busy) {
    const { done, wanted, elapsed, remaining } = howFar(batches, Math.max(now, batches.since?.at ?? 0));
    return (
      <div className="flex min-w-0 items-center gap-2 text-table" role="status" aria-label="Running">
        <span
          role="progressbar"
          aria-label="Runs done"
          aria-valuemin={0}
          aria-valuemax={wanted}
          aria-valuenow={done}
          className="block h-[6px] w-[120px] border border-rule"
        >
          <span className="block h-full bg-ink" style={{ width: `${wanted ? (100 * done) / wanted : 0}%` }} />
        </span>
        <span className="whitespace-nowrap">
          {done} of {wanted} runs, {clockTime(elapsed)}
          {remaining !== undefined && `, about ${clockTime(remaining)} to go`}
        </span>
        <button type="button" className="btn" onClick={() => void api.cancelCells(project)}>
          Cancel
        </button>
      </div>
    );
  }
  const field = (key: 'duel' | 'encounter' | 'cap', label: string) => (
    <NumberField
      info={{ label, unit: 'runs', min: 50, max: 100_000, whole: true, about: 'in steps of 50' }}
      base={howMany[key]}
      width={110}
      onCommit={(runs) => onHowMany({ ...howMany, [key]: Math.ceil(runs / 50) * 50 })}
    />
  );
  return (
    <div className="flex items-center gap-2">
      <Popover
        label="How many runs"
        width={260}
        align="end"
        trigger={
          <button type="button" className="link relative">
            {seconds !== undefined && seconds >= WORTH_TELLING && (
              <span
                className="absolute bottom-full left-0 whitespace-nowrap pb-1 text-label text-ink-3"
                title="What the runs that lack may come to, at the pace of this server"
              >
                takes about {clockTime(seconds)}
              </span>
            )}
            {howMany.duel} / {howMany.encounter} runs a cell{howMany.until ? ', on until clear' : ''} …
          </button>
        }
      >
        <div className="flex gap-2">
          {field('duel', 'Duels')}
          {field('encounter', 'Encounters')}
        </div>
        <YesNo label="and on until it is clear" value={howMany.until} onChange={(until) => onHowMany({ ...howMany, until })} />
        {howMany.until && (
          <div className="flex gap-2">
            <NumberField
              info={{ label: 'Interval narrower than', unit: '%', min: 0.1, max: 1000, about: 'of the value; or clear of the band' }}
              base={howMany.narrower}
              width={118}
              onCommit={(narrower) => onHowMany({ ...howMany, narrower })}
            />
            {field('cap', 'At most')}
          </div>
        )}
        <p className="mt-1 text-label text-ink-3">What is known is not run again: more runs add to it.</p>
      </Popover>
      {missing > 0 && missing < all && (
        <button type="button" className="btn" disabled={unsaved} onClick={() => onRun('missing')}>
          Run the {missing} that lack
        </button>
      )}
      <button type="button" className={`btn ${missing === all ? 'btn-primary' : ''}`} disabled={unsaved} onClick={() => onRun('all')}>
        {missing === all ? 'Run the board' : 'Run all'}
      </button>
    </div>
  );
}
