import { describe, expect, test } from '@jest/globals';
import { draw } from '../../engine/time/chance';
import { Runner } from '../../engine/run';
import { rowOf } from '../../measures/row';
import { sampleOf } from '../../measures/sample';
import type { Scenario } from '../../analysis/scenario';
import { compileScenario } from '../../analysis/compile-scenario';
import type { Project } from '../../model/project';
import { turnedProject } from '../../model/turn';
import { demoProject } from '../../testing/demo';
import { type Dial, dialFor, factorDial, standsAt } from '../dial';
import { type Objective, lookAt } from '../goal';
import { distanceOf, endsOf, findProblem, knobsOf, placeOf, steppedPoint, turnsAt, valueOf } from './problem';
import { edgeReadings, onScale, responseOf, wantedOn } from './response';
import { type Proposal, bestIn, isAnother } from './proposals';
import type { Ask, AskedRuns } from '../asking';
import { FindSearch, runSearch } from './search';
import { whyNot } from './why';

const project = demoProject();
const cell: Scenario = { kind: 'duel', id: 'clipper', skill: 'regular', duel: { copies: 6 } };
const dial = (path: string): Dial => dialFor(project, `/units/clipper${path}`)!;
const PATHS = ['/health/max', '/movement/run', '/attacks/bite/beat/cooldown', '/senses/hearing'];

/** A fight that is made up: what it comes to is a formula of the numbers, with luck of its own for each seed. */
function madeUp(respond: (turned: (path: string) => number, luck: (k: number) => number) => Record<string, number>) {
  return ({ cell: { turned = [] }, firstSeed, runs }: Ask): AskedRuns => {
    const value = (path: string) => {
      const found = turned.find((one) => one.path === `/units/clipper${path}`);
      return Number(found?.value ?? standsAt(project, dial(path))!);
    };
    const columns: Record<string, number[]> = {};
    const digests: string[] = [];
    for (let i = 0; i < runs; i++) {
      const seed = firstSeed + i;
      const luck = (k: number) => Math.sqrt(-2 * Math.log(1 - draw(seed, 1, k, 0))) * Math.cos(2 * Math.PI * draw(seed, 2, k, 0));
      for (const [name, found] of Object.entries(respond(value, luck))) (columns[name] ??= []).push(found);
      digests.push(`${seed} ${value('/health/max')} ${value('/movement/run')} ${value('/attacks/bite/beat/cooldown')}`);
    }
    return { digests, columns };
  };
}

/** Time-to-kill goes with health, who wins with pace and health; hearing does nothing. */
const fair = madeUp((value, luck) => ({
  'type clipper timeToKill': (value('/health/max') / 22) * 4 * Math.exp(0.4 * luck(0)),
  won: 0.9 - 0.08 * (value('/movement/run') - 7) * 7 - 0.02 * (value('/health/max') - 22) + 0.3 * luck(1) > 0.5 ? 1 : 0,
}));
const wanting = (kill: [number, number], won: [number, number]): Objective[] => [
  { ...lookAt(cell, 'timeToKill'), band: { low: kill[0], high: kill[1] } },
  { ...lookAt(cell, 'won'), band: { low: won[0], high: won[1] } },
];
const searched = (objectives: Objective[], run = fair, more: Partial<{ budget: number; prefer: 'change' | 'numbers' | 'margin' }> = {}) => {
  const search = new FindSearch(findProblem(project, objectives, PATHS.map(dial), { budget: 30_000, ...more }));
  runSearch(search, run);
  return search;
};

