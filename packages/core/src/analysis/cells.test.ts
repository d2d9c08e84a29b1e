import { describe, expect, test } from '@jest/globals';
import { Batch } from './batch';
import { type Sample, sampleOf } from '../measures/sample';
import { InvalidDocument } from '../model/problem';
import { parseProject } from '../model/validate';
import { demoProject } from '../testing/demo';
import { type Scenario, scenarioKey, scenarioOf, duelScenario } from './scenario';
import { compileScenario } from './compile-scenario';
import { goalsOf, judgeGoals } from './cells';
import { lessIsHarder, RANKED_BY_DOSE, ranked, rankValues, tierSteps } from './ranking';

const sampleAt = (cell: Scenario, runs = 100): Sample => {
  const compiled = compileScenario(demoProject(), cell);
  const batch = new Batch(compiled, 1, runs);
  batch.advance(runs);
  return sampleOf(compiled, batch.rows);
};

describe('cells', () => {
  test('a key leads back to its cell', () => {
    const cells: Scenario[] = [
      { kind: 'duel', id: 'clipper', tier: 'bloom', skill: 'expert', style: 'still' },
      { kind: 'encounter', id: 'evening-shift', players: 3 },
      { kind: 'encounter', id: 'evening-shift' },
      { kind: 'encounter', id: 'evening-shift', without: 'unit:mulcher' },
      { kind: 'duel', id: 'clipper', duel: { against: ['warden', 'tender'], copies: 3, distance: 4.5, arena: 'yard' } },
      { kind: 'duel', id: 'clipper', duel: { distance: 0 } },
      {
        kind: 'duel',
        id: 'sapwright',
        duel: {
          company: [
            { unit: 'clipper', count: 2 },
            { unit: 'mulcher', count: 1 },
          ],
          from: 'behind',
          wall: 1.5,
        },
      },
      { kind: 'duel', id: 'clipper', duel: { from: 'point:s1', arena: 'yard' } },
    ];
    for (const cell of cells) expect(scenarioOf(scenarioKey(cell))).toEqual(cell);
    expect(new Set(cells.map(scenarioKey)).size).toBe(cells.length);
  });

  test('a readout’s duel is the board’s cell as long as it is set up as usual, and runs as it is set up otherwise', () => {
    const project = demoProject();
    const lens = { tier: 'bloom', skill: 'regular' };
    expect(duelScenario(project, lens, { enemy: 'clipper', against: 'warden', copies: 1, distance: 12 })).toEqual({
      kind: 'duel',
      id: 'clipper',
      ...lens,
    });
    const set = duelScenario(project, lens, { enemy: 'clipper', against: ['warden', 'tender'], copies: 3, distance: 4 });
    expect(set.duel).toEqual({ against: ['warden', 'tender'], copies: 3, distance: 4 });
    const usual = { copies: 1, company: [], distance: 12, from: 'ahead' } as const;
    expect(duelScenario(project, lens, { enemy: 'clipper', against: 'warden', ...usual }).duel).toBeUndefined();
    const { party, waves } = compileScenario(project, scenarioOf(scenarioKey(set)));
    expect(party).toHaveLength(2);
    expect(waves[0].groups[0]).toMatchObject({ min: [3], max: [3] });
  });

  test('a band of a role speaks of each enemy of it, variants too; one without a tier of every tier', () => {
    const project = demoProject();
    project.brief = { bands: [{ id: 'a', measure: 'timeToKill', scope: 'role', of: 'swarm', statistic: 'median', low: 1 }], curves: [] };
    const goals = goalsOf(project, { skills: ['regular'] });
    expect(goals.map(({ cell }) => scenarioKey(cell))).toEqual(
      project.tiers.flatMap(({ id }) => ['clipper', 'clipper-elder'].map((unit) => `duel|${unit}|${id}|regular||`)),
    );
    expect(goalsOf(project).length).toBe(goals.length * 3);
    project.brief.bands[0].tier = 'blight';
    expect(goalsOf(project, { tiers: ['bloom'] })).toEqual([]);
    expect(goalsOf(project, { tiers: ['blight'], skills: ['novice'] })).toHaveLength(2);
  });

  test('an enemy’s band within an encounter, a wave’s and an encounter’s look into the columns of that encounter', () => {
    const project = demoProject();
    project.brief = {
      bands: [
        { id: 'a', measure: 'timeToKill', scope: 'unit', of: 'mulcher', encounter: 'evening-shift', statistic: 'median', low: 1 },
        { id: 'b', measure: 'span', scope: 'wave', of: 'two', encounter: 'evening-shift', statistic: 'p90', high: 60 },
        { id: 'c', measure: 'won', scope: 'encounter', of: 'cellar-beat', statistic: 'share', low: 0.5 },
      ],
      curves: [],
    };
    const goals = goalsOf(project, { tiers: ['bloom'], skills: ['regular'] });
    expect(goals.map(({ cell, column }) => [cell.id, column])).toEqual([
      ['evening-shift', 'type mulcher timeToKill'],
      ['evening-shift', 'wave two span'],
      ['cellar-beat', 'won'],
    ]);
    const judged = judgeGoals(goals, (cell) => (cell.id === 'cellar-beat' ? sampleAt(cell, 40) : undefined));
    expect(judged.map(({ runs, verdict }) => [runs, verdict])).toEqual([
      [0, 'undecided'],
      [0, 'undecided'],
      [40, 'met'],
    ]);
    expect(judged[0].judgement).toBeUndefined();
  });

  test('the demo’s brief: a Clipper dies in time, and the health that a cap took from the boss at Blight is missed', () => {
    const goals = goalsOf(demoProject(), { skills: ['regular'] });
    const only = goals.filter(({ band }) => band.id === 'ttk-swarm-bloom' || band.id.startsWith('ttk-boss'));
    const samples = new Map<string, Sample>();
    const judged = judgeGoals(only, (cell) => {
      const key = scenarioKey(cell);
      if (!samples.has(key)) samples.set(key, sampleAt(cell));
      return samples.get(key);
    });
    expect(judged.find(({ of }) => of === 'clipper')!.verdict).toBe('met');
  });
});

