import type { State } from '@insidia/core';
import { guarded } from '../parts/guarded';

interface Props {
  states: readonly State[];
  selected?: string;
  /** By state: how often a life takes each way out. */
  taken?: readonly (readonly { to: number; perLife: number }[])[];
  /** px: height of a row */
  row: number;
  width: number;
  className?: string;
}

/** Ways between states as arcs beside their rows: only those of the selected state at full weight, numbered in their order. */
export const StateArcs = guarded('The ways between states', function StateArcs({ states, selected, taken, row, width, className }: Props) {
  const from = states.findIndex(({ id }) => id === selected);
  const arcs = states.flatMap((state, i) =>
    state.leaves.map((leave, order) => {
      const to = states.findIndex(({ id }) => id === leave.to);
      return { i, to, order, perLife: taken?.[i]?.find((move) => move.to === to)?.perLife };
    }),
  );
  const most = Math.max(0.001, ...arcs.map(({ perLife = 0 }) => perLife));
  const path = ({ i, to, order }: (typeof arcs)[number]) => {
    // Both ends are drawn in a little, by whether the way leads up or down, so that there and back do not coincide.
    const shift = to > i ? 3 : -3;
    const [y1, y2] = [i * row + row / 2 + shift + order, to * row + row / 2 - shift];
    const bulge = Math.min(width - 12, 12 + Math.abs(to - i) * 9 + order * 3);
    return { d: `M4 ${y1} C ${bulge * 1.3} ${y1} ${bulge * 1.3} ${y2} 8 ${y2}`, middle: [4 + bulge * 0.95, (y1 + y2) / 2] as const };
  };
  const ordered = [...arcs.filter(({ i }) => i !== from), ...arcs.filter(({ i }) => i === from)];
  return (
    <svg width={width} height={states.length * row} className={className} aria-hidden>
      {ordered.map((arc, n) => {
        if (arc.to < 0) return null;
        const on = arc.i === from;
        const { d, middle } = path(arc);
        const weight = arc.perLife === undefined ? 1 : 0.8 + (2.2 * arc.perLife) / most;
        const end = arc.to * row + row / 2 - (arc.to > arc.i ? 3 : -3);
        return (
          <g key={n} opacity={on ? 1 : 0.5}>
            <path
              d={d}
              fill="none"
              stroke={on ? 'var(--ink)' : 'var(--rule)'}
              strokeWidth={on ? weight : Math.max(0.7, weight / 2)}
              strokeDasharray={arc.perLife === 0 ? '2 2' : undefined}
            />
            <path d={`M4 ${end} l6 -3.4 v6.8 z`} fill={on ? 'var(--ink)' : 'var(--rule)'} />
            {on && (
              <text x={middle[0]} y={middle[1] + 4} textAnchor="middle" className="tb halo">
                {arc.order + 1}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
});
