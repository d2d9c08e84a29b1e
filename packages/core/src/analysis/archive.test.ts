/** The Seed Archive, the demo in turns: what it shows, and its planted faults, each measured, and gone once mended. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import {
  type Project,
  Runner,
  clocksOf,
  compile,
  examine,
  inspect,
  isWon,
  parseProject,
  projectWithRounds,
  runBatch,
  simulatedWarnings,
} from '../index';
import { TIME_USES } from '../record/doing';
import { EVENT } from '../record/log';
import { roundOf } from '../record/time';
import { demoProject } from '../testing/demo';

const raw = () => JSON.parse(readFileSync(join(__dirname, '../../../../demo/archive.insidia.json'), 'utf8')) as Project;
const archive = (change: (project: Project) => void = () => undefined): Project => {
  const project = raw();
  change(project);
  return parseProject(project);
};
const unit = (project: Project, id: string) => project.units.find((one) => one.id === id)!;
const attack = (project: Project, id: string, name: string) => unit(project, id).attacks.find((one) => one.id === name)!;
const fight = (encounter: string, project = archive(), tier = 'dormant') => compile(project, { encounter, tier });
const RUNS = 60;
/** What a turn went into where it reels, or goes on with what it has begun. */
const REELS = TIME_USES.indexOf('staggered');
/** Rules of the warnings that simulating shows, with whom they are about. */
const warned = (encounter: string, project = archive()) =>
  simulatedWarnings(examine(encounter, fight(encounter, project), 1, RUNS)).map(({ rule, path }) => `${rule} ${path}`);
/** Runs of a fight, each with what happened in it. */
const runs = (tables: ReturnType<typeof fight>, count = RUNS) => {
  const runner = new Runner(tables);
  return Array.from({ length: count }, (_, i) => {
    const { log, outcome, kinds } = runner.run(i + 1);
    const events = Array.from({ length: log.length }, (__, at) => ({
      kind: log.kind[at],
      type: log.actor[at] < 0 ? '' : tables.kinds[kinds[log.actor[at]]].id,
      what: log.what[at],
      time: log.time[at],
      round: roundOf(log.time[at]) + 1,
      unit: log.actor[at],
    }));
    return { outcome, events };
  });
};

test('its file says everything that the page would write: a save of it changes nothing, nor the order', () => {
  expect(JSON.stringify(parseProject(raw()))).toBe(JSON.stringify(raw()));
});

describe('the Seed Archive', () => {
  test('seven enemies, three encounters that take turns on two boards and on none, two tiers, a brief that they answer', () => {
    const { units, encounters, tiers, brief } = archive();
    expect(units.filter(({ side }) => side === 'enemy')).toHaveLength(7);
    expect(encounters.map(({ clock, rounds }) => [clock, rounds!.ground])).toEqual([
      ['rounds', 'none'],
      ['rounds', 'squares'],
      ['rounds', 'diagonals'],
    ]);
    expect(tiers.map(({ name }) => name)).toEqual(['Dormant', 'Roused']);
    expect(brief!.bands.length).toBeGreaterThan(4);
    for (const { id } of encounters) {
      const [first, second] = tiers.map((tier) => runBatch(fight(id, archive(), tier.id), 1, RUNS).cleared.value);
      expect(second).toBeLessThanOrEqual(first);
    }
  });

  test('the Index Keeper raises two clerks with what it can pay, is roused once, else draws 40 to 40 to 20', () => {
    const tables = fight('index');
    const acts = unit(archive(), 'index-keeper').attacks.map(({ id }) => id);
    const counts = new Map<string, number>();
    for (const { events } of runs(tables)) {
      const begun = events.filter(({ kind, type }) => kind === EVENT.start && type === 'index-keeper').map(({ what }) => acts[what]);
      for (const act of begun) counts.set(act, (counts.get(act) ?? 0) + 1);
      expect(begun.filter((act) => act === 'recall').length).toBeLessThanOrEqual(2);
      expect(begun.filter((act) => act === 'rouse').length).toBeLessThanOrEqual(1);
    }
    expect(counts.get('recall')! / RUNS).toBeGreaterThan(1.5);
    expect(counts.get('rouse')! / RUNS).toBeGreaterThan(0.8);
    const drawn = ['stamp', 'fan', 'file'].map((act) => counts.get(act)!);
    const all = drawn.reduce((sum, count) => sum + count, 0);
    const square = [0.4, 0.4, 0.2].reduce((sum, share, i) => sum + (drawn[i] - share * all) ** 2 / (share * all), 0);
    // Two degrees of freedom: one in a thousand is above 13.82.
    expect(square).toBeLessThan(13.82);
  });

  test('a store that moths go to burn: once the party stands at its door, each turns on it in its very next turn; most that are guarded are kept', () => {
    const found = runs(fight('store-room'), 200).map(({ outcome, events }) => {
      const guarded = events.find(({ kind }) => kind === EVENT.flag);
      if (guarded) {
        const after = events.filter(({ type, time }) => type === 'ember-moth' && time > guarded.time);
        const moths = new Set(
          events
            .filter(({ kind, type, time }) => kind === EVENT.spawn && type === 'ember-moth' && time < guarded.time)
            .map(({ unit: moth }) => moth),
        );
        for (const moth of moths) {
          const own = after.filter(({ unit: one }) => one === moth);
          const turn = own.findIndex(({ kind }) => kind === EVENT.turn);
          // One that reels in that turn decides in the next; one that fell has none.
          if (turn < 0 || own[turn].what === REELS) continue;
          expect(own.slice(0, turn).some(({ kind }) => kind === EVENT.state)).toBe(true);
        }
      }
      return { guarded: guarded !== undefined, won: isWon(outcome) };
    });
    const share = (list: typeof found) => list.filter(({ won }) => won).length / Math.max(1, list.length);
    const [kept, left] = [found.filter(({ guarded }) => guarded), found.filter(({ guarded }) => !guarded)];
    expect([kept.length > 100, left.length > 5]).toEqual([true, true]);
    expect(share(kept)).toBeGreaterThan(share(left) + 0.15);
  });
});

