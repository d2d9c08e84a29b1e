import { describe, expect, test } from '@jest/globals';
import { runBatch } from '../../analysis/batch';
import { inspectAll } from '../../analysis/inspection/inspect';
import { paperDuel } from '../../analysis/paper';
import { duelScenario } from '../../analysis/scenario';
import { compileScenario } from '../../analysis/compile-scenario';
import { Point } from '../arena';
import { blank } from '../blank';
import { LIMITS } from '../limits';
import { newProject } from '../new-project';
import { ordinaryOpponent } from './opponent';
import type { Project } from '../project';
import type { Unit } from '../unit';
import { parseProject } from '../validate';
import { ATTACK_BEGINNINGS, beginAttack } from './attacks';
import { beginningOf } from './beginning';
import { ENCOUNTER_BEGINNINGS, beginEncounter } from './encounters';
import { STATE_BEGINNINGS, beginState } from './states';
import { UNIT_BEGINNINGS, beginUnit } from './units';
import { WAVE_BEGINNINGS, beginWave } from './waves';

const ENEMIES = UNIT_BEGINNINGS.filter(({ side }) => side === 'enemy');
const MEMBERS = UNIT_BEGINNINGS.filter(({ side }) => side === 'party');

/** A new project with a thing on its ground, and more units. */
const withUnits = (...units: Unit[]): Project => {
  const project = newProject('begun', 'Begun');
  project.arenas[0].points = [{ ...blank(Point), id: 'pump', name: 'Pump', x: 0, y: 5, health: 80 }];
  return parseProject({ ...project, units: [...project.units, ...units] });
};
const enemy = (id: string) => beginUnit(beginningOf(UNIT_BEGINNINGS, id), { id, name: id });
const duelOf = (project: Project, id: string, runs = 60) => runBatch(compileScenario(project, { kind: 'duel', id }), 1, runs);

describe('a beginning', () => {
  test.each([UNIT_BEGINNINGS, ATTACK_BEGINNINGS, STATE_BEGINNINGS, WAVE_BEGINNINGS, ENCOUNTER_BEGINNINGS])(
    'has an id, words and a name of its own',
    (...all) => {
      for (const key of ['id', 'called', 'about', 'name'] as const) expect(new Set(all.map((one) => one[key])).size).toBe(all.length);
    },
  );

  test('that is not there is said', () => {
    expect(() => beginningOf(WAVE_BEGINNINGS, 'nothing')).toThrow('there is no beginning nothing');
  });
});

describe('a new enemy', () => {
  test.each(ENEMIES)('that $id: nothing to warn of, a fight at once, plausible against an ordinary opponent', ({ id }) => {
    const unit = enemy(id);
    const project = withUnits(unit);
    expect(inspectAll(project)).toEqual([]);
    const paper = paperDuel(unit, ordinaryOpponent());
    if (id === 'mender') return void expect(paper).toBeUndefined();
    // A hundred of health lasts between five seconds and a minute in front of it.
    expect([paper!.damagePerSecond > 1.5, paper!.damagePerSecond < 20]).toEqual([true, true]);
    const batch = duelOf(project, id);
    const kind = batch.kinds.find((one) => one.id === id)!;
    expect([kind.timeToKill!.median > 3, kind.timeToKill!.median < 70]).toEqual([true, true]);
    expect(batch.outcomes.timeOut).toBeLessThan(batch.runs / 10);
    expect(batch.encounter.dose!.max).toBeGreaterThan(0);
  });

  test('that mends keeps a hurt friend alive for longer', () => {
    const project = withUnits(enemy('heavy'), enemy('mender'));
    const timeToKill = (company: { unit: string; count: number }[]) => {
      const duel = duelScenario(project, {}, { enemy: 'heavy', against: ['opponent'], company });
      return runBatch(compileScenario(project, duel), 1, 60).kinds.find(({ id }) => id === 'heavy')!.timeToKill!.median;
    };
    expect(timeToKill([{ unit: 'mender', count: 1 }])).toBeGreaterThan(1.2 * timeToKill([]));
  });

  test('that guards goes back to its place, and one that patrols walks its round before it sees anybody', () => {
    const guard = enemy('guard');
    expect(guard.leash).toMatchObject({ radius: 14 });
    expect(enemy('patroller').startsIn ?? enemy('patroller').states[0].id).toBe('round');
  });

  test('is its own: what is changed in one is not changed in the next', () => {
    enemy('rusher').attacks[0].range.max = 99;
    expect(enemy('rusher').attacks[0].range.max).toBe(1);
  });
});

