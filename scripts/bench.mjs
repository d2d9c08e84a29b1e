/**
 * npm run bench: speed as ratios in one run, so that a slow or busy machine changes little. Prints a table and writes
 * the same as JSON to the file named by --json. The ten thousand runs take minutes: --runs says fewer. With --against DIR another
 * built tree of the project is timed beside this one instead.
 */
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { Worker } from 'node:worker_threads';
import { manyRuns, twoWorkers } from './bench/batches.mjs';
import { against } from './bench/against.mjs';
import { boardRedraw } from './bench/boards.mjs';
import { commandLine } from './bench/command-line.mjs';
import { CROWD_STEPS, CROWD_UNITS, campsTables, hallTables, crowdProject } from './bench/crowd.mjs';
import { FLOOR_UNIT_STEPS, floor } from './bench/floor.mjs';
import { demoFights } from './bench/fights.mjs';
import { turnedDuels, turns } from './bench/turns.mjs';
import { newRunners } from './bench/grounds.mjs';
import { memoryOfEdits } from './bench/memory.mjs';
import { editsToFigures } from './bench/pages.mjs';
import { tuning } from './bench/tuning.mjs';
import { launchBrowser } from './browser.mjs';
import { startInstance } from './instance.mjs';
import { ROOT, Sentence, build, installModules, withSentences } from './system.mjs';

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** ns of one call. */
function time(act, times) {
  const start = process.hrtime.bigint();
  for (let i = 0; i < times; i++) act(i);
  return Number(process.hrtime.bigint() - start) / times;
}

const core = () => createRequire(import.meta.url)(join(ROOT, 'packages/core/dist/index.js'));

/** What is wanted of the fights of the demo, and of the duels of a page that has been open for two seconds. */
const WANTED_FLOORS = { 'Evening Shift': 8.5, 'Cellar Beat': 8.2, 'The Head Gardener': 8.2, 'Glasshouse Defence': 6.7, 'First Bell': 6.5 };
const WANTED_OPEN = { '3 clipper': '≤ 60 ms', '1 thistlejack': '≤ 100 ms', '1 mulcher': '≤ 130 ms', '1 head-gardener': '≤ 250 ms' };

/** Engine and floor alternate, so that both see the machine as it is; the median of the rounds' ratios counts. */
function engineAgainstFloor(walled) {
  const { compile, Runner, ...rest } = core();
  const runner = new Runner(compile(crowdProject(rest, { walled }), { encounter: 'crowd' }));
  time(floor, 60);
  time((i) => runner.run(i), 60);
  const ratios = [];
  const engine = [];
  const bare = [];
  for (let round = 0; round < 15; round++) {
    bare.push(time(floor, 40) / FLOOR_UNIT_STEPS);
    engine.push(time((i) => runner.run(i), 12) / (CROWD_UNITS * CROWD_STEPS));
    ratios.push(engine[round] / bare[round]);
  }
  return { ratio: median(ratios), engine: median(engine), floor: median(bare) };
}

/** Exponent of the time of a run in the number of units at constant density, by least squares in logarithms. */
function growth() {
  const { Runner, ...rest } = core();
  const sizes = [16, 64, 160, 304, 448];
  const runners = sizes.map((units) => new Runner(campsTables(rest, units)));
  for (let warm = 0; warm < 12; warm++) runners[0].run(warm);
  const points = sizes.map((units, i) => {
    const times = [];
    for (let k = 0; k < 5; k++) times.push(time((n) => runners[i].run(n), Math.max(1, Math.round(160 / units))));
    return [Math.log(units), Math.log(median(times))];
  });
  const mean = (column) => points.reduce((sum, point) => sum + point[column], 0) / points.length;
  const [mx, my] = [mean(0), mean(1)];
  const exponent = points.reduce((sum, [x, y]) => sum + (x - mx) * (y - my), 0) / points.reduce((sum, [x]) => sum + (x - mx) ** 2, 0);
  return { exponent, milliseconds: Object.fromEntries(points.map(([x, y]) => [Math.round(Math.exp(x)), Math.exp(y) / 1e6])) };
}

