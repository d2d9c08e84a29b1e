/**
 * npm run bench: speed as ratios in one run, so that a slow or busy machine changes little. Prints a table and writes
 * the same as JSON to the file named by --json.
 */
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { CROWD_STEPS, CROWD_UNITS, crowdProject } from './bench/crowd.mjs';
import { FLOOR_UNIT_STEPS, floor } from './bench/floor.mjs';
import { launchBrowser } from './browser.mjs';
import { startInstance } from './instance.mjs';
import { ROOT, build, installModules, withSentences } from './system.mjs';

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** ns of one call. */
function time(act, times) {
  const start = process.hrtime.bigint();
  for (let i = 0; i < times; i++) act(i);
  return Number(process.hrtime.bigint() - start) / times;
}

/** Engine and floor alternate, so that both see the machine as it is; the median of the rounds' ratios counts. */
function engineAgainstFloor() {
  const core = createRequire(import.meta.url)(join(ROOT, 'packages/core/dist/index.js'));
  const compiled = core.compile(crowdProject(core), { encounter: 'crowd' });
  const runner = new core.Runner(compiled);
  time(floor, 60);
  time((i) => runner.run(i), 40);
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

/** ms from an edit to the repainted readout of 200 duels, in Chromium; each edit another value. */
async function editToRepaint(address, browser, enemy) {
  const page = await browser.newPage();
  await page.goto(`${address}/projects/verdance/enemies/${enemy}?skill=regular`);
  await page.waitForFunction(() => document.querySelector('[data-testid=digest]'));
  const took = [];
  for (let i = 0; i < 25; i++) {
    took.push(
      await page.evaluate(async () => {
        const digest = () => document.querySelector('[data-testid=digest]')?.textContent;
        const edge = document.querySelector('[role=slider][aria-label$=" cooldown"]');
        edge.focus();
        const old = digest();
        const start = performance.now();
        edge.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
        while (digest() === old) await new Promise((done) => requestAnimationFrame(done));
        // The frame in which it was seen paints it; the next one begins after that.
        await new Promise((done) => requestAnimationFrame(done));
        return performance.now() - start;
      }),
    );
  }
  await page.close();
  return median(took.slice(5));
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

await withSentences(async () => {
  installModules();
  build();
  const { ratio, engine, floor: bare } = engineAgainstFloor();
  const instance = await startInstance();
  const browser = await launchBrowser();
  const repaint = {};
  for (const enemy of ['clipper', 'thistlejack', 'mulcher']) repaint[enemy] = await editToRepaint(instance.address, browser, enemy);
  await browser.close();
  await instance.stop();
  const script = firstViewScript();
  const rows = [
    [
      'engine, open ground, 26 units: time per unit-step ÷ floor',
      ratio.toFixed(2),
      '≤ 6',
      `${engine.toFixed(0)} ns against ${bare.toFixed(0)} ns`,
    ],
    ...Object.entries(repaint).map(([enemy, ms]) => [
      `edit → readout of 200 duels repainted, ${enemy}, median`,
      `${ms.toFixed(0)} ms`,
      '≤ 150 ms',
      '20 edits in Chromium',
    ]),
    ['script of the first view, gzipped', `${script.page.toFixed(0)} kB`, '≤ 300 kB', `and ${script.worker.toFixed(0)} kB in the worker`],
  ];
  const widths = rows[0].map((_, column) => Math.max(...rows.map((row) => row[column].length)));
  for (const row of rows)
    console.log(
      row
        .map((cell, column) => cell.padEnd(widths[column]))
        .join('   ')
        .trimEnd(),
    );
  const at = process.argv.indexOf('--json');
  if (at > 0)
    writeFileSync(
      process.argv[at + 1],
      JSON.stringify(
        { ratio, engineNanoseconds: engine, floorNanoseconds: bare, repaintMilliseconds: repaint, scriptKilobytes: script },
        null,
        2,
      ) + '\n',
    );
});