describe('a new member', () => {
  test.each(MEMBERS)('that $id wins against a single rusher', ({ id }) => {
    const project = withUnits(enemy('rusher'), beginUnit(beginningOf(UNIT_BEGINNINGS, id), { id: 'member', name: 'Member' }));
    expect(inspectAll(project)).toEqual([]);
    const made = { ...project, units: project.units.filter((unit) => unit.id !== 'opponent') };
    expect(duelOf(made, 'rusher').cleared.value).toBeGreaterThan(0.9);
  });
});

describe('a new attack', () => {
  test.each(ATTACK_BEGINNINGS)('that is $id does what it says to an ordinary opponent', (beginning) => {
    const attack = beginAttack(beginning, { id: 'own', name: 'Own' });
    expect([attack.id, attack.name]).toEqual(['own', 'Own']);
    const unit = enemy('rusher');
    unit.attacks = [attack];
    unit.choice.priorities = [{ entries: [{ attack: 'own', weight: 1 }] }];
    const project = withUnits(unit);
    expect(inspectAll(project)).toEqual([]);
    const batch = duelOf(project, 'rusher');
    if (attack.targets === 'foes') expect(batch.encounter.dose!.max).toBeGreaterThan(0);
    else expect(attack.effects.heal!.amount).toBeGreaterThan(0);
  });
});

describe('a new state', () => {
  const given = () => {
    const unit = enemy('rusher');
    unit.states[0].stopAt = 0.5;
    return unit;
  };

  test.each(STATE_BEGINNINGS)('that $id is a state with ways that hold, and is entered where it has a way in or begins', (beginning) => {
    const unit = given();
    beginState(unit, beginning, { id: 'own', name: 'Own' }, 'pump');
    const project = withUnits(unit);
    expect(unit.states.map(({ id }) => id)).toEqual(['rush', 'own']);
    expect(unit.states[1].does).toBe(beginning.does);
    expect(unit.startsIn ?? 'rush').toBe(beginning.first ? 'own' : 'rush');
    expect(unit.states[0].leaves.length).toBe(beginning.into ? 1 : 0);
    expect(unit.states[1].leaves.map(({ to }) => to)).toEqual(beginning.out ? ['rush'] : []);
    const outcome = duelOf(project, 'rusher', 30);
    expect(outcome.runs).toBe(30);
  });

  test.each(STATE_BEGINNINGS)('that $id is where the first one begins, with nowhere to go on to', (beginning) => {
    const unit = given();
    unit.states = [];
    delete unit.startsIn;
    beginState(unit, beginning, { id: 'own', name: 'Own' }, 'pump');
    expect([unit.startsIn, unit.states[0].leaves]).toEqual(['own', []]);
    withUnits(unit);
  });

  test('that is about a thing is about the one that is named, and cannot begin without', () => {
    const wreck = beginningOf(STATE_BEGINNINGS, 'wreck');
    const unit = given();
    beginState(unit, wreck, { id: 'own', name: 'Own' }, 'pump');
    expect(unit.states[1]).toMatchObject({ to: 'pump', strikes: 'hinders', leaves: [{ to: 'rush', when: { of: 'pump' } }] });
    expect(() => beginState(given(), wreck, { id: 'own', name: 'Own' })).toThrow('a state that wrecks a thing needs a thing');
    expect(wreck.out).toEqual({ subject: 'pointDestroyed', is: 'yes' });
  });

  test('has no way in from a state that has no room for one more', () => {
    const unit = given();
    const full = { to: 'rush', when: { subject: 'distance', is: 'above', value: 90 }, after: 0 } as const;
    unit.states[0].leaves = Array.from({ length: LIMITS.leaves }, () => ({ ...full }));
    beginState(unit, beginningOf(STATE_BEGINNINGS, 'flee'), { id: 'own', name: 'Own' });
    expect(unit.states[0].leaves).toHaveLength(LIMITS.leaves);
    withUnits(unit);
  });
});

