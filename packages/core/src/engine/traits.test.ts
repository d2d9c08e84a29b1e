import { describe, expect, test } from '@jest/globals';
import { baseFor, tierValueFor } from '../model/edit';
import { chainSentence, effectiveUnit, writtenUnit } from '../model/effective';
import { compiled, dummy, eventsOf, fought, project, unit, type FightSketch } from '../testing/builders';
import { trace } from '../trace/trace';
import { sentenceOf } from '../trace/sentences';
import { rowOf } from '../measures/row';
import { compile } from './compile';
import { run } from './run';

type Loose = Record<string, unknown>;

const times = (value: number, path = '/health/max') => ({ path, op: '×', value });
const plus = (value: number) => ({ path: '/health/max', op: '+', value });
const trait = (id: string, ...tweaks: Loose[]) => ({ id, name: id.toUpperCase(), tweaks });
const clipper = (more: Loose = {}) => unit({ id: 'clipper', attacks: [], health: { max: 100 }, ...more });

function stage(more: Partial<FightSketch>, group: Loose = {}, own: Loose = {}): FightSketch {
  return { party: [dummy('warden', 1e6)], enemies: [{ unit: clipper(own), x: 20, group }], limit: 5, ...more };
}

/** Full health of every kind of Clipper that the tables know, in the order in which they were met. */
const healths = (sketch: FightSketch, tier?: string) =>
  compile(project(sketch), { encounter: 'fight', tier })
    .kinds.filter(({ id }) => id === 'clipper')
    .map(({ maxHealth }) => maxHealth);

describe('where a trait stands among what changes a number', () => {
  // 100 × 1.2 of its own = 120; + 10 of the tier = 130; × 2 of the tier's trait = 260; + 40 of its wave = 300; × 0.5 of its
  // group = 150; and × 3 of the wave's growth = 450.
  const all = stage(
    {
      traits: [trait('own', times(1.2)), trait('tiers', times(2)), trait('waves', plus(40)), trait('groups', times(0.5))],
      tiers: [{ id: 'hard', name: 'Hard', tweaks: [{ scope: 'enemies', ...plus(10) }], traits: [{ trait: 'tiers', scope: 'enemies' }] }],
      wave: { traits: ['waves'], repeat: { times: 2, tweaks: [times(3)] } },
    },
    { traits: [{ trait: 'groups' }] },
    { traits: ['own'] },
  );

  test('a unit’s own before the tier; the tier’s, the wave’s, the group’s after it, before growth', () => {
    expect(healths(all, 'hard')).toEqual([150, 450]);
    // Without the tier: 100 × 1.2 + 40 = 160, × 0.5 = 80, × 3 = 240.
    expect(healths(all)).toEqual([80, 240]);
  });

  test('traits of one list are laid over one another in its order', () => {
    const traits = [trait('more', plus(50)), trait('double', times(2))];
    const health = (order: string[]) => healths(stage({ traits }, {}, { traits: order }));
    expect(health(['more', 'double'])).toEqual([300]);
    expect(health(['double', 'more'])).toEqual([250]);
  });

  test('the chain of a number tells of its own traits and of the tier’s; a unit as it is written has none', () => {
    const document = project(all);
    const { unit: seen, chains } = effectiveUnit(document, 'clipper', { tier: 'hard' });
    const chain = chains.get('/health/max')!;
    expect(seen.health.max).toBe(260);
    expect(chainSentence(chain)).toBe('100 → ×1.2 OWN → 120 → +10 Hard → 130 → ×2 TIERS → 260');
    expect(writtenUnit(document, 'clipper').health.max).toBe(100);
    // 520 = (base × 1.2 + 10) × 2: 208 1/3.
    expect(baseFor(520, chain)).toBeCloseTo(625 / 3, 6);
    // For 90 at the tier it sets 45, which its trait doubles.
    expect(tierValueFor(90, chain)).toBe(45);
  });

  test('a linked variant has the traits of its base, unless it says otherwise', () => {
    const variants = [
      { id: 'elder', name: 'Elder', basedOn: 'clipper', changes: [], tweaks: [plus(100)] },
      { id: 'plain', name: 'Plain', basedOn: 'clipper', changes: [{ op: 'replace', path: '/traits', value: [] }], tweaks: [] },
    ];
    const document = project(stage({ traits: [trait('stout', times(1.5))], variants }, {}, { traits: ['stout'] }));
    const health = (id: string) => effectiveUnit(document, id, {}).unit.health.max;
    // (100 + 100) × 1.5: the trait once, over what the variant changes.
    expect([health('clipper'), health('elder'), health('plain')]).toEqual([150, 300, 100]);
  });

  test.each([
    [{ scope: 'party' }, [100]],
    [{ scope: 'role', of: 'cutter' }, [200]],
    [{ scope: 'role', of: 'mender' }, [100]],
    [{ scope: 'unit', of: 'clipper' }, [200]],
  ])('a tier gives it to %j alone', (who, expected) => {
    const tiers = [{ id: 'hard', name: 'Hard', tweaks: [], traits: [{ trait: 'double', ...who }] }];
    expect(healths(stage({ traits: [trait('double', times(2))], tiers }, {}, { role: 'cutter' }), 'hard')).toEqual(expected);
  });
});

