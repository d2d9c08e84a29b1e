import { ANSWERS, type Attack, type PaperAnswers, type Unit, fixed, shown, linear, roundUp, ticks } from '@insidia/core';
import { DragEdge } from './DragEdge';
import { type BeatLayout, layoutBeat, overTimeTicks } from './beat';
import { fitting, wideAs } from './labels';
import { useWidth } from './useWidth';
import { guarded } from '../parts/guarded';

interface Props {
  attack: Attack;
  unit: Unit;
  /** The attack before the last change, where it differs. */
  before?: Attack;
  /** Who reacts to it, and how fast. */
  reader?: { name: string; mean: number; spread: number; answers?: PaperAnswers };
  onDrag: (part: 'windup' | 'active' | 'recovery' | 'cooldown', value: number, mark: string) => void;
}

/** px: what a letter of the line about who reacts takes, on average */
const LETTER = 5.5;
const TOP = 42;
const BAR = 20;

/** One use of an attack along time: wind-up, hits, recovery, cooldown, next start. Its boundaries can be dragged. */
export const BeatStrip = guarded('The beat strip', function BeatStrip({ attack, unit, before, reader, onDrag }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const beat = layoutBeat(attack, unit);
  const old = before && layoutBeat(before, unit);
  const follows = comboOf(attack, unit);
  const comboEnd = follows.reduce((end, next) => end + layoutBeat(next, unit).recoveryEnd, beat.recoveryEnd);
  const farthest = Math.max(beat.nextStart, old?.nextStart ?? 0, beat.cooldownEnd, follows.length ? comboEnd : 0, 0.2);
  const x = linear(0, roundUp(farthest * 1.08), 4, width - 10);
  const colour = `var(--e-${unit.colour})`;
  const id = `${unit.id}-${attack.id}`;
  const drag = (part: Parameters<Props['onDrag']>[0], name: string, value: number, from: number) => ({
    label: `${attack.name} ${name}`,
    value,
    min: 0,
    max: part === 'cooldown' ? 600 : 60,
    unit: 's',
    step: 0.05,
    valueAt: (position: number) => x.invert(position) - from,
    onMove: (next: number, mark: string) => onDrag(part, next, mark),
  });
  const end = x(roundUp(farthest * 1.08));
  return (
    <div ref={ref}>
      <svg width={width} height={92} role="group" aria-label={`Beat strip of ${attack.name} in seconds`}>
        <Hatches id={id} colour={colour} />
        {reader && (
          <ReactionMark
            reader={reader}
            firstHit={beat.hits[0] + (attack.area?.delay ?? 0)}
            cue={attack.beat.cue ?? 0}
            x={x}
            width={width}
          />
        )}
        <Bar id={`up-${id}`} from={x(0)} to={x(beat.windupEnd)} colour={colour} name={`wind-up ${shown(attack.beat.windup)} s`} />
        <rect x={x(beat.windupEnd)} y={TOP} width={Math.max(0, x(beat.activeEnd) - x(beat.windupEnd))} height={BAR} fill={colour} />
        <Bar
          id={`down-${id}`}
          from={x(beat.activeEnd)}
          to={x(beat.recoveryEnd)}
          colour={colour}
          name={`recovery ${shown(attack.beat.recovery)} s`}
        />
        {beat.dash && (
          <path
            d={`M${x(beat.dash.from)} ${TOP + BAR + 7} H${x(beat.dash.to)} m-4 -3 l4 3 l-4 3`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={1.5}
          >
            <title>{`moves ${shown(beat.dash.metres)} m`}</title>
          </path>
        )}
        {attack.effects.overTime && <TickMarks attack={attack} from={beat.hits[0]} x={x} end={end} colour={colour} />}
        <HitMarks beat={beat} x={x} damage={attack.effects.damage?.amount} />
        <Combo follows={follows} unit={unit} from={beat.recoveryEnd} x={x} colour={colour} id={id} />
        {attack.beat.cooldownFrom === 'start' && (
          <path
            d={`M${x(0)} ${TOP + BAR + 4} H${x(Math.min(beat.cooldownEnd, beat.recoveryEnd))}`}
            stroke={colour}
            strokeWidth={2}
            opacity={0.5}
          />
        )}
        <path
          d={`M${x(Math.max(beat.recoveryEnd, 0))} ${TOP + BAR / 2} H${x(Math.max(beat.cooldownEnd, beat.recoveryEnd))}`}
          stroke={colour}
          strokeWidth={2}
        />
        {beat.nextStart > beat.cooldownEnd + 1e-9 && (
          <path
            d={`M${x(Math.max(beat.cooldownEnd, beat.recoveryEnd))} ${TOP + BAR / 2} H${x(beat.nextStart)}`}
            stroke={colour}
            strokeWidth={1}
            strokeDasharray="2 3"
          />
        )}
        {old && Math.abs(old.nextStart - beat.nextStart) > 1e-9 && <Was at={old.nextStart} now={beat.nextStart} x={x} />}
        <NextStart beat={beat} x={x} />
        <path d={`M4 72.5 H${end}`} className="axis" />
        {ticks(0, x.invert(end), 40).map((tick) => (
          <path key={tick} d={`M${x(tick)} 72 v3`} className="axis" />
        ))}
        {ticks(0, x.invert(end), 7).map((tick, i, all) => (
          <g key={tick}>
            <path d={`M${x(tick)} 72 v7`} className="axis" />
            <text x={x(tick)} y={89} textAnchor={i === 0 ? 'start' : 'middle'} className="t3">
              {shown(tick)}
              {i === all.length - 1 ? ' s' : ''}
            </text>
          </g>
        ))}
        <DragEdge {...drag('windup', 'wind-up', attack.beat.windup, 0)}>
          <Grip x={x(beat.windupEnd)} />
        </DragEdge>
        <DragEdge {...drag('active', 'active', attack.beat.active, beat.windupEnd)}>
          <Grip x={x(beat.activeEnd)} shift={beat.activeEnd === beat.windupEnd ? 5 : 0} />
        </DragEdge>
        <DragEdge {...drag('recovery', 'recovery', attack.beat.recovery, beat.activeEnd)}>
          <Grip x={x(beat.recoveryEnd)} shift={beat.recoveryEnd === beat.activeEnd ? 10 : 0} />
        </DragEdge>
        <DragEdge {...drag('cooldown', 'cooldown', attack.beat.cooldown, beat.cooldownFrom)}>
          <Grip x={x(beat.cooldownEnd)} shift={Math.abs(x(beat.cooldownEnd) - x(beat.recoveryEnd)) < 8 ? 8 : 0} strong />
        </DragEdge>
      </svg>
    </div>
  );
});

/** Wind-up is a rising hatch, recovery a falling one; nothing else is hatched. */
function Hatches({ id, colour }: { id: string; colour: string }) {
  return (
    <defs>
      <pattern id={`up-${id}`} width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width={5} height={5} fill={colour} opacity={0.16} />
        <rect width={1.7} height={5} fill={colour} />
      </pattern>
      <pattern id={`down-${id}`} width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <rect width={5} height={5} fill={colour} opacity={0.08} />
        <rect width={1.2} height={5} fill={colour} />
      </pattern>
    </defs>
  );
}

function Bar({ id, from, to, colour, name }: { id: string; from: number; to: number; colour: string; name: string }) {
  if (to <= from) return null;
  return (
    <rect x={from} y={TOP} width={to - from} height={BAR} fill={`url(#${id})`} stroke={colour}>
      <title>{name}</title>
    </rect>
  );
}

function HitMarks({ beat, x, damage }: { beat: BeatLayout; x: (value: number) => number; damage?: number }) {
  const apart = beat.hits.length > 1 ? x(beat.hits[1]) - x(beat.hits[0]) : 99;
  return (
    <g>
      {beat.hits.map((time, i) => (
        <g key={i}>
          <path d={`M${x(time)} ${TOP - 8} V${TOP + BAR + 6}`} stroke="var(--ink)" strokeWidth={apart < 6 ? 1 : 2} />
          {damage !== undefined && (apart >= 14 || i === 0) && (
            <text x={x(time)} y={TOP - 11} textAnchor={x(time) < 14 ? 'start' : 'middle'} className="tb">
              {shown(damage, 1)}
              {apart < 14 && beat.hits.length > 1 ? ` × ${beat.hits.length}` : ''}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}

/** Damage over time trails below the bar: a small mark for each tick of the first hit. */
function TickMarks({
  attack,
  from,
  x,
  end,
  colour,
}: {
  attack: Attack;
  from: number;
  x: (v: number) => number;
  end: number;
  colour: string;
}) {
  const times = overTimeTicks(attack)
    .map((time) => from + time)
    .filter((time) => x(time) <= end);
  return (
    <g>
      {times.map((time) => (
        <path key={time} d={`M${x(time)} ${TOP + BAR + 2} l3 6 h-6z`} fill={colour}>
          <title>tick of {shown(attack.effects.overTime?.amount ?? 0, 1)}</title>
        </path>
      ))}
    </g>
  );
}

/** Attacks that follow in line, each as its recovery ends; one that comes round again is drawn once. */
function comboOf(attack: Attack, unit: Unit): Attack[] {
  const follows: Attack[] = [];
  for (let at: Attack | undefined = attack; at?.next;) {
    const next: Attack | undefined = unit.attacks.find(({ id }) => id === at?.next?.attack);
    if (!next || next === attack || follows.includes(next)) break;
    follows.push(next);
    at = next;
  }
  return follows;
}

/** Follow-ups in line behind the recovery, paler, each with its hits. */
function Combo({
  follows,
  unit,
  from,
  x,
  colour,
  id,
}: {
  follows: Attack[];
  unit: Unit;
  from: number;
  x: (v: number) => number;
  colour: string;
  id: string;
}) {
  let start = from;
  return (
    <g opacity={0.8} pointerEvents="none">
      {follows.map((next) => {
        const beat = layoutBeat(next, unit);
        const at = start;
        start += beat.recoveryEnd;
        return (
          <g key={next.id}>
            <rect x={x(at)} y={TOP + 3} width={Math.max(0, x(at + beat.recoveryEnd) - x(at))} height={BAR - 6} fill="var(--paper)" />
            <rect
              x={x(at)}
              y={TOP + 3}
              width={Math.max(0, x(at + beat.windupEnd) - x(at))}
              height={BAR - 6}
              fill={`url(#up-${id})`}
              stroke={colour}
            />
            <rect
              x={x(at + beat.windupEnd)}
              y={TOP + 3}
              width={Math.max(0, x(at + beat.activeEnd) - x(at + beat.windupEnd))}
              height={BAR - 6}
              fill={colour}
            />
            <rect
              x={x(at + beat.activeEnd)}
              y={TOP + 3}
              width={Math.max(0, x(at + beat.recoveryEnd) - x(at + beat.activeEnd))}
              height={BAR - 6}
              fill={`url(#down-${id})`}
              stroke={colour}
            />
            {beat.hits.map((time) => (
              <path key={time} d={`M${x(at + time)} ${TOP - 4} V${TOP + BAR + 3}`} stroke="var(--ink)" strokeWidth={1.5} />
            ))}
            <text x={x(at) + 2} y={TOP - 7} className="t3 halo">
              {next.name}
              {next.effects.damage ? ` ${shown(next.effects.damage.amount, 1)}` : ''}
            </text>
          </g>
        );
      })}
    </g>
  );
}

function ReactionMark({
  reader,
  firstHit,
  cue,
  x,
  width,
}: {
  reader: NonNullable<Props['reader']>;
  firstHit: number;
  cue: number;
  x: (v: number) => number;
  width: number;
}) {
  const { name, mean, spread, answers } = reader;
  const reacts = cue + mean;
  const left = firstHit - reacts;
  const at = Math.min(x(reacts), width - 14);
  const verdict =
    left > 0.005
      ? `${fixed(left, 2)} s before the first hit lands`
      : left < -0.005
        ? `${fixed(-left, 2)} s after the first hit has landed`
        : 'just as the first hit lands';
  const possible = answers?.answers.filter(({ fits }) => fits) ?? [];
  const words = !answers?.answers.length
    ? ''
    : possible.length
      ? `: time to ${possible.map(({ kind }) => ANSWERS[kind].bare).join(', ')}`
      : ': no answer fits';
  const title = answers?.answers
    .map(
      ({ kind, fits, needs, why }) =>
        `${ANSWERS[kind].verb}: ${fits ? `fits, needs ${fixed(needs, 2)} s` : (why ?? `needs ${fixed(needs, 2)} s`)}`,
    )
    .join('\n');
  const rest = ` reacts at 0.34 ± 0.08 s, ${verdict}${words}`;
  const called = fitting(name, width - wideAs(rest, LETTER), LETTER);
  const wide = wideAs(called + rest, 6.1);
  return (
    <g>
      <rect
        x={x(Math.max(0, reacts - spread))}
        y={22}
        width={Math.max(1, x(reacts + spread) - x(Math.max(0, reacts - spread)))}
        height={46}
        fill="var(--stripe)"
      />
      <path d={`M${at} 18 V68`} stroke="var(--ink)" strokeWidth={1.5} strokeDasharray="2 2" />
      <path d={`M${at} 13 l5 5 l-5 5 l-5 -5z`} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.5} />
      <text x={at + 9 + wide > width ? Math.max(2, width - wide) : at + 9} y={at + 9 + wide > width ? 10 : 17} className="t12 halo">
        {title && <title>{title}</title>}
        <tspan className="tb">
          {called} reacts at {fixed(reacts, 2)} ± {fixed(spread, 2)} s
        </tspan>
        <tspan className="t2">
          , {verdict}
          {words}
        </tspan>
      </text>
    </g>
  );
}

function NextStart({ beat, x }: { beat: BeatLayout; x: (v: number) => number }) {
  const at = x(beat.nextStart);
  return (
    <g pointerEvents="none">
      <path d={`M${at} ${TOP - 2} V${TOP + BAR + 2}`} stroke="var(--ink)" strokeWidth={2} />
      <path d={`M${at} ${TOP + 2} h10 l-3 -3.6 M${at + 10} ${TOP + 2} l-3 3.6`} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      <text x={at} y={TOP - 7} textAnchor="middle" className="t12 halo">
        next start <tspan className="tb">{fixed(beat.nextStart, 2)}</tspan>
      </text>
    </g>
  );
}

function Was({ at, now, x }: { at: number; now: number; x: (v: number) => number }) {
  const near = Math.abs(x(at) - x(now)) < 90;
  return (
    <g>
      <path
        d={`M${x(Math.min(now, at))} ${TOP + BAR / 2} H${x(Math.max(now, at))}`}
        stroke="var(--ghost)"
        strokeWidth={1.5}
        strokeDasharray="1.5 3"
      />
      <circle cx={x(at)} cy={TOP + BAR / 2} r={4} fill="var(--paper)" stroke="var(--ghost)" strokeWidth={1.5} />
      {!near && (
        <text x={x(at)} y={TOP - 7} textAnchor="middle" className="t12 t2 halo">
          was {fixed(at, 2)}
        </text>
      )}
    </g>
  );
}

function Grip({ x, shift = 0, strong = false }: { x: number; shift?: number; strong?: boolean }) {
  return (
    <g transform={`translate(${x + shift} 0)`}>
      <rect x={-6} y={TOP - 4} width={12} height={BAR + 8} fill="transparent" />
      <path d={`M-1.5 ${TOP + BAR + 3} h3 v5 h-3z`} fill="var(--ink)" opacity={strong ? 1 : 0.75} />
    </g>
  );
}
