/** Verbs of a fight, each built once on the screen, its effect told by figures. */
import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { choose, fill, group, press } from './support/bench';
import { suite } from './support/suite';

const { project, open, stored } = suite('verbs');
const STATES = '[aria-label=States][role=region]';

/** The condition of a way is taken away: it holds always where ways are drawn among, else it is taken otherwise. */
async function unconditional(page: Page, state: string, way: number, to: string): Promise<void> {
  const opener = await page.waitForSelector(`${STATES} ${group(`Way ${way}`)} button[aria-label^="${state} leaves for ${to} when"]`);
  await opener!.click();
  const sheet = `.sheet[aria-label="${state} leaves for ${to} when"]`;
  await page.waitForSelector(sheet);
  await press(page, sheet, 'Take away');
  await press(page, sheet, 'Done');
  await page.waitForFunction((selector) => !document.querySelector(selector), {}, sheet);
}

/** How often a life takes a way, once the readout is of the present edit. */
const taken = (page: Page, way: number) => page.$eval(`${STATES} ${group(`Way ${way}`)} b`, (one) => Number(one.textContent));

describe('ways out of a state', () => {
  test('decides each half second, three times in four one way and once the other; nothing else leads anywhere', async () => {
    const id = await project((document) => {
      const jack = document.units.find((unit: any) => unit.id === 'thistlejack');
      jack.startsIn = 'hesitate';
      for (const state of jack.states) state.leaves = [];
    });
    const page = await open(`${id}/enemies/thistlejack?state=hesitate`);
    await press(page, STATES, 'Hesitate decides at intervals');
    await page.waitForSelector(`${STATES} ${group('Decides')}`);
    for (const [way, to, weight] of [
      [1, 'Close in', 3],
      [2, 'Back off', 1],
    ] as const) {
      await press(page, STATES, 'Add a way out of Hesitate');
      const part = `${STATES} ${group(`Way ${way}`)}`;
      await page.waitForSelector(part);
      await choose(page, part, `Way ${way} leads to`, to);
      await fill(page, part, `Way ${way} weight`, weight);
      await unconditional(page, 'Hesitate', way, to);
    }
    await page.waitForFunction(
      (ways) => {
        const figures = ways.map((way) => Number(document.querySelector(`[role=group][aria-label="${way}"] b`)?.textContent ?? NaN));
        return figures[0] + figures[1] > 0.85;
      },
      {},
      ['Way 1', 'Way 2'],
    );
    await page.waitForSelector('[data-saving=saved]');
    // Two hundred lives, each of which leaves once: 0.75 and 0.25, three standard errors are 0.09, and figures have one decimal.
    expect(await taken(page, 1)).toBeGreaterThanOrEqual(0.6);
    expect(await taken(page, 1)).toBeLessThanOrEqual(0.9);
    expect(await taken(page, 2)).toBeGreaterThanOrEqual(0.1);
    expect(await taken(page, 2)).toBeLessThanOrEqual(0.4);
    const kept = (await stored(id)).units.find((unit: any) => unit.id === 'thistlejack').states.find((one: any) => one.id === 'hesitate');
    expect(kept.decides).toEqual({ min: 0.5, max: 0.5 });
    expect(kept.leaves).toEqual([
      { to: 'close-in', after: 0, weight: 3 },
      { to: 'back-off', after: 0, weight: 1 },
    ]);
  });
});
