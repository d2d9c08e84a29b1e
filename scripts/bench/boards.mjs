/** A board of forty enemies at six tiers: how long until it is read, and until another measure or cell is painted. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../system.mjs';

const ENEMIES = 40;
const TIERS = 6;
const RUNS = 100;
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** The demo with its enemies and tiers copied until there are enough; copies differ, so that each cell is run and kept by itself. */
function bigDocument() {
  const document = JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8'));
  document.id = document.name = 'big';
  const enemies = document.units.filter(({ side, role }) => side === 'enemy' && role !== 'boss');
  const have = document.units.filter(({ side }) => side === 'enemy').length + document.variants.length;
  for (let i = 0; i < ENEMIES - have; i++) {
    const copy = structuredClone(enemies[i % enemies.length]);
    copy.id += `-${i}`;
    copy.name += ` ${i}`;
    copy.health.max += 1 + i;
    document.units.push(copy);
  }
  while (document.tiers.length < TIERS) {
    const copy = structuredClone(document.tiers.at(-1));
    copy.id += `-${document.tiers.length}`;
    copy.name += ` ${document.tiers.length}`;
    document.tiers.push(copy);
  }
  return document;
}

/** ms, in Chromium; the duels of the board have all been run. */
export async function boardRedraw(address, browser, { everyCell, parseProject }) {
  const document = bigDocument();
  const headers = { 'Content-Type': 'application/json', Connection: 'close' };
  const made = await fetch(`${address}/api/projects`, { method: 'POST', headers, body: JSON.stringify(document) });
  if (!made.ok) throw new Error(`the big project was refused: ${await made.text()}`);
  const cells = everyCell(parseProject(document), 'tiers', { skill: 'regular' })
    .filter((cell) => cell.startsWith('duel'))
    .map((cell) => ({ cell, runs: RUNS }));
  await fetch(`${address}/api/projects/big/batches`, { method: 'POST', headers, body: JSON.stringify({ cells }) });
  while ((await (await fetch(`${address}/api/projects/big/batches`, { headers: { Connection: 'close' } })).json()).length)
    await new Promise((then) => setTimeout(then, 200));
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  const opened = Date.now();
  await page.goto(`${address}/projects/big/board?skill=regular`);
  await page.waitForFunction(
    (count) => document.querySelectorAll('[role=gridcell][data-state=fresh]').length >= count,
    { timeout: 120_000 },
    cells.length,
  );
  const first = Date.now() - opened;
  const times = await page.evaluate(async () => {
    const frame = () => new Promise((then) => requestAnimationFrame(then));
    const measured = async (act, done) => {
      const start = performance.now();
      act();
      while (!done()) await frame();
      await frame();
      return performance.now() - start;
    };
    const measure = (name) =>
      [...document.querySelectorAll('nav[aria-label=Measures] button')].find((one) => one.textContent.startsWith(name));
    const fresh = () => document.querySelectorAll('[role=gridcell][data-state=fresh]').length;
    const switches = [];
    for (let i = 0; i < 8; i++) {
      const next = i % 2 ? 'Time-to-kill' : 'Pressure dose';
      const all = fresh();
      switches.push(
        await measured(
          () => measure(next).click(),
          () => measure(next).getAttribute('aria-current') === 'page' && fresh() >= Math.min(all, 200),
        ),
      );
    }
    const moves = [];
    document.querySelector('[role=gridcell]').focus();
    for (let i = 0; i < 20; i++) {
      const old = document.querySelector('[role=gridcell][aria-selected=true]');
      moves.push(
        await measured(
          () => document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true })),
          () => document.querySelector('[role=gridcell][aria-selected=true]') !== old,
        ),
      );
    }
    return { switches, moves };
  });
  await page.close();
  return { cells: cells.length, first, measure: median(times.switches.slice(2)), move: median(times.moves.slice(4)) };
}
