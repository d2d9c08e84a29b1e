/** What tests do on the board: run it, wait for it, read a cell. */
import type { Page } from 'puppeteer-core';
import { fill } from './bench';

/** A cell by its key without player count and style, as the board marks it. */
export const cell = (key: string, wave?: string) => `[role=gridcell][data-cell="${key}||${wave ? ` ${wave}` : ''}"]`;

/** Waits until nothing runs and every cell of the board is as it is now. */
export const idle = (page: Page) =>
  page.waitForFunction(
    () =>
      !document.querySelector('[role=status][aria-label=Running]') &&
      document.querySelector('[role=gridcell]') &&
      [...document.querySelectorAll('[role=gridcell]')].every((one) => one.getAttribute('data-state') === 'fresh'),
  );

/** How many runs a cell gets. */
export async function runs(page: Page, duel: number, encounter: number): Promise<void> {
  await page.waitForSelector('[role=gridcell]');
  // What was asked for elsewhere is run first.
  await page.waitForFunction(() => [...document.querySelectorAll('button')].some((one) => one.textContent?.includes('runs a cell')));
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('button')].find((one) => one.textContent?.includes('runs a cell'))!.click(),
  );
  const sheet = '.sheet[aria-label="How many runs"]';
  await page.waitForSelector(sheet);
  await fill(page, sheet, 'Duels', duel);
  await fill(page, sheet, 'Encounters', encounter);
  await page.keyboard.press('Escape');
}

/** Runs every cell; what is known already, of another project with the same numbers, is not run again. */
export const start = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('main button')]
      .find((one) => ['Run the board', 'Run all'].includes(one.textContent!))!
      .click(),
  );

/** The number that a cell shows, in the unit in which it is told. */
export async function valueOf(page: Page, selector: string): Promise<number> {
  await page.waitForSelector(selector);
  const words = await page.$eval(selector, (one) => one.getAttribute('aria-label')!);
  const found = /: (?:median|mean|p90|p10|share of runs) (?:(never)|(?:(\d+):)?([\d.]+))/.exec(words);
  if (!found) throw new Error(`no number in "${words}"`);
  const [, never, minutes = 0, number] = found;
  return never ? Infinity : 60 * Number(minutes) + Number(number);
}

export const verdictOf = (page: Page, selector: string) => page.$eval(selector, (one) => one.getAttribute('data-verdict'));

/** Chooses the measure whose name begins so. */
export const chooseMeasure = (page: Page, name: string) =>
  page.evaluate(
    (wanted) =>
      [...document.querySelectorAll<HTMLElement>('nav[aria-label=Measures] button')]
        .find((one) => one.textContent?.startsWith(wanted))!
        .click(),
    name,
  );