describe('a new wave and a new encounter', () => {
  const enemies = ['rusher', 'shooter', 'heavy', 'guard', 'gun'];
  const project = withUnits(...enemies.map(enemy));
  const [arena] = project.arenas;
  const fight = (begun: Project['encounters'][number]) => {
    const whole = parseProject({ ...project, encounters: [begun] });
    expect(inspectAll(whole).filter(({ path }) => path.startsWith('/encounters'))).toEqual([]);
    return runBatch(compileScenario(whole, { kind: 'encounter', id: begun.id }), 1, 20);
  };
  const party = ['opponent'];

  test.each(ENCOUNTER_BEGINNINGS)('that is $id is fought to an end by those that it says', (beginning) => {
    const begun = beginEncounter(beginning, { arena, party, enemies }, { id: 'own', name: 'Own' });
    const batch = fight(begun);
    expect(batch.outcomes.timeOut).toBe(0);
    expect(batch.encounter.dose!.max).toBeGreaterThan(0);
    const came = batch.kinds.filter(({ id }) => id !== 'opponent').map(({ id }) => id);
    expect(came).toEqual(beginning.id === 'kinds' ? enemies.slice(0, 4) : ['rusher']);
  });

  test('grows from wave to wave where it says so, and lasts its minute', () => {
    const of = (id: string) => beginEncounter(beginningOf(ENCOUNTER_BEGINNINGS, id), { arena, party, enemies }, { id: 'own', name: 'Own' });
    expect(of('growing').waves.map(({ start, groups: [{ count }] }) => [start, count.max])).toEqual([
      ['atOnce', 2],
      ['defeated', 3],
      ['defeated', 4],
    ]);
    expect(of('lasting')).toMatchObject({
      limit: 60,
      ends: { survive: true },
      waves: [{ repeat: { times: 5, when: 'every', every: 12 } }],
    });
  });

  test.each(WAVE_BEGINNINGS)('that comes $id does so after another', (beginning) => {
    const one = beginEncounter(beginningOf(ENCOUNTER_BEGINNINGS, 'alone'), { arena, party, enemies }, { id: 'own', name: 'Own' });
    const wave = beginWave(beginning, { encounter: one, arena, enemies }, { id: 'more', name: 'More' });
    expect([wave.start, wave.groups[0].alerted]).toEqual(['defeated', true]);
    const batch = fight({ ...one, waves: [...one.waves, wave] });
    expect(batch.waves[1].came).toBeGreaterThan(0);
  });

  test('cannot begin where nobody can come, or from nowhere', () => {
    const wave = (setting: { enemies: string[]; points: typeof arena.spawnPoints }) => () =>
      beginWave(
        WAVE_BEGINNINGS[0],
        { encounter: { waves: [] }, arena: { spawnPoints: setting.points }, enemies: setting.enemies },
        { id: 'w', name: 'W' },
      );
    expect(wave({ enemies: [], points: arena.spawnPoints })).toThrow('a wave begins with an enemy and a spawn point');
    expect(wave({ enemies, points: [] })).toThrow('a wave begins with an enemy and a spawn point');
    expect(wave({ enemies, points: arena.spawnPoints })().start).toBe('atOnce');
  });
});