describe('ranking', () => {
  test('Cellar Beat at Bramble is measurably no harder than at Bloom: the planted fault', () => {
    const tiers = ['bloom', 'bramble'].map((tier) => ({
      id: tier,
      values: sampleAt({ kind: 'encounter', id: 'cellar-beat', tier, skill: 'regular' }).columns.dose,
    }));
    expect(tierSteps(tiers)).toMatchObject([{ below: 'bloom', id: 'bramble', says: 'easier' }]);
    expect(ranked(tiers).map(({ id }) => id)).toEqual(['bramble', 'bloom']);
  });

  test('a rank is a mean with its interval by t, worked: 1 to 6 are 3.5 ± 2.571 × 1.871 ÷ √6', () => {
    const [one] = ranked([{ id: 'a', values: [1, 2, 3, 4, 5, 6] }]);
    expect(one.value).toBe(3.5);
    expect(one.interval.high - 3.5).toBeCloseTo(1.963, 1);
    expect(3.5 - one.interval.low).toBeCloseTo(1.963, 1);
    expect(ranked([{ id: 'a', values: [1] }])[0].interval).toEqual({ low: -Infinity, high: Infinity });
    expect(ranked([{ id: 'a', values: [Infinity, NaN] }])).toEqual([]);
  });

  test('by a measure of which less is harder, an order that falls is the right one', () => {
    const falling = [
      { id: 'a', values: [1, 1, 1, 1, 0, 1] },
      { id: 'b', values: [0, 0, 0, 0, 0, 0] },
    ];
    expect(tierSteps(falling).map(({ says }) => says)).toEqual(['easier']);
    expect(tierSteps(falling, true).map(({ says }) => says)).toEqual(['harder']);
    expect([lessIsHarder([{ measure: 'won', weight: 1 }]), lessIsHarder([{ measure: 'dose', weight: 1 }])]).toEqual([true, false]);
  });

  test('a weighted sum is of shares of the lowest tier, each more where it is harder: worked', () => {
    const tier = (id: string, dose: number[], won: number[]) => ({ id, values: (measure: string) => (measure === 'dose' ? dose : won) });
    const tiers = [tier('a', [1, 3], [1, 0.6]), tier('b', [1, 1], [0.2, NaN])];
    // Means of the lowest: 2 and 0.8. Run 1 of b: 1 ÷ 2 + 0.5 × (2 − 0.25).
    const found = rankValues(tiers, [
      { measure: 'dose', weight: 1 },
      { measure: 'won', weight: 0.5 },
    ]);
    expect(found[0].values).toEqual([0.5 + 0.5 * (2 - 1 / 0.8), 1.5 + 0.5 * (2 - 0.6 / 0.8)]);
    expect(found[1].values[0]).toBeCloseTo(0.5 + 0.5 * 1.75, 12);
    expect(found[1].values[1]).toBeNaN();
    expect(rankValues(tiers, RANKED_BY_DOSE).map(({ values }) => values)).toEqual([
      [1, 3],
      [1, 1],
    ]);
  });

  test('worked: differences 1, 2, 3 are 2 ± t(2) ÷ √3; equal values are unclear', () => {
    const same = [5, 5, 5, 5];
    expect(
      tierSteps([
        { id: 'a', values: same },
        { id: 'b', values: same },
      ])[0].says,
    ).toBe('unclear');
    const steps = tierSteps([
      { id: 'a', values: [1, 1, 1, 1, 1, 1] },
      { id: 'b', values: [2, 3, 4, 2, 3, 4] },
    ]);
    // Mean 2, standard deviation 0.894, t(5) = 2.571: 2 ± 0.939.
    expect(steps[0].compared.difference).toBe(2);
    expect(steps[0].compared.low).toBeCloseTo(2 - 0.939, 2);
    expect(steps[0].says).toBe('harder');
  });
});

