import { type Approach, type Unit, shown, linear, roundUp, ticks } from '@insidia/core';
import { Roomy, fitting, stacked, wideAs } from './labels';
import { guarded } from '../parts/guarded';

interface Props {
  approach: Approach;
  unit: Unit;
  /** Colours of others that may appear: those it summons. */
  colourOf?: (kind: string) => Unit['colour'] | undefined;
  /** Sum of both bodies' radii. */
  radii: number;
  width: number;
}

const LEFT = 28;
const TOP = 8;
const HEIGHT = 140;

/** How far each attack reaches and how far it sees, between edges: m, or cells. */
function reaches({ attacks, senses, rounds }: Unit, radii: number, clock: Approach['clock']) {
  if (clock === 'rounds')
    return {
      reach: attacks.map((attack) => ({ from: attack.rounds?.from ?? 0, to: attack.rounds?.to ?? 0 })),
      sight: rounds?.senses?.sight ?? Infinity,
    };
  return { reach: attacks.map(({ range }) => ({ from: range.min, to: range.max })), sight: senses.sight - radii };
}

/** One duel in a look: distance to the target over time, over the bands of the reach strip. */
export const ApproachChart = guarded('The approach', function ApproachChart({ approach, unit, colourOf, radii, width }: Props) {
  const { lines, length, clock } = approach;
  const { reach, sight } = reaches(unit, radii, clock);
  const farthest = roundUp(Math.max(2, ...lines.map(({ gaps }) => gaps.reduce((a, b) => Math.max(a, b), 0))));
  const x = linear(0, length || 1, LEFT, width - 12);
  const y = linear(0, farthest, TOP + HEIGHT, TOP);
  const colour = `var(--e-${unit.colour})`;
  const at = (line: Approach['lines'][number], time: number) => {
    const next = line.times.findIndex((t) => t >= time);
    if (next <= 0) return line.gaps[next === 0 ? 0 : line.gaps.length - 1] ?? 0;
    if (clock === 'rounds') return line.gaps[line.times[next] === time ? next : next - 1];
    const share = (time - line.times[next - 1]) / (line.times[next] - line.times[next - 1]);
    return line.gaps[next - 1] + (line.gaps[next] - line.gaps[next - 1]) * share;
  };
  const pathOf = (line: Approach['lines'][number], from = 0, to = Infinity) => {
    const points = [`${x(Math.max(from, line.times[0] ?? 0)).toFixed(1)} ${y(at(line, Math.max(from, line.times[0] ?? 0))).toFixed(1)}`];
    line.times.forEach((time, i) => {
      if (time <= from || time >= to) return;
      // In turns a distance stays until somebody's turn changes it.
      if (clock === 'rounds' && i > 0) points.push(`${x(time).toFixed(1)} ${y(line.gaps[i - 1]).toFixed(1)}`);
      points.push(`${x(time).toFixed(1)} ${y(line.gaps[i]).toFixed(1)}`);
    });
    if (to < Infinity) points.push(`${x(Math.min(to, length)).toFixed(1)} ${y(at(line, to)).toFixed(1)}`);
    return 'M' + points.join(' L');
  };
  const bands = reach.map(({ from, to }) => ({ high: y(Math.min(to, farthest)), low: y(Math.min(from, farthest)) }));
  // A round begins at its mark; the unit stands at the end.
  const times = ticks(0, length, 5).filter((tick) => clock === 'continuous' || (Number.isInteger(tick) && x(tick) < width - 48));
  const bandLabels = stacked(bands);
  // Many may die in one place: a label is written where there is room for it.
  const deaths = new Roomy(44, 12);
  return (
    <svg
      width={width}
      height={TOP + HEIGHT + 18}
      role="img"
      aria-label={`Approach chart: distance of ${unit.name} to its target over ${shown(length, 1)} ${clock === 'rounds' ? 'rounds' : 'seconds'}, seed ${approach.seed}`}
    >
      {unit.attacks.map((attack, i) => {
        const { high, low } = bands[i];
        const label = bandLabels[i];
        const metres = `${shown(reach[i].from)}–${shown(reach[i].to)}`;
        return (
          <g key={attack.id}>
            <rect
              x={LEFT}
              y={high}
              width={width - LEFT - 4}
              height={Math.max(0, low - high)}
              fill={colour}
              opacity={0.1 + 0.04 * (i % 3)}
            />
            {label !== undefined && (
              <text x={LEFT + 5} y={label} className="t2">
                {fitting(attack.name, width - LEFT - 16 - wideAs(metres))} {metres}
              </text>
            )}
          </g>
        );
      })}
      {sight < farthest && (
        <g>
          <path d={`M${LEFT} ${y(sight)} H${width - 4}`} stroke="var(--ink-3)" strokeWidth={0.8} />
          <text x={width - 6} y={y(sight) - 3} textAnchor="end" className="t3">
            sight {shown(clock === 'rounds' ? sight : unit.senses.sight)}
          </text>
        </g>
      )}
      {lines.map((line, number) => {
        const own = `var(--e-${line.kind === unit.id ? unit.colour : (colourOf?.(line.kind) ?? unit.colour)})`;
        return (
          <g key={line.unit}>
            <path d={pathOf(line)} fill="none" stroke={own} strokeWidth={1.6} />
            {line.windups.map(({ from, to }) => (
              <path key={from} d={pathOf(line, from, to)} fill="none" stroke={own} strokeWidth={6} strokeDasharray="2 1.6" />
            ))}
            {line.actives.map(({ from, to }) => (
              <path key={from} d={pathOf(line, from, to)} fill="none" stroke={own} strokeWidth={6} />
            ))}
            {line.marks.map(({ time, mark }, i) => {
              const [cx, cy] = [x(time), y(at(line, time))];
              if (mark === 'hit') return <path key={i} d={`M${cx} ${cy - 3} l4 -7 h-8z`} fill="var(--ink)" />;
              if (mark === 'miss' || mark === 'blocked')
                return <path key={i} d={`M${cx} ${cy - 3} l4 -7 h-8z`} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.2} />;
              if (mark === 'struck') return <path key={i} d={`M${cx} ${cy + 3} v5`} stroke="var(--ink-3)" strokeWidth={1} />;
              if (mark === 'notices') {
                return (
                  <g key={i}>
                    <circle cx={cx} cy={cy} r={3.5} fill="var(--sheet)" stroke={own} strokeWidth={1.6} />
                    {number === 0 && line.marks.findIndex((one) => one.mark === 'notices') === i && (
                      <text x={cx + 8} y={Math.max(cy - 4, TOP + 4)} className="t2 halo-s">
                        notices
                      </text>
                    )}
                  </g>
                );
              }
              // A member that goes down is a mark on every line; one is enough.
              if (mark === 'targetDown' && number > 0) return null;
              const [labelX, labelY] = [Math.min(cx, width - 30), Math.max(cy - 9, 16)];
              return (
                <g key={i}>
                  <path d={`M${cx - 4.5} ${cy - 4.5} l9 9 m0 -9 l-9 9`} stroke="var(--ink)" strokeWidth={2.2} />
                  {deaths.take(labelX, labelY) && (
                    <text x={labelX} y={labelY} textAnchor="middle" className="t2 halo-s">
                      {mark === 'dies' ? 'dies' : 'downs'} {clock === 'rounds' ? Math.floor(time) + 1 : shown(time, 1)}
                    </text>
                  )}
                </g>
              );
            })}
          </g>
        );
      })}
      <path d={`M${LEFT} ${TOP + HEIGHT + 0.5} H${width - 4}`} className="axis" />
      {times.map((tick) => (
        <g key={tick}>
          <path d={`M${x(tick)} ${TOP + HEIGHT} v3`} className="axis" />
          <text x={x(tick)} y={TOP + HEIGHT + 14} textAnchor="middle" className="t3">
            {clock === 'rounds' ? tick + 1 : shown(tick)}
          </text>
        </g>
      ))}
      <text x={width - 2} y={TOP + HEIGHT + 14} textAnchor="end" className="t3">
        {clock === 'rounds' ? 'rounds' : 's'}
      </text>
      {ticks(0, farthest, 3).map((tick) => (
        <text key={tick} x={LEFT - 6} y={y(tick) + 4} textAnchor="end" className="t3">
          {shown(tick)}
        </text>
      ))}
    </svg>
  );
});
