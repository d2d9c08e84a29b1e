/** States and targeting: what can't be entered, left or found. */
import type { Condition } from '../../model/condition';
import { type Inspected, amount, impossible } from './context';

export function minds(one: Inspected): void {
  reachable(one);
  ways(one);
  targets(one);
  gates(one);
  assaults(one);
}

/** Sent to strike what stands at a point: somewhere a foe's thing must stand there. */
function assaults({ project, unit, warn }: Inspected): void {
  for (const { id, name, does, to, strikes } of unit.states) {
    if (does !== 'goTo' || strikes === 'no' || to === undefined) continue;
    const stands = project.encounters.some(({ arena, ends }) => {
      const point = project.arenas.find((one) => one.id === arena)?.points.find((one) => one.id === to);
      if (point?.health === undefined) return false;
      const enemies = ends.destroy.includes(to);
      return unit.side === 'party' ? enemies : !enemies && (ends.also.includes(to) || ends.defend.includes(to));
    });
    if (!stands)
      warn('nothingToStrike', {
        at: ['states', id, 'strikes'],
        message: `${name} is to strike what stands at ${to}, and in no encounter does a thing of its foes stand there`,
        mend: 'give the point health and let an encounter say whose it is, or pass it by',
        fixes: [{ name: 'passes it by', set: [{ path: `/states/${id}/strikes`, value: 'no' }] }],
      });
  }
}

/** A gate holds health at its share until its state has come: no way there may wait for less than that share. */
function gates({ unit, warn }: Inspected): void {
  for (const { id, share, state, holds } of unit.health.gates) {
    if (!holds || unit.startsIn === state) continue;
    const ways = unit.states.flatMap((from) => from.leaves.filter(({ to }) => to === state).map(({ when }) => below(when)));
    if (!ways.length || !ways.every((wanted) => wanted !== undefined && wanted <= share + 1e-9)) continue;
    const name = unit.states.find((one) => one.id === state)?.name ?? state;
    warn('gateNeverOpens', {
      at: ['health', 'gates', id],
      message: `holds health at ${amount(100 * share)} % until ${name}, which waits for less than ${amount(100 * Math.max(...(ways as number[])))} %: it can’t be hurt any further`,
      mend: `let ${name} begin a little above the gate, or the gate lie lower`,
      causes: [['health', 'gates'], ['states']],
    });
  }
}

/** The share of its health that a condition asks to have gone below; undefined where it may hold without. */
function below(when: Condition | undefined): number | undefined {
  if (!when) return undefined;
  if (when.subject === 'healthShare') return when.is === 'below' ? when.value : undefined;
  if (when.subject !== 'all') return undefined;
  const wanted = (when.parts ?? []).map(below).filter((one): one is number => one !== undefined);
  return wanted.length ? Math.min(...wanted) : undefined;
}

function reachable({ unit, warn }: Inspected): void {
  const start = unit.startsIn ?? unit.states[0]?.id;
  const seen = new Set(start === undefined ? [] : [start]);
  for (const id of seen) {
    const state = unit.states.find((each) => each.id === id);
    for (const { to, when } of state?.leaves ?? []) if (!when || !impossible(when)) seen.add(to);
  }
  for (const { id, name, does, leaves } of unit.states) {
    if (!seen.has(id))
      warn('stateUnreachable', {
        at: ['states', id],
        message: `no state that it comes to leads to ${name}`,
        mend: 'let another state lead there, or take it away',
        causes: [['states'], ['startsIn']],
      });
    else if (!leaves.length && unit.states.length > 1 && PASSIVE.has(does))
      warn('stateWithoutEnd', {
        at: ['states', id, 'leaves'],
        severity: 'notice',
        message: `nothing leads out of ${name}: once there it stays to the end`,
        mend: 'let something lead out of it',
      });
  }
}

const PASSIVE = new Set(['hold', 'wander', 'flee', 'home', 'search']);

