/** An Insidia that has a password, as people meet it. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import { readFileSync } from 'node:fs';
import { fill, press } from './support/bench';
import { joinBrowser, openPage, savedState, startInstance } from './support/world';

let instance: Awaited<ReturnType<typeof startInstance>>;
let browser: Browser;
const errors: string[] = [];
beforeAll(async () => {
  [instance, browser] = [await startInstance({ env: { INSIDIA_PASSWORD: 'leaf mould' } }), await joinBrowser()];
});
afterAll(async () => {
  await browser?.disconnect();
  await instance?.stop();
});

test('whoever signs in comes to where they wanted, is named in the history, signs out; work of the time between is kept', async () => {
  const page = await openPage(browser, errors);
  await page.goto(`${instance.address}/projects/verdance/enemies/mulcher`);
  await page.evaluate(readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8'));
  expect(await page.evaluate(async () => ((await (window as any).axe.run()).violations as any[]).map(({ id }) => id))).toEqual([]);
  await page.type('input[name=name]', 'Ada');
  await page.type('input[name=password]', 'leaf');
  await page.keyboard.press('Enter');
  await page.waitForSelector('[role=alert]');
  expect(await page.$eval('[role=alert]', (one) => one.textContent)).toBe('that is not the password');
  expect(await page.$eval('input[name=name]', (one) => one.value)).toBe('Ada');
  await page.type('input[name=password]', 'leaf mould');
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => document.querySelector('main h1')?.textContent === 'Mulcher');
  expect(new URL(page.url()).pathname).toBe('/projects/verdance/enemies/mulcher');
  await fill(page, 'main', 'Health', 131);
  await savedState(page, 'saved');

  // Another tab signs out: what is typed here meanwhile waits for the next sign-in.
  const other = await page.browserContext().newPage();
  await other.goto(instance.address);
  await other.waitForFunction(() => document.body.textContent?.includes('Signed in as Ada'));
  await press(other, 'main', 'Sign out');
  await other.waitForSelector('input[name=password]');
  await page.bringToFront();
  await fill(page, 'main', 'Walk', 1.3);
  await savedState(page, 'away');
  expect(await page.$eval('[data-saving]', (one) => one.textContent)).toContain('Signed out: kept here');
  await press(page, 'header', 'Sign in');
  await page.waitForSelector('input[name=name]');
  await page.type('input[name=name]', 'Bo');
  await page.type('input[name=password]', 'leaf mould');
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => document.querySelector('main h1')?.textContent === 'Mulcher');
  await savedState(page, 'saved');
  await page.goto(`${instance.address}/projects/verdance/history`);
  await page.waitForFunction(() => document.querySelectorAll('[aria-label=Revisions] tbody tr').length === 4);
  expect(
    await page.evaluate(
      async () =>
        ((await (await fetch('/api/projects/verdance')).json()) as any).units.find((unit: any) => unit.id === 'mulcher').movement.walk,
    ),
  ).toBe(1.3);
  const rows = await page.$$eval('[aria-label=Revisions] tbody tr', (all) => all.map((row) => row.children[3].textContent));
  expect(rows.slice(1)).toEqual(['3 Work of an earlier visitBo', '2 Mulcher health 110 → 131 hpAda', '1 Loaded the demo']);
  expect(errors).toEqual([]);
});

test('a project is deleted and brought back', async () => {
  const page = await openPage(browser, errors);
  await page.goto(instance.address);
  await page.type('input[name=name]', 'Ada');
  await page.type('input[name=password]', 'leaf mould');
  await page.keyboard.press('Enter');
  await page.waitForSelector('ul li a');
  await press(page, 'main', 'Delete Verdance Station');
  await page.waitForSelector('section[aria-label=Deleted]');
  await press(page, 'main', 'Bring Verdance Station back');
  await page.waitForFunction(() => !document.querySelector('section[aria-label=Deleted]') && document.querySelector('ul li a'));
});
