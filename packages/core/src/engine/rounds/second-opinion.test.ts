import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EVENT } from '../../record/log';
import { roundOf } from '../../record/time';
import { type FightSketch, unit } from '../../testing/builders';
import { casesOf } from '../../testing/cases';
import { inTurns, turnTablesTrusted } from '../../testing/rounds';
import { type OwnAttack, type OwnFight, type OwnKind, type OwnTold, workedOutInRounds } from '../../testing/second-opinion-rounds';
import { Runner } from '../run';

/** More on demand: INSIDIA_CASES=50000 INSIDIA_SEED=7 */
const cases = { numRuns: casesOf(500) };

const whole = (min: number, max: number) => fc.integer({ min, max });

const attack: fc.Arbitrary<OwnAttack> = fc.record({
  amount: whole(1, 14),
  melee: fc.boolean(),
  limit: fc.constantFrom(1, 1, 2, 3),
  hits: fc.constantFrom(1, 1, 2),
  windup: fc.constantFrom(0, 0, 0, 1, 2),
  recovery: fc.constantFrom(0, 0, 1, 2, 3),
  cooldown: whole(0, 4),
  firstUse: whole(0, 3),
  energy: fc.constantFrom(0, 0, 3, 5),
  charges: fc.constantFrom(0, 0, 1, 2),
  recharge: whole(1, 4),
  stagger: fc.constantFrom(0, 0, 0, 1, 2),
  overTime: fc.option(
    fc.record({
      amount: whole(0, 6),
      every: whole(1, 3),
      for: whole(1, 6),
      stacking: fc.constantFrom('refresh' as const, 'stack' as const, 'ignore' as const),
    }),
    { freq: 2, nil: null },
  ),
});

const kind: fc.Arbitrary<OwnKind> = fc.record({
  health: whole(5, 80),
  regen: fc.constantFrom(0, 0, 1, 3),
  regenDelay: whole(0, 3),
  energy: whole(5, 20),
  energyRegen: whole(0, 3),
  armour: whole(0, 5),
  least: whole(0, 2),
  order: whole(0, 100),
  actions: whole(1, 3),
  back: fc.boolean(),
  attacks: fc.array(attack, { minLength: 1, maxLength: 3 }),
  guard: fc.option(fc.record({ uses: whole(1, 2), reduces: fc.constantFrom(0.5, 1, 0.25) }), { freq: 2, nil: null }),
  counter: fc.option(fc.record({ uses: whole(1, 3) }), { freq: 2, nil: null }),
});

/** Orders differ, so that no draw decides between equals. */
const fights: fc.Arbitrary<OwnFight> = fc
  .record({
    ours: fc.array(kind, { minLength: 1, maxLength: 3 }),
    theirs: fc.array(kind, { minLength: 1, maxLength: 4 }),
    orders: fc.shuffledSubarray([...Array(40).keys()], { minLength: 7, maxLength: 7 }),
    bySide: fc.boolean(),
    partyFirst: fc.boolean(),
    rows: fc.boolean(),
  })
  .map(({ ours, theirs, orders, bySide, partyFirst, rows }) => {
    const ordered = (kinds: OwnKind[], from: number) => kinds.map((one, i) => ({ ...one, order: orders[from + i] }));
    return { sides: [ordered(ours, 0), ordered(theirs, 3)], bySide, partyFirst, rows, limit: 15 };
  });

