import { paperDuel } from './paper';
import { describe, expect, test } from '@jest/globals';
import { compile } from '../engine/compile';
import { run } from '../engine/run';
import { LIMITS } from '../model/limits';
import { runBatch } from './batch';
import type { Arena } from '../model/arena';
import type { Project } from '../model/project';
import { parseProject } from '../model/validate';
import { demoProject as demo } from '../testing/demo';
import { approach } from './approach';
import { ruledOut } from './choice-watch';
import { duelOptions } from './duel';
import type { DuelOptions } from './duel-setup';
import { DuelWork, readoutChanges } from './readout';
import { duelScenario } from './scenario';

const workOf = (project: Project, lens: Parameters<typeof duelScenario>[1], options: DuelOptions, firstSeed: number) =>
  new DuelWork(project, duelScenario(project, lens, options), firstSeed);

const clipper = { enemy: 'clipper', against: 'warden' };

function whole(project: Project, runs = 40) {
  const work = workOf(project, { skill: 'regular' }, clipper, 1);
  work.advance(runs);
  return work.result();
}

describe('a readout', () => {
  test('is the same whether one thread runs all seeds or two run half each', () => {
    const first = workOf(demo(), { skill: 'regular' }, clipper, 1);
    const second = workOf(demo(), { skill: 'regular' }, clipper, 21);
    first.advance(20);
    for (const [seed, runs] of [
      [21, 7],
      [28, 13],
    ])
      first.add(structuredClone(second.run(seed, runs)));
    expect(first.count).toBe(40);
    const [halves, one] = [first.result(), whole(demo())];
    expect(halves.summary).toEqual(one.summary);
    expect(halves.values).toEqual(one.values);
    halves.timeAtGap.forEach((time, i) => expect(time).toBeCloseTo(one.timeAtGap[i], 9));
  });

  test('takes over only the seeds that come next', () => {
    const work = workOf(demo(), {}, clipper, 1);
    work.advance(10);
    const other = workOf(demo(), {}, clipper, 21);
    expect(() => work.add(other.run(21, 20))).toThrow('the next run must be of seed 11: it is of 21');
  });

  test('has a key that changes with what it depends on and with nothing else', () => {
    const key = (project: Project, distance = 12) => workOf(project, {}, { ...clipper, distance }, 1).key;
    const renamed = demo();
    renamed.units[2].health.max = 99; // the Thistlejack is not in this duel
    const changed = demo();
    changed.units[1].health.max = 23;
    expect(key(renamed)).toBe(key(demo()));
    expect(key(changed)).not.toBe(key(demo()));
    expect(key(demo(), 11)).not.toBe(key(demo()));
  });

  test('shows what a change did on the same seeds', () => {
    const tougher = demo();
    tougher.units[1].health.max = 44;
    const changes = readoutChanges(whole(demo(), 100), whole(tougher, 100));
    expect(changes.timeToKill).toMatchObject({ visible: true, difference: expect.any(Number) });
    expect(changes.timeToKill?.low).toBeGreaterThan(1);
    expect(readoutChanges(whole(demo()), whole(demo())).timeToKill).toMatchObject({ difference: 0, visible: false });
    // Of readouts of different length, the seeds that both have are compared.
    expect(readoutChanges(whole(demo(), 100), whole(tougher, 40))).toEqual(readoutChanges(whole(demo(), 40), whole(tougher, 40)));
  });

  test('draws the median duel: it notices, comes nearer, strikes and dies, and the line says where', () => {
    const { approach: drawn, summary, enemyKind } = whole(demo());
    const [line] = drawn.lines;
    expect(line.gaps[0]).toBeCloseTo(12, 9);
    expect(line.marks.map(({ mark }) => mark)).toContain('notices');
    expect(line.marks.find(({ mark }) => mark === 'dies')?.time).toBeCloseTo(drawn.length, 9);
    const [noticed, died] = ['notices', 'dies'].map((wanted) => line.marks.find(({ mark }) => mark === wanted)!.time);
    const struck = line.marks.filter(({ mark }) => mark === 'struck');
    expect(died - struck[0].time).toBeCloseTo(summary.kinds[enemyKind].timeToKill!.median, 9);
    expect(noticed).toBeLessThan(line.windups[0]?.from ?? Infinity);
    for (const { from, to } of line.windups) expect(to - from).toBeLessThanOrEqual(0.3 + 1e-9);
  });
});

