import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { isDamage } from '../measures/stream';
import { rowOf } from '../measures/row';
import { parseProject } from '../model/validate';
import { arbitraryWildFight } from '../testing/arbitrary-wild';
import { casesOf } from '../testing/cases';
import { type FightSketch, eventsOf, projectTrusted, sketched } from '../testing/builders';
import { trace } from '../trace/trace';
import { compile } from './compile';
import type { Fight } from './fight';
import { EVENT } from '../record/log';
import { DASHING } from './numbers';
import { type Run, Runner, run } from './run';
import type { Compiled } from './tables';

const compiled = (sketch: FightSketch) => compile(projectTrusted(sketch), { encounter: 'fight' });

/** What must hold of every fight, whatever is in it. More, and others, on demand: INSIDIA_CASES=20000 INSIDIA_SEED=7 */
const cases = { numRuns: casesOf(250) };
const few = { numRuns: Math.ceil(cases.numRuns / 5) };
const fightAndSeed = [arbitraryWildFight, fc.integer({ min: 0, max: 1e6 })] as const;

const count = ({ log }: Run, kind: keyof typeof EVENT) => {
  let n = 0;
  for (let i = 0; i < log.length; i++) if (log.kind[i] === EVENT[kind]) n++;
  return n;
};

describe('for every fight', () => {
  test('what the generator makes is valid', () => {
    fc.assert(
      fc.property(arbitraryWildFight, (sketch) => {
        expect(() => parseProject(JSON.parse(JSON.stringify(sketched(sketch))))).not.toThrow();
      }),
      { numRuns: 60 },
    );
  });

  // One run serves all three: what makes these tests slow is the fights.
  test('17, 20: the books add up; nobody in a wall, outside, below 0 or above max, no NaN; the dead do nothing; within its limits', () => {
    fc.assert(
      fc.property(...fightAndSeed, (sketch, seed) => {
        const tables = compiled(sketch);
        let standing = 0;
        const result = run(tables, seed, (fight) => {
          standing = fight.alive.length + fight.isDown.slice(0, fight.count).reduce((a, b) => a + b, 0);
          bodiesAreSound(tables, fight);
        });
        booksAddUp(result, standing);
        theDeadDoNothing(result);
        expect(result.length).toBeLessThanOrEqual(tables.limit);
        expect(result.units).toBeLessThanOrEqual(tables.capacity);
        expect(eventsOf(result.log, 'end')).toHaveLength(1);
      }),
      cases,
    );
  });

  test('20: same seed, same digest: again, after another run in the same buffers, watched, traced, from a copy', () => {
    fc.assert(
      fc.property(...fightAndSeed, (sketch, seed) => {
        const tables = compiled(sketch);
        const { digest } = run(tables, seed);
        const runner = new Runner(tables);
        runner.run(seed + 1);
        runner.run(seed + 2);
        expect(runner.run(seed).digest).toBe(digest);
        expect(runner.run(seed, () => undefined).digest).toBe(digest);
        expect(trace(tables, seed).digest).toBe(digest);
        expect(run(structuredClone(tables), seed).digest).toBe(digest);
      }),
      few,
    );
  });

  test('19: renamed, it is the same fight; every measure has a value or none, and shares lie between 0 and 1', () => {
    fc.assert(
      fc.property(...fightAndSeed, (sketch, seed) => {
        const tables = compiled(sketch);
        const renamed = compiled({ ...sketch, party: sketch.party.map((one) => ({ ...one, name: `${one.name as string} the second` })) });
        const first = run(tables, seed);
        const row = rowOf({ compiled: tables, run: first });
        expect(run(renamed, seed).digest).toBe(row.digest);
        expect(row.partyLeft).toBeGreaterThanOrEqual(0);
        expect(row.partyLeft).toBeLessThanOrEqual(1 + 1e-9);
        for (const kind of row.kinds) {
          const spent = kind.timeUse.reduce((a, b) => a + b, 0);
          expect(spent).toBeLessThanOrEqual(kind.alive + 1e-6);
          expect(kind.states.time.reduce((a, b) => a + b, 0)).toBeCloseTo(kind.alive, 6);
        }
        row.playerTime.forEach((times) => expect(times.reduce((a, b) => a + b, 0)).toBeCloseTo(row.length, 6));
      }),
      few,
    );
  });
});

/** Dealt is health lost, absorbed and overkill; spawned and revived are alive, dead, down or gone. */
function booksAddUp(result: Run, standing: number): void {
  const { log } = result;
  for (let i = 0; i < log.length; i++) {
    if (!isDamage(log.kind[i])) continue;
    if (!(Math.abs(log.a[i] + log.b[i] + log.d[i] - log.c[i]) <= 1e-9 * Math.max(1, log.c[i]))) throw new Error(`row ${i} does not add up`);
    if (log.a[i] < 0 || log.b[i] < -1e-9 || log.d[i] < 0) throw new Error(`row ${i} is below 0`);
  }
  // The last step's count is before its own deaths; so the books are made up to the end from the log alone.
  const born = count(result, 'spawn') + count(result, 'revive');
  const ended = count(result, 'death') + count(result, 'gone') + count(result, 'down') - bledOut(result);
  expect(born - ended).toBeGreaterThanOrEqual(0);
  expect(standing).toBeLessThanOrEqual(result.units);
}

