import type { Estimate, Verdict } from '@insidia/core';
import { memo, useMemo } from 'react';
import { density } from './density';
import { linear } from './scale';

interface Props {
  values: readonly number[];
  estimate: Estimate;
  /** Yes or no in each run: there is no shape, only the share and its interval. */
  share: boolean;
  band?: { low?: number; high?: number };
  verdict?: Verdict;
  /** The ruler that the row's cells share. */
  from: number;
  to: number;
  width: number;
  height: number;
}

const POINTS = 40;

/** A small distribution against its band: the bracket is the band, the mark the statistic; a miss is red, what is undecided dotted. */
export const CellPicture = memo(function CellPicture({ values, estimate, share, band, verdict, from, to, width, height }: Props) {
  const x = linear(from, to, 2, width - 2);
  const clamp = (value: number) => Math.min(Math.max(x(value), 2), width - 2);
  const base = height - 4;
  const shape = useMemo(() => {
    if (share) return '';
    const curve = density(values, from, to, POINTS);
    const peak = Math.max(...curve, 1e-12);
    const points = curve.map(
      (y, i) => `${(2 + ((width - 4) * i) / (POINTS - 1)).toFixed(1)} ${(base - (y / peak) * (base - 3)).toFixed(1)}`,
    );
    return `M2 ${base} L${points.join(' L')} L${width - 2} ${base}Z`;
  }, [values, from, to, width, base, share]);
  const miss = verdict === 'missedLow' || verdict === 'missedHigh';
  const ink = miss ? 'var(--miss)' : verdict === 'undecided' ? 'var(--open)' : 'var(--ink-2)';
  const { value, low, high } = estimate;
  const mark = clamp(value);
  return (
    <svg width={width} height={height} aria-hidden className="block">
      {band && (
        <>
          <rect
            x={clamp(band.low ?? from)}
            y={2}
            width={Math.max(1, clamp(band.high ?? to) - clamp(band.low ?? from))}
            height={base - 2}
            fill="var(--band)"
          />
          {band.low !== undefined && (
            <path d={`M${clamp(band.low) + 3} 2.5 H${clamp(band.low)} V${base}`} fill="none" stroke="var(--band-edge)" />
          )}
          {band.high !== undefined && (
            <path d={`M${clamp(band.high) - 3} 2.5 H${clamp(band.high)} V${base}`} fill="none" stroke="var(--band-edge)" />
          )}
        </>
      )}
      {shape && (
        <path
          d={shape}
          fill={miss ? 'var(--miss)' : 'var(--dist)'}
          fillOpacity={miss ? 0.25 : 1}
          stroke={ink}
          strokeWidth={1.1}
          strokeDasharray={verdict === 'undecided' ? '1.5 1.5' : undefined}
        />
      )}
      <path d={`M2 ${base + 0.5} H${width - 2}`} stroke="var(--rule)" />
      {share && <path d={`M${clamp(low)} ${base - 1} H${clamp(high)}`} stroke={ink} strokeWidth={3} />}
      {!Number.isNaN(value) &&
        (verdict === 'missedLow' ? (
          <path d={`M${mark + 3} ${base - 3.5} v7 l-6 -3.5z`} fill="var(--miss)" />
        ) : verdict === 'missedHigh' || value === Infinity ? (
          <path d={`M${mark - 3} ${base - 3.5} v7 l6 -3.5z`} fill={miss ? 'var(--miss)' : ink} />
        ) : verdict === 'undecided' ? (
          <path d={`M${mark} ${base - 4} l4 4 l-4 4 l-4 -4z`} fill="var(--sheet)" stroke="var(--open)" strokeWidth={1.2} />
        ) : (
          <circle cx={mark} cy={base} r={3} fill="var(--ink)" />
        ))}
    </svg>
  );
});

/** The ruler for a row of cells: all its bands, and its values but for the outermost. */
export function rowRuler(
  cells: readonly (readonly number[] | undefined)[],
  bands: readonly ({ low?: number; high?: number } | undefined)[],
  share: boolean,
) {
  if (share) return { from: 0, to: 1 };
  let low = Infinity;
  let high = -Infinity;
  const take = (value: number | undefined) => {
    if (value === undefined || !Number.isFinite(value)) return;
    low = Math.min(low, value);
    high = Math.max(high, value);
  };
  for (const values of cells) {
    const finite = (values ?? []).filter(Number.isFinite).sort((a, b) => a - b);
    take(finite[Math.floor(0.01 * finite.length)]);
    take(finite[Math.floor(0.98 * finite.length)]);
  }
  for (const band of bands) {
    take(band?.low);
    take(band?.high);
  }
  if (!(high >= low)) return { from: 0, to: 1 };
  const pad = (high - low || Math.abs(high) || 1) * 0.08;
  return { from: low >= 0 ? Math.max(0, low - pad) : low - pad, to: high + pad };
}
