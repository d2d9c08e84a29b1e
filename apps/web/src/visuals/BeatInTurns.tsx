import { type Attack, type Unit, countedTurns, shown, turnBeat } from '@insidia/core';
import { guarded } from '../parts/guarded';
import { DragEdge } from './DragEdge';
import { useWidth } from './useWidth';

interface Props {
  attack: Attack;
  unit: Unit;
  onDrag: (part: 'windup' | 'recovery' | 'cooldown', value: number, mark: string) => void;
}

const [LEFT, TOP, BAR] = [4, 42, 20];
/** px: of one turn at most */
const WIDEST = 92;

/** One use of an attack in turns of its owner: each a box; wound up, struck, lost, and where it may be begun again. */
export const BeatInTurns = guarded('The beat in turns', function BeatInTurns({ attack, unit, onDrag }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const { windup = 0, recovery = 0, cooldown = 0, hits = 1 } = attack.rounds ?? {};
  const { strikes, free, next } = turnBeat(attack, unit.rounds?.actions ?? 1);
  const turns = Math.max(strikes, free, next) + 1;
  const wide = Math.min(WIDEST, (width - 2 * LEFT) / turns);
  /** px: where a turn begins. */
  const x = (turn: number) => LEFT + (turn - 1) * wide;
  const colour = `var(--e-${unit.colour})`;
  const edge = (part: Parameters<Props['onDrag']>[0], name: string, value: number, from: number) => ({
    label: `${attack.name} ${name}`,
    value,
    min: 0,
    max: 100,
    unit: 'turns',
    step: 1,
    valueAt: (place: number) => Math.round((place - x(from)) / wide),
    onMove: (to: number, mark: string) => onDrag(part, Math.round(to), mark),
  });
  const damage = attack.effects.damage?.amount;
  const every = Math.max(1, Math.ceil(22 / wide));
  return (
    <div ref={ref}>
      <svg width={width} height={92} role="group" aria-label={`Beat strip of ${attack.name} in turns`}>
        {Array.from({ length: turns }, (_, i) => i + 1).map((turn) => (
          <g key={turn}>
            <rect x={x(turn)} y={TOP} width={wide} height={BAR} fill="none" stroke="var(--hair)" />
            {(turn - 1) % every === 0 && (
              <text x={x(turn) + wide / 2} y={89} textAnchor="middle" className="t3">
                {turn === 1 ? (wide > 44 ? 'turn 1' : '1') : turn}
              </text>
            )}
          </g>
        ))}
        <Stretch name={`wind-up ${countedTurns(windup)}`} from={x(1)} to={x(strikes)} colour={colour} strong />
        <Stretch name={`recovery ${countedTurns(recovery)}`} from={x(strikes)} to={recovery > 0 ? x(free) : x(strikes)} colour={colour} />
        <rect x={x(strikes)} y={TOP} width={Math.max(6, wide * 0.16)} height={BAR} fill={colour}>
          <title>{`strikes ${windup > 0 ? `at the start of turn ${strikes}` : 'at once'}`}</title>
        </rect>
        <path d={`M${x(strikes)} ${TOP - 8} V${TOP + BAR + 6}`} stroke="var(--ink)" strokeWidth={2} />
        {damage !== undefined && (
          <text x={x(strikes)} y={TOP - 11} className="tb">
            {shown(damage, 1)}
            {hits > 1 ? ` × ${hits}` : ''}
          </text>
        )}
        <path d={`M${x(1)} ${TOP + BAR + 5} H${x(1 + cooldown)}`} stroke={colour} strokeWidth={2} opacity={0.6} />
        <g pointerEvents="none">
          <path d={`M${x(next)} ${TOP - 2} V${TOP + BAR + 2}`} stroke="var(--ink)" strokeWidth={2} />
          <path
            d={`M${x(next)} ${TOP + 2} h10 l-3 -3.6 M${x(next) + 10} ${TOP + 2} l-3 3.6`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
          <text x={x(next)} y={16} textAnchor={x(next) > width - 120 ? 'end' : 'start'} className="t12 halo">
            {next === 1 ? 'again in the same ' : 'next start in '}
            <tspan className="tb">{next === 1 ? 'turn' : `turn ${next}`}</tspan>
          </text>
        </g>
        <DragEdge {...edge('windup', 'wind-up', windup, 1)}>
          <Grip x={x(strikes)} />
        </DragEdge>
        <DragEdge {...edge('recovery', 'recovery', recovery, strikes)}>
          <Grip x={x(strikes + recovery)} shift={recovery === 0 ? 10 : 0} />
        </DragEdge>
        <DragEdge {...edge('cooldown', 'cooldown', cooldown, 1)}>
          <Grip x={x(1 + cooldown)} shift={cooldown === windup + recovery ? 20 : 0} />
        </DragEdge>
      </svg>
    </div>
  );
});

/** Turns that go into something: the wind-up darker than what is lost after it. */
function Stretch({ name, from, to, colour, strong }: { name: string; from: number; to: number; colour: string; strong?: boolean }) {
  if (to <= from) return null;
  return (
    <rect x={from} y={TOP} width={to - from} height={BAR} fill={colour} fillOpacity={strong ? 0.42 : 0.14} stroke={colour}>
      <title>{name}</title>
    </rect>
  );
}

function Grip({ x, shift = 0 }: { x: number; shift?: number }) {
  return (
    <g transform={`translate(${x + shift} 0)`}>
      <rect x={-6} y={TOP - 4} width={12} height={BAR + 8} fill="transparent" />
      <path d={`M-1.5 ${TOP + BAR + 3} h3 v5 h-3z`} fill="var(--ink)" opacity={0.75} />
    </g>
  );
}
