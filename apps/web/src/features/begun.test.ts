/** Whatever a click of a form begins or changes to is a project that is taken: nothing that one can choose is refused afterwards. */
import { describe, expect, test } from '@jest/globals';
import {
  type Attack,
  type Band,
  type Delivery,
  type Does,
  EFFECTS,
  EFFECT_NAMES,
  LIMITS,
  type Project,
  Unit,
  blankAt,
  doing,
  effectsFor,
  fieldWords,
  parseProject,
  traitsOf,
  withDelivery,
} from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { withTurnsFilled } from '../store/turnsFilled';
import { aboutOffers, measuresFor, statisticsOf, withAbout, withMeasure } from './brief/bands';
import { doesFor, placesOf } from './enemies/stateEdits';
import { drawnBy, startedBy, startsFor, waveMoved } from './encounters/edits';

const read = (name: string): Project => parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo', name), 'utf8')));
const demos = ['verdance.insidia.json', 'archive.insidia.json'].map((name) => read(name));
/** The page's own way: what an edit lacks in turns is filled in. */
const refusal = (project: Project): string | undefined => {
  try {
    parseProject(withTurnsFilled(JSON.parse(JSON.stringify(project)) as Project));
    return undefined;
  } catch (error) {
    return (error as Error).message;
  }
};
/** What is refused of some changes, each by what it was. */
function refused(project: Project, changes: Iterable<[string, Project]>): string[] {
  expect(refusal(project)).toBeUndefined();
  return [...changes].flatMap(([what, changed]) => {
    const why = refusal(changed);
    return why === undefined ? [] : [`${what}: ${why}`];
  });
}
/** All units at once, each in one of its parts: they do not speak of one another. */
const inAll = (project: Project, change: (unit: Unit) => Unit): Project => ({ ...project, units: project.units.map(change) });
const most = (project: Project, list: 'states' | 'attacks') =>
  Array.from(Array(Math.max(...project.units.map((one) => one[list].length))).keys());

describe.each(demos)('in $name', (project) => {
  test('every state may do whatever is offered', () => {
    function* changes(): Iterable<[string, Project]> {
      const to = placesOf(project)[0]?.id ?? 'point';
      for (const i of most(project, 'states'))
        for (const { id } of doesFor(project)) {
          const changed = (unit: Unit) => unit.states.map((one, at) => (at === i ? doing(one, id as Does, to) : one));
          yield [`${i + 1}: ${id}`, inAll(project, (unit) => ({ ...unit, states: changed(unit) }))];
        }
    }
    expect(refused(project, changes())).toEqual([]);
  });

  test('every attack may be delivered in every way, and do whatever is offered besides', () => {
    const other = ({ id }: Unit) => project.units.find((one) => one.id !== id)?.id;
    function* changes(): Iterable<[string, Project]> {
      for (const i of most(project, 'attacks')) {
        for (const { id } of fieldWords(Unit, ['attacks', '0', 'delivery'])) {
          const changed = (unit: Unit) => (unit.attacks[i] ? withDelivery(unit, unit.attacks[i].id, id as Delivery, other(unit)) : unit);
          yield [`${i + 1} by ${id}`, inAll(project, changed)];
        }
        for (const effect of EFFECT_NAMES) {
          const begins = { ...blankAt(Unit, ['attacks', '0', 'effects', effect]), ...EFFECTS[effect].begins };
          const offered = (one: Attack) => effectsFor(traitsOf(one.delivery).strikes).includes(effect) && !one.effects[effect];
          const added = (one: Attack, at: number): Attack =>
            at === i && offered(one) ? { ...one, effects: { ...one.effects, [effect]: begins } } : one;
          yield [`${i + 1} ${effect}`, inAll(project, (unit) => ({ ...unit, attacks: unit.attacks.map(added) }))];
        }
      }
    }
    expect(refused(project, changes())).toEqual([]);
  });

  test('every goal may be of every measure that is offered, of whoever it can be of, by every statistic', () => {
    const written = project.brief!;
    const bands = written.bands.flatMap((band) =>
      measuresFor(project, band)
        .map((measure) => withMeasure(project, band, measure))
        .flatMap((next) => [next, ...statisticsOf(next.measure).map((statistic) => ({ ...next, statistic }))])
        .concat(aboutOffers(project, band.measure).map(({ id }) => withAbout(band, id))),
    );
    const brief = (part: Band[]) => ({ ...written, bands: part.map((band, i) => ({ ...band, id: `goal-${i}` })) });
    const parts = Array.from({ length: Math.ceil(bands.length / LIMITS.bands) }, (_, i) =>
      bands.slice(i * LIMITS.bands, (i + 1) * LIMITS.bands),
    );
    expect(
      refused(
        project,
        parts.map((part, i) => [`part ${i + 1}`, { ...project, brief: brief(part) }]),
      ),
    ).toEqual([]);
  });

  test('every wave may start in every way that is offered, and be moved', () => {
    const when = { subject: 'clock', is: 'above', value: 5 } as const;
    function* changes(): Iterable<[string, Project]> {
      for (const encounter of project.encounters) {
        const having = (waves: typeof encounter.waves): Project => ({
          ...project,
          encounters: project.encounters.map((one) => (one === encounter ? { ...one, waves } : one)),
        });
        for (const [i, wave] of encounter.waves.entries()) {
          for (const { id } of startsFor(encounter)) {
            const started = startedBy(encounter.waves, wave, id as typeof wave.start, when);
            yield [`${encounter.id} ${wave.id} starts ${id}`, having(encounter.waves.map((one) => (one === wave ? started : one)))];
          }
          for (const by of [-1, 1])
            if (i + by >= 0 && i + by < encounter.waves.length)
              yield [`${encounter.id} ${wave.id} by ${by}`, having(waveMoved(encounter.waves, wave.id, by))];
        }
      }
    }
    // A wave that another waits for can't be made to wait for that one: which of the two is to give way is the designer's to say.
    expect(refused(project, changes()).filter((one) => !/waits for a wave that waits for it/.test(one))).toEqual([]);
  });
});