describe('a share of a group', () => {
  const shared = (...traits: Loose[]) =>
    stage(
      { traits: [trait('double', times(2)), trait('more', plus(1)), trait('never', plus(1000))], limit: 0.2 },
      { count: { min: 50, max: 50 }, traits },
    );

  /** How many of 2,500 have each health. */
  function drawn(sketch: FightSketch): Record<number, number> {
    const tables = compiled({ ...sketch, enemies: [{ ...sketch.enemies[0], scatter: 60 }] });
    const counts: Record<number, number> = {};
    for (let seed = 0; seed < 50; seed++) {
      const { kinds, units } = run(tables, seed);
      for (let one = 1; one < units; one++) {
        const { maxHealth } = tables.kinds[kinds[one]];
        counts[maxHealth] = (counts[maxHealth] ?? 0) + 1;
      }
    }
    return counts;
  }

  test('is drawn for each unit and each trait apart', () => {
    const counts = drawn(shared({ trait: 'double', share: 0.5 }, { trait: 'more', share: 0.2 }));
    // 2,500 × 0.5 × 0.8 twice, and 2,500 × 0.5 × 0.2 twice; five standard deviations are some 122 and 75.
    expect(Object.keys(counts)).toEqual(['100', '101', '200', '201']);
    expect(Math.abs(counts[100] - 1000)).toBeLessThan(122);
    expect(Math.abs(counts[200] - 1000)).toBeLessThan(122);
    expect(Math.abs(counts[101] - 250)).toBeLessThan(75);
    expect(Math.abs(counts[201] - 250)).toBeLessThan(75);
  });

  test('of 1 is all of them, of 0 is nobody; and kinds that cannot come are not made', () => {
    expect(drawn(shared({ trait: 'double' }, { trait: 'never', share: 0 }))).toEqual({ 200: 2500 });
    expect(healths(shared({ trait: 'double' }, { trait: 'never', share: 0 }))).toEqual([200]);
  });

  test('or all of a wave: its measures count to its type, though nobody comes without', () => {
    const sketch = stage({ traits: [trait('double', times(2))], wave: { traits: ['double'] } });
    const tables = compiled(sketch);
    expect(tables.kindOfType.every((kind, type) => tables.kinds[kind].type === type)).toBe(true);
    expect(rowOf({ compiled: tables, run: run(tables, 1) }).kinds).toHaveLength(2);
  });

  test('appears by name in the trace', () => {
    const { events, units } = trace(compiled(stage({ traits: [trait('stout', times(2))] }, { traits: [{ trait: 'stout' }] })), 1);
    expect(units.map(({ traits }) => traits)).toEqual([undefined, ['STOUT']]);
    const spawned = events.filter(({ event }) => event === 'spawn').map(sentenceOf);
    expect(spawned[1]).toBe('0.00 s: clipper (STOUT) appears at 20, 0.');
    expect(spawned[0]).not.toContain('(');
  });
});

describe('an event gives a trait', () => {
  const given = (act: Loose, at = 1) => ({
    events: [{ id: 'e', name: 'e', when: { subject: 'clock', is: 'above', value: at }, then: [{ does: 'trait', of: 'double', ...act }] }],
  });
  const traits = [trait('double', times(2))];
  /** Full health of each unit at the end. */
  function ends(sketch: FightSketch): number[] {
    const found: number[] = [];
    run(compiled(sketch), 1, (fight) => {
      for (let one = 0; one < fight.count; one++) found[one] = fight.kinds[one].maxHealth;
    });
    return found;
  }

  test('to all the living it speaks of and all who come later; over a share of health that stays', () => {
    const later = stage({ traits, encounter: given({ to: 'enemies' }) }, { count: { min: 2, max: 2 }, spacing: 2 });
    expect(ends(later)).toEqual([1e6, 200, 200]);
    const { log } = fought(later);
    expect(eventsOf(log, 'boost').map(({ time, other }) => [time, other])).toEqual([
      [1.05, 1],
      [2, 2],
    ]);
  });

  test('to a unit, a role or the party alone', () => {
    expect(ends(stage({ traits, encounter: given({ to: 'party' }) }))).toEqual([2e6, 100]);
    expect(ends(stage({ traits, encounter: given({ to: 'unit', whom: 'clipper' }) }))).toEqual([1e6, 200]);
    expect(ends(stage({ traits, encounter: given({ to: 'role', whom: 'nobody' }) }))).toEqual([1e6, 100]);
  });

  test('under the growth of its wave and the tweaks of its state, as any other trait', () => {
    // It comes at 0 s and, grown by 100, at 2 s. Given × 2 at 3 s: 100 × 2 = 200, and 100 × 2 + 100 = 300; in a state that
    // takes 50 off: 150 and 250.
    const wave = { repeat: { times: 2, when: 'every', every: 2, tweaks: [plus(100)] } };
    const states = [{ id: 'hold', name: 'Hold', does: 'hold', tweaks: [plus(-50)] }];
    expect(ends(stage({ traits, wave, encounter: given({ to: 'enemies' }, 3) }))).toEqual([1e6, 200, 300]);
    expect(ends(stage({ traits, wave, encounter: given({ to: 'enemies' }, 3) }, {}, { states }))).toEqual([1e6, 150, 250]);
  });
});