describe('points', () => {
  const factor = factorDial(project, '/units/*/attacks/*/beat/cooldown', 'swarm')!;
  const knobs = knobsOf(project, [dial('/health/max'), dial('/attacks/bite/beat/cooldown'), factor]);

  test('are shares of ranges, of factors logarithms; at people’s steps; what stands as written is not turned', () => {
    expect(knobs.map(({ now }) => now)).toEqual([22, 1.6, 1]);
    const [health, , kind] = knobs;
    expect([endsOf(health), valueOf(health, 0.5), placeOf(health, 33)]).toEqual([[-0.5, 0.5], 33, 0.5]);
    expect(valueOf(kind, Math.log(1.2))).toBeCloseTo(1.2, 12);
    expect(endsOf(kind).map((end) => Number(end.toFixed(4)))).toEqual([Number(Math.log(0.5).toFixed(4)), Number(Math.log(1.5).toFixed(4))]);
    const at = steppedPoint(knobs, [0.111, 0.013, 0]);
    expect(turnsAt(knobs, at).map(({ path, value }) => [path, value])).toEqual([['/units/clipper/health/max', 24]]);
    expect(distanceOf([0.5, -0.25, 0])).toBe(0.75);
  });

  test('words and locked dials are not turned by a search; nothing to turn or to want is said', () => {
    const locked = { ...dial('/health/max'), locked: true };
    expect(knobsOf(project, [locked])).toEqual([]);
    expect(() => findProblem(project, wanting([1, 2], [0, 1]), [locked])).toThrow('no number can be turned');
    expect(() => findProblem(project, [lookAt(cell, 'won')], [dial('/health/max')])).toThrow('nothing is wanted');
    expect(() => findProblem(project, wanting([1, 2], [0, 1]), [dial('/health/max')], { budget: 2000 })).toThrow(
      'must be at least 2340 runs',
    );
  });
});

describe('what a goal comes to', () => {
  test('shares by log odds, quantiles by logarithms in which survivors count as long, means as they are', () => {
    const won: Objective = { ...lookAt(cell, 'won'), band: { low: 0.5 } };
    expect(onScale(won, 0.5)).toBeCloseTo(0, 12);
    expect(wantedOn(won)).toEqual({ low: 0, high: Infinity });
    expect(responseOf(won, [1, 1, 1, 0])!.y).toBeCloseTo(Math.log(3.5 / 1.5), 12);
    const kill: Objective = { ...lookAt(cell, 'timeToKill'), band: { low: 2, high: 8 } };
    const times = (survivors: number) => [
      ...Array.from({ length: 100 - survivors }, (_, i) => 3 + i / 50),
      ...Array<number>(survivors).fill(Infinity),
    ];
    // The median does not jump when survivors become half of all.
    const ys = [40, 48, 50, 52, 60].map((survivors) => responseOf(kill, times(survivors))!.y);
    for (let i = 1; i < ys.length; i++) expect(ys[i]).toBeGreaterThanOrEqual(ys[i - 1]);
    // By its edges: of 100 runs 25 end before 3.5 s and 50 by 4 s; one half is wanted on the right side of each.
    const edges = edgeReadings({ ...kill, band: { low: 3.5, high: 4 } }, 7);
    expect(edges.map(({ goal, low, high }) => [goal, low, high])).toEqual([
      [7, -Infinity, 0],
      [7, 0, Infinity],
    ]);
    const [below, upTo] = edges.map(({ of }) => of([...times(0), NaN], true)!);
    expect([below.y, upTo.y, below.runs]).toEqual([Math.log(25.5 / 75.5), Math.log(51.5 / 49.5), 100]);
    expect(edgeReadings(won, 0)).toMatchObject([{ goal: 0, low: 0, high: Infinity }]);
    expect(responseOf(kill, [NaN, NaN])).toBeUndefined();
    expect(responseOf({ ...kill, statistic: 'mean' }, [1, 3])!.y).toBe(2);
  });
});

