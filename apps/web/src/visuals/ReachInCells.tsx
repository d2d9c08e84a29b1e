import type { Attack, Unit } from '@insidia/core';
import { guarded } from '../parts/guarded';
import { useWidth } from './useWidth';

interface Props {
  unit: Unit;
  selected?: string;
  onSelect: (id: string) => void;
}

const [LEFT, TOP, ROW, BOTTOM] = [150, 6, 20, 22];
/** px: of one cell at most */
const WIDEST = 34;
/** Cells that are drawn at least, and at most: beyond, what reaches farther says so. */
const [LEAST, MOST] = [8, 24];

/** Everything that has a distance in turns, in cells from the nearest of one body to the nearest of the other. */
export const ReachInCells = guarded('The reach in cells', function ReachInCells({ unit, selected, onSelect }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const { rounds, attacks, states } = unit;
  const marks = [
    ...states.flatMap(({ name, rounds: of }) => (of?.stopAt === undefined ? [] : [{ at: of.stopAt, says: `${name} stops` }])),
    ...(rounds?.senses ? [{ at: rounds.senses.sight, says: 'sight' }] : []),
    ...(rounds ? [{ at: rounds.moves, says: 'moves in a turn' }] : []),
  ];
  const farthest = Math.max(...attacks.map((attack) => attack.rounds?.to ?? 0), ...marks.map(({ at }) => at));
  const count = Math.min(MOST, Math.max(LEAST, farthest + 1));
  const wide = Math.min(WIDEST, (width - LEFT - 8) / (count + 1));
  const x = (cells: number) => LEFT + Math.min(cells, count + 1) * wide;
  const end = TOP + (attacks.length + marks.length) * ROW;
  const colour = `var(--e-${unit.colour})`;
  return (
    <div ref={ref}>
      <svg width={width} height={end + BOTTOM} role="group" aria-label={`Reach of ${unit.name} in cells`}>
        {Array.from({ length: count + 1 }, (_, cell) => (
          <g key={cell}>
            <path d={`M${x(cell)} ${TOP} V${end}`} stroke="var(--hair)" />
            <text x={x(cell) + wide / 2} y={end + 15} textAnchor="middle" className="t3">
              {cell === count ? 'cells' : wide > 18 || cell % 2 === 0 ? cell : ''}
            </text>
          </g>
        ))}
        {attacks.map((attack, i) => (
          <Row
            key={attack.id}
            attack={attack}
            y={TOP + i * ROW}
            x={x}
            beyond={count}
            colour={colour}
            chosen={attack.id === selected}
            onSelect={onSelect}
          />
        ))}
        {marks.map(({ at, says }, i) => {
          const y = TOP + (attacks.length + i) * ROW;
          return (
            <g key={says}>
              <text x={LEFT - 8} y={y + 14} textAnchor="end" className="t2">
                {says}
              </text>
              <path d={`M${x(0)} ${y + 10} H${x(at + 1)}`} stroke="var(--ink-3)" strokeDasharray="2 3" />
              <path d={`M${x(at + 1)} ${y + 4} v12`} stroke="var(--ink)" strokeWidth={2} />
              <text x={x(at + 1) + 5} y={y + 14} className="tb">
                {at}
              </text>
            </g>
          );
        })}
      </svg>
    </div>
  );
});

/** On the bar of the chosen attack, which is as dark as its colour. */
const ON_BAR = { fill: 'var(--paper)' };

interface RowProps {
  attack: Attack;
  y: number;
  x: (cells: number) => number;
  /** The last cell that is drawn. */
  beyond: number;
  colour: string;
  chosen: boolean;
  onSelect: (id: string) => void;
}

/** One attack: the cells that it reaches, those that it bursts over beyond them. */
function Row({ attack, y, x, beyond, colour, chosen, onSelect }: RowProps) {
  const { from = 0, to = 0, radius = 0 } = attack.rounds ?? {};
  const burst = attack.area && attack.area.about !== 'self' ? radius : 0;
  const short = attack.name.length > 20 ? `${attack.name.slice(0, 19)}…` : attack.name;
  const ends = to > beyond ? ` on to ${to}` : '';
  // Said as it is written beside the bar and on it, the whole name in the tooltip.
  const words = `${short} ${from}–${to}${ends}${burst ? `, bursts over ${burst}` : ''}`;
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={words}
      aria-pressed={chosen}
      className="cursor-pointer"
      onClick={() => onSelect(attack.id)}
      onKeyDown={(event) => (event.key === 'Enter' || event.key === ' ') && (event.preventDefault(), onSelect(attack.id))}
    >
      <rect x={0} y={y} width={x(beyond + 1)} height={ROW} fill="transparent" />
      <text x={LEFT - 8} y={y + 14} textAnchor="end" className={chosen ? 'tb' : 't12'}>
        {short}{' '}
      </text>
      {burst > 0 && <rect x={x(to + 1)} y={y + 5} width={x(to + 1 + burst) - x(to + 1)} height={ROW - 9} fill={colour} opacity={0.2} />}
      <rect x={x(from)} y={y + 3} width={Math.max(2, x(to + 1) - x(from))} height={ROW - 5} fill={colour} opacity={chosen ? 1 : 0.55} />
      <text x={x(from) + 5} y={y + 14} className="t12" style={chosen ? ON_BAR : undefined}>
        {from}–{to}
      </text>
      {to > beyond && (
        <text x={x(beyond + 1) - 5} y={y + 14} textAnchor="end" className="t12" style={chosen ? ON_BAR : undefined}>
          {ends}
        </text>
      )}
    </g>
  );
}
