import { describe, expect, test } from '@jest/globals';
import { EVENT } from '../record/log';
import { Runner } from '../engine/run';
import { SECOND } from '../record/time';
import { runBatch } from './batch';
import { parseProject } from '../model/validate';
import { demoProject } from '../testing/demo';
import { EncounterWork, encounterChanges } from './encounter-readout';

const lens = { tier: 'bloom', skill: 'regular' };
const readout = (project = demoProject(), encounter = 'evening-shift', runs = 20) => {
  const work = new EncounterWork(project, { kind: 'encounter', id: encounter, ...lens }, 1);
  work.advance(runs);
  return { work, result: work.result() };
};

describe('the readout of an encounter', () => {
  test('is the batch that the command line runs', () => {
    const { work, result } = readout();
    expect(result.summary).toEqual(runBatch(work.compiled, 1, 20));
  });

  test('runs made elsewhere, in any order, come to the same; any but the next seeds are refused', () => {
    const { work, result } = readout();
    const [here, there] = [work, work].map(() => new EncounterWork(demoProject(), { kind: 'encounter', id: 'evening-shift', ...lens }, 1));
    const late = there.run(14, 7);
    expect(() => here.add(late)).toThrow('the next run must be of seed 1: it is of 14');
    here.advance(6);
    here.add(there.run(7, 7));
    here.add(late);
    expect(here.result()).toEqual(result);
    expect(here.part()).toEqual(work.part());
  });

  test('an encounter to which nobody comes, without a single step, has its readout', () => {
    const empty = demoProject();
    empty.encounters.find(({ id }) => id === 'evening-shift')!.waves = [];
    const { result } = readout(empty, 'evening-shift', 2);
    expect(result.summary.runs).toBe(2);
    expect(result.values.peakPressure).toEqual([0, 0]);
    expect(result.seeds.firstLost).toBeUndefined();
    expect(result.waves).toEqual([]);
  });

  test('the mean curves by type add up to the mean of the whole, and end where half of the runs are over', () => {
    const { work, result } = readout();
    const { rows, clock } = work.part();
    const bin = 40;
    const going = rows.flatMap((row, i) => (row.length > result.times[bin - 1] ? [i] : []));
    const whole = going.reduce((sum, i) => sum + clock[i].pressure.reduce((s, curve) => s + curve[bin], 0), 0) / going.length;
    expect(result.pressure.reduce((sum, { mean }) => sum + (mean[bin] ?? 0), 0)).toBeCloseTo(whole, 9);
    const lengths = rows.map(({ length }) => length).sort((a, b) => a - b);
    const over = result.times.findIndex(
      (_, i) => i > 0 && lengths.filter((length) => length > result.times[i - 1]).length * 2 < rows.length,
    );
    expect(result.median[over]).toBeUndefined();
    expect(result.median[over - 1]).toBeDefined();
  });

  test('lulls are where at least half of the runs that still go are in one', () => {
    const { work, result } = readout();
    const { rows, clock } = work.part();
    result.times.forEach((time, bin) => {
      const going = rows.flatMap((row, i) => (row.length > (bin ? result.times[bin - 1] : 0) ? [i] : []));
      const quiet = going.filter((run) => clock[run].quiet[bin]).length;
      const shown = result.lulls.some(({ from, to }) => time > from && time <= to);
      expect([bin, shown]).toEqual([bin, going.length * 2 >= rows.length && quiet * 2 >= going.length]);
    });
    expect(result.lulls.length).toBeGreaterThan(0);
    expect(rows.every(({ lulls }, i) => lulls > 0 === clock[i].quiet.some(Boolean))).toBe(true);
  });

  test('each group has its span: first spawn to last death, by median; who stands to the end has none', () => {
    const { work, result } = readout();
    const { clock } = work.part();
    result.waves.forEach((wave, w) =>
      wave.groups.forEach((group, g) => {
        const firsts = clock.map(({ first }) => first[w][g]).filter((time) => !Number.isNaN(time));
        if (!firsts.length) return expect(group.first).toBeUndefined();
        expect(group.first!.share).toBeCloseTo(firsts.length / clock.length, 12);
        expect(group.first!.median).toBe([...firsts].sort((a, b) => a - b)[Math.ceil(firsts.length / 2) - 1]);
        expect(group.last!.median).toBeGreaterThanOrEqual(group.first!.median);
      }),
    );
    const planned = demoProject().encounters.find(({ id }) => id === 'evening-shift')!;
    expect(result.waves[0].groups[0].count).toBeCloseTo(
      (planned.waves[0].groups[0].count.min + planned.waves[0].groups[0].count.max) / 2,
      0,
    );
  });

  test('seeds to open: the median by length, the worst by peak, the first that was lost', () => {
    const { work, result } = readout();
    const { rows } = work.part();
    const median = rows.find(({ seed }) => seed === result.seeds.median)!;
    // As many are shorter as are longer; of equals the lower seed comes first.
    const before = (one: (typeof rows)[number]) =>
      rows.filter(({ length, seed }) => length < one.length || (length === one.length && seed < one.seed)).length;
    expect(before(median)).toBe(Math.ceil(rows.length / 2) - 1);
    expect(new Set(rows.map(({ length }) => length)).size).toBeGreaterThan(3);
    expect(rows.find(({ seed }) => seed === result.seeds.worst)!.peakPressureShare).toBe(
      Math.max(...rows.map((row) => row.peakPressureShare)),
    );
    const lost = rows.find(({ outcome }) => outcome !== 'cleared');
    expect(result.seeds.firstLost).toBe(lost?.seed);
  });

  test('a change shows on the same seeds: tougher enemies make the fight longer', () => {
    const tougher = demoProject();
    for (const unit of tougher.units) if (unit.side === 'enemy') unit.health.max *= 2;
    const changes = encounterChanges(readout(demoProject(), 'first-bell').result, readout(tougher, 'first-bell').result);
    expect(changes.length).toMatchObject({ visible: true });
    expect(changes.length!.low).toBeGreaterThan(0);
    expect(encounterChanges(readout().result, readout().result).length).toMatchObject({ difference: 0, visible: false });
  });

  test('a longer wait before a wave puts its start off', () => {
    const later = demoProject();
    later.encounters.find(({ id }) => id === 'evening-shift')!.waves[1].delay += 15;
    const [before, after] = [readout().result, readout(later).result];
    expect(after.waves[1].groups[0].first!.median - before.waves[1].groups[0].first!.median).toBeGreaterThan(10);
  });

  test('a wave that its timeout had to start is told', () => {
    const project = demoProject();
    const encounter = project.encounters.find(({ id }) => id === 'evening-shift')!;
    encounter.waves[1].timeout = 2;
    expect(readout(project).result.waves[1].triggers).toEqual({ start: 0, timeout: 1, event: 0, none: 0 });
    expect(readout().result.waves[1].triggers).toEqual({ start: 1, timeout: 0, event: 0, none: 0 });
    encounter.waves[1].start = 'called';
    delete encounter.waves[1].timeout;
    delete encounter.waves[1].after;
    expect(readout(project).result.waves[1].triggers).toEqual({ start: 0, timeout: 0, event: 0, none: 1 });
    const at = { subject: 'clock', is: 'above', value: 1 };
    const then = [{ does: 'startWave', of: encounter.waves[1].id, tweaks: [], as: 'ended' }];
    Object.assign(encounter, { events: [{ id: 'call', name: 'Call', when: at, then }] });
    expect(readout(parseProject(project)).result.waves[1].triggers).toEqual({ start: 0, timeout: 0, event: 1, none: 0 });
  });

  test('who waits because the cap is full, and how long: one alive at a time, three due at the start', () => {
    const project = demoProject();
    const encounter = project.encounters.find(({ id }) => id === 'first-bell')!;
    encounter.alive = { most: 1, perType: [], full: 'wait' };
    encounter.waves = encounter.waves.slice(0, 1);
    const [group] = encounter.waves[0].groups;
    Object.assign(group, { count: { min: 3, max: 3 }, spacing: 0 });
    const work = new EncounterWork(project, { kind: 'encounter', id: 'first-bell', ...lens }, 1);
    work.advance(1);
    const { log } = new Runner(work.compiled).run(1);
    const deaths: number[] = [];
    for (let i = 0; i < log.length; i++) if (log.kind[i] === EVENT.death && log.actor[i] > 0) deaths.push(log.time[i] / SECOND);
    // The second waits for the first to die, the third for the second.
    expect(deaths.length).toBeGreaterThanOrEqual(2);
    const start = work.part().rows[0].waves[0].started;
    const [wave] = work.result().waves;
    expect(wave.waited).toBe(2);
    expect(wave.waitedFor).toBeCloseTo((deaths[0] - start + (deaths[1] - start)) / 2, 9);
    // Nobody makes room: both wait to the end.
    encounter.limit = 5;
    project.units.find(({ id }) => id === 'clipper')!.health.max = 1e6;
    const never = new EncounterWork(project, { kind: 'encounter', id: 'first-bell', ...lens }, 1);
    never.advance(1);
    const { length } = never.part().rows[0];
    expect(never.result().waves[0].waitedFor).toBeCloseTo(length - start, 9);
  });

  test('what only fighting shows is told once there are enough runs: an attack that is never used', () => {
    const project = demoProject();
    const kick = project.units.find(({ id }) => id === 'thistlejack')!.attacks.find(({ id }) => id === 'kick')!;
    kick.condition = { subject: 'clock', is: 'above', value: 3000 };
    const warned = readout(project, 'evening-shift', 40).result.warnings;
    expect(warned).toContainEqual(expect.objectContaining({ rule: 'attackNeverUsed', path: '/units/thistlejack/attacks/kick' }));
    expect(readout(project).result.warnings).toEqual([]);
  });
});