describe('a search', () => {
  test('finds what was planted with little more change than there must be, and leaves what does nothing alone', () => {
    const search = searched(wanting([4.6, 5.6], [0.5, 0.75]));
    expect(search.progress.phase).toBe('done');
    const [first] = search.proposals;
    expect(first.prefer).toBe('change');
    expect([...search.unmoving]).toEqual([3]);
    expect(first.put.map(({ knob }) => knob.dial.path)).toEqual(expect.arrayContaining(['/units/clipper/health/max']));
    expect(first.put.map(({ knob }) => knob.dial.path)).not.toContain('/units/clipper/senses/hearing');
    // 4.6 s are 25.3 hp; half to three quarters won a little more pace.
    expect(first.distance).toBeLessThan(0.6);
    expect(first.proof.every(({ verdict }) => verdict === 'met')).toBe(true);
    expect(first.seeds.runs).toBeGreaterThanOrEqual(1200);
    // Proved on seeds that nothing had seen: they are met on others too.
    const turned = first.put.map(({ knob, value }) => ({ path: knob.dial.path, op: '=' as const, value }));
    const { columns } = fair({ cell: { ...cell, turned }, firstSeed: 9_000_000, runs: 20_000 });
    const kill = [...(columns['type clipper timeToKill'] as number[])].sort((a, b) => a - b)[10_000];
    const won = (columns.won as number[]).reduce((a, b) => a + b, 0) / 20_000;
    expect([kill >= 4.6 && kill <= 5.6, won >= 0.5 && won <= 0.75]).toEqual([true, true]);
    // Others differ really.
    for (const [i, one] of search.proposals.entries())
      for (const other of search.proposals.slice(0, i))
        expect(one.at.some((value, k) => (value === 0) !== (other.at[k] === 0) || Math.abs(value - other.at[k]) >= 0.2)).toBe(true);
  });

  test('whatever the budget, no more is run and a proof has seeds that nothing has seen; the last runs of a budget are one too', () => {
    // What is wanted holds between two steps of one number alone, so that it takes its time to be found.
    const stepped = madeUp((value, luck) => ({
      'type clipper timeToKill': (value('/movement/run') > 8.4 ? 9 : value('/movement/run') > 8 ? 5.7 : 3) * Math.exp(0.4 * luck(0)),
      won: 0.2 + 0.02 * (value('/health/max') - 22) + 0.3 * luck(1) > 0.5 ? 1 : 0,
    }));
    let short = 0;
    for (let budget = 2700; budget < 5100; budget += 150) {
      const search = new FindSearch(findProblem(project, wanting([5, 6.4], [0.2, 0.9]), PATHS.map(dial), { budget }));
      const asked: { first: number; end: number; point: string }[] = [];
      runSearch(search, (ask) => {
        asked.push({ first: ask.firstSeed, end: ask.firstSeed + ask.runs, point: JSON.stringify(ask.cell.turned ?? []) });
        return stepped(ask);
      });
      expect(search.progress.runs).toBeLessThanOrEqual(budget);
      for (const { seeds, proof } of search.proposals) {
        if (seeds.runs % 1200) short++;
        const own = { first: seeds.first, end: seeds.first + seeds.runs };
        const seen = asked.filter(({ first, end }) => first < own.end && end > own.first);
        expect([seen[0].first, seen.at(-1)!.end, new Set(seen.map(({ point }) => point)).size]).toEqual([own.first, own.end, 1]);
        expect(proof.map(({ verdict }) => verdict)).toEqual(['met', 'met']);
      }
    }
    expect(short).toBeGreaterThan(0);
  });

  test('a proof that ended for want of runs is gone on with by the last of them, and what is known of a point are its runs, each once', () => {
    // However it is turned, who wins lies as near to an edge as makes a proof of one block a matter of luck.
    const close = madeUp((value, luck) => ({
      'type clipper timeToKill': (value('/health/max') / 22) * 4 * Math.exp(0.4 * luck(0)),
      won: luck(1) < 0.02 ? 1 : 0,
    }));
    let goneOn = 0;
    let proved = 0;
    for (let budget = 2800; budget < 8000; budget += 400) {
      const search = new FindSearch(findProblem(project, wanting([4.4, 5], [0.48, 0.9]), [dial(PATHS[0])], { budget }));
      const asked: { point: string; end: number; runs: number; proof: boolean; refused: number }[] = [];
      const inside = search as unknown as { tries: { all: () => { at: number[]; values: number[][] }[] }; refused: Map<string, number> };
      runSearch(search, ({ cell: there, firstSeed, runs }) => {
        const point = JSON.stringify((there.turned ?? []).map(({ path, value }) => [path, value]).sort());
        const refused = [...inside.refused.values()].reduce((a, b) => a + b, 0);
        const proof = search.progress.phase === 'prove';
        const last = asked.at(-1);
        if (proof && last?.proof && last.point === point && last.end === firstSeed && last.refused < refused) goneOn++;
        asked.push({ point, end: firstSeed + runs, runs, proof, refused });
        return close({ cell: there, firstSeed, runs });
      });
      const proposed = new Set(search.proposals.map(({ at }) => at.join(' ')));
      for (const { at, values } of inside.tries.all()) {
        const point = JSON.stringify(
          turnsAt(search.problem.dials, at)
            .map(({ path, value }) => [path, value])
            .sort(),
        );
        const runs = asked.filter((one) => one.point === point).reduce((sum, one) => sum + one.runs, 0);
        // What proved it is told with it.
        if (!proposed.has(at.join(' '))) expect([budget, point, ...values.map((own) => own.length)]).toEqual([budget, point, runs, runs]);
      }
      for (const { seeds } of search.proposals) {
        proved++;
        const own = asked.filter(({ proof, end }) => proof && end > seeds.first && end <= seeds.first + seeds.runs);
        expect(own.reduce((sum, { runs }) => sum + runs, 0)).toBe(seeds.runs);
      }
    }
    expect([goneOn > 0, proved > 0]).toEqual([true, true]);
  });

  test('once all holds it goes on to less change: what is told in the end has a fifth less than what was proved first', () => {
    const search = new FindSearch(findProblem(project, wanting([2.4, 3], [0.6, 0.8]), PATHS.map(dial), { budget: 30_000 }));
    let first: Proposal | undefined;
    runSearch(search, fair, () => ((first ??= search.proposals[0]), true));
    const [least, ...others] = search.proposals;
    expect(least.distance).toBeLessThanOrEqual(0.8 * first!.distance);
    // By the same numbers: what the first turned most is turned still, which no search for another way would do.
    const most = first!.at.reduce((best, value, i) => (Math.abs(value) > Math.abs(first!.at[best]) ? i : best), 0);
    expect([least.prefer, least.at[most] !== 0]).toEqual(['change', true]);
    expect(others.every((one) => isAnother([least], one.at))).toBe(true);
  });

  test('where all holds as it is written, that is what is proposed', () => {
    const [first] = searched(wanting([3.4, 4.6], [0.8, 0.97])).proposals;
    expect([first.put, first.distance]).toEqual([[], 0]);
  });

  test('the same runs lead to the same bits: from whom they come and in how many parts makes no difference', () => {
    const problem = findProblem(project, wanting([4.6, 5.6], [0.5, 0.75]), PATHS.map(dial), { budget: 20_000 });
    const [one, other] = [new FindSearch(problem), new FindSearch(problem)];
    runSearch(one, fair);
    const kept: AskedRuns[][] = [];
    for (let asks = other.asks(); asks.length && kept.length < 6; asks = other.asks()) {
      kept.push(asks.map(fair));
      other.take(kept.at(-1)!);
    }
    // Cut off, and gone on with by handing back what had come.
    const again = new FindSearch(problem);
    for (const answers of kept) again.take(answers);
    expect(again.asks()).toEqual(other.asks());
    runSearch(again, fair);
    expect(again.proposals).toEqual(one.proposals);
    expect(again.progress).toEqual(one.progress);
  });

  test('stops at its budget; bands that contradict one another are told, with the pair', () => {
    // Who wins goes with time-to-kill and with nothing else.
    const bound = madeUp((value, luck) => {
      const tough = value('/health/max') / 22;
      return { 'type clipper timeToKill': tough * 4 * Math.exp(0.3 * luck(0)), won: 1.3 - 0.6 * tough + 0.25 * luck(1) > 0.5 ? 1 : 0 };
    });
    const search = searched(wanting([5.2, 6], [0.9, 0.99]), bound, { budget: 8000 });
    expect(search.proposals).toEqual([]);
    expect(search.progress.runs).toBeLessThanOrEqual(8000);
    const { pulling, alone } = whyNot(search);
    expect(pulling.map((pair) => pair.map(({ measure }) => measure))).toEqual([['timeToKill', 'won']]);
    expect(alone).toEqual([]);
  });

  test('that is stuck and begins anew elsewhere tells the best there was, wherever it is by then', () => {
    // Everything leads into one hollow, and in it nothing is good.
    const hollow = madeUp((value, luck) => {
      const [x, y] = [value('/health/max') / 22 - 1, value('/movement/run') / 7 - 1];
      return {
        'type clipper timeToKill': (3 + 20 * ((x + 0.3) ** 2 + (y + 0.3) ** 2)) * Math.exp(0.2 * luck(0)),
        won: luck(1) > 0.5 ? 1 : 0,
      };
    });
    const { progress, proposals } = searched([{ ...lookAt(cell, 'timeToKill'), band: { high: 2 } }], hollow, { budget: 20_000 });
    expect(proposals).toEqual([]);
    const told = progress.way.map(({ outside }) => outside);
    // More runs at a point may say that it is a little worse than they seemed to say; another place is far worse.
    expect(Math.max(...told.slice(1).map((outside, i) => outside / told[i]))).toBeLessThan(1.05);
  });

  test('a range that ends too early is named', () => {
    const search = searched(wanting([12, 14], [0, 1]), fair, { budget: 6000 });
    expect(search.proposals).toEqual([]);
    const { alone } = whyNot(search);
    expect(alone[0].goal.measure).toBe('timeToKill');
    expect(alone[0].ends.map(({ knob, end }) => [knob.dial.path, end])).toContainEqual(['/units/clipper/health/max', 'high']);
  });
});

