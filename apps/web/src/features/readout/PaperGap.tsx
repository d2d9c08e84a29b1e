import { fixed } from '@insidia/core';

export interface PaperRow {
  label: string;
  unit: string;
  paper: number | undefined;
  simulated: number | undefined;
}

const LEFT = 104;
const SPAN = 108;

/** On paper against simulated: hollow is paper, solid is simulated, on a ruler of factors. */
export function PaperGap({ rows, colour, width }: { rows: PaperRow[]; colour: string; width: number }) {
  const middle = LEFT + SPAN / 2;
  const x = (factor: number) => middle + Math.min(Math.max(Math.log2(factor), -1.15), 1.15) * (SPAN / 2);
  const bottom = rows.length * 17;
  return (
    <svg
      width={width}
      height={bottom + 16}
      role="img"
      aria-label={rows
        .map(({ label, paper, simulated, unit }) => `${label}: on paper ${words(paper)}, simulated ${words(simulated)} ${unit}`)
        .join('; ')}
    >
      <path d={`M${middle} 0 V${bottom}`} className="axis" />
      {[0.5, 2].map((factor) => (
        <g key={factor}>
          <path d={`M${x(factor)} 0 V${bottom}`} stroke="var(--hair)" />
          <text x={x(factor)} y={bottom + 11} textAnchor="middle" className="t3">
            × {factor === 0.5 ? '½' : factor}
          </text>
        </g>
      ))}
      <text x={middle} y={bottom + 11} textAnchor="middle" className="t3">
        paper
      </text>
      {rows.map(({ label, unit, paper, simulated }, i) => {
        const y = 8 + i * 17;
        const factor = paper && simulated && Number.isFinite(paper) && Number.isFinite(simulated) ? simulated / paper : undefined;
        return (
          <g key={label}>
            <text x={0} y={y + 4} className="t12">
              {label}
            </text>
            {factor !== undefined && (
              <g>
                <path d={`M${middle} ${y} H${x(factor)}`} stroke={colour} strokeWidth={2} />
                <circle cx={x(factor)} cy={y} r={3.8} fill={colour} />
              </g>
            )}
            {paper !== undefined && <circle cx={middle} cy={y} r={3.6} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.4} />}
            <text x={width - 46} y={y + 4} textAnchor="end" className="t12 t3">
              {words(paper)}
            </text>
            <text x={width} y={y + 4} textAnchor="end" className="t12 tb">
              {words(simulated)}
              {Number.isFinite(simulated) ? ` ${unit}` : ''}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

function words(value: number | undefined): string {
  if (value === undefined || Number.isNaN(value)) return '—';
  return Number.isFinite(value) ? fixed(value, 1) : 'never';
}