describe('a duel', () => {
  test('begins at the distance asked for, between edges, with as many as asked', () => {
    const tables = compile(demo(), duelOptions(demo(), {}, { enemy: 'mulcher', against: 'warden', copies: 3, distance: 7 }));
    expect([tables.capacity, tables.party.length]).toEqual([4, 1]);
    expect(tables.points[0].x).toBeCloseTo(7 + 0.9 + 0.4, 12);
    expect(approach(tables, 1).lines).toHaveLength(3);
  });

  test.each([
    [{ copies: 0 }, 'copies must be a whole number from 1 to 12: it is 0'],
    [{ copies: 1.5 }, 'copies must be'],
    [{ distance: -1 }, 'distance must be from 0 to 200 m: it is -1'],
    [{ distance: NaN }, 'distance must be'],
    [{ company: [{ unit: 'moth', count: 1 }] }, 'there is no unit "moth" in Verdance Station'],
    [{ company: [{ unit: 'clipper', count: 13 }] }, 'company of clipper must be a whole number from 1 to 12: it is 13'],
    [{ company: Array(9).fill({ unit: 'clipper', count: 1 }) }, 'company must be at most 8 kinds: it is 9'],
    [{ wall: 0 }, 'the wall between must be from 0.1 to 20 m high: it is 0'],
    [{ wall: 2, distance: 0.5 }, 'a wall between needs a distance of at least 1 m: it is 0.5'],
    [{ wall: 2, arena: 'boiler-court' }, 'a wall between stands on open ground: leave out the wall or the arena'],
    [{ from: 'point:gate' as const }, 'the spawn point "gate" is of an arena: say which'],
    [{ from: 'point:gate' as const, arena: 'boiler-court' }, 'there is no spawn point "gate" in Boiler Court'],
    [{ from: 'above' as 'ahead' }, 'from must be ahead, behind or a spawn point: it is above'],
    [{ enemy: 'moth' }, 'there is no unit "moth" in Verdance Station'],
  ])('%j is refused', (options, message) => {
    expect(() => duelOptions(demo(), {}, { ...clipper, ...options })).toThrow(message);
  });

  test('an encounter that is not there, and a step out of range, are refused by name', () => {
    expect(() => compile(demo(), { encounter: 'attic' })).toThrow('there is no encounter "attic" in Verdance Station');
    expect(() => compile(demo(), { encounter: 'first-bell', stepSeconds: 0 })).toThrow('step must be between 0.001 and 1 s: it is 0');
    expect(() => compile(demo(), { encounter: 'first-bell', tier: 'gale' })).toThrow('there is no tier "gale"');
  });

  test('a tier may change how many come', () => {
    const project = demo();
    project.encounters[0].waves[0].groups[0].count = { min: 1, max: 2 };
    project.tiers[2].tweaks.push({ scope: 'encounter', path: '/waves/bell/groups/one/count/max', op: '×', value: 2.2 });
    expect(compile(parseProject(project), { encounter: 'first-bell', tier: 'bramble' }).capacity).toBe(1 + 4); // 4.4, half up
    expect(compile(parseProject(project), { encounter: 'first-bell' }).capacity).toBe(1 + 2);
  });
});

describe('a duel of more than two, and somewhere', () => {
  test('on paper several deal their damage a second together, and as many hits as each has its share of', () => {
    const project = demo();
    const own = (id: string) => project.units.find((one) => one.id === id)!;
    const enemy = own('mulcher');
    enemy.shield = { max: 30, regen: 0, regenDelay: 0 };
    const work = workOf(project, {}, { enemy: 'mulcher', against: ['warden', 'tender'] }, 1);
    work.advance(1);
    const [a, b] = ['warden', 'tender'].map((id) => paperDuel(own(id), enemy)!);
    const all = a.damagePerSecond + b.damagePerSecond;
    const { party } = work.result().paper;
    expect(party!.damagePerSecond).toBeCloseTo(all, 12);
    // Health and shield, both, over what both deal.
    expect(party!.timeToKill).toBeCloseTo((enemy.health.max + 30) / all, 12);
    expect(party!.hitsToKill).toBeCloseTo((a.hitsToKill * a.damagePerSecond + b.hitsToKill * b.damagePerSecond) / all, 12);
    expect(party!.shotsToKill).toBeCloseTo((a.shotsToKill * a.damagePerSecond + b.shotsToKill * b.damagePerSecond) / all, 12);
  });

  test('against the whole party: both stand in it, and time-to-down is that of the first to go down', () => {
    const work = workOf(demo(), {}, { enemy: 'mulcher', against: ['warden', 'tender'], copies: 3, distance: 6 }, 1);
    work.advance(30);
    const { summary, values, timeToDown, paper } = work.result();
    expect(summary.members).toHaveLength(2);
    const first = work.run(1, 30).rows.map(({ timesToDown: [a, b] }) => (Number.isNaN(a) ? b : Number.isNaN(b) ? a : Math.min(a, b)));
    expect(values.timeToDown).toEqual(first);
    expect(timeToDown?.n).toBe(first.filter((time) => !Number.isNaN(time)).length);
    const single = workOf(demo(), {}, { enemy: 'mulcher', against: 'warden' }, 1);
    single.advance(1);
    expect(paper.party!.damagePerSecond).toBeGreaterThan(single.result().paper.party!.damagePerSecond);
  });

  test('in an arena: the party where it starts there, the enemy at the distance and clear of walls', () => {
    const project = demo();
    for (const arena of project.arenas) {
      const { encounter, arena: ground } = duelOptions(project, {}, { enemy: 'mulcher', against: 'warden', distance: 8, arena: arena.id });
      expect(encounter).toMatchObject({ arena: arena.id });
      const place = (ground as Arena).spawnPoints[0];
      const apart = Math.hypot(place.x - arena.partyStart.x, place.y - arena.partyStart.y);
      const radii = ['mulcher', 'warden'].reduce((sum, id) => sum + project.units.find((unit) => unit.id === id)!.body.radius, 0);
      expect(apart).toBeCloseTo(8 + radii, 6);
      expect(Math.abs(place.x)).toBeLessThan(arena.width / 2);
      const work = workOf(project, {}, { enemy: 'mulcher', against: 'warden', distance: 8, arena: arena.id }, 1);
      work.advance(5);
      expect(work.result().summary.kinds.every(({ noPlace }) => noPlace === 0)).toBe(true);
    }
    expect(() => duelOptions(project, {}, { enemy: 'mulcher', against: 'warden', arena: 'nowhere' })).toThrow(
      'there is no arena "nowhere"',
    );
    expect(() => duelOptions(project, {}, { enemy: 'mulcher', against: [] })).toThrow('it names 0');
  });
});

