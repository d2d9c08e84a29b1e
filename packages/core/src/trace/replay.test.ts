import { describe, expect, test } from '@jest/globals';
import { compile } from '../engine/compile';
import { Runner, run } from '../engine/run';
import { editUnit } from '../model/edit';
import { demoProject } from '../testing/demo';
import { AREA_WIDTH, UNIT_WIDTH, partAt, replay, rowOfUnit, stepAt } from './replay';
import { trace } from './trace';
import { wouldHave } from './would-have';

const compiled = () => compile(demoProject(), { encounter: 'evening-shift', tier: 'bloom', skill: 'regular' });

describe('a replay', () => {
  test('is the run that the batch ran: same digest, same events, places as the trace has them', () => {
    const shown = replay(compiled(), 7);
    const plain = trace(compiled(), 7);
    expect(shown.digest).toBe(run(compiled(), 7).digest);
    expect(shown.events.map(({ time, event, name }) => [time, event, name])).toEqual(
      plain.events.map(({ time, event, name }) => [time, event, name]),
    );
    expect(shown.unitAt.length - 1).toBe(plain.steps.length);
    for (const at of [0, 40, 400]) {
      const { units, places } = plain.steps[at];
      units.forEach((unit, i) => {
        const row = rowOfUnit(shown, unit, at);
        const [x, y, , , health] = shown.unitData.subarray(row * UNIT_WIDTH, row * UNIT_WIDTH + 5);
        expect([x, y, health]).toEqual([places[5 * i], places[5 * i + 1], places[5 * i + 4]]);
      });
    }
  });

  test('knows the step of an instant, and who is not there', () => {
    const shown = replay(compiled(), 7);
    expect([stepAt(shown, 0), stepAt(shown, 0.049), stepAt(shown, 0.05), stepAt(shown, 1e9)]).toEqual([0, 0, 1, shown.unitAt.length - 2]);
    expect(rowOfUnit(shown, 999, 0)).toBe(-1);
    const dead = shown.events.find(({ event }) => event === 'death')!;
    expect(rowOfUnit(shown, dead.unit!, stepAt(shown, dead.time + 0.2))).toBe(-1);
  });

  test('shows what a wind-up will strike, and when', () => {
    const project = demoProject();
    const duel = replay(compile(project, { encounter: 'evening-shift' }), 1);
    const slam = duel.events.find(({ event, what }) => event === 'start' && what === 'Slam')!;
    const step = stepAt(duel, slam.time) + 1;
    const areas = Array.from({ length: duel.areaAt[step + 1] - duel.areaAt[step] }, (_, i) =>
      Array.from(duel.areaData.subarray((duel.areaAt[step] + i) * AREA_WIDTH, (duel.areaAt[step] + i + 1) * AREA_WIDTH)),
    );
    const own = areas.find((area) => area[7] === slam.unit)!;
    const { area, beat } = project.units.find(({ id }) => id === 'mulcher')!.attacks[0];
    expect(own[2]).toBeCloseTo(area!.radius, 5);
    expect(own[6]).toBeCloseTo(slam.time + beat.windup - step * duel.step, 3);
  });

  test('two runs part at their first different event; a run does not part from itself', () => {
    const [a, b] = [replay(compiled(), 7), replay(compiled(), 8)];
    expect(partAt(a, a)).toBeUndefined();
    const at = partAt(a, b)!;
    const before = (one: typeof a) => one.events.filter(({ time }) => time < at).map(({ sentence }) => sentence);
    expect(before(a)).toEqual(before(b));
    const harder = replay(
      compile(
        editUnit(demoProject(), 'clipper', (unit) => (unit.health.max = 90)),
        { encounter: 'evening-shift', tier: 'bloom', skill: 'regular' },
      ),
      7,
    );
    expect(partAt(a, harder)).toBeGreaterThan(0);
  });
});

describe('it would have, if', () => {
  /** What is said of a unit at the step at an instant. */
  const said = (project = demoProject(), encounter = 'evening-shift', seed = 7) => {
    const all: { time: number; name: string; sentences: string[] }[] = [];
    const made = compile(project, { encounter, tier: 'bloom', skill: 'regular' });
    new Runner(made).run(seed, (fight, time) => {
      if (time % 500_000 !== 0) return;
      for (const unit of fight.living[1])
        if (fight.alerted[unit])
          all.push({ time, name: fight.kinds[unit].name, sentences: wouldHave(fight, unit).map(({ sentence }) => sentence) });
    });
    return all.flatMap(({ sentences }) => sentences);
  };

  test('a range, a cooldown and a wall are named with the number that would have done; the run stays the same', () => {
    const sentences = said();
    expect(sentences.some((one) => /^it would have used Bite if it reached [\d.]+ m, not 0\.9$/.test(one))).toBe(true);
    expect(sentences.some((one) => /^it would have used Bite if its cooldown were [\d.]+ s shorter$/.test(one))).toBe(true);
    expect(sentences.some((one) => /^it would have used Quill if Long wall were [\d.]+ m high, not 3$/.test(one))).toBe(true);
    const watched = new Runner(compiled()).run(7, (fight) =>
      fight.living[1].forEach((unit) => fight.alerted[unit] && wouldHave(fight, unit)),
    );
    expect(watched.digest).toBe(run(compiled(), 7).digest);
  });

  test('a range that is said to do does: with it the attack has nothing in its way at that distance', () => {
    const reached = said()
      .flatMap((one) => /used Bite if it reached ([\d.]+) m/.exec(one)?.[1] ?? [])
      .map(Number);
    expect(Math.min(...reached)).toBeGreaterThan(0.9);
  });
});
