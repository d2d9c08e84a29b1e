/**
 * npm run study: how far what Tune says can be trusted. Made-up responses with known noise, and the demo's crowd of Clippers, asked
 * again and again with other seeds. Prints the table of docs/tuning.md; --short asks less.
 *
 *   npm run study -- --find "Evening Shift" --plant 7 --plant 21 --way search
 *
 * asks of the planted faults alone, of fights whose name begins so, some plantings, and some of the ways to find them.
 */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { WAYS, finding } from './study/finding.mjs';
import { playing } from './study/playing.mjs';
import { ROOT, build, installModules, withSentences } from './system.mjs';

const { values } = parseArgs({
  options: {
    short: { type: 'boolean', default: false },
    find: { type: 'string' },
    plant: { type: 'string', multiple: true },
    way: { type: 'string', multiple: true, default: WAYS },
  },
});
const { short } = values;
const unknown = values.way.find((way) => !WAYS.includes(way));
if (unknown) throw new Error(`--way: ${unknown} is none of ${WAYS.join(', ')}`);
const percent = (share) => `${(100 * share).toFixed(1)} %`;

/** A generator of its own: mulberry32, for even draws that do not depend on the engine's. */
function even(seed) {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

function normalOf(draw) {
  return Math.sqrt(-2 * Math.log(1 - draw())) * Math.cos(2 * Math.PI * draw());
}

/** Paired effects of made-up responses: half of the luck is shared by both versions. */
function coverage({ effectOf }, repeats) {
  const ran = (values, mark) => ({ values, digests: values.map((_, i) => `${mark}${i}`) });
  const made = {
    share: (n, shift, draw) => {
      const base = Array.from({ length: n }, draw);
      return [base.map((u) => (u < 0.5 ? 1 : 0)), base.map((u) => ((draw() < 0.5 ? u : draw()) < 0.5 + shift ? 1 : 0))];
    },
    mean: (n, shift, draw) => shifted(n, shift, draw),
    median: (n, shift, draw) => shifted(n, shift, draw),
    p90: (n, shift, draw) => shifted(n, shift, draw),
  };
  const shifted = (n, shift, draw) => {
    const base = Array.from({ length: n }, () => normalOf(draw));
    return [base, base.map((x) => shift + Math.SQRT1_2 * x + Math.SQRT1_2 * normalOf(draw))];
  };
  return Object.entries(made).flatMap(([statistic, make]) =>
    [100, 400].map((n) => {
      let covered = 0;
      let quiet = 0;
      for (let repeat = 0; repeat < repeats; repeat++) {
        const draw = even(repeat * 7919 + n);
        const [before, after] = make(n, 0.1, draw);
        const effect = effectOf(ran(before, 'a'), ran(after, 'b'), statistic);
        if (effect.low <= 0.1 && 0.1 <= effect.high) covered++;
        const [same, other] = make(n, 0, draw);
        if (effectOf(ran(same, 'a'), ran(other, 'b'), statistic).says === 'none') quiet++;
      }
      return [
        `${statistic}, ${n} runs: intervals that hold the truth; no effect called so`,
        `${percent(covered / repeats)}; ${percent(quiet / repeats)}`,
        '95 %; 95 %',
      ];
    }),
  );
}

const CROWD = { kind: 'duel', id: 'clipper', skill: 'regular', duel: { copies: 6 } };

function sampler(core, project) {
  return (cell, first, runs) => {
    const compiled = core.compileScenario(project, cell);
    const runner = new core.Runner(compiled);
    return core.sampleOf(
      compiled,
      Array.from({ length: runs }, (_, i) => core.rowOf({ compiled, run: runner.run(first + i) })),
    );
  };
}

/** The ten strongest numbers for who wins by a long study of one at a time, a tenth up and down; how many of them a screening names. */
function screening(core, project) {
  const sample = sampler(core, project);
  const objective = core.lookAt(CROWD, 'won');
  const dials = core.numbersOf(project, core.compileScenario(project, CROWD));
  const runs = short ? 200 : 2000;
  const won = (cell) => {
    const values = sample(cell, 1, runs).columns.won;
    return values.reduce((a, b) => a + b, 0) / runs;
  };
  const strong = dials
    .flatMap((dial) => {
      const now = core.standsAt(project, dial);
      const by = Math.max(dial.step ?? 0, core.tenthOf(dial, now));
      const [up, down] = [now + by, now - by].map((value) => core.stepped(dial, value));
      if (up === down) return [];
      return [{ dial, size: Math.abs(won(core.turnedCell(CROWD, dial, up)) - won(core.turnedCell(CROWD, dial, down))) / 2 }];
    })
    .sort((a, b) => b.size - a.size);
  const ten = new Set(strong.slice(0, 10).map(({ dial }) => dial.id));
  const base = sample(CROWD, 1, core.BASE_RUNS);
  const tenth = strong[9].size;
  return [1000, 2000, 4000].map((budget) => {
    const design = core.designFor(dials, budget);
    const half = (own) => {
      const one = new core.Screening(project, CROWD, [objective], own, base, 1_000_001);
      for (const pair of core.pairsOfDesign(own)) one.add(one.run(pair));
      return one.result(0);
    };
    const first = half(design);
    const named = core.ofBoth(first, half(core.secondDesign(design, first))).slice(0, 10);
    const hits = named.filter(({ dial }) => ten.has(dial.id)).length;
    return [
      `Clipper × 6, ${dials.length} numbers, ${core.runsOfScreening(design)} runs: of the ten strongest for who wins, named`,
      `${hits} of 10`,
      `≥ 9 within 4,000; the tenth moves it by ${percent(tenth)}, against ${(2 * runs * dials.length).toLocaleString('en')} runs one at a time`,
    ];
  });
}

/** Ten edits, two of a quarter and eight of 8 %: how often the two are named first, within 1,100 runs. */
function whichEdit(core, project, repeats) {
  const clipper = (of) => of.units.find(({ id }) => id === 'clipper');
  const at = (path) => path.split('/').slice(1);
  const paths = {
    guilty: ['/movement/run', '/health/max', '/attacks/0/effects/damage/amount', '/attacks/0/beat/active'],
    other: [
      '/senses/sight',
      '/senses/memory',
      '/movement/turnRate',
      '/movement/acceleration',
      '/attacks/0/facing',
      '/attacks/0/arc',
      '/senses/lose',
      '/body/height',
      '/targeting/reconsider',
      '/onDeath/revivableFor',
    ],
  };
  const cell = { kind: 'duel', id: 'clipper', skill: 'regular', duel: { copies: 6 } };
  const goals = ['won', 'timeToKill', 'dose', 'peakPressureShare'].map((measure) => {
    const { column, statistic } = core.lookAt(cell, measure);
    return { cell, column, of: 'clipper', band: { id: measure, measure, statistic } };
  });
  let named = 0;
  let byOne = 0;
  for (let repeat = 0; repeat < repeats; repeat++) {
    const draw = even(repeat + 1);
    const chosen = [...paths.guilty].sort(() => draw() - 0.5).slice(0, 2);
    const innocent = [...paths.other].sort(() => draw() - 0.5).slice(0, 8);
    const after = structuredClone(project);
    const change = (path, by) => {
      const steps = at(path);
      const parent = steps.slice(0, -1).reduce((value, step) => value[step], clipper(after));
      parent[steps.at(-1)] = Number((parent[steps.at(-1)] * (draw() < 0.5 ? 1 - by : 1 + by)).toPrecision(4));
    };
    chosen.forEach((path) => change(path, 0.25));
    innocent.forEach((path) => change(path, 0.08));
    const known = new Map();
    const ran = (version, { column }) => {
      if (!known.has(version)) known.set(version, sampler(core, version)(cell, 1 + repeat * 1000, 50));
      const one = known.get(version);
      return { digests: one.digests, values: one.columns[column] };
    };
    const valid = core.parseProject(after);
    const edits = core.editsBetween(project, valid);
    const rows = core.whichEdit({ before: project, after: valid }, edits, goals, ran);
    const isGuilty = ({ edit }) =>
      edit.operations.some(({ path }) => chosen.some((one) => path.endsWith(one.replace('/attacks/0', '/attacks/bite'))));
    if (core.byBlameOverall(rows).slice(0, 2).every(isGuilty)) named++;
    if (core.byBlame(rows, 0).slice(0, 2).every(isGuilty)) byOne++;
  }
  return [
    [
      `Clipper × 6: of ten edits, both of a quarter named first over four measures, ${22 * 50} runs`,
      `${named} of ${repeats}`,
      '≥ 19 of 20',
    ],
    ['the same by who wins alone', `${byOne} of ${repeats}`, ''],
  ];
}

await withSentences(async () => {
  installModules();
  build();
  const core = createRequire(import.meta.url)(join(ROOT, 'packages/core/dist/index.js'));
  const project = core.parseProject(JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8')));
  const plants = values.plant?.map(Number) ?? Array.from({ length: short ? 3 : 20 }, (_, i) => i + 1);
  const asked = { only: values.find, ways: values.way };
  const rows =
    values.find === undefined
      ? [
          ...coverage(core, short ? 200 : 1000),
          ...screening(core, project),
          ...whichEdit(core, project, short ? 5 : 20),
          ...playing(core, project, even, short ? 2 : 10),
          ...finding(core, project, even, plants),
        ]
      : finding(core, project, even, plants, asked);
  const width = Math.max(...rows.map(([what]) => what.length));
  for (const [what, found, wanted] of rows) console.log(`${what.padEnd(width)}  ${found.padStart(16)}  ${wanted}`);
});
