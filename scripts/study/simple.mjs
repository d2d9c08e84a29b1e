/**
 * Two simple ways to look for values with which all goals hold, to hold a search against: a number at a time, and points drawn at random.
 * Both are judged as the search is: what looks right with 500 runs is proved with 1,200 that nothing has seen.
 */

const RUNS = { try: 200, gate: 300, proof: 1200 };
const FIRST_SEED = 3_000_001;

/** @returns runs after which a point was proved, and where; undefined: none within the budget */
export function oneAtATime(core, problem, run, draw) {
  const look = looker(core, problem, run);
  const { dials } = problem;
  let at = dials.map(() => 0);
  let now = look.at(at);
  for (let stride = 0.2; now !== undefined;) {
    let better = false;
    for (let i = 0; i < dials.length && now !== undefined; i++) {
      for (const to of [at[i] + stride, at[i] - stride, 0]) {
        if (to === at[i]) continue;
        const tried = core.steppedPoint(
          dials,
          within(
            core,
            dials,
            at.map((value, k) => (k === i ? to : value)),
          ),
        );
        const then = look.at(tried);
        if (look.found) return look.found;
        if (then === undefined) return undefined;
        if (then >= now) continue;
        at = tried;
        now = then;
        better = true;
      }
    }
    if (better) continue;
    stride /= 2;
    if (stride >= 0.02) continue;
    // Nothing near is better: from somewhere else, as somebody would who has come to a dead end.
    stride = 0.2;
    at = anywhere(core, dials, draw);
    now = look.at(at);
    if (look.found) return look.found;
  }
  return look.found;
}

/** @returns as above */
export function atRandom(core, problem, run, draw) {
  const look = looker(core, problem, run);
  for (;;) {
    const outside = look.at(anywhere(core, problem.dials, draw));
    if (look.found || outside === undefined) return look.found;
  }
}

/** Each number turned with a chance of three in ten, anywhere within its range. */
const anywhere = (core, dials, draw) =>
  core.steppedPoint(
    dials,
    dials.map((knob) => {
      const [low, high] = core.endsOf(knob);
      return draw() < 0.3 ? low + (high - low) * draw() : 0;
    }),
  );

const within = (core, dials, at) =>
  at.map((value, i) => {
    const [low, high] = core.endsOf(dials[i]);
    return Math.min(Math.max(value, low), high);
  });

/** Runs points, counts what that costs, and proves what looks right. */
function looker(core, { dials, goals, cells: [cell], budget, project }, run) {
  let spent = 0;
  let seed = FIRST_SEED;
  const more = (at, runs) => {
    const sample = run(project, { cell: core.cellAtPoint(cell, dials, at), firstSeed: seed, runs });
    spent += runs;
    seed += runs;
    return goals.map(({ column }) => Array.from(sample.columns[column]));
  };
  const farFrom = (values) =>
    goals.reduce((sum, { statistic, band: { low, high } }, g) => {
      const { value } = core.estimate(values[g], statistic);
      const far = Math.max(0, low - value, value - high) / ((high - low) / 2);
      return sum + (Number.isFinite(far) ? Math.min(far, 10) : 10);
    }, 0);
  const look = {
    found: undefined,
    /** How far outside in half bands, in all; undefined: nothing is left to run. */
    at(point) {
      if (spent + RUNS.try > budget) return undefined;
      let values = more(point, RUNS.try);
      let far = farFrom(values);
      if (far > 0 || spent + RUNS.gate + RUNS.proof > budget) return far;
      values = more(point, RUNS.gate).map((own, g) => [...values[g], ...own]);
      far = farFrom(values);
      if (far > 0) return far;
      const proof = more(point, RUNS.proof);
      if (goals.every(({ statistic, band }, g) => core.judge(proof[g], statistic, band).verdict === 'met'))
        look.found = { after: spent, at: point };
      return far;
    },
  };
  return look;
}
