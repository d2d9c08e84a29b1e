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
    found.push({ rule, severity, path, message, mend, causes: [here('waves'), here('events')], ...(fix && { fix }) });
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
  encounter.waves.forEach((wave, index) => {
    const why = neverStarts(encounter, wave, index, flags);
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
    const flag = missingFlag(event.when, flags);
    if (impossible(event.when))
      warn('eventNever', here('events', event.id), `${event.name} never happens: its condition can’t hold`, 'change its condition');
    else if (flag)
      warn(
        'eventNever',
        here('events', event.id),
        `${event.name} waits for the flag ${flag}, which nothing raises`,
        'raise the flag somewhere',
      );
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

function neverStarts(encounter: Encounter, wave: Wave, index: number, flags: ReadonlySet<string>): string | undefined {
  if (wave.timeout !== undefined) return undefined;
  if (wave.start === 'called') {
    const called = encounter.events.some(({ then }) => then.some(({ does, of }) => does === 'startWave' && of === wave.id));
    return called ? undefined : 'no event calls it';
  }
  if (wave.start === 'condition' && wave.when) {
    if (impossible(wave.when)) return 'its condition can’t hold';
    const flag = missingFlag(wave.when, flags);
    return flag && `nothing raises the flag ${flag}`;
  }
  if (wave.start !== 'with' && wave.start !== 'defeated') return undefined;
  if (wave.after === wave.id) return 'it waits for itself';
  const before = wave.after === undefined ? encounter.waves[index - 1] : encounter.waves.find(({ id }) => id === wave.after);
  if (!before) return wave.after === undefined ? 'there is no wave before it' : undefined;
  return circular(encounter, wave) ? `it and ${before.name} wait for one another` : undefined;
}

function circular(encounter: Encounter, wave: Wave): boolean {
  const seen = new Set<string>();
  for (let at: Wave | undefined = wave; at;) {
    if (seen.has(at.id)) return at.id === wave.id;
    seen.add(at.id);
    if ((at.start !== 'with' && at.start !== 'defeated') || at.timeout !== undefined) return false;
    const id: string | undefined = at.after ?? encounter.waves[encounter.waves.indexOf(at) - 1]?.id;
    at = encounter.waves.find((one) => one.id === id);
  }
  return false;
}

/** A flag that a condition cannot do without and that nothing raises. */
function missingFlag(condition: Condition, flags: ReadonlySet<string>): string | undefined {
  const { subject, is, of, parts = [] } = condition;
  if (subject === 'flag' && is === 'yes' && of !== undefined && !flags.has(of)) return of;
  if (subject === 'all') return parts.map((part) => missingFlag(part, flags)).find((flag) => flag !== undefined);
  if (subject === 'any') {
    const missing = parts.map((part) => missingFlag(part, flags));
    return missing.every((flag) => flag !== undefined) ? missing[0] : undefined;
  }
  return undefined;
}

function raisedFlags(project: Project, encounter: Encounter): Set<string> {
  const flags = new Set<string>();
  for (const { then } of encounter.events) for (const { does, of } of then) if (does === 'raise' && of) flags.add(of);
  for (const { flag } of project.arenas.find(({ id }) => id === encounter.arena)?.zones ?? []) flags.add(flag);
  for (const { states } of project.units) for (const { onEnter } of states) if (onEnter?.raise) flags.add(onEnter.raise);
  return flags;
}
