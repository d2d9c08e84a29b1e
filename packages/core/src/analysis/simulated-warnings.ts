/** Design problems that only fighting shows: each with where it lies, one sentence, and what to do. */
import type { SimulatedRule } from './rules';
import type { Fight } from '../engine/fight';
import { IDLE_REASONS, type TimeUse, timeUseWords } from '../record/doing';
import { SECOND } from '../record/time';
import type { Compiled } from '../engine/tables';
import { Batch, type BatchSummary, summariseRows } from './batch';
import type { Row } from '../measures/row';
import { pointerOf } from '../model/pointer';
import { type Warning, byCost } from './warning';

export interface SimulatedWarning extends Warning {
  rule: SimulatedRule;
}

/** Shares and counts at which a thing is worth a word. */
const THRESHOLDS = {
  /** uses of an attack, of all its unit's, below which it is hardly used */
  hardlyUsed: 0.02,
  /** changes of state of one unit within 5 s: more than one a second */
  flicker: 6,
  /** runs that end at the limit */
  timesOut: 0.05,
  /** revives by one unit for each of its kind that ever stood, above which nobody is killed for good */
  reviveLoop: 3,
  /** units called or raised in a run, and how many of them and theirs fall for each, beyond and below which they outpace whoever fells them */
  outpaced: 3,
  falls: 0.7,
  /** runs in which a unit makes no way for ten seconds */
  stuck: 0.02,
  /** share of an area attack's damage that its own side takes */
  friendsHurt: 0.4,
  gateSkipped: 0.05,
};

/** Seconds without a radius of progress, while it wants to go somewhere, after which a unit counts as stuck. */
const STUCK_SECONDS = 10;

export interface Examined {
  encounter: string;
  compiled: Compiled;
  rows: readonly Row[];
  summary: BatchSummary;
  /** Runs in which a unit of each type was stuck, by type. */
  stuck: number[];
}

/** Runs an encounter and keeps what the warnings need besides the rows: who made no way. */
export function examine(encounter: string, compiled: Compiled, firstSeed: number, runs: number): Examined {
  const stuck = compiled.names.types.map(() => 0);
  const watch = new StuckWatch();
  const batch = new Batch(
    compiled,
    firstSeed,
    runs,
    (fight, time) => watch.see(fight, time),
    () => {
      for (const type of watch.take()) stuck[type]++;
    },
  );
  batch.advance(runs);
  return { encounter, compiled, rows: batch.rows, summary: summariseRows(compiled, batch.rows, firstSeed), stuck };
}

/** Looks once a second at everybody who is out of reach of its target and wants to come nearer. */
export class StuckWatch {
  private readonly found = new Set<number>();
  private readonly from = new Map<number, { x: number; y: number; since: number }>();
  private next = 0;

  see(fight: Fight, time: number): void {
    if (time === 0) {
      this.from.clear();
      this.next = 0;
    }
    if (time < this.next) return;
    this.next = time + SECOND;
    for (const unit of fight.alive) {
      const wants = fight.does[unit] === 1 && fight.target[unit] >= 0 && fight.bearingGap[unit] > fight.far[unit] && fight.pace[unit] > 0;
      const old = this.from.get(unit);
      const moved = old && Math.abs(fight.x[unit] - old.x) + Math.abs(fight.y[unit] - old.y) > fight.radius[unit];
      if (!wants || !old || moved) this.from.set(unit, { x: fight.x[unit], y: fight.y[unit], since: time });
      else if (time - old.since >= STUCK_SECONDS * SECOND) this.found.add(fight.kinds[unit].type);
    }
  }

  /** Types of which a unit was stuck since the last call. */
  take(): number[] {
    const types = [...this.found];
    this.found.clear();
    this.from.clear();
    return types;
  }
}