test('a wave that is moved waits for the one that it waited for, and says so only where that is not the one before', () => {
  const { waves } = demos[0].encounters.find(({ id }) => id === 'evening-shift')!;
  const waitsFor = (all: typeof waves) =>
    Object.fromEntries(
      all.map((one, i) => [one.id, one.start === 'with' || one.start === 'defeated' ? (one.after ?? all[i - 1]?.id) : '']),
    );
  for (const { id } of waves)
    for (const by of [-1, 1]) {
      const to = waves.findIndex((one) => one.id === id) + by;
      if (to < 0 || to >= waves.length) continue;
      const there = waveMoved(waves, id, by);
      expect(waitsFor(there)).toEqual(waitsFor(waves));
      const needless = there.filter((one, i) => one.after !== undefined && one.after === there[i - 1]?.id);
      expect(needless.filter(({ id: said }) => waves.find((one) => one.id === said)!.after === undefined)).toEqual([]);
    }
});

test('of what there is none nothing is offered: no point to go to, no other wave to wait for', () => {
  const [project] = demos;
  const bare = { ...project, arenas: project.arenas.map((arena) => ({ ...arena, points: [] })) };
  expect(doesFor(bare).map(({ id }) => id)).not.toContain('goTo');
  expect(doesFor(project).map(({ id }) => id)).toContain('goTo');
  const alone = { ...project.encounters[0], waves: project.encounters[0].waves.slice(0, 1) };
  expect(startsFor(alone).map(({ id }) => id)).toEqual(expect.not.arrayContaining(['with', 'defeated']));
});

test('a group that draws for a budget begins with what its count was worth', () => {
  const [group] = demos[0].encounters[0].waves[0].groups;
  const pool = { ...group, pool: [{ enemy: group.enemy!, weight: 1 }], count: { ...group.count, min: 2, max: 3 } };
  expect(drawnBy(pool, 'budget', 4)).toMatchObject({ draws: 'budget', budget: 12 });
  expect(drawnBy({ ...pool, budget: 5 }, 'budget', 4).budget).toBe(5);
  expect(drawnBy(pool, 'budget', 0).budget).toBeGreaterThan(0);
  expect(drawnBy(pool, 'once', 4)).toEqual({ ...pool, draws: 'once' });
});

test('an attack that nobody chooses any more is not among those to choose from', () => {
  const clipper = demos[0].units.find(({ id }) => id === 'clipper')!;
  const [bite] = clipper.attacks;
  expect(withDelivery(clipper, bite.id, 'contact').choice.priorities).toEqual([]);
  expect(withDelivery(clipper, bite.id, 'melee').choice).toEqual(clipper.choice);
});
