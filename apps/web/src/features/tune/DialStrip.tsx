import { type Dial, linear } from '@insidia/core';

interface Props {
  dial: Dial;
  /** Where it stands. */
  now: number;
  /** To what it is turned to see what it moves; where a chosen point lies. */
  marks: readonly { at: number; chosen?: boolean }[];
  width?: number;
}

/** Between which values a dial may turn: an open ring where it stands, squares where it is put. */
export function DialStrip({ dial, now, marks, width = 116 }: Props) {
  const x = linear(dial.low, dial.high, 7, width - 7);
  const short = (value: number) => Number(value.toPrecision(3));
  return (
    <svg width={width} height={30} aria-hidden>
      <path d={`M7 14.5 H${width - 7} M7.5 10 V19 M${width - 7.5} 10 V19`} className="axis" fill="none" />
      {marks.map(({ at, chosen }) => (
        <rect
          key={`${at} ${chosen}`}
          x={x(at) - 4}
          y={chosen ? 1 : 3}
          width={8}
          height={8}
          fill={chosen ? 'var(--ink)' : 'var(--sheet)'}
          stroke="var(--ink)"
        />
      ))}
      <circle cx={x(now)} cy={14.5} r={4} fill="var(--sheet)" stroke="var(--ghost)" strokeWidth={1.8} />
      <text x={6} y={29} className="t3" style={{ fontSize: 10 }}>
        {short(dial.low)}
      </text>
      <text x={width - 6} y={29} textAnchor="end" className="t3" style={{ fontSize: 10 }}>
        {short(dial.high)}
      </text>
    </svg>
  );
}
