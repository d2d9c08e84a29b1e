import { READOUT_CAP } from '@insidia/core';
import { hold, useHeld } from '../../readout/held';

interface Props {
  /** The first figures are on their way. */
  pending: boolean;
  /** Every measure is told well enough; absent: not looked at yet. */
  enough?: boolean;
  runs: number;
}

/** Whether more runs come by themselves, and the way to hold them. */
export function RunsState({ pending, enough, runs }: Props) {
  const held = useHeld();
  if (pending) return <span className="text-label text-ink-3">…</span>;
  if (enough)
    return (
      <span
        className="text-label text-ink-3"
        title={
          runs >= READOUT_CAP
            ? `A readout ends at ${READOUT_CAP} runs; a batch runs as many as you like`
            : 'Every measure is narrower than a tenth of how far it goes across the tiers, or clear of its goal’s edges'
        }
      >
        {runs >= READOUT_CAP ? 'at its most' : 'enough'}
      </span>
    );
  return (
    <button
      type="button"
      className="rounded-[2px] border px-1 text-label leading-4 text-ink-3 hover:border-ink-2"
      title={
        held
          ? 'More runs wait to be asked for: go on until every measure is told well enough'
          : 'More runs come by themselves until every measure is told well enough: hold them'
      }
      onClick={() => hold(!held)}
    >
      {held ? 'go on' : 'going on …'}
    </button>
  );
}