describe('a brief is refused', () => {
  const band = { id: 'a', measure: 'timeToKill', scope: 'enemies', statistic: 'median', low: 1 };
  test.each([
    ['a measure that is not of its subject', { ...band, measure: 'lulls' }, 'is not measured of an enemy'],
    ['an unknown measure', { ...band, measure: 'fun' }, 'must be one of'],
    ['a share of a number', { ...band, statistic: 'share' }, 'must not be share'],
    ['a median of yes or no', { ...band, measure: 'won' }, 'must be share'],
    ['no limit at all', { ...band, low: undefined }, 'must be given, or high, or both'],
    ['limits the wrong way round', { ...band, high: 0.5 }, 'must be at least low, 1'],
    ['a tier that is not there', { ...band, tier: 'gale' }, 'must be a tier of the project: it is "gale"'],
    ['a unit that is not there', { ...band, scope: 'unit', of: 'moth' }, 'must be a unit of the project'],
    ['a wave of nowhere', { ...band, measure: 'span', scope: 'wave', of: 'two' }, 'must name the encounter of the wave'],
    [
      'a wave that is not there',
      { ...band, measure: 'span', scope: 'wave', of: 'ten', encounter: 'evening-shift' },
      'must be a wave of the encounter',
    ],
  ])('%s', (_, wrong, message) => {
    const document = { ...demoProject(), brief: { bands: [JSON.parse(JSON.stringify(wrong))], curves: [] } };
    expect(() => parseProject(document)).toThrow(InvalidDocument);
    expect(() => parseProject(document)).toThrow(message);
  });
  test('a second curve of the same encounter and tier, and points out of order', () => {
    const curve = {
      id: 'a',
      encounter: 'evening-shift',
      tolerance: 0.01,
      points: [
        { at: 5, value: 0.02 },
        { at: 5, value: 0.03 },
      ],
    };
    const refused = (curves: object[]) => () => parseProject({ ...demoProject(), brief: { bands: [], curves } });
    expect(refused([curve])).toThrow('must be later than the point before');
    expect(
      refused([
        { ...curve, points: [] },
        { ...curve, id: 'b', points: [] },
      ]),
    ).toThrow('must be the only curve of its encounter at that tier');
  });
});
