import { type KindSummary, fixed } from '@insidia/core';
import { Part } from './Part';

/** What each attack came to: how often begun, how many of its hits landed, its share of the damage. */
export function AttackUseTable({ kind }: { kind: KindSummary }) {
  if (!kind.attacks.length) return null;
  const per = (count: number) => fixed(count / Math.max(1, kind.spawned), 1);
  return (
    <Part title="Attack use" note="per life">
      <table className="w-full text-table">
        <thead>
          <tr className="text-right text-label text-ink-3">
            <th className="text-left font-normal">attack</th>
            <th className="font-normal">starts</th>
            <th className="font-normal">broken</th>
            <th className="font-normal">landed</th>
            <th className="font-normal" title="damage of one use, overkill left out">
              hp a use
            </th>
            <th className="font-normal">damage</th>
          </tr>
        </thead>
        <tbody>
          {kind.attacks.map(({ id, name, starts, interrupted, hits, misses, blocked, damagePerUse, damageShare }) => {
            const tries = hits + misses + blocked;
            return (
              <tr key={id} className="border-t border-hair text-right">
                <td className="max-w-[92px] truncate text-left" title={name}>
                  {name}
                </td>
                <td>{per(starts)}</td>
                <td>{starts ? `${Math.round((100 * interrupted) / starts)} %` : '—'}</td>
                <td title={`${hits} hits, ${misses} misses, ${blocked} stopped by a window`}>
                  {tries ? `${Math.round((100 * hits) / tries)} %` : '—'}
                </td>
                <td>{starts ? fixed(damagePerUse, 1) : '—'}</td>
                <td>{Math.round(100 * (damageShare || 0))} %</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Part>
  );
}
