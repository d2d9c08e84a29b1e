import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { arbitraryStanding } from '../testing/arbitrary-standing';
import { casesOf } from '../testing/cases';
import { type FightSketch, compiledTrusted, sketched } from '../testing/builders';
import { Exact, type Told, workedOut } from '../testing/second-opinion';
import { parseProject } from '../model/validate';
import { EVENT } from '../record/log';
import { run } from './run';

/** More on demand: INSIDIA_CASES=50000 INSIDIA_SEED=7 */
const cases = { numRuns: 2 * casesOf(500) };
const KINDS = new Map<number, Told['kind']>([
  [EVENT.hit, 'hit'],
  [EVENT.tick, 'tick'],
  [EVENT.blocked, 'stopped'],
  [EVENT.heal, 'heal'],
  [EVENT.death, 'death'],
]);

/** The same from the engine's stream. */
function fromEngine(sketch: FightSketch, step: number): Told[] {
  const compiled = compiledTrusted(sketch, step);
  const { log, kinds } = run(compiled, 1);
  const told: Told[] = [];
  for (let i = 0; i < log.length; i++) {
    const kind = KINDS.get(log.kind[i]);
    if (!kind) continue;
    const dies = kind === 'death';
    const [lost, over, dealt, absorbed] = dies || kind === 'stopped' ? [0, 0, 0, 0] : [log.a[i], log.b[i], log.c[i], log.d[i]];
    told.push({
      kind,
      time: log.time[i],
      by: dies ? -1 : log.actor[i],
      to: dies ? log.actor[i] : log.other[i],
      attack: dies ? '' : compiled.kinds[kinds[log.actor[i]]].attacks[log.what[i]].id,
      lost,
      over,
      dealt,
      absorbed,
    });
  }
  return told;
}

const near = (a: number, b: number) => Math.abs(a - b) <= 1e-6 * Math.max(1, Math.abs(a), Math.abs(b));
const same = (a: Told | undefined, b: Told | undefined) =>
  a !== undefined &&
  b !== undefined &&
  a.kind === b.kind &&
  a.time === b.time &&
  a.by === b.by &&
  a.to === b.to &&
  a.attack === b.attack &&
  near(a.lost, b.lost) &&
  near(a.over, b.over) &&
  near(a.dealt, b.dealt) &&
  near(a.absorbed, b.absorbed);

describe('a second opinion on standing fights', () => {
  test('fractions are exact', () => {
    expect(Exact.of(0.1).plus(Exact.of(0.2)).against(Exact.of(0.3))).toBe(0);
    expect(Exact.of(1e-7).times(Exact.of(1e7)).value).toBe(1);
    expect([Exact.of(7).upOver(Exact.of(2)), Exact.of(6).upOver(Exact.of(2)), Exact.of(-1.5).value]).toEqual([4, 3, -1.5]);
  });

  test('what is generated is valid', () => {
    fc.assert(
      fc.property(arbitraryStanding, (sketch) => {
        parseProject(JSON.parse(JSON.stringify(sketched(sketch))));
      }),
      { numRuns: 20 },
    );
  });

  test('hit by hit, tick by tick, at steps of 0.05 and 0.1 s', () => {
    let compared = 0;
    fc.assert(
      fc.property(arbitraryStanding, fc.constantFrom(0.05, 0.1), (sketch, step) => {
        const enemies = sketch.enemies.flatMap(({ unit, count = 1 }) => Array.from({ length: count }, () => unit));
        const mine = workedOut(sketch.party[0], enemies, sketch.limit, step);
        const theirs = fromEngine(sketch, step);
        compared += mine.length;
        const at = Array.from({ length: Math.max(mine.length, theirs.length) }, (_, i) => i).find((i) => !same(mine[i], theirs[i]));
        if (at === undefined) return;
        throw new Error(`row ${at} by hand ${JSON.stringify(mine[at])}, by the engine ${JSON.stringify(theirs[at])}`);
      }),
      cases,
    );
    expect(compared).toBeGreaterThan(20 * cases.numRuns);
  });
});
