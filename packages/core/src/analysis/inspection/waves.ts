/** Waves that all come at once, or never. */
import type { InspectionRule } from '../rules';
import type { Condition } from '../../model/condition';
import type { Encounter, Wave } from '../../model/encounter';
import { pointerOf } from '../../model/pointer';
import type { Project } from '../../model/project';
import type { Fix, Severity, Warning } from '../warning';
import { impossible } from './context';

export function waves(project: Project, encounter: Encounter): Warning[] {
  const found: Warning[] = [];
  const here = (...steps: (string | number)[]) => pointerOf('encounters', encounter.id, ...steps);
  const warn = (rule: InspectionRule, path: string, message: string, mend: string, fix?: Fix, severity: Severity = 'problem') =>
    found.push({ rule, severity, path, message, mend, causes: [here('waves'), here('events')], ...(fix && { fixes: [fix] }) });
  const parents = encounter.waves.filter(({ start }) => start !== 'with' && start !== 'called');
  const second = parents[1];
  if (second && parents.every((wave) => startsAtOnce(wave)))
    warn(
      'wavesAllAtOnce',
      here('waves'),
      `all ${parents.length} waves start at once`,
      'let the later ones wait for a time or for the one before',
      { name: `${second.name} waits for the one before`, path: here('waves', second.id, 'start'), value: 'defeated' },
    );
  const flags = raisedFlags(project, encounter);
  const counts = reachedCounts(project, encounter);
  encounter.waves.forEach((wave, index) => {
    const why = neverStarts(encounter, wave, flags, counts);
    if (why)
      warn('waveNeverStarts', here('waves', wave.id, 'start'), `${wave.name} never starts: ${why}`, 'give it another start', {
        name: 'start with the one before',
        path: here('waves', wave.id, 'start'),
        value: index === 0 ? 'atOnce' : 'with',
      });
    if (!wave.groups.length)
      warn(
        'emptyWave',
        here('waves', wave.id, 'groups'),
        `${wave.name} brings nobody`,
        'add a group or take the wave out',
        undefined,
        'notice',
      );
  });
  for (const event of encounter.events) {
    const flag = missing(event.when, flags, counts);
    if (impossible(event.when))
      warn('eventNever', here('events', event.id), `${event.name} never happens: its condition can’t hold`, 'change its condition');
    else if (flag) warn('eventNever', here('events', event.id), `${event.name} never happens: ${flag}`, 'let something bring that about');
  }
  return found;
}

/** True at the first instant of any fight. */
function startsAtOnce(wave: Wave): boolean {
  if (wave.delay > 0) return false;
  if (wave.start === 'atOnce' || (wave.start === 'clock' && wave.at === 0)) return true;
  if (wave.start === 'defeated') return wave.share === 0;
  return wave.start === 'condition' && wave.when !== undefined && holdsAtFirst(wave.when);
}

function holdsAtFirst({ subject, is, value = 0, parts = [] }: Condition): boolean {
  if (subject === 'clock' || subject === 'enemiesAlive' || subject === 'killed') return is === 'below' && value > 0;
  if (subject === 'all') return parts.every(holdsAtFirst);
  if (subject === 'any') return parts.some(holdsAtFirst);
  return false;
}

function neverStarts(encounter: Encounter, wave: Wave, flags: ReadonlySet<string>, counts: Counts): string | undefined {
  if (wave.timeout !== undefined) return undefined;
  if (wave.start === 'called') {
    const called = encounter.events.some(({ then }) => then.some(({ does, of }) => does === 'startWave' && of === wave.id));
    return called ? undefined : 'no event calls it';
  }
  if (wave.start === 'condition' && wave.when) {
    if (impossible(wave.when)) return 'its condition can’t hold';
    return missing(wave.when, flags, counts);
  }
  // Who waits for whom comes to an end, or the document is not valid.
  return undefined;
}

/** What a condition cannot do without and nothing ever brings about. */
function missing(condition: Condition, flags: ReadonlySet<string>, counts: Counts): string | undefined {
  const { subject, is, of, value = 0, parts = [] } = condition;
  if (subject === 'flag' && is === 'yes' && of !== undefined && !flags.has(of)) return `nothing raises the flag ${of}`;
  const count = subject === 'counter' && of !== undefined ? counts.get(of) : undefined;
  if (count && (is === 'above' ? count.most <= value : count.least >= value))
    return `nothing takes the counter ${count.name} ${is} ${value}`;
  if (subject === 'all') return parts.map((part) => missing(part, flags, counts)).find((one) => one !== undefined);
  if (subject === 'any') {
    const each = parts.map((part) => missing(part, flags, counts));
    return each.every((one) => one !== undefined) ? each[0] : undefined;
  }
  return undefined;
}

type Counts = ReadonlyMap<string, { name: string; least: number; most: number }>;

/** How far the encounter's events, which happen once, and units, which may enter a state again and again, can take each counter. */
function reachedCounts(project: Project, { counters, events }: Encounter): Counts {
  const once = events.flatMap(({ then }) => then.flatMap(({ counts }) => counts ?? []));
  const often = project.units.flatMap(({ states }) => states.flatMap(({ onEnter }) => onEnter?.counts ?? []));
  return new Map(
    counters.map(({ id, name, start }) => {
      const own = [...once.map((one) => ({ ...one, times: 1 })), ...often.map((one) => ({ ...one, times: Infinity }))].filter(
        ({ counter }) => counter === id,
      );
      const set = own.filter(({ how }) => how === 'set').map(({ by }) => by);
      const grown = (sign: number) =>
        own.filter(({ how, by }) => how === 'add' && by * sign > 0).reduce((sum, { by, times }) => sum + by * times, 0);
      return [id, { name, least: Math.max(0, Math.min(start, ...set) + grown(-1)), most: Math.max(start, ...set) + grown(1) }];
    }),
  );
}

function raisedFlags(project: Project, encounter: Encounter): Set<string> {
  const flags = new Set<string>();
  for (const { then } of encounter.events) for (const { does, of } of then) if (does === 'raise' && of) flags.add(of);
  for (const { flag } of project.arenas.find(({ id }) => id === encounter.arena)?.zones ?? []) flags.add(flag);
  for (const { states } of project.units) for (const { onEnter } of states) if (onEnter?.raise) flags.add(onEnter.raise);
  return flags;
}
