import { type Replay, UNIT_WIDTH, type UnitHead, gapBetween, linear, roundUp, shown, ticks, unitIn } from '@insidia/core';
import { memo, useMemo } from 'react';
import { guarded } from '../../parts/guarded';
import { replayTime } from './replayTime';

interface Props {
  replay: Replay;
  selected: number | undefined;
  width: number;
  length: number;
  time: number;
  heads: ReadonlyMap<string, UnitHead>;
}

const HEIGHT = 128;
const LEFT = 44;

/** Distance of the selected unit to its target, edge to edge, over the bands of its attacks; filled marks hit, open ones missed. */
export const RunApproach = guarded('The approach', function RunApproach({ replay, selected, width, length, time, heads }: Props) {
  if (selected === undefined)
    return (
      <section className="border-t px-4 pt-1.5" aria-label="Approach">
        <div className="section-head">
          <h3>Approach</h3>
          <span className="note">choose a unit on the stage or in the list: its distance to its target is drawn here</span>
        </div>
      </section>
    );
  // Without ground everybody is in reach of everybody.
  if (replay.rounds && !replay.board) return null;
  const x = linear(0, length || 1, LEFT, width - 6);
  return (
    <section className="border-t px-4 pt-1.5" aria-label="Approach">
      <div className="section-head">
        <h3>Approach</h3>
        <span className="note">
          {replay.units[selected].name}: distance to its target, edge to edge; thin: others of its kind; a filled mark is a hit, an open one
          a miss
        </span>
      </div>
      <svg width={width} height={HEIGHT} role="img" aria-label={`distance of ${replay.units[selected].name} to its target over time`}>
        <Lines replay={replay} selected={selected} width={width} length={length} heads={heads} />
        <path d={`M${x(time)} 4 V${HEIGHT - 18}`} stroke="var(--ink)" strokeWidth={1.4} />
        <text x={x(time) + 4} y={12} className="t12 tb halo">
          {replayTime(replay, time, 2)}
        </text>
      </svg>
    </section>
  );
});

const Lines = memo(function Lines({ replay, selected, width, length, heads }: Omit<Props, 'time'> & { selected: number }) {
  const unit = replay.units[selected];
  const line = useMemo(() => gapsOf(replay, selected), [replay, selected]);
  const others = useMemo(() => companions(replay, selected).map((other) => ({ other, line: gapsOf(replay, other) })), [replay, selected]);
  const most = roundUp(Math.max(3, ...line.map(({ gap }) => gap)));
  const x = linear(0, length || 1, LEFT, width - 6);
  const y = linear(0, most, HEIGHT - 18, 6);
  const far = unitIn(replay.rounds ? 'rounds' : 'continuous', 'm');
  // On a board a length of the run is so many metres, and told in cells.
  const cells = (metres: number) => metres / (replay.board?.side ?? 1);
  const colour = `var(--e-${heads.get(unit.kind)?.colour ?? 'ink'})`;
  const gapAt = (seconds: number) => line.find((point) => point.time >= seconds)?.gap ?? line[line.length - 1]?.gap ?? 0;
  const pathOf = (points: readonly { time: number; gap: number }[]) => {
    let path = '';
    let last = -1;
    for (const { time, gap } of points) {
      path += `${time - last > replay.step * 1.5 ? 'M' : 'L'}${x(time).toFixed(1)} ${y(Math.min(gap, most)).toFixed(1)} `;
      last = time;
    }
    return path;
  };
  return (
    <g>
      {unit.attacks.map((attack, i) => (
        <g key={i}>
          <rect
            x={LEFT}
            y={y(Math.min(cells(attack.max), most))}
            width={width - LEFT - 6}
            height={Math.max(0, y(Math.min(cells(attack.min), most)) - y(Math.min(cells(attack.max), most)))}
            fill={colour}
            opacity={0.1}
          />
          <text x={LEFT + 4} y={Math.min(y(Math.min(cells(attack.max), most)) + 10, HEIGHT - 21)} className="t3 halo-s">
            {attack.name} {shown(cells(attack.min))}–{shown(cells(attack.max))}
          </text>
        </g>
      ))}
      {others.map(({ other, line: points }) => (
        <path key={other} d={pathOf(points)} fill="none" stroke={colour} strokeWidth={0.8} opacity={0.55}>
          <title>{replay.units[other].name}</title>
        </path>
      ))}
      <path d={pathOf(line)} fill="none" stroke={colour} strokeWidth={1.6} />
      {replay.events
        .filter((event) => event.unit === selected && (event.event === 'hit' || event.event === 'miss' || event.event === 'blocked'))
        .map((event, i) => {
          const [cx, cy] = [x(event.time), y(Math.min(gapAt(event.time), most))];
          return (
            <path
              key={i}
              d={`M${cx} ${cy - 3} l4 -7 h-8z`}
              fill={event.event === 'hit' ? 'var(--ink)' : 'var(--sheet)'}
              stroke="var(--ink)"
            />
          );
        })}
      {replay.events
        .filter((event) => event.unit === selected && (event.event === 'death' || event.event === 'down'))
        .map((event, i) => {
          const [cx, cy] = [x(event.time), y(Math.min(gapAt(event.time), most))];
          return <path key={i} d={`M${cx - 4} ${cy - 4} l8 8 m0 -8 l-8 8`} stroke="var(--ink)" strokeWidth={2} />;
        })}
      <path d={`M${LEFT} ${HEIGHT - 17.5} H${width - 6}`} className="axis" />
      {ticks(0, most, 3).map((tick) => (
        <text key={tick} x={LEFT - 5} y={y(tick) + 4} textAnchor="end" className="t3">
          {shown(tick)}
          {tick === 0 ? '' : ` ${far}`}
        </text>
      ))}
    </g>
  );
});

function gapsOf(replay: Replay, selected: number): { time: number; gap: number }[] {
  const { unitAt, unitOf, unitData, step } = replay;
  const found: { time: number; gap: number }[] = [];
  for (let i = 0; i + 1 < unitAt.length; i++) {
    let own = -1;
    for (let row = unitAt[i]; row < unitAt[i + 1]; row++) if (unitOf[row] === selected) own = row;
    if (own < 0) continue;
    const target = unitData[own * UNIT_WIDTH + 10];
    if (target < 0) continue;
    for (let row = unitAt[i]; row < unitAt[i + 1]; row++) {
      if (unitOf[row] !== target) continue;
      found.push({ time: i * step, gap: gapBetween(replay, own, row) });
    }
  }
  return found;
}

/** Others of its kind that are drawn beside a unit. */
const MOST_COMPANIONS = 6;

/** Others of a unit's kind who are on the field while it is, in the order in which they came. */
function companions({ units, unitAt, unitOf }: Replay, selected: number): number[] {
  const found = new Set<number>();
  for (let step = 0; step + 1 < unitAt.length && found.size < MOST_COMPANIONS; step++) {
    const now = unitOf.subarray(unitAt[step], unitAt[step + 1]);
    if (!now.includes(selected)) continue;
    for (const unit of now)
      if (unit !== selected && units[unit].kind === units[selected].kind && found.size < MOST_COMPANIONS) found.add(unit);
  }
  return [...found];
}