function sketchOf({ sides, bySide, partyFirst, rows, limit }: OwnFight): FightSketch {
  const unitOf = (own: OwnKind, id: string, side: string) =>
    unit({
      id,
      side,
      health: { max: own.health },
      energy: { max: own.energy, start: own.energy },
      armour: { flat: own.armour, minimumDamage: own.least },
      attacks: own.attacks.map((one, i) => ({
        id: `a${i}`,
        delivery: one.melee ? 'melee' : 'hitscan',
        needsLine: false,
        hits: { limit: one.melee ? one.limit : 1 },
        effects: {
          damage: { amount: one.amount },
          ...(one.stagger && { stagger: { rounds: { for: one.stagger } } }),
          ...(one.overTime && {
            overTime: {
              amount: one.overTime.amount,
              stacking: one.overTime.stacking,
              rounds: { every: one.overTime.every, for: one.overTime.for },
            },
          }),
        },
        ...(one.energy && { energy: one.energy }),
        ...(one.charges && { charges: { count: one.charges } }),
        rounds: {
          windup: one.windup,
          recovery: one.recovery,
          cooldown: one.cooldown,
          firstUse: one.firstUse,
          recharge: one.recharge,
          hits: one.hits,
        },
      })),
      choice: { priorities: own.attacks.map((_, i) => ({ entries: [{ attack: `a${i}` }] })) },
      rounds: {
        order: own.order,
        actions: own.actions,
        row: own.back ? 'back' : 'front',
        regen: own.regen,
        regenDelay: own.regenDelay,
        energyRegen: own.energyRegen,
        reactions: [
          ...(own.guard ? [{ id: 'guard', does: 'guard', ...own.guard }] : []),
          ...(own.counter ? [{ id: 'counter', does: 'counter', uses: own.counter.uses, attack: 'a0' }] : []),
        ],
      },
    });
  return {
    party: sides[0].map((own, i) => unitOf(own, `ours${i}`, 'party')),
    enemies: sides[1].map((own, i) => ({ unit: unitOf(own, `theirs${i}`, 'enemy'), x: i })),
    encounter: { rounds: { ground: 'none', order: bySide ? 'bySide' : 'byOrder', first: partyFirst ? 'ours' : 'theirs', rows, limit } },
  };
}

const KINDS = new Map<number, OwnTold['kind']>([
  [EVENT.start, 'start'],
  [EVENT.hit, 'hit'],
  [EVENT.tick, 'tick'],
  [EVENT.death, 'death'],
]);

function fromEngine(fight: OwnFight) {
  const { log, outcome } = new Runner(turnTablesTrusted(sketchOf(fight))).run(1);
  const told: OwnTold[] = [];
  for (let i = 0; i < log.length; i++) {
    const kind = KINDS.get(log.kind[i]);
    if (!kind) continue;
    const dies = kind === 'death';
    told.push({
      round: roundOf(log.time[i]),
      kind,
      by: dies ? -1 : log.actor[i],
      to: dies ? log.actor[i] : log.other[i],
      attack: dies ? -1 : log.what[i],
      dealt: kind === 'hit' || kind === 'tick' ? log.c[i] : 0,
    });
  }
  return { told, outcome };
}

/** Ticks of one turn fall together: in which order they are told nobody has promised. */
function settled({ told, outcome }: { told: OwnTold[]; outcome: string }) {
  const ordered: OwnTold[] = [];
  for (const one of told) {
    let at = ordered.length;
    const together = (other: OwnTold) => other.kind === 'tick' && one.kind === 'tick' && other.round === one.round && other.to === one.to;
    while (at > 0 && together(ordered[at - 1]) && before(one, ordered[at - 1])) at--;
    ordered.splice(at, 0, one);
  }
  return { told: ordered, outcome };
}
const before = (a: OwnTold, b: OwnTold) => a.by < b.by || (a.by === b.by && a.attack < b.attack);

test('what is generated is valid', () => {
  fc.assert(
    fc.property(fights, (fight) => void inTurns(sketchOf(fight))),
    { numRuns: 20 },
  );
});

test('fights in turns without ground go as a second opinion has them, act by act', () => {
  let acts = 0;
  fc.assert(
    fc.property(fights, (fight) => {
      const own = workedOutInRounds(fight);
      expect(settled(fromEngine(fight))).toEqual(settled(own));
      acts += own.told.length;
    }),
    cases,
  );
  expect(acts).toBeGreaterThan(20 * cases.numRuns);
});
