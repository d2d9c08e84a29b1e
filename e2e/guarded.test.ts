import { expect, test } from '@jest/globals';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { suite } from './support/suite';
import { ROOT } from './support/world';

const at = suite('guard');

test('what fails to be drawn fails alone: it says what and why, offers the project, and comes back', async () => {
  const id = await at.project();
  const page = await at.open(`${id}/enemies/clipper`);
  await page.waitForSelector('[data-testid=digest]');
  // Something that the strips ask of their numbers, and the lists and fields around them do not.
  await page.evaluate(() => {
    const own = Number.prototype.toExponential;
    (window as any).restore = () => (Number.prototype.toExponential = own);
    Number.prototype.toExponential = () => {
      throw new Error('made to fail');
    };
  });
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('aside[aria-label=Enemies] *')].find((one) => one.textContent === 'Mulcher')!.click(),
  );
  await page.waitForSelector('[role=alert]');
  const said = await page.$$eval('[role=alert]', (all) => all.map((one) => one.textContent));
  expect(said.some((words) => words?.includes('can’t be shown: made to fail'))).toBe(true);
  expect(said.some((words) => words?.includes('Save the project as a file'))).toBe(true);
  // Everything around it goes on: the bar, the list, the heading of the page.
  expect(await page.$('nav[aria-label=Sections]')).not.toBeNull();
  expect(await page.$('aside[aria-label=Enemies]')).not.toBeNull();
  if (process.env.INSIDIA_LOOK) await page.screenshot({ path: process.env.INSIDIA_LOOK as `${string}.png` });
  await page.evaluate(() => (window as any).restore());
  // Each is tried again by its own button, or comes back by itself with the next thing it is shown.
  await page.waitForFunction(
    () => {
      const again = document.querySelector<HTMLElement>('[role=alert] button');
      again?.click();
      return !again;
    },
    { polling: 100 },
  );
  at.errors.length = 0; // what was made to fail was told to the console too
  await page.close();
});

/**
 * Chromium ends the process of a tab, with every page in it, where a worker's module asks for its own address (`import.meta`)
 * or for another module after its page has been left: once in some thirty times that a page is left as its workers begin.
 */
test('no worker asks for its own address or for other modules when it runs', () => {
  const assets = join(ROOT, 'apps/web/dist/assets');
  const scripts = readdirSync(assets).filter((name) => name.endsWith('.js'));
  const text = (name: string) => readFileSync(join(assets, name), 'utf8');
  const workers = new Set(
    scripts.flatMap((name) => [...text(name).matchAll(/new Worker\(`\/assets\/([^`]+)`/g)].map(([, worker]) => worker)),
  );
  expect(workers.size).toBe(8);
  expect([...workers].filter((name) => /\bimport(\.meta|\()/.test(text(name)))).toEqual([]);
  // Nor is one begun in a way that the search above does not see.
  const begun = (pattern: RegExp) => scripts.flatMap((name) => [...text(name).matchAll(pattern)]).length;
  expect(begun(/new Worker\(/g)).toBe(begun(/new Worker\(`\/assets\//g));
});
