/** What is drawn in turns, and what follows from who comes first. */
import { expect, test } from '@jest/globals';
import { type FightSketch, eventsOf, unit } from '../../testing/builders';
import { turnTables } from '../../testing/rounds';
import { EVENT } from '../../record/log';
import { Runner } from '../run';

const TURNS = 10_000;

test('a draw never comes over a rule above it, and falls 40 to 40 to 10 to 10, in ten thousand turns', () => {
  const attack = (id: string, cooldown: number) => ({ id, effects: { damage: { amount: 0 } }, rounds: { cooldown } });
  const chooser = unit({
    id: 'chooser',
    rounds: {},
    attacks: [attack('rule', 4), attack('a', 1), attack('b', 1), attack('c', 1), attack('d', 1)],
    choice: {
      priorities: [
        { entries: [{ attack: 'rule' }] },
        {
          entries: [
            { attack: 'a', weight: 40 },
            { attack: 'b', weight: 40 },
            { attack: 'c', weight: 10 },
            { attack: 'd', weight: 10 },
          ],
        },
      ],
    },
  });
  const runner = new Runner(
    turnTables({
      party: [unit({ id: 'ours', side: 'party', attacks: [], rounds: {} })],
      enemies: [{ unit: chooser, x: 1 }],
      encounter: { rounds: { ground: 'none', limit: 500 } },
    }),
  );
  const counts = [0, 0, 0, 0, 0];
  for (let seed = 1; seed <= TURNS / 500; seed++) {
    const chosen = eventsOf(runner.run(seed).log, 'start').map(({ what }) => what);
    expect(chosen).toHaveLength(500);
    // The rule is ready in every fourth turn, and then it is that.
    chosen.forEach((what, turn) => expect(what === 0).toBe(turn % 4 === 0));
    for (const what of chosen) counts[what]++;
  }
  const drawn = counts.slice(1);
  const all = drawn.reduce((sum, count) => sum + count, 0);
  expect(all).toBe((TURNS * 3) / 4);
  const wanted = [0.4, 0.4, 0.1, 0.1].map((share) => share * all);
  const square = drawn.reduce((sum, count, i) => sum + (count - wanted[i]) ** 2 / wanted[i], 0);
  // Three degrees of freedom: one in a thousand is above 16.27.
  expect(square).toBeLessThan(16.27);
});

test('a store room that enemies go to burn and the party may reach first: who comes first decides, whatever order was drawn', () => {
  // Both are three turns away; whoever has the earlier turn in the third round raises its flag first.
  const corner = (x: number, y: number) => ({ x, y });
  const store = (id: string, by: string, flag: string) => ({
    id,
    name: id,
    by,
    flag,
    corners: [corner(-0.9, -0.9), corner(0.9, -0.9), corner(0.9, 0.9), corner(-0.9, 0.9)],
  });
  const goes = (id: string, side: string, first: string, second: string) =>
    unit({
      id,
      side,
      attacks: [{ id: 'wave', delivery: 'self', effects: { heal: { amount: 1 } }, rounds: { cooldown: 1 } }],
      rounds: { moves: 3, spread: 40 },
      states: [
        {
          id: 'goes',
          name: 'goes',
          does: 'goTo',
          to: 'store',
          attacks: 'none',
          leaves: [
            { to: 'won', when: { subject: 'flag', is: 'yes', of: first } },
            { to: 'lost', when: { subject: 'flag', is: 'yes', of: second } },
          ],
        },
        { id: 'won', name: 'won', does: 'hold' },
        { id: 'lost', name: 'lost', does: 'home', attacks: 'none' },
      ],
    });
  const sketch: FightSketch = {
    party: [goes('ours', 'party', 'kept', 'burnt')],
    partyAt: { x: -8.5, y: 0.5, facing: 0 },
    enemies: [{ unit: goes('theirs', 'enemy', 'burnt', 'kept'), x: 8.5, y: 0.5, facing: 180 }],
    arena: {
      points: [{ id: 'store', name: 'store', x: 0.5, y: 0.5 }],
      zones: [store('ours-first', 'party', 'kept'), store('theirs-first', 'enemies', 'burnt')],
    },
    encounter: { rounds: { ground: 'squares', order: 'byOrder', drawn: 'round', limit: 6 } },
  };
  const runner = new Runner(turnTables(sketch));
  const kinds = runner.compiled.names.flags;
  let kept = 0;
  for (let seed = 1; seed <= 1000; seed++) {
    const { log } = runner.run(seed);
    const flags = eventsOf(log, 'flag').filter(({ a }) => a === 1 || a === 0);
    const [first] = flags;
    const ours = kinds[first.what] === 'kept';
    if (ours) kept++;
    // Who raised it is who had the earlier turn of the round in which either could have.
    const round = Math.floor(first.time);
    const turn = (who: number) => runner.fight.turnOf(who, round);
    const both = Math.floor(flags[1]?.time ?? Infinity) === round;
    if (both) expect(ours).toBe(turn(0) < turn(1));
    // The other changes its conduct in its very next turn.
    const other = ours ? 1 : 0;
    const changed = eventsOf(log, 'state').find(({ actor }) => actor === other)!;
    const next = turn(other) > first.time * 1e6 ? turn(other) : runner.fight.turnOf(other, round + 1);
    expect(Math.round(changed.time * 1e6)).toBe(Math.round(next));
  }
  expect(kept).toBeGreaterThan(440);
  expect(kept).toBeLessThan(560);
});

test('the events of a fight in turns come in the order of their instants', () => {
  const strike = { id: 'strike', effects: { damage: { amount: 3, spread: 1 } }, rounds: {} };
  const tables = turnTables({
    party: [unit({ id: 'ours', side: 'party', health: { max: 40 }, rounds: { spread: 30 }, attacks: [strike] })],
    enemies: [{ unit: unit({ id: 'theirs', health: { max: 20 }, rounds: { spread: 30 }, attacks: [strike] }), x: 1, count: 4 }],
    encounter: { rounds: { ground: 'none', order: 'byOrder', drawn: 'round' } },
  });
  const { log } = new Runner(tables).run(3);
  for (let i = 1; i < log.length; i++) expect(log.time[i]).toBeGreaterThanOrEqual(log.time[i - 1]);
  expect(log.kind[log.length - 1]).toBe(EVENT.end);
});
