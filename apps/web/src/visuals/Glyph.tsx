import type { Unit } from '@insidia/core';
import type { ReactNode } from 'react';

const INK = { fill: 'none', stroke: 'currentColor', strokeWidth: 2 } as const;

const SHAPES: Record<Unit['glyph'], ReactNode> = {
  seeds: (
    <g fill="currentColor">
      <circle cy={-4} r={2.1} />
      <circle cx={-4} cy={3} r={2.1} />
      <circle cx={4} cy={3} r={2.1} />
    </g>
  ),
  elder: (
    <g fill="currentColor">
      <circle cy={-5.4} r={2} />
      <circle cx={-4} cy={0.6} r={2} />
      <circle cx={4} cy={0.6} r={2} />
      <rect x={-4.6} y={4.4} width={9.2} height={2} />
    </g>
  ),
  fork: <path d="M0 6.4 L-5.4 -3.6 M0 6.4 L0 -6.6 M0 6.4 L5.4 -3.6" {...INK} />,
  block: <rect x={-5} y={-4.6} width={10} height={9.2} fill="currentColor" />,
  cross: <path d="M0 -5.6 V5.6 M-5.6 0 H5.6" {...INK} strokeWidth={2.4} />,
  burst: (
    <g>
      <circle r={2.2} fill="currentColor" />
      <circle r={5.4} {...INK} strokeWidth={1.8} strokeDasharray="3.2 2.45" />
    </g>
  ),
  lamp: (
    <g fill="currentColor">
      <circle cx={-3.6} r={3} />
      <rect x={0.6} y={-1.1} width={7} height={2.2} />
    </g>
  ),
  bars: (
    <g fill="currentColor">
      <rect x={-6} y={-4.4} width={5} height={8.8} />
      <rect x={1} y={-4.4} width={5} height={8.8} />
    </g>
  ),
  eye: (
    <g>
      <path d="M0 -6.4 L6.4 0 L0 6.4 L-6.4 0 Z" {...INK} />
      <circle r={1.8} fill="currentColor" />
    </g>
  ),
  diamond: <path d="M0 -9 L9 0 L0 9 L-9 0 Z" {...INK} />,
  square: <rect x={-7.4} y={-7.4} width={14.8} height={14.8} {...INK} />,
};

/** A unit's sign: enemies filled with their colour, the party open. The same in every list and chart. */
export function Glyph({ unit, size }: { unit: Pick<Unit, 'glyph' | 'colour' | 'side' | 'name' | 'role'>; size: number }) {
  const colour = `var(--e-${unit.colour})`;
  const open = unit.side === 'party';
  return (
    <svg
      width={size}
      height={size}
      viewBox="-10.5 -10.5 21 21"
      role="img"
      aria-label={[unit.name, unit.role].filter(Boolean).join(', ')}
      className="shrink-0"
    >
      {!open && <circle r={10} fill={colour} />}
      <g color={open ? colour : 'var(--on-e)'}>{SHAPES[unit.glyph]}</g>
    </svg>
  );
}
