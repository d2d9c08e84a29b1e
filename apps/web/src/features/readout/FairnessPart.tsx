import { type FairnessSummary, type KindSummary, VERDICT_NAMES, fixed } from '@insidia/core';
import { Part } from './Part';

const WHY: Record<(typeof VERDICT_NAMES)[number], string> = {
  worked: 'answered, and hit all the same',
  notSeen: 'not seen',
  mistake: 'a mistake',
  tooLate: 'too late',
  cooldown: 'answer on cooldown',
  nowhere: 'nowhere to go',
  none: 'no answer works',
  tried: 'tried, and failed',
};

/** Hard is not unfair: how much time the hits left, and for how many there was no answer. */
export function FairnessPart({ fairness, kind }: { fairness: FairnessSummary; kind: KindSummary }) {
  const { hits, margin, unanswerableShare, announced, unseen, clashes, reasons } = fairness;
  if (!announced) return null;
  const share = (count: number, of: number) => `${Math.round((100 * count) / Math.max(1, of))} %`;
  const why = reasons
    .map((count, i) => ({ count, name: WHY[VERDICT_NAMES[i]] }))
    .filter(({ count }) => count > 0)
    .sort((a, b) => b.count - a.count);
  return (
    <Part title="Fairness" note={`${(hits / Math.max(1, kind.spawned)).toFixed(1)} announced hits per ${kind.name}`}>
      <table className="w-full text-table">
        <tbody>
          <Line
            what="Reaction margin"
            value={margin ? `${fixed(margin.median, 2)} s` : '—'}
            more={margin ? `p10 ${fixed(margin.p10, 2)} to p90 ${fixed(margin.p90, 2)}` : 'no hit that had an answer'}
          />
          <Line
            what="No answer available"
            value={hits ? `${Math.round(100 * unanswerableShare.value)} %` : '—'}
            more={hits ? `of damage (${Math.round(100 * unanswerableShare.low)}–${Math.round(100 * unanswerableShare.high)})` : ''}
          />
          <Line what="Begun out of view" value={share(unseen, announced)} more={`of ${announced.toLocaleString('en')} announced`} />
          <Line what="Clashing threats" value={share(clashes, announced)} more="every answer was on cooldown" />
        </tbody>
      </table>
      {why.length > 0 && (
        <p className="mt-0.5 text-label text-ink-2">
          Why hits landed: {why.map(({ count, name }) => `${name} ${share(count, hits)}`).join(', ')}.
        </p>
      )}
    </Part>
  );
}

function Line({ what, value, more }: { what: string; value: string; more: string }) {
  return (
    <tr className="border-t border-hair first:border-t-0">
      <td>{what}</td>
      <td className="text-right">
        <b>{value}</b>
      </td>
      <td className="pl-2 text-label text-ink-3">{more}</td>
    </tr>
  );
}