/** Warnings of one encounter at one tier and skill. */
export function simulatedWarnings({ encounter, compiled, summary, rows, stuck }: Examined): SimulatedWarning[] {
  const found: SimulatedWarning[] = [];
  const warn = (rule: SimulatedRule, severity: SimulatedWarning['severity'], path: string, message: string, mend: string) =>
    found.push({ rule, severity, path, message, mend });
  const at = pointerOf('encounters', encounter);
  const { runs } = summary;
  const ours = oursOf(compiled);
  const unhurt = whyNobodyIsHurt(compiled, summary);
  if (unhurt)
    warn('nobodyHurt', 'problem', at, `the party was not hurt in any of ${runs} runs: ${unhurt}`, 'look at what its enemies do instead');
  if (summary.outcomes.timeOut / runs >= THRESHOLDS.timesOut)
    warn(
      'timesOut',
      'problem',
      summary.clock === 'rounds' ? `${at}/rounds/limit` : `${at}/limit`,
      `${percent(summary.outcomes.timeOut / runs)} of runs end at the ${summary.clock === 'rounds' ? 'round' : 'time'} limit`,
      'raise the limit, or look for what can’t be beaten',
    );
  if (summary.outcomes.runaway > 0)
    warn(
      'runsAway',
      'problem',
      at,
      `${summary.outcomes.runaway} of ${runs} runs took too long and were ended: too much happened in them`,
      'look for attacks that repeat without end',
    );
  summary.kinds.forEach((kind, type) => {
    if (!kind.spawned) return;
    const unit = compiled.kinds[compiled.kindOfType[type]];
    const here = (...steps: string[]) => pointerOf('units', kind.id, ...steps);
    const starts = kind.attacks.reduce((sum, attack) => sum + attack.starts, 0);
    kind.attacks.forEach((attack, a) => {
      if (unit.contacts.includes(a) || unit.deathAttack === a || !kind.timeUse) return;
      const path = here('attacks', attack.id);
      if (attack.starts === 0)
        warn(
          'attackNeverUsed',
          'problem',
          path,
          `${attack.name} was never used in ${runs} runs`,
          'look at its range, its priority and what rules it out',
        );
      else if (attack.starts / starts < THRESHOLDS.hardlyUsed)
        warn(
          'attackHardlyUsed',
          'notice',
          path,
          `${attack.name} is ${percent(attack.starts / starts)} of what ${kind.name} begins`,
          'raise its weight or widen its range',
        );
    });
    kind.states.forEach((state, s) => {
      const entries = rows.reduce((sum, row) => sum + row.kinds[type].states.entries[s], 0);
      if (entries === 0)
        warn(
          'stateNeverEntered',
          'problem',
          here('states', state.id),
          `${state.name} was never entered in ${runs} runs`,
          'look at the conditions that lead to it',
        );
    });
    if (kind.mostChanges >= THRESHOLDS.flicker)
      warn(
        'flicker',
        'problem',
        here('states'),
        `a ${kind.name} changed its state ${kind.mostChanges} times within 5 s`,
        'put the distances at which it enters and leaves further apart, or give a least time',
      );
    const struckNobody = kind.neverStruck === kind.spawned && starts === 0 && kind.attacks.length > 0;
    if (struckNobody && unit.attacks.some(({ traits }) => traits.strikes))
      warn(
        'neverStruck',
        'problem',
        here('attacks'),
        `no ${kind.name} ever struck at ${ours.has(type) ? 'its foes' : 'the party'}${kind.reach?.max === 0 ? ': in none of its turns was anybody in reach' : ''}`,
        'look at what it was idle for',
      );
    if (kind.healing.revives / kind.spawned >= THRESHOLDS.reviveLoop)
      warn(
        'reviveLoop',
        'problem',
        here('attacks'),
        `a ${kind.name} raises ${(kind.healing.revives / kind.spawned).toFixed(1)} of the fallen`,
        'raise its price, its cooldown, or lower how often one may be raised',
      );
    if (kind.helped / runs >= THRESHOLDS.outpaced && kind.killed / (kind.helped + 1e-9) < THRESHOLDS.falls)
      warn(
        'outpaced',
        'problem',
        here('health'),
        `${kind.name} are called or raised faster than they fall: ${(kind.helped / runs).toFixed(1)} a fight, and ${(kind.killed / runs).toFixed(1)} fall`,
        'let whoever brings them pay more or wait longer, or let them fall sooner',
      );
    if (kind.gatesSkipped / kind.spawned >= THRESHOLDS.gateSkipped)
      warn(
        'gateSkipped',
        'problem',
        here('health', 'gates'),
        `${percent(kind.gatesSkipped / kind.spawned)} of ${kind.name} passed a health gate without its state having come`,
        'let the gate hold until its state has been entered',
      );
    if (kind.noPlace > 0)
      warn(
        'noPlace',
        'notice',
        at,
        `${kind.noPlace} times a ${kind.name} found no place to appear`,
        'widen the scatter or clear the spawn point',
      );
    if (stuck[type] / runs >= THRESHOLDS.stuck)
      warn(
        'stuck',
        'problem',
        here('movement'),
        `a ${kind.name} got no nearer to its target for ten seconds in ${percent(stuck[type] / runs)} of runs`,
        'look at the arena where it stood, and at the width of its body',
      );
    if (kind.attacks.length && kind.damagePerSecondAlive !== undefined) {
      const all = kind.attacks.reduce((sum, { damage }) => sum + damage, 0);
      const friendly = compiled.seats.some(({ kind: member }) => compiled.kinds[member].type === type)
        ? 0
        : all - rows.reduce((sum, row) => sum + row.kinds[type].partyDamage, 0);
      if (all > 0 && friendly / all >= THRESHOLDS.friendsHurt && unit.attacks.some((attack) => attack.friendly))
        warn(
          'friendsHurt',
          'notice',
          here('attacks'),
          `${percent(friendly / all)} of what ${kind.name} does, it does to its friends`,
          'turn friendly fire off, or keep its friends away',
        );
    }
  });
  return byCost(found);
}

