/** The geometry of a beat strip: one use of an attack as stretches of time. Pure; seconds in, seconds out. */
import type { Attack, PaperDash, Unit } from '@insidia/core';
import { dashOnPaper, hitInstants, shown, traitsOf } from '@insidia/core';

export interface BeatLayout {
  windupEnd: number;
  activeEnd: number;
  recoveryEnd: number;
  /** When each hit or shot falls. */
  hits: number[];
  /** The movement that is part of it, at the middle of its range. */
  dash?: PaperDash;
  /** Where the cooldown counts from and where it ends. */
  cooldownFrom: number;
  cooldownEnd: number;
  /** The earliest next start: phases over, cooldown over, shortest pause passed. */
  nextStart: number;
}

export function layoutBeat(attack: Attack, unit: Unit): BeatLayout {
  const { beat } = attack;
  const windupEnd = beat.windup;
  const activeEnd = windupEnd + beat.active;
  const recoveryEnd = activeEnd + beat.recovery;
  const count = Math.min(200, hitInstants(attack));
  const dash = dashOnPaper(attack);
  const hits = dash?.hit !== undefined ? [dash.hit] : Array.from({ length: count }, (_, i) => windupEnd + i * (beat.every ?? 0));
  const cooldownFrom = beat.cooldownFrom === 'end' ? recoveryEnd : 0;
  const cooldownEnd = cooldownFrom + beat.cooldown;
  return {
    windupEnd,
    activeEnd,
    recoveryEnd,
    hits,
    dash,
    cooldownFrom,
    cooldownEnd,
    nextStart: Math.max(cooldownEnd, recoveryEnd + unit.choice.pause.min),
  };
}

/** "volley of 3, 0.10 s apart, aim fixed when the wind-up starts": what the strip itself does not show. */
export function beatSentence(attack: Attack, unit: Unit): string {
  const { beat, delivery } = attack;
  const { hits: instants } = layoutBeat(attack, unit);
  const parts: string[] = [];
  parts.push(traitsOf(delivery).blows(attack, instants.length));
  if (instants.length > 1) parts.push(`${beat.every} s apart`);
  const { dash } = layoutBeat(attack, unit);
  if (dash) parts.push(`moves ${shown(dash.metres)} m from ${shown(dash.from)} to ${shown(dash.to)} s`);
  parts.push(beat.tracking === 'fixed' ? 'aim fixed when the wind-up starts' : 'turns until the wind-up ends');
  if (beat.moving !== 'no') parts.push(beat.moving === 'slow' ? 'walks on slowly' : 'moves freely');
  return parts.join(', ');
}

/** s after a hit at which its damage over time ticks: every, 2 × every … up to and including its duration. */
export function overTimeTicks({ effects: { overTime } }: Attack): number[] {
  if (!overTime) return [];
  const count = Math.min(500, Math.floor(overTime.for / overTime.every + 1e-9));
  return Array.from({ length: count }, (_, i) => (i + 1) * overTime.every);
}
