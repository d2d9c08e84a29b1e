import { atRandom, oneAtATime } from './simple.mjs';

/** Planted faults: three numbers of a fight are pushed so that goals are missed, and a search is to find a way back within its budget. */

/** Fights, what is wanted of them, and how many runs a search may take. */
const FIGHTS = [
  {
    name: 'First Bell, novice at Blight',
    cell: { kind: 'encounter', id: 'first-bell', skill: 'novice', tier: 'blight' },
    measures: ['length', 'peakPressureShare', 'longestWithoutLull', 'dose'],
    budget: 30_000,
    runs: { base: 3000, pushed: 500, fresh: 5000 },
  },
  {
    name: 'Clipper × 6',
    cell: { kind: 'duel', id: 'clipper', skill: 'regular', duel: { copies: 6 } },
    measures: ['won', 'timeToKill', 'peakPressureShare', 'dose'],
    budget: 20_000,
    runs: { base: 3000, pushed: 500, fresh: 5000 },
  },
  {
    name: 'Evening Shift, regular at Bloom',
    cell: { kind: 'encounter', id: 'evening-shift', skill: 'regular', tier: 'bloom' },
    measures: ['won', 'length', 'peakPressureShare', 'dose'],
    budget: 10_000,
    runs: { base: 1500, pushed: 200, fresh: 2000 },
    // Most of its 355 numbers are of a few enemies among many: pushed by 40 %, three of them are not seen in any goal.
    strongest: 30,
  },
];

/**
 * @param even makes a generator of even draws from a seed
 * @param plants numbers of the plantings
 * @param part.only fights whose name begins so
 * @param part.ways those that are tried, of WAYS
 * @returns rows of the study's table
 */
export function finding(core, project, even, plants, { only, ways = WAYS } = {}) {
  return FIGHTS.filter(({ name }) => !only || name.startsWith(only)).flatMap(({ name, cell, measures, budget, runs, strongest }) => {
    const run = runnerOf(core);
    const goals = measures.map((measure) => core.lookAt(cell, measure));
    const base = run(project, { cell, firstSeed: 5_000_000, runs: runs.base });
    const value = (sample, goal) => core.estimate(sample.columns[goal.column], goal.statistic).value;
    const moving = strongest ? strongNumbers(core, project, cell, goals, strongest) : movingNumbers(core, project, cell, run);
    let found = 0;
    let wrong = 0;
    const distances = [];
    const taken = [];
    const after = Object.fromEntries(ways.map((way) => [way, []]));
    let planted = 0;
    for (const repeat of plants) {
      const draw = even(repeat * 101 + 7);
      const dials = some(moving, 10, draw);
      const objectives = goals.map((goal) => ({ ...goal, band: bandAbout(value(base, goal), goal.statistic, 0.09 + 0.11 * draw()) }));
      const pushed = push(core, project, dials, draw, (other) => {
        const sample = run(other, { cell, firstSeed: 6_000_000, runs: runs.pushed });
        return objectives.filter((goal) => !inside(value(sample, goal), goal.band)).length >= 2;
      });
      if (!pushed) {
        tell(`${name}, ${repeat}: no push of three of these numbers shows`);
        continue;
      }
      planted++;
      const own = dials.map((dial) => {
        // A factor is one of what is written by now: the way back is to lie within its range.
        if (dial.op === '×') {
          const back = 1 / (pushed.turned.find((one) => one.dial.id === dial.id)?.to ?? 1);
          return { ...dial, low: Math.min(dial.low, back), high: Math.max(dial.high, back) };
        }
        const now = core.standsAt(pushed.project, dial);
        const usual = core.dialFor(pushed.project, dial.path);
        return { ...usual, low: Math.min(usual.low, dial.low, now), high: Math.max(usual.high, dial.high, now) };
      });
      const problem = core.findProblem(pushed.project, objectives, own, { budget });
      for (const way of ways.filter((one) => SIMPLE[one])) {
        const simple = SIMPLE[way](core, problem, run, even(repeat * 307 + 11));
        if (simple) after[way].push(simple.after);
        tell(`${name}, ${repeat}: ${way} ${simple?.after ?? 'nothing'}`);
      }
      if (!ways.includes(SEARCH)) continue;
      const search = new core.FindSearch(problem);
      // To its end, as it is on the page: when the first was proved, and the least change of all.
      let proved;
      core.runSearch(
        search,
        (ask) => run(pushed.project, ask),
        () => ((proved ??= search.proposals[0]), true),
      );
      const [first] = search.proposals;
      if (!first) {
        tell(`${name}, ${repeat}: ${SEARCH} nothing`);
        continue;
      }
      // One that is proved with the last runs of all is seen only now.
      proved ??= first;
      after[SEARCH].push(proved.after);
      const there = first.put.reduce((now, { knob, value: to }) => core.turnedCell(now, knob.dial, to), cell);
      const fresh = run(pushed.project, { cell: there, firstSeed: 9_000_000, runs: runs.fresh });
      if (objectives.every((goal) => inside(value(fresh, goal), goal.band))) found++;
      else wrong++;
      const back = pushed.turned.map(({ dial, to }) => {
        const [knob] = core.knobsOf(pushed.project, [own.find(({ id }) => id === dial.id)]);
        return Math.abs(core.placeOf(knob, dial.op === '×' ? 1 / to : core.standsAt(project, dial)));
      });
      const away = back.reduce((a, b) => a + b, 0);
      distances.push(first.distance / away);
      taken.push(proved.after);
      const told = [proved, first].map((one) => `${(one.distance / away).toFixed(2)} of the push after ${one.after}`);
      tell(`${name}, ${repeat}: ${SEARCH} ${told.join(', ')}; ${found} found, ${wrong} wrongly`);
    }
    const middle = (list) => [...list].sort((a, b) => a - b)[list.length >> 1];
    const curve = (own) => SHARES.map((share) => own.filter((runs) => runs <= share * budget).length).join(', ');
    return [
      [
        `${name}: proved within ${SHARES.map((share) => (share * budget).toLocaleString('en')).join(', ')} runs, of ${planted}`,
        Object.entries(after)
          .map(([way, own]) => `${way} ${curve(own)}`)
          .join('; '),
        'the search',
      ],
      [
        `${name}: ten numbers, three pushed by 15–40 %, found again in band on ${runs.fresh.toLocaleString('en')} fresh seeds within ${budget.toLocaleString('en')} runs`,
        `${found} of ${planted}`,
        `${wrong} proved wrongly; distance ÷ push ${middle(distances)?.toFixed(2)}, runs ${middle(taken)?.toLocaleString('en')} at the median`,
      ],
    ];
  });
}