/** A run that nobody would wait for: how long until its budget of events or steps ends it. */
function fullHall() {
  const { Runner, ...rest } = core();
  const runner = new Runner(hallTables(rest));
  const before = process.cpuUsage().user;
  const { units, length } = runner.run(1);
  return { units, length: length / 1e6, seconds: (process.cpuUsage().user - before) / 1e6, unitSteps: runner.fight.work };
}

/** Runs a second in two worker threads, of those in one; the same seeds. */
async function threads() {
  const { compile, parseProject } = core();
  const demo = parseProject(JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8')));
  const compiled = compile(demo, { encounter: 'the-head-gardener', tier: 'bramble', skill: 'regular' });
  const code = `
    const { parentPort, workerData } = require('node:worker_threads');
    const { Batch } = require(workerData.core);
    parentPort.on('message', ({ seed, runs }) => {
      const batch = new Batch(workerData.compiled, seed, runs);
      batch.advance(runs);
      parentPort.postMessage('done');
    });`;
  const workers = [0, 1].map(
    () => new Worker(code, { eval: true, workerData: { core: join(ROOT, 'packages/core/dist/index.js'), compiled } }),
  );
  const work = (worker, seed, runs) =>
    new Promise((done) => {
      worker.once('message', done);
      worker.postMessage({ seed, runs });
    });
  await Promise.all(workers.map((worker) => work(worker, 1, 300)));
  const ratios = [];
  for (let round = 0; round < 5; round++) {
    let start = process.hrtime.bigint();
    await work(workers[0], 1, 800);
    const one = Number(process.hrtime.bigint() - start);
    start = process.hrtime.bigint();
    await Promise.all([work(workers[0], 1, 400), work(workers[1], 401, 400)]);
    ratios.push(one / Number(process.hrtime.bigint() - start));
  }
  await Promise.all(workers.map((worker) => worker.terminate()));
  return median(ratios);
}

/** Time of recording everything against recording nothing; and how large a trace is. */
function tracing() {
  const { Runner, compile, parseProject, traceWith } = core();
  const demo = parseProject(JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8')));
  const runner = new Runner(compile(demo, { encounter: 'evening-shift', tier: 'bloom', skill: 'regular' }));
  for (let seed = 1; seed <= 60; seed++) runner.run(seed);
  for (let seed = 1; seed <= 10; seed++) traceWith(runner, seed);
  const ratios = [];
  for (let round = 0; round < 9; round++) {
    const without = time((i) => runner.run(round * 8 + i), 8);
    ratios.push(time((i) => traceWith(runner, round * 8 + i), 8) / without);
  }
  const { events, steps, reasons } = traceWith(runner, 1);
  return { ratio: median(ratios), events: events.length, steps: steps.length, reasons: reasons.length };
}

/** ms between the frames of a replay with two hundred enemies on the field, playing; and the size of what is recorded. */
async function replayFrames(address, browser) {
  const { compile, parseProject, replay } = core();
  const read = () => JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8'));
  const crowd = read();
  const shift = crowd.encounters.find(({ id }) => id === 'evening-shift');
  const group = (enemy, at) => ({ ...shift.waves[0].groups[0], id: enemy, enemy, at, count: { min: 100, max: 100 }, spacing: 0 });
  const wave = { ...shift.waves[0], groups: [group('clipper', ['s1', 's2']), group('thistlejack', ['s3', 's4', 's5'])] };
  for (const unit of crowd.units) if (unit.side === 'party') unit.health.max = 1e6;
  crowd.id = crowd.name = 'crowd';
  delete crowd.brief;
  delete crowd.tuning;
  crowd.encounters = [{ ...shift, alive: { most: 200, perType: [], full: 'wait' }, waves: [wave], limit: 40 }];
  await fetch(`${address}/api/projects`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(crowd),
  });
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(`${address}/projects/crowd/replay/evening-shift?seed=1&at=4`);
  await page.waitForSelector('[data-testid=stage]', { timeout: 120_000 });
  const gaps = await page.evaluate(async () => {
    [...document.querySelectorAll('main button')].find((one) => one.textContent === 'Play').click();
    const found = [];
    let last = performance.now();
    for (let i = 0; i < 200; i++) {
      await new Promise((then) => requestAnimationFrame(then));
      const now = performance.now();
      found.push(now - last);
      last = now;
    }
    return found.slice(20).sort((a, b) => a - b);
  });
  await page.close();
  const sizes = [
    ['first-bell', read()],
    ['evening-shift', read()],
    ['evening-shift', crowd],
  ].map(([encounter, document]) => {
    const project = parseProject(document);
    const { unitData, shotData, areaData, events, length, unitOf, unitAt } = replay(compile(project, { encounter }), 1);
    const bytes = (unitData.length + shotData.length + areaData.length) * 4;
    return {
      encounter,
      units: Math.round(unitOf.length / (unitAt.length - 1)),
      seconds: Math.round(length),
      megabytes: bytes / 1e6,
      events: events.length,
    };
  });
  return { median: gaps[Math.floor(gaps.length / 2)], p95: gaps[Math.floor(gaps.length * 0.95)], sizes };
}

/** kB of script, gzipped, that the first view loads before anything can be seen. */
function firstViewScript() {
  const folder = join(ROOT, 'apps/web/dist/assets');
  const manifest = JSON.parse(readFileSync(join(ROOT, 'apps/web/dist/.vite/manifest.json'), 'utf8'));
  const entry = Object.values(manifest).find(({ isEntry }) => isEntry);
  const files = new Set();
  const add = ({ file, imports = [] }) => {
    files.add(file);
    imports.forEach((name) => add(manifest[name]));
  };
  add(entry);
  const size = (file) => gzipSync(readFileSync(join(ROOT, 'apps/web/dist', file))).length / 1000;
  const worker = existsSync(folder) ? readdirSync(folder).find((name) => /^worker-.*\.js$/.test(name)) : undefined;
  return { page: [...files].reduce((sum, file) => sum + size(file), 0), worker: worker ? size('assets/' + worker) : 0 };
}

function table(rows) {
  const widths = rows[0].map((_, column) => Math.max(...rows.map((row) => row[column]?.length ?? 0)));
  for (const row of rows)
    console.log(
      row
        .map((cell, column) => cell.padEnd(widths[column]))
        .join('   ')
        .trimEnd(),
    );
}

await withSentences(async () => {
  installModules();
  build();
  const other = process.argv.indexOf('--against');
  if (other > 0) {
    const tree = process.argv[other + 1];
    if (!tree || !existsSync(join(tree, 'packages/core/dist/index.js')))
      throw new Sentence(`--against needs the folder of another built tree of this project: ${tree ?? 'none'} is none`);
    return table(await against(tree));
  }
  const open = engineAgainstFloor(false);
  const walls = engineAgainstFloor(true);
  const grown = growth();
  const hall = fullHall();
  const twoThreads = await threads();
  const traced = tracing();
  const newer = newRunners(core());
  const fights = demoFights(core());
  const inTurns = turns(core());
  const duelsInTurns = turnedDuels(core());
  const instance = await startInstance();
  const browser = await launchBrowser();
  const { 'Evening Shift': evening, ...duels } = await editsToFigures(instance.address, browser);
  const tuned = await tuning(instance.address, browser, core(), JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8')));
  const frames = await replayFrames(instance.address, browser);
  const board = await boardRedraw(instance.address, browser, core());
  const memory = await memoryOfEdits(instance, browser);
  await browser.close();
  await instance.stop();
  const workers = await twoWorkers();
  const asked = process.argv.indexOf('--runs');
  const many = await manyRuns(asked > 0 ? Number(process.argv[asked + 1]) : 10_000);
  const script = firstViewScript();
  const started = commandLine();
  const rows = [
    ...[
      ['engine, open ground, 26 units: time per unit-step ÷ floor', open, '≤ 6'],
      ['engine, walls, sight and ways around: the same', walls, '≤ 12'],
    ].map(([name, { ratio, engine, floor: bare }, wanted]) => [
      name,
      ratio.toFixed(2),
      wanted,
      `${engine.toFixed(0)} ns against ${bare.toFixed(0)} ns`,
    ]),
    [
      'growth of a run’s time from 16 to 448 units, exponent',
      grown.exponent.toFixed(2),
      '≤ 1.25',
      Object.entries(grown.milliseconds)
        .map(([units, ms]) => `${units}: ${ms.toFixed(1)} ms`)
        .join(', '),
    ],
    [
      `${hall.units} units in one hall for an hour, until the run is ended`,
      `${hall.seconds.toFixed(0)} s`,
      '≤ 60 s',
      `of processor; ${(hall.unitSteps / 1e6).toFixed(1)} million steps of units, ${(hall.length / 60).toFixed(0)} minutes of the fight`,
    ],
    ['two worker threads against one', twoThreads.toFixed(2), '≥ 1.7', 'runs of The Head Gardener'],
    ...Object.entries(fights).map(([name, { floors, milliseconds }]) => [
      `${name}, warm, in floors`,
      floors.toFixed(1),
      `≤ ${WANTED_FLOORS[name]}`,
      `${milliseconds.toFixed(1)} ms a run; Node ${process.versions.node}`,
    ]),
    [
      'in turns: 20 units on 30 × 20 squares for up to 30 rounds, warm',
      `${inTurns.took.toFixed(1)} ms`,
      '≤ 3 ms',
      `a run, of processor; ${inTurns.rounds.toFixed(0)} rounds in the median`,
    ],
    ...Object.entries(duelsInTurns).map(([name, took]) => [
      `edit → readout of 200 duels in turns, warm, ${name}`,
      `${took.toFixed(0)} ms`,
      '≤ 60 ms',
      'of processor, on one thread; the page’s share them out',
    ]),
    ['a new runner’s first four runs of Evening Shift ÷ warm, ground not known', newer.unknown.toFixed(2), '≤ 1.8', 'processor time'],
    ['the same, ground known from another runner', newer.known.toFixed(2), '≤ 1.3', 'processor time'],
    [
      'recording a trace against not',
      traced.ratio.toFixed(2),
      '≤ 2',
      `Evening Shift: ${traced.events} events, ${traced.steps} steps, ${traced.reasons} reasons`,
    ],
    ...Object.entries(duels).map(([duel, { warm, open, new: first }]) => [
      `edit → 200 duels repainted, page open two seconds, ${duel}`,
      `${open.whole.toFixed(0)} ms`,
      WANTED_OPEN[duel],
      `just opened ${first.whole.toFixed(0)} ms, warm ${warm.whole.toFixed(0)}; first figures ${open.first.toFixed(0)}, ${first.first.toFixed(0)}, ${warm.first.toFixed(0)}`,
    ]),
    [
      'edit → first figures of Evening Shift (4 runs), warm / page just opened',
      `${evening.warm.first.toFixed(0)} / ${evening.new.first.toFixed(0)} ms`,
      '≤ 150 / 400 ms',
      `page open two seconds ${evening.open.first.toFixed(0)} ms`,
    ],
    [
      'runs of Evening Shift within 1.5 s of an edit, warm / page just opened',
      `${evening.warm.runs} / ${evening.new.runs}`,
      '≥ 150 / 60',
      `page open two seconds ${evening.open.runs}; the opening itself ${evening.new.atOnce}`,
    ],
    [
      'Tune, page open two seconds: forty numbers of six Clippers, four measures: first bar',
      `${(tuned.first / 1000).toFixed(1)} s`,
      '≤ 2 s',
      `all of 41 × 200 runs ${(tuned.all / 1000).toFixed(1)} s`,
    ],
    [
      'Tune: the ten strongest of six Clippers / of Evening Shift',
      `${(tuned.crowd / 1000).toFixed(1)} / ${(tuned.encounter / 1000).toFixed(1)} s`,
      '≤ 10 / 90 s',
      '2,000 and 3,000 runs at least, all numbers at once',
    ],
    [
      'Tune: eight numbers and four goals of Evening Shift, to the first proposal that is proved',
      `${(tuned.mended / 1000).toFixed(1)} s`,
      '≤ 90 s',
      'three of the numbers pushed by 30 %, the goals within 15 % of what it was',
    ],
    [
      'replay, 200 enemies on the field: between two frames, median',
      `${frames.median.toFixed(1)} ms`,
      '≤ 16.7 ms',
      `95 of 100 within ${frames.p95.toFixed(1)} ms; recorded: ${frames.sizes.map((one) => `${one.units} units, ${one.seconds} s: ${one.megabytes.toFixed(1)} MB and ${one.events} events`).join('; ')}`,
    ],
    [
      `memory after ${memory.edits} edits of Evening Shift: the page’s process with its workers`,
      `${memory.late.page.toFixed(0)} MB`,
      '',
      `${memory.early.page.toFixed(0)} MB after a tenth of them; the page’s own thread ${memory.early.heap.toFixed(0)} and ${memory.late.heap.toFixed(0)} MB once collected; the server ${memory.early.server.toFixed(0)} and ${memory.late.server.toFixed(0)} MB`,
    ],
    [
      'a worker process beside the server, one thread each, against the server alone',
      workers.ratio.toFixed(2),
      '≥ 1.7',
      `600 runs of Evening Shift: ${workers.helped.toFixed(1)} s against ${workers.alone.toFixed(1)} s`,
    ],
    [
      `${many.runs} runs of Evening Shift as a batch`,
      `${many.seconds.toFixed(0)} s`,
      '',
      `${((many.runs / many.seconds) * 60).toFixed(0)} runs a minute; the server holds ${many.megabytes.toFixed(0)} MB at most; its figures are read in ${many.read.toFixed(0)} ms, its curve in ${many.curve.toFixed(0)} ms`,
    ],
    [
      `board of ${board.cells} duels, 40 enemies at six tiers: another measure painted, median`,
      `${board.measure.toFixed(0)} ms`,
      '≤ 300 ms',
      `from cell to cell ${board.move.toFixed(0)} ms; opened in ${(board.first / 1000).toFixed(1)} s`,
    ],
    ['insidia --version, against Node that does nothing', started.version.toFixed(1), '≤ 3', `${started.versionMs.toFixed(0)} ms`],
    ['insidia simulate, First Bell, 10 runs, against the same', started.simulate.toFixed(1), '≤ 8', `${started.simulateMs.toFixed(0)} ms`],
    ['script of the first view, gzipped', `${script.page.toFixed(0)} kB`, '≤ 260 kB', `and ${script.worker.toFixed(0)} kB in the worker`],
  ];
  table(rows);
  const at = process.argv.indexOf('--json');
  if (at > 0)
    writeFileSync(
      process.argv[at + 1],
      JSON.stringify(
        {
          open,
          walls,
          growth: grown,
          twoThreads,
          trace: traced,
          fightsInFloors: fights,
          duels,
          encounter: evening,
          tuning: tuned,
          replay: frames,
          workers,
          manyRuns: many,
          board,
          commandLine: started,
          scriptKilobytes: script,
        },
        null,
        2,
      ) + '\n',
    );
});
