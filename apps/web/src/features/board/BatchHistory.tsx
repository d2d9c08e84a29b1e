import { type BandMeasure, type Statistic, estimate, verdictOf, linear, numberOf, rulerOf } from '@insidia/core';
import { api } from '../../server/api';
import { useRead } from '../../server/useRead';

interface Props {
  project: string;
  cell: string;
  column: string;
  measure: BandMeasure;
  statistic: Statistic;
  band?: { low?: number; high?: number };
  width: number;
}

const HEIGHT = 62;
const LEFT = 34;

/** A cell's last six batches against the band: how it came to be what it is. */
export function BatchHistory({ project, cell, column, measure, statistic, band, width }: Props) {
  const list = useRead(JSON.stringify([project, cell, column]), () => api.cellHistory(project, cell, column)) ?? [];
  const points = [...list].reverse().map((one) => ({ ...one, estimate: estimate(one.values, statistic) }));
  const known = points.filter(({ estimate: { value } }) => Number.isFinite(value));
  if (!known.length) return null;
  const [from, to] = rulerOf([...known.map(({ estimate: { value } }) => value), band?.low, band?.high], 0.15);
  const y = linear(from, to, 46, 4);
  const x = (i: number) => LEFT + 12 + (i * (width - LEFT - 40)) / Math.max(1, points.length - 1);
  const line = points.flatMap(({ estimate: { value } }, i) =>
    Number.isFinite(value) ? [`${x(i).toFixed(1)} ${y(value).toFixed(1)}`] : [],
  );
  return (
    <section className="mt-3 border-t border-hair pt-1.5" aria-label="The last batches">
      <div className="section-head">
        <h3>The last batches</h3>
        <span className="note">of this cell</span>
      </div>
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={points
          .map(({ at, revision, estimate: { value } }) => `revision ${revision}, ${timeOf(at)}: ${numberOf(measure, value)}`)
          .join('; ')}
      >
        {band && (
          <rect
            x={LEFT}
            y={y(band.high ?? to)}
            width={width - LEFT}
            height={Math.max(0, y(band.low ?? from) - y(band.high ?? to))}
            fill="var(--band)"
          />
        )}
        {[band?.low, band?.high].map(
          (edge, i) =>
            edge !== undefined && (
              <g key={i}>
                <path d={`M${LEFT} ${y(edge)} H${width}`} stroke="var(--band-edge)" />
                <text x={LEFT - 4} y={y(edge) + 4} textAnchor="end" className="t3">
                  {numberOf(measure, edge)}
                </text>
              </g>
            ),
        )}
        {line.length > 1 && <path d={`M${line.join(' L')}`} fill="none" stroke="var(--rule)" strokeWidth={1.2} />}
        {points.map(({ batch, at, estimate: own }, i) => {
          if (!Number.isFinite(own.value)) return null;
          const verdict = band && verdictOf(own, band);
          const miss = verdict === 'missedLow' || verdict === 'missedHigh';
          const [px, py] = [x(i), y(own.value)];
          return (
            <g key={batch}>
              {miss ? (
                <path
                  d={`M${px} ${py - (verdict === 'missedHigh' ? 5 : -5)} l5 ${verdict === 'missedHigh' ? 8 : -8} h-10z`}
                  fill="var(--miss)"
                />
              ) : verdict === 'undecided' ? (
                <path
                  d={`M${px} ${py - 4.5} l4.5 4.5 l-4.5 4.5 l-4.5 -4.5z`}
                  fill="var(--sheet)"
                  stroke="var(--open)"
                  strokeWidth={1.4}
                  strokeDasharray="1.6 1.2"
                />
              ) : (
                <circle cx={px} cy={py} r={3.6} fill="var(--met)" />
              )}
              <text x={px} y={60} textAnchor="middle" className="t3">
                {timeOf(at)}
              </text>
            </g>
          );
        })}
      </svg>
    </section>
  );
}

function timeOf(at: string): string {
  const date = new Date(at);
  return `${date.getHours()}:${String(date.getMinutes()).padStart(2, '0')}`;
}