test('what its units’ fights go by: turns alone, seconds alone, both, or what a unit in none of them has', () => {
  const clocks = (project: Project, id: string) => [...clocksOf(project, id)].sort();
  expect(archive().units.map(({ id }) => clocks(archive(), id))).toEqual(archive().units.map(() => ['rounds']));
  const demo = demoProject();
  expect(demo.units.map(({ id }) => clocks(demo, id))).toEqual(demo.units.map(() => ['continuous']));
  const mixed = projectWithRounds(demo, 'first-bell', { round: 2, cell: 1 });
  expect(['clipper', 'warden', 'mulcher', 'clipper-elder'].map((id) => clocks(mixed, id))).toEqual([
    ['continuous', 'rounds'],
    ['continuous', 'rounds'],
    ['continuous'],
    ['continuous'],
  ]);
});

describe('its planted faults', () => {
  const inspected = (project: Project) => inspect(project, { tier: 'dormant' }).map(({ rule, path }) => `${rule} ${path}`);

  test('a rule that never fires since a draw stands above it', () => {
    const begun = (project: Project) =>
      runs(fight('store-room', project)).flatMap(({ events }) =>
        events.filter(
          ({ kind, type, what }) => kind === EVENT.start && type === 'binder' && unit(project, 'binder').attacks[what].id === 'bind',
        ),
      ).length;
    const told = (project: Project) => inspected(project).filter((one) => one.includes('binder'));
    expect([told(archive()), begun(archive())]).toEqual([['forestalled /units/binder/choice/priorities/1'], 0]);
    const mended = archive((project) => unit(project, 'binder').choice.priorities.reverse());
    expect(told(mended)).toEqual([]);
    expect(begun(mended)).toBeGreaterThan(RUNS);
  });

  test('an enemy that holds, and nobody is ever in reach', () => {
    const told = (project: Project) => warned('store-room', project).filter((one) => one.startsWith('neverStruck'));
    expect(told(archive())).toEqual(['neverStruck /units/lamp-snail/attacks']);
    const mended = archive((project) => {
      attack(project, 'lamp-snail', 'beam').rounds!.to = 12;
      for (const wall of project.arenas.find(({ id }) => id === 'stacks')!.walls) if (['f', 'g'].includes(wall.id)) wall.height = 0.8;
    });
    expect(told(mended)).toEqual([]);
  });

  test('helpers that are called faster than they fall', () => {
    const won = (project: Project) => runBatch(fight('cold-core', project), 1, RUNS).cleared.value;
    const told = (project: Project) => warned('cold-core', project).filter((one) => one.startsWith('outpaced'));
    expect(told(archive())).toEqual(['outpaced /units/seedling/health']);
    expect(won(archive())).toBeLessThan(0.1);
    const mended = archive((project) => (attack(project, 'caller-vine', 'call').rounds!.cooldown = 5));
    expect(told(mended)).toEqual([]);
    expect(won(mended)).toBeGreaterThan(0.6);
    // Nor is what stood behind it in its choice forestalled any more.
    expect([archive(), mended].map((project) => inspected(project).filter((one) => one.includes('caller-vine')).length)).toEqual([1, 0]);
  });
});
