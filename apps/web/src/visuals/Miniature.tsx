/** Small pictures of a beginning, drawn to scales that all of a list share, so that they can be compared. */
import { type Attack, type Unit, type Wave, linear } from '@insidia/core';
import { layoutBeat } from './beat';
import { comings } from './comings';
import { reachOf } from './reach';

const HEIGHT = 30;
const WIDTH = 116;
const METRES = 16;
const SECONDS = 5;

/** Reach of every chosen attack, and the distance its states keep, on a ruler of sixteen metres. */
export function ReachMiniature({ unit }: { unit: Unit }) {
  const { attacks, keeps, stops } = reachOf(unit);
  const x = linear(0, METRES, 3, WIDTH - 2);
  const to = (metres: number) => x(Math.min(metres, METRES));
  const colour = `var(--e-${unit.colour})`;
  const high = Math.max(2, Math.min(7, 20 / Math.max(1, attacks.length)));
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden className="block">
      {keeps.map(({ id, near, far }) => (
        <rect key={id} x={to(near)} y={1} width={to(far) - to(near)} height={24} fill="var(--stripe)" />
      ))}
      {attacks.map(({ id, min, max }, i) => (
        <rect key={id} x={to(min)} y={2 + i * (high + 1)} width={Math.max(2, to(max) - to(min))} height={high} fill={colour} />
      ))}
      {stops.map(({ id, at }) => (
        <path key={id} d={`M${to(at)} 1 V25 m-3 -4 l3 3 l3 -3`} fill="none" stroke="var(--ink-2)" />
      ))}
      <path d={`M3 25.5 H${WIDTH - 2}`} className="axis" />
      {[0, 4, 8, 12, 16].map((metre) => (
        <path key={metre} d={`M${x(metre)} 25 v${metre % 8 ? 2 : 4}`} className="axis" />
      ))}
    </svg>
  );
}

/** One use of an attack on a clock of five seconds: wind-up and recovery pale, what can hurt full, then the cooldown. */
export function BeatMiniature({ attack, unit }: { attack: Attack; unit: Unit }) {
  const beat = layoutBeat(attack, unit);
  const x = linear(0, SECONDS, 3, WIDTH - 2);
  const to = (seconds: number) => x(Math.min(seconds, SECONDS));
  const colour = `var(--e-${unit.colour})`;
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden className="block">
      <rect x={to(0)} y={9} width={to(beat.recoveryEnd) - to(0)} height={12} fill={colour} fillOpacity={0.25} />
      <rect x={to(beat.windupEnd)} y={9} width={to(beat.activeEnd) - to(beat.windupEnd)} height={12} fill={colour} fillOpacity={0.6} />
      {beat.hits.map((at, i) => (
        <path key={i} d={`M${to(at)} 5 V25`} stroke={colour} strokeWidth={2} />
      ))}
      <path d={`M${to(beat.recoveryEnd)} 15 H${to(beat.nextStart)}`} stroke={colour} strokeWidth={2} />
      <path d={`M${to(beat.nextStart)} 10 v10`} stroke="var(--ink-2)" />
    </svg>
  );
}

/** Reach and, of its first attack, the beat. */
export function UnitMiniature({ unit }: { unit: Unit }) {
  return (
    <span className="flex gap-2">
      <ReachMiniature unit={unit} />
      {unit.attacks[0] ? <BeatMiniature attack={unit.attacks[0]} unit={unit} /> : <span style={{ width: WIDTH }} />}
    </span>
  );
}

/** Who comes when: a dot for each unit, later to the right, a row for each spawn point. */
export function WavesMiniature({ waves, points }: { waves: readonly Wave[]; points: readonly string[] }) {
  const { dots, until, starts } = comings(waves, points);
  const x = linear(0, Math.max(until, 12), 6, WIDTH - 8);
  const rows = Math.max(1, points.length);
  const y = (row: number) => 5 + (row * 18) / rows;
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden className="block">
      {starts.slice(1).map((at) => (
        <path key={at} d={`M${x(at) - 5} 2 V24`} stroke="var(--ink-3)" strokeDasharray="2 2" />
      ))}
      {dots.map(({ at, row, beside }, i) => (
        <circle key={i} cx={x(at) + beside * 6} cy={y(row)} r={2.5} fill="var(--ink)" />
      ))}
      <path d={`M3 25.5 H${WIDTH - 2}`} className="axis" />
    </svg>
  );
}
