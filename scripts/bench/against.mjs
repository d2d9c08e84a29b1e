/**
 * npm run bench -- --against DIR: another built tree of this project beside this one, by turns on one machine: fights, all that a
 * duel's readout does, ways on ground that nobody knows yet, and edits on pages of both. Each takes the demo that it comes with.
 */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { launchBrowser } from '../browser.mjs';
import { startInstance } from '../instance.mjs';
import { ROOT } from '../system.mjs';
import { FLOOR_UNIT_STEPS, floor } from './floor.mjs';
import { PLACES, edit, figures } from './pages.mjs';
import { processor } from './processor.mjs';

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const least = (values) => Math.min(...values);

const treeAt = (root) => {
  const core = createRequire(import.meta.url)(join(root, 'packages/core/dist/index.js'));
  const demo = () => JSON.parse(readFileSync(join(root, 'demo/verdance.insidia.json'), 'utf8'));
  return { root, core, demo, project: core.parseProject(demo()) };
};

/** The same of both trees, by turns: `make` gives what is timed, the first `warm` rounds are the compiler's. @returns lists of both */
function byTurns(trees, make, { rounds = 15, warm = 4 } = {}) {
  const acts = trees.map(make);
  const took = trees.map(() => []);
  for (let round = 0; round < rounds + warm; round++)
    acts.forEach((act, i) => {
      const one = act();
      if (round >= warm) took[i].push(one);
    });
  return took;
}

const row = (name, unit, [before, now], digits = 0) => [
  name,
  `${least(before).toFixed(digits)} → ${least(now).toFixed(digits)} ${unit}`,
  median(now.map((one, i) => one / before[i])).toFixed(2),
];

/** ns a unit-step, warm: fights whose rules have changed are longer or shorter. The floor has its turns too. */
function fights(trees) {
  return trees[1].project.encounters.map(({ id, name }) => {
    const [before, now, bare] = byTurns([...trees, undefined], (tree) => {
      if (!tree) return () => (processor(floor) / FLOOR_UNIT_STEPS) * 1e6;
      const runner = new tree.core.Runner(
        tree.core.compileScenario(tree.project, { kind: 'encounter', id, tier: 'bloom', skill: 'regular' }),
      );
      let unitSteps = 0;
      let seeds = 0;
      while (unitSteps < 2 * FLOOR_UNIT_STEPS) runner.run(++seeds, (fight) => void (unitSteps += fight.alive.length));
      return () => (processor(() => Array.from({ length: seeds }, (_, s) => runner.run(s + 1))) / unitSteps) * 1e6;
    });
    const floors = [before, now].map((all) => `${(least(all) / least(bare)).toFixed(1)} floors`);
    return [...row(`${name}: a unit-step, warm`, 'ns', [before, now]), floors.join(' → ')];
  });
}

function readouts(trees) {
  return DUELS.map(([id, copies]) =>
    row(
      `200 duels of ${copies} ${id}, all that a readout does`,
      'ms',
      byTurns(trees, ({ core, project }) => {
        const scenario = { kind: 'duel', id, skill: 'regular', ...(copies > 1 && { duel: { copies } }) };
        return () =>
          processor(() => {
            const work = new core.DuelWork(project, scenario, 1);
            for (let seed = 1; seed < 200; seed += 10) work.add(work.run(seed, 10));
            work.result();
          });
      }),
    ),
  );
}

const DUELS = [
  ['clipper', 1],
  ['clipper', 3],
  ['thistlejack', 1],
  ['mulcher', 1],
  ['head-gardener', 1],
];

/** Ground that nobody knows is the same ground a little wider each time. */
function grounds(trees) {
  return ['evening-shift', 'cellar-beat', 'glasshouse-defence'].flatMap((id) => {
    const warm = trees.map(() => []);
    const shards = trees.map(() => []);
    const four = byTurns(
      trees,
      ({ core, demo }, i) => {
        const project = core.parseProject(demo());
        const arena = project.arenas.find((one) => one.id === project.encounters.find((encounter) => encounter.id === id).arena);
        return () => {
          arena.width += 0.02;
          const compiled = () => core.compileScenario(project, { kind: 'encounter', id, tier: 'bloom', skill: 'regular' });
          const runner = new core.Runner(compiled());
          const runs = () => processor(() => [1, 2, 3, 4].forEach((seed) => runner.run(seed)));
          const first = runs();
          warm[i].push(runs());
          shards[i].push(
            processor(() => {
              const own = compiled();
              const fresh = new core.Runner(own);
              for (let seed = 1; seed <= 50; seed++) core.rowOf({ compiled: own, run: fresh.run(seed) });
            }),
          );
          return first;
        };
      },
      { rounds: 7, warm: 2 },
    );
    return [
      [
        `${id}: a new runner’s first four runs ÷ warm`,
        four.map((all, i) => (least(all) / least(warm[i].slice(2))).toFixed(1)).join(' → '),
        '',
      ],
      row(
        `${id}: fifty runs with their rows`,
        'ms',
        shards.map((all) => all.slice(2)),
      ),
    ];
  });
}

let copies = 0;
/** A page of its own on a project of its own, as somebody opens it. */
async function opened(browser, { address, demo }, path) {
  const id = `against-${++copies}`;
  const body = JSON.stringify({ ...demo(), id, name: id });
  const made = await fetch(`${address}/api/projects`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body });
  if (!made.ok) throw new Error(await made.text());
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  await page.goto(`${address}/projects/${id}/${path}`);
  await page.waitForFunction(figures);
  return { page, close: () => context.close() };
}

/** ms from an edit to its first figures, to the last of them, and how many runs there were in time: just opened, open two seconds, warm. */
async function pages(trees, rounds = 5) {
  const browser = await launchBrowser();
  const told = [];
  for (const { name, path, slider } of PLACES) {
    const took = trees.map(() => ({ 'just opened': [], 'open two seconds': [], warm: [] }));
    for (let round = 0; round < rounds; round++)
      for (const [i, tree] of trees.entries())
        for (const [what, after] of [
          ['just opened', 0],
          ['open two seconds', 2000],
        ]) {
          const { page, close } = await opened(browser, tree, path);
          await new Promise((done) => setTimeout(done, after));
          took[i][what].push(await edit(page, slider));
          for (let more = 0; what !== 'just opened' && more < 8; more++) {
            await page.waitForFunction(figures);
            const one = await edit(page, slider);
            if (more >= 4) took[i].warm.push(one);
          }
          await close();
        }
    for (const what of Object.keys(took[0])) {
      const of = (part) => took.map((all) => median(all[what].map((one) => one[part])));
      const [first, whole, runs] = ['first', 'whole', 'runs'].map(of);
      const words = ([before, now]) => `${before.toFixed(0)} → ${now.toFixed(0)}`;
      told.push([
        `${name}, ${what}: edit → first figures`,
        `${words(first)} ms`,
        (first[1] / first[0]).toFixed(2),
        `all of them ${words(whole)} ms, ${words(runs)} runs`,
      ]);
    }
  }
  await browser.close();
  return told;
}

/** @param other folder of the other tree, built @returns rows: what, before → now, the median of now ÷ before, more */
export async function against(other) {
  const trees = [treeAt(resolve(other)), treeAt(ROOT)];
  const rows = [...fights(trees), ...readouts(trees), ...grounds(trees)];
  const instances = [];
  try {
    for (const { root } of trees) instances.push(await startInstance({ root }));
    const served = trees.map((tree, i) => ({ ...tree, address: instances[i].address }));
    return [...rows, ...(await pages(served))];
  } finally {
    for (const instance of instances) await instance.stop();
  }
}