function ways({ unit, warn }: Inspected): void {
  for (const state of unit.states) {
    const otherwise = state.leaves.findIndex(({ when, weight }) => !when && weight === undefined);
    state.leaves.forEach(({ when, to, after, weight }, i) => {
      const target = unit.states.find(({ id }) => id === to);
      const idle =
        weight === 0 ? 'its weight is 0' : !when && weight === undefined && i > otherwise ? 'another way is taken otherwise before it' : '';
      if (idle)
        warn('neverLeaves', {
          at: ['states', state.id, 'leaves', i],
          message: `${state.name} can never lead to ${target?.name ?? to}: ${idle}`,
          mend: weight === 0 ? 'give it a weight, or take it away' : 'give it a condition or a weight, or take it away',
        });
      if (to === state.id && !state.decides && after <= QUICK && weight !== 0 && !(when && impossible(when)))
        warn('flickers', {
          at: ['states', state.id, 'leaves', i],
          message: `${state.name} leads to itself: it can begin anew at every step`,
          mend: 'let it decide at intervals, or give that way a least time',
          fixes: [{ name: `stay at least 0.5 s in ${state.name}`, set: [{ path: `/states/${state.id}/leaves/${i}/after`, value: 0.5 }] }],
        });
      if (when && impossible(when))
        warn('neverLeaves', {
          at: ['states', state.id, 'leaves', i, 'when'],
          message: `${state.name} can never lead to ${target?.name ?? to}: the condition can’t hold`,
          mend: 'change the condition',
        });
      target?.leaves.forEach((back, j) => {
        if (back.to !== state.id || after > QUICK || back.after > QUICK || state.id >= target.id) return;
        const pair = when && back.when && crossing(when, back.when);
        if (!pair) return;
        const { low, high } = pair;
        // Entered below `low`, left above `high`: in between nothing may happen, or it goes to and fro.
        warn('flickers', {
          at: ['states', state.id, 'leaves', i, 'when'],
          message: `${state.name} and ${target.name} lead to one another at ${amount(low)} and ${amount(high)}: it can go to and fro at once`,
          mend: 'leave a stretch between the two, or give one of them a least time',
          causes: [
            ['states', state.id, 'leaves'],
            ['states', target.id, 'leaves'],
          ],
          fixes: [
            {
              name: `stay at least 0.5 s in ${target.name}`,
              set: [{ path: `/states/${target.id}/leaves/${j}/after`, value: 0.5 }],
            },
          ],
        });
      });
    });
  }
}

/** s of least time below which two states can flicker. */
const QUICK = 0.3;

/** Where two comparisons of one number hold for the same value, or meet: below 10 and above 10, below 10 and above 8. */
function crossing(a: Condition, b: Condition): { low: number; high: number } | undefined {
  if (a.subject !== b.subject || a.of !== b.of || a.value === undefined || b.value === undefined || a.is === b.is) return undefined;
  const [below, above] = a.is === 'below' ? [a, b] : [b, a];
  if (below.is !== 'below' || above.is !== 'above') return undefined;
  const [low, high] = [below.value as number, above.value as number];
  return high <= low ? { low, high } : undefined;
}

function targets({ unit, foes, warn }: Inspected): void {
  const { only, never } = unit.targeting;
  const fits = (filter: { roles: string[]; units: string[] }, foe: { id: string; role: string }) =>
    filter.roles.includes(foe.role) || filter.units.includes(foe.id);
  if (foes.length && only && !foes.some((foe) => fits(only, foe)))
    warn('nobodyToTarget', {
      at: ['targeting', 'only'],
      message: 'it goes only for units and roles that nobody on the other side has',
      mend: 'widen what it may go for',
      fixes: [{ name: 'go for anybody', set: [{ path: '/targeting/only', value: undefined }] }],
    });
  if (foes.length && never && foes.every((foe) => fits(never, foe)))
    warn('nobodyToTarget', {
      at: ['targeting', 'never'],
      message: 'it never goes for any of the units on the other side',
      mend: 'narrow what it leaves alone',
      fixes: [{ name: 'leave nobody alone', set: [{ path: '/targeting/never', value: undefined }] }],
    });
}