function bodiesAreSound(tables: Compiled, fight: Fight): void {
  for (const unit of fight.alive) {
    const kind = fight.kinds[unit];
    const health = fight.healthNow(unit);
    if (!(health > 0 && health <= kind.maxHealth * (1 + 1e-9))) throw new Error(`health ${health} of ${kind.maxHealth}`);
    const shield = fight.shieldNow(unit);
    if (!(shield >= 0 && shield <= kind.shield * (1 + 1e-9))) throw new Error(`shield ${shield}`);
    const energy = fight.energyNow(unit);
    if (!(energy >= 0 && energy <= kind.energy * (1 + 1e-9))) throw new Error(`energy ${energy}`);
    if (!(fight.lent[unit] >= 0)) throw new Error(`lent ${fight.lent[unit]}`);
    // A body that grows may find itself too wide for where it stands: then it is only not to get in deeper.
    const place = fight.ground.isFree(
      0,
      fight.x[unit],
      fight.y[unit],
      Math.min(fight.radius[unit], tables.kinds[fight.kindNumber[unit]].radius) * (1 - 1e-6),
    );
    // Who leaps over low walls is above them until it lands.
    const leaps = fight.dashing[unit] === DASHING.attack && fight.attackOf(unit, fight.attack[unit]).dash!.over > 0;
    if (!place && !leaps && !crampedFromTheStart(fight, unit))
      throw new Error(`unit ${unit} stands in a wall at ${fight.x[unit]}, ${fight.y[unit]}`);
    if (!(Math.abs(Math.hypot(fight.fx[unit], fight.fy[unit]) - 1) < 1e-9)) throw new Error('facing is no unit vector');
  }
}

function theDeadDoNothing({ log }: Run): void {
  const gone = new Map<number, number>();
  for (let i = 0; i < log.length; i++) {
    const kind = log.kind[i];
    if (kind === EVENT.death || kind === EVENT.gone || kind === EVENT.down) gone.set(log.actor[i], log.time[i]);
    if (kind === EVENT.revive) gone.delete(log.other[i]);
    const acts = kind === EVENT.start || kind === EVENT.notice || kind === EVENT.state || kind === EVENT.target || kind === EVENT.doing;
    if (acts && gone.has(log.actor[i])) throw new Error(`unit ${log.actor[i]} acts at ${log.time[i]} after it was gone`);
  }
}

/** Deaths of those who were down already. */
function bledOut({ log }: Run): number {
  const down = new Set<number>();
  let n = 0;
  for (let i = 0; i < log.length; i++) {
    if (log.kind[i] === EVENT.down) down.add(log.actor[i]);
    else if (log.kind[i] === EVENT.revive) down.delete(log.other[i]);
    else if (log.kind[i] === EVENT.death && down.has(log.actor[i])) n++;
  }
  return n;
}

/** The party's start may lie in a wall: then its members stand where they were put, and may only get out. */
function crampedFromTheStart(fight: Fight, unit: number): boolean {
  return !fight.ground.isFree(0, fight.homeX[unit], fight.homeY[unit], fight.radius[unit] * 0.5) || fight.isMember[unit] === 1;
}

test('19: turned by 90° about the middle, without chance in space, it is the same fight at the same times', () => {
  const quarter = ({ x = 0, y = 0, facing = 0 }) => ({ x: 0 - y, y: x, facing: facing + 90 });
  const still = arbitraryWildFight.map((sketch): FightSketch => {
    const plain = (one: Record<string, unknown>) => ({
      ...one,
      targeting: { criteria: [{ by: 'nearest' }] },
      // Wandering, strafing and scatter draw directions; a patrol is laid out east and north.
      states: (one.states as { does: string }[]).map((s) => ({
        ...s,
        does: ['wander', 'search', 'patrol', 'strafe'].includes(s.does) ? 'approach' : s.does,
      })),
      attacks: (one.attacks as { delivery: string; projectile?: object }[]).map((a) => ({
        ...a,
        delivery: a.delivery === 'summon' ? 'self' : a.delivery,
        summon: undefined,
      })),
    });
    return {
      ...sketch,
      party: sketch.party.map(plain),
      enemies: sketch.enemies.map((enemy, i) => ({
        ...enemy,
        unit: plain(enemy.unit),
        count: 1,
        scatter: 0,
        x: i ? -8 : 8,
        y: i ? -6 : 6,
        facing: i ? 0 : 180,
      })),
      others: sketch.others?.map(plain),
      waves: [],
      width: 28,
      depth: 28,
      arena: { points: [], zones: [], walls: [] },
      // What is not there can't be stopped.
      encounter: { ...sketch.encounter, ends: { defend: [] }, events: (sketch.encounter?.events as object[]).slice(0, 1) },
    };
  });
  fc.assert(
    fc.property(still, fc.integer({ min: 0, max: 1e6 }), (sketch, seed) => {
      const turned: FightSketch = {
        ...sketch,
        partyAt: quarter({ ...sketch.partyAt }),
        enemies: sketch.enemies.map((enemy) => ({ ...enemy, ...quarter({ x: enemy.x, y: enemy.y, facing: enemy.facing }) })),
      };
      const times = (one: FightSketch) => {
        const { log, outcome } = run(compiled(one), seed);
        return [
          outcome,
          ...Array.from({ length: log.length }, (_, i) => `${log.time[i]} ${log.kind[i]} ${log.actor[i]} ${log.other[i]} ${log.what[i]}`),
        ];
      };
      expect(times(turned)).toEqual(times(sketch));
    }),
    { numRuns: Math.ceil(cases.numRuns / 5) },
  );
});
