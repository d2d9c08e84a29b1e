import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { choose, press } from './support/bench';
import { suite } from './support/suite';
import { cliDuel, newDigest } from './support/world';

const own = suite('going-on');
const READOUT = 'aside[aria-label=Readout]';

const shown = (page: Page) =>
  page.$eval(READOUT, (aside) => ({
    runs: Number(/([\d]+) (?:paired )?runs/.exec(aside.querySelector('.section-head')!.textContent)?.[1]),
    digest: aside.querySelector('[data-testid=digest]')!.textContent,
  }));

describe('a readout', () => {
  test('goes on by itself until every measure is told well enough; held, it waits; what is told is what the command line tells', async () => {
    const id = await own.project();
    const page = await own.open(`${id}/enemies/thistlejack`);
    await newDigest(page, null);
    const first = await shown(page);
    expect(first.runs).toBe(200);
    // As tests find it, it waits to be told.
    await press(page, READOUT, 'go on');
    await page.waitForFunction(
      (runs, within) => {
        const told = /([\d]+) (?:paired )?runs/.exec(document.querySelector(`${within} .section-head`)!.textContent)?.[1];
        return Number(told) > runs;
      },
      {},
      first.runs,
      READOUT,
    );
    const more = await shown(page);
    expect([400, 800, 1600]).toContain(more.runs);
    expect(more.digest).toBe(cliDuel(await own.stored(id), 'thistlejack', ['--distance', '12', '--runs', String(more.runs)]).digest);
    await page.waitForFunction(
      (within) => /enough|at its most/.test(document.querySelector(`${within} .section-head`)!.textContent),
      {},
      READOUT,
    );
  });

  test('a tier that was only run to see how far a measure goes has a readout of its own when it is looked at', async () => {
    const id = await own.project();
    const page = await own.open(`${id}/enemies/thistlejack`);
    await newDigest(page, null);
    await press(page, READOUT, 'go on');
    await page.waitForFunction(
      (within) => /enough|at its most/.test(document.querySelector(`${within} .section-head`)!.textContent),
      {},
      READOUT,
    );
    for (const tier of [(await own.stored(id)).tiers[0], (await own.stored(id)).tiers.at(-1)]) {
      const before = (await shown(page)).digest;
      await choose(page, 'header', 'Tier', tier.name);
      await newDigest(page, before);
      expect((await shown(page)).runs).toBeGreaterThanOrEqual(200);
    }
  });
});