/** Ways to hold the search against, and the parts of its budget at which they are. */
const SIMPLE = { 'a number at a time': oneAtATime, 'at random': atRandom };
const SEARCH = 'search';
export const WAYS = [SEARCH, ...Object.keys(SIMPLE)];
const SHARES = [0.25, 0.5, 1];

/** How far it is, for who waits for it. */
const tell = (line) => console.error(line);

const runnerOf =
  (core) =>
  (project, { cell, firstSeed, runs }) => {
    const compiled = core.compileScenario(project, cell);
    const runner = new core.Runner(compiled);
    return core.sampleOf(
      compiled,
      Array.from({ length: runs }, (_, i) => core.rowOf({ compiled, run: runner.run(firstSeed + i) })),
    );
  };

/** Numbers that change a fight within twenty seeds. */
function movingNumbers(core, project, cell, run) {
  const before = run(project, { cell, firstSeed: 1, runs: 20 }).digests;
  const all = core.numbersOf(project, core.compileScenario(project, cell), cell.kind === 'encounter' ? cell.id : undefined);
  return core
    .nudges(project, all)
    .turned.filter(({ dial, to }) =>
      run(project, { cell: core.turnedCell(cell, dial, to), firstSeed: 1, runs: 20 }).digests.some((one, i) => one !== before[i]),
    )
    .map(({ dial }) => dial);
}

/** The numbers that move a fight's goals most, by a screening, and the kinds of numbers that they are of. */
function strongNumbers(core, project, cell, objectives, strongest) {
  const request = { cell, objectives, runs: 100, firstSeed: 1, strongest, screen: 8000, pairs: false };
  const dials = core.workThrough(core.movesWork(project, request)).moved.map(({ dial }) => dial);
  return [
    ...dials,
    ...core.kindsOfNumbers(project, core.numbersOf(project, core.compileScenario(project, cell), cell.id)).slice(0, strongest),
  ];
}

const some = (list, count, draw) =>
  list
    .map((one) => [draw(), one])
    .sort(([a], [b]) => a - b)
    .slice(0, count)
    .map(([, one]) => one);

function bandAbout(value, statistic, width) {
  const by = width * (statistic === 'share' ? Math.max(value, 0.5) : value);
  return statistic === 'share'
    ? { low: Math.max(0.01, value - by), high: Math.min(0.99, value + by) }
    : { low: value - by, high: value + by };
}

const inside = (value, { low, high }) => value >= low && value <= high;

/** Three of the numbers pushed, again and again until it shows. */
function push(core, project, dials, draw, shows) {
  for (let again = 0; again < 40; again++) {
    const turned = some(dials, 3, draw).map((dial) => {
      const by = 0.15 + 0.25 * draw();
      const to = core.standsAt(project, dial) * (draw() < 0.5 ? 1 - by : 1 + by);
      return { dial, to: core.stepped({ low: -1e9, high: 1e9, step: dial.step }, to) };
    });
    const other = core.turnedProject(
      project,
      turned.map(({ dial, to }) => core.turnTo(dial, to)),
    );
    if (shows(other)) return { project: other, turned };
  }
  return undefined;
}