describe('what rules out the entries of a choice', () => {
  test('the Thistlejack’s kick is out of range nearly all the time; the shares of an entry add up to at most one', () => {
    const work = workOf(demo(), {}, { enemy: 'thistlejack', against: 'warden' }, 1);
    work.advance(20);
    const { choice, enemyKind } = work.result();
    const [kick, fan, quill] = choice[enemyKind][0];
    expect([kick.attack, fan.attack, quill.attack]).toEqual(['kick', 'quill-fan', 'quill']);
    for (const entry of [kick, fan, quill]) expect(entry.hurdles.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(entry.looks);
    const causes = Object.fromEntries(ruledOut(kick).map(({ by, share }) => [by, share]));
    expect(causes.range).toBeGreaterThan(causes.cooldown ?? 0);
    expect(causes.range).toBeGreaterThan(0.4);
  });

  test('looking changes no run, and two halves seen apart add up to the whole', () => {
    const duel = { enemy: 'sapwright', against: 'warden', copies: 2 };
    const whole = workOf(demo(), {}, duel, 1);
    whole.advance(10);
    const [first, second] = [workOf(demo(), {}, duel, 1), workOf(demo(), {}, duel, 6)];
    first.advance(5);
    first.add(second.run(6, 5));
    const [halves, one] = [first.result(), whole.result()];
    expect([halves.summary, halves.choice]).toEqual([one.summary, one.choice]);
    const plain = runBatch(whole.compiled, 1, 10);
    expect(whole.result().summary.digest).toBe(plain.digest);
  });
});

describe('where an enemy stands in an arena', () => {
  /** The party at the middle, looking along x; one wall. Where the Mulcher, 0.7 m wide, is put at 8 m. */
  const put = (x: number, y: number, w: number, d: number) => {
    const project = demo();
    const [arena] = project.arenas;
    const corners = [
      { x, y },
      { x: x + w, y },
      { x: x + w, y: y + d },
      { x, y: y + d },
    ];
    Object.assign(arena, {
      width: 60,
      depth: 60,
      walls: [{ id: 'w', name: 'W', height: 3, corners }],
      partyStart: { x: 0, y: 0, facing: 0 },
    });
    const { arena: found } = duelOptions(project, {}, { enemy: 'mulcher', against: 'warden', distance: 8, arena: arena.id });
    const [point] = found!.spawnPoints;
    return point;
  };
  const straightAhead = put(-25, -25, 1, 1);

  test('straight ahead where that is free', () => {
    expect(straightAhead.y).toBeCloseTo(0, 9);
    expect(straightAhead.x).toBeGreaterThan(8);
  });

  test('not in the midst of a wall, however far its faces are, nor nearer to one than its radius', () => {
    const inside = put(straightAhead.x - 3, -3, 6, 6);
    expect(Math.abs(inside.y)).toBeGreaterThan(3);
    const beside = put(straightAhead.x + 0.3, -1, 4, 2);
    expect(Math.abs(beside.y)).toBeGreaterThan(1);
  });
});

test('the shares of its time that attacks take come to no more than all of it, and to what they take', () => {
  const tables = compile(demo(), duelOptions(demo(), {}, { enemy: 'thistlejack', against: 'warden' }));
  const { kinds } = runBatch(tables, 1, 20);
  const { attacks } = kinds.find(({ id }) => id === 'thistlejack')!;
  const shares = attacks.map(({ timeShare }) => timeShare).filter((share) => share === share);
  expect(shares.length).toBeGreaterThan(0);
  expect(shares.reduce((sum, share) => sum + share, 0)).toBeLessThanOrEqual(1);
  expect(Math.max(...shares)).toBeGreaterThan(0.05);
});

describe('how a duel is set up', () => {
  const set = (options: Partial<Parameters<typeof duelOptions>[2]>, project = demo()) =>
    compile(project, duelOptions(project, {}, { enemy: 'clipper', against: 'warden', ...options }));
  /** At which instant each kind notices somebody, in the first second, where nobody moves. */
  function notices(options: Partial<Parameters<typeof duelOptions>[2]>): string[] {
    const project = demo();
    for (const { movement, senses } of project.units) {
      Object.assign(movement, { walk: 0, run: 0, turnRate: 0 });
      Object.assign(senses, { sight: 50, lose: 60, angle: 120, hearing: 0, needsLine: true, buildUp: 0, reaction: { mean: 0, spread: 0 } });
    }
    project.units.forEach(({ temper }) => (temper.alertRadius = 0));
    const tables = set(options, project);
    const found = new Set<string>();
    run(tables, 1, (fight, time) => {
      if (time <= 1e6) for (const unit of fight.alive) if (fight.alerted[unit]) found.add(fight.kinds[unit].id);
    });
    return [...found].sort();
  }

  test('a handful stands together: each kind as often as asked, its first the one that is measured', () => {
    const company = [
      { unit: 'clipper', count: 2 },
      { unit: 'mulcher', count: 1 },
    ];
    const tables = set({ enemy: 'sapwright', company });
    const { kinds, units, sides } = run(tables, 1);
    const came = Array.from({ length: units }, (_, unit) => unit).filter((unit) => sides[unit] === 1);
    expect(came.map((unit) => tables.kinds[kinds[unit]].id).sort()).toEqual(['clipper', 'clipper', 'mulcher', 'sapwright']);
    const work = workOf(demo(), {}, { enemy: 'sapwright', against: 'warden', company }, 20);
    work.advance(20);
    const { enemyKind, summary } = work.result();
    expect(summary.kinds[enemyKind].id).toBe('sapwright');
    // It mends whom it came with; alone there is nobody to mend.
    const healed = (one: typeof work) => one.result().summary.kinds.find(({ id }) => id === 'sapwright')!.healing.done;
    const alone = workOf(demo(), {}, { enemy: 'sapwright', against: 'warden' }, 20);
    alone.advance(20);
    expect(healed(work)).toBeGreaterThan(healed(alone));
  });

  test('from behind the party looks away, and is looked at; in an arena they come at its back', () => {
    expect(notices({})).toEqual(['clipper', 'warden']);
    expect(notices({ from: 'behind' })).toEqual(['clipper']);
    const tables = set({ from: 'behind', arena: 'boiler-court', distance: 4 });
    const [{ x, y, fx, fy }] = tables.party;
    const [point] = tables.points;
    // Straight behind: there the court is free.
    expect(fx * (point.x - x) + fy * (point.y - y)).toBeCloseTo(-Math.hypot(point.x - x, point.y - y), 9);
  });

  test.each([
    // Eyes at 0.55 and 1.65 m, half their heights at 0.35 and 0.9 m: halfway the lines are 0.725 and 1 m above the ground.
    [0.5, ['clipper', 'warden']],
    [3, []],
  ])('over a wall of %s m halfway, seen by %j', (wall, seen) => {
    expect(notices({ wall })).toEqual(seen);
  });

  test('around a wall there is a way, at any distance', () => {
    for (const distance of [1, 12, 200]) {
      const tables = set({ wall: 4, distance });
      expect((2 * tables.halfWidth * 2 * tables.halfDepth) / tables.grid ** 2).toBeLessThanOrEqual(LIMITS.gridCells);
      expect(tables.points[0].x).toBeLessThan(tables.halfWidth);
    }
    const project = demo();
    project.units.find(({ id }) => id === 'clipper')!.senses.needsLine = false;
    expect(run(set({ wall: 4, distance: 8 }, project), 1).outcome).not.toBe('timeOut');
    // Who needs a line to know of anybody stays where it is.
    expect(run(set({ wall: 4, distance: 8 }), 1).outcome).toBe('timeOut');
  });

  test('from a spawn point of an arena: there, scattered and facing as it says', () => {
    const project = demo();
    const [arena] = project.arenas;
    const given = arena.spawnPoints[1];
    const [point] = set({ from: `point:${given.id}`, arena: arena.id, distance: 3 }).points;
    expect([point.x, point.y, point.scatter]).toEqual([given.x, given.y, given.scatter]);
  });
});