test('proposals are told by what each is best in, each once', () => {
  const goals = wanting([4, 6], [0, 5]);
  const of = (distance: number, numbers: number, kill: number): Proposal => ({
    ...{ prefer: 'change', at: [], distance, seeds: { first: 1, runs: 1200 }, after: 1 },
    put: Array.from({ length: numbers }, () => ({ knob: { dial: dial('/health/max'), now: 22 }, value: 24 })),
    proof: [kill, 0.6].map((value) => ({ estimate: { value, low: value - 0.05, high: value + 0.05, n: 1200 }, verdict: 'met' })),
  });
  expect(bestIn({ goals }, [of(0.5, 1, 5.2), of(0.2, 2, 4.1), of(0.9, 3, 5), of(0.8, 2, 4.2)])).toEqual([
    'numbers',
    'change',
    'margin',
    'other',
  ]);
  expect(bestIn({ goals }, [of(0.5, 1, 5)])).toEqual(['change']);
  expect(bestIn({ goals }, [])).toEqual([]);
});

describe('in fights of the engine', () => {
  const run =
    (of: Project) =>
    ({ cell: asked, firstSeed, runs }: Ask): AskedRuns => {
      const compiled = compileScenario(of, asked);
      const runner = new Runner(compiled);
      return sampleOf(
        compiled,
        Array.from({ length: runs }, (_, i) => rowOf({ compiled, run: runner.run(firstSeed + i) })),
      );
    };

  test.each([
    ['health and pace', { '/health/max': 30, '/movement/run': 8.6 }],
    ['bite and pace', { '/attacks/bite/effects/damage/amount': 8, '/movement/run': 8.2 }],
    ['three', { '/health/max': 28, '/attacks/bite/beat/cooldown': 1.1, '/movement/run': 8 }],
  ])('a crowd that was made another by %s comes back to what it was', (_, push) => {
    const goals = ['won', 'timeToKill', 'dose'] as const;
    const was = run(project)({ cell, firstSeed: 1, runs: 600 });
    const objectives = goals.map((measure): Objective => {
      const goal = lookAt(cell, measure);
      const values = Array.from(was.columns[goal.column]).sort((a, b) => a - b);
      const at = goal.statistic === 'median' ? values[300] : values.reduce((a, b) => a + b, 0) / 600;
      return { ...goal, band: { low: at * 0.8, high: Math.min(at * 1.2, measure === 'won' ? 0.95 : Infinity) } };
    });
    const pushed = turnedProject(
      project,
      Object.entries(push).map(([path, value]) => ({ path: `/units/clipper${path}`, op: '=' as const, value })),
    );
    const paths = [...new Set([...Object.keys(push), '/health/max', '/attacks/bite/effects/damage/amount', '/senses/hearing'])];
    const dials = paths.map((path) => {
      const own = dialFor(pushed, `/units/clipper${path}`)!;
      return { ...own, low: Math.min(own.low, dial(path).low), high: Math.max(own.high, dial(path).high) };
    });
    const search = new FindSearch(findProblem(pushed, objectives, dials, { budget: 20_000 }));
    runSearch(search, run(pushed), () => search.proposals.length === 0);
    const [found] = search.proposals;
    expect(found).toBeDefined();
    const at = found.put.reduce<Scenario>(
      (one, { knob, value }) => ({ ...one, turned: [...(one.turned ?? []), { path: knob.dial.path, op: '=', value }] }),
      cell,
    );
    const fresh = run(pushed)({ cell: at, firstSeed: 8_000_000, runs: 1000 });
    for (const { column, statistic, band } of objectives) {
      const values = Array.from(fresh.columns[column]).sort((a, b) => a - b);
      const now = statistic === 'median' ? values[500] : values.reduce((a, b) => a + b, 0) / 1000;
      expect([column, now >= band!.low! * 0.97 && now <= band!.high! * 1.03]).toEqual([column, true]);
    }
  });
});