/** Types that stand with the party from the start. */
const oursOf = (compiled: Compiled) => new Set([...compiled.seats, ...compiled.allies].map(({ kind }) => compiled.kinds[kind].type));

/** In a few words why a party that has foes was never hurt; undefined where it was, or where none is there to hurt it. */
export function whyNobodyIsHurt(
  compiled: Compiled,
  { encounter, kinds, outcomes, runs }: Pick<BatchSummary, 'encounter' | 'kinds' | 'outcomes' | 'runs'>,
): string | undefined {
  if ((encounter.dose?.max ?? 0) > 0 || outcomes.runaway === runs) return undefined;
  const ours = oursOf(compiled);
  const foes = kinds.filter(({ attacks }, type) => !ours.has(type) && attacks.length > 0);
  const came = foes.filter(({ spawned }) => spawned > 0);
  if (!came.length) return foes.length ? 'nobody came' : undefined;
  const alerted = came.filter(({ timeUse }) => timeUse);
  if (!alerted.length) return 'no enemy ever noticed anybody';
  const begun = came.reduce((sum, { attacks }) => sum + attacks.reduce((all, { starts }) => all + starts, 0), 0);
  if (begun > 0) return `${begun === 1 ? 'one attack was' : `${begun} attacks were`} begun, and none of them took anything`;
  const idle = (use: TimeUse) => alerted.reduce((sum, { timeUse }) => sum + (timeUse?.[use].value ?? 0), 0) / alerted.length;
  const most = [...IDLE_REASONS].sort((a, b) => idle(b) - idle(a))[0];
  return `no attack was begun; most of the time goes to: ${timeUseWords(most)}`;
}

/**
 * Whether tiers come in the order they are declared in: by pressure dose, seed by seed. A tier whose mean dose is not above
 * the one below it is out of order when the 95 % interval of the difference lies below 0, and alike when it is exactly 0.
 *
 * @param tiers in their declared order; doses on the same seeds
 */
export function tierWarnings(tiers: readonly { id: string; name: string; doses: readonly number[] }[]): SimulatedWarning[] {
  const found: SimulatedWarning[] = [];
  for (let i = 1; i < tiers.length; i++) {
    const [below, above] = [tiers[i - 1], tiers[i]];
    const differences = above.doses.map((dose, seed) => dose - below.doses[seed]);
    const n = differences.length;
    const mean = differences.reduce((a, b) => a + b, 0) / n;
    const half = (1.96 * Math.sqrt(differences.reduce((a, b) => a + (b - mean) ** 2, 0))) / n;
    const path = pointerOf('tiers', above.id);
    if (differences.every((difference) => difference === 0))
      found.push({
        rule: 'tiersAlike',
        severity: 'problem',
        path,
        message: `${above.name} is the same fight as ${below.name}`,
        mend: 'look for a cap that takes away what its tweaks ask for',
      });
    else if (mean + half < 0)
      found.push({
        rule: 'tierOutOfOrder',
        severity: 'problem',
        path,
        message: `${above.name} is easier than ${below.name}: the party takes ${percent(0 - mean)} of its health less`,
        mend: 'look for a tweak that works the other way round',
      });
  }
  return found;
}

function percent(share: number): string {
  return `${Number((100 * share).toFixed(1))} %`;
}
