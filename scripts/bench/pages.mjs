/**
 * From an edit to its figures, in Chromium: on a page that has long been open, on one that has been open and left alone for two
 * seconds, and on one that has just been opened. Each edit is another value, so nothing comes from memory.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../system.mjs';

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** The duels whose repaint is timed. One Clipper dies before its second bite: its cooldown would change nothing. */
const DUELS = [
  { enemy: 'thistlejack', copies: 1, distance: 12 },
  { enemy: 'mulcher', copies: 1, distance: 12 },
  { enemy: 'clipper', copies: 3, distance: 6 },
  { enemy: 'head-gardener', copies: 1, distance: 12 },
];
const COOLDOWN = '[role=slider][aria-label$=" cooldown"]';
export const SHIFT = { path: 'encounters/evening-shift?tier=bloom&skill=regular', slider: '[role=slider][aria-label="Wave 3 delay"]' };
/** Where edits are timed, by name. */
export const PLACES = [
  ...DUELS.map(({ enemy, copies, distance }) => ({
    name: `${copies} ${enemy}`,
    path: `enemies/${enemy}?skill=regular&copies=${copies}&distance=${distance}`,
    slider: COOLDOWN,
  })),
  { name: 'Evening Shift', ...SHIFT },
];
export const figures = () =>
  document.querySelector('[data-testid=digest]') && document.querySelector('[aria-label=Readout][aria-busy=false]');

/** Presses a key on a slider and waits for what follows. @returns ms to the first figures that are other ones, and to the last of the edit */
export async function edit(page, slider, key = 'ArrowRight') {
  return page.evaluate(
    async (which, pressed) => {
      const digest = () => document.querySelector('[data-testid=digest]')?.textContent;
      // The frame in which it is seen paints it; the next one begins after that.
      const frame = () => new Promise((done) => requestAnimationFrame(done));
      const edge = document.querySelector(which);
      edge.focus();
      const old = digest();
      const start = performance.now();
      edge.dispatchEvent(new KeyboardEvent('keydown', { key: pressed, bubbles: true }));
      while (digest() === old) await frame();
      await frame();
      const first = performance.now() - start;
      while (document.querySelector('[aria-label=Readout]')?.getAttribute('aria-busy') === 'true') await frame();
      await frame();
      const whole = performance.now() - start;
      // Before it goes on by itself.
      const note = document.querySelector('[aria-label=Readout] .note')?.textContent;
      return { first, whole, runs: Number(/(\d+) (?:paired )?runs/.exec(note)?.[1]) };
    },
    slider,
    key,
  );
}

const runsShown = (page) => page.$eval('[aria-label=Readout] .note', (one) => Number(/(\d+) (?:paired )?runs/.exec(one.textContent)?.[1]));

let copies = 0;
/** The demo under another name: edits are saved, and what a page begins with is to be the same for all. @returns its id */
export async function copied(address, change = (document) => document) {
  const id = `pages-${++copies}`;
  const document = { ...change(JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8'))), id, name: id };
  await fetch(`${address}/api/projects`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(document),
  });
  return id;
}

/** A page of its own, as somebody opens it: no worker is there yet. */
export async function opened(browser, address, path) {
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  await page.goto(`${address}/projects/${await copied(address)}/${path}`);
  await page.waitForFunction(figures);
  return { page, close: () => context.close() };
}

/** ms of edits on one page, one after another; the first few warm it. */
async function warm(browser, address, { path, slider }, times) {
  const { page, close } = await opened(browser, address, path);
  const took = [];
  for (let i = 0; i < times + 5; i++) {
    const one = await edit(page, slider);
    await page.waitForFunction(figures);
    if (i >= 5) took.push(one);
  }
  await close();
  return middle(took);
}

/** The same of the first edit of a page, so many ms after its first figures. */
async function first(browser, address, { path, slider }, pages, after) {
  const took = [];
  for (let i = 0; i < pages; i++) {
    const { page, close } = await opened(browser, address, path);
    const atOnce = await runsShown(page);
    await new Promise((done) => setTimeout(done, after));
    const one = await edit(page, slider);
    await page.waitForFunction(figures);
    took.push({ ...one, atOnce });
    await close();
  }
  return middle(took);
}

const middle = (all) => Object.fromEntries(Object.keys(all[0]).map((name) => [name, median(all.map((one) => one[name]))]));

/** Duels by name, and Evening Shift: warm, two seconds open, just opened. */
export async function editsToFigures(address, browser) {
  const all = {};
  for (const { name, ...place } of PLACES) {
    all[name] = {
      warm: await warm(browser, address, place, name === 'Evening Shift' ? 7 : 20),
      open: await first(browser, address, place, 5, 2000),
      new: await first(browser, address, place, 5, 0),
    };
  }
  return all;
}
