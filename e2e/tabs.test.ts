import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { fill, keys, press, undoName, unitOf } from './support/bench';
import { pressAt } from './support/press';
import { suite } from './support/suite';
import { savedState, shortFights } from './support/world';

const at = suite('tabs');
const { address, project, open, stored } = at;

describe('two tabs at once', () => {
  async function tabs(id: string, ...paths: string[]): Promise<Page[]> {
    const context = await at.browser.createBrowserContext();
    return Promise.all(
      paths.map(async (path) => {
        const page = await context.newPage();
        await page.setViewport({ width: 1280, height: 800 });
        page.on('pageerror', (error) => at.errors.push(String(error)));
        await page.goto(`${address()}/projects/${id}/enemies/${path}`);
        await page.waitForSelector('main h1');
        return page;
      }),
    );
  }
  const shows = (page: Page, label: string, value: string) =>
    page.waitForFunction(
      (wanted, number) =>
        [...document.querySelectorAll('main label')].some(
          (one) =>
            one.textContent === wanted &&
            (document.getElementById((one as HTMLLabelElement).htmlFor) as HTMLInputElement)?.value === number,
        ),
      { polling: 100 }, // a tab behind another paints no frames
      label,
      value,
    );

  test('a change in one shows in the other; changes in different places are merged', async () => {
    const id = await project(shortFights);
    const [one, two] = await tabs(id, 'mulcher', 'mulcher');
    await one.bringToFront();
    await fill(one, 'main', 'Health', 131);
    await savedState(one, 'saved');
    await shows(two, 'Health', '131');
    await two.bringToFront();
    await fill(two, 'main', 'Walk', 1.3);
    await savedState(two, 'saved');
    await shows(one, 'Walk', '1.3');
    expect(unitOf(await stored(id), 'mulcher')).toMatchObject({ health: { max: 131 }, movement: { walk: 1.3 } });
  });

  test('the same number changed in both before either was saved is shown as a conflict, and nothing is overwritten unseen', async () => {
    const id = await project(shortFights);
    const [one, two] = await tabs(id, 'mulcher', 'mulcher');
    // The second tab can’t save until the first has.
    let held = true;
    await two.setRequestInterception(true);
    two.on('request', (request) => void (held && request.url().includes('/api/') ? request.abort() : request.continue()));
    await two.bringToFront();
    await fill(two, 'main', 'Health', 200);
    await savedState(two, 'away');
    await one.bringToFront();
    await fill(one, 'main', 'Health', 150);
    await savedState(one, 'saved');
    held = false;
    await two.bringToFront();
    await savedState(two, 'conflict');
    expect(unitOf(await stored(id), 'mulcher').health.max).toBe(150);
    const said = await (await two.waitForSelector('[role=alertdialog]'))!.evaluate((all) => all.textContent);
    expect(said).toContain('/units/mulcher/health/max200150');
    await press(two, '[role=alertdialog]', 'Keep what is here');
    await savedState(two, 'saved');
    expect(unitOf(await stored(id), 'mulcher').health.max).toBe(200);
    await shows(one, 'Health', '200');
  });
});

describe('history', () => {
  test('what changed is told in words, any two can be compared, a baseline has a name, and one can go back', async () => {
    const id = await project(shortFights);
    const before = await stored(id);
    const page = await open(`${id}/enemies/mulcher`);
    await fill(page, 'main', 'Health', 131);
    await savedState(page, 'saved');
    await fill(page, 'main', 'Walk', 1.3);
    await savedState(page, 'saved');
    await press(page, 'main', 'History');
    await page.waitForFunction(() => document.querySelectorAll('[aria-label=Revisions] tbody tr').length === 4);
    const rows = await page.$$eval('[aria-label=Revisions] tbody tr', (all) => all.map((row) => row.children[3].textContent));
    expect(rows.slice(1)).toEqual(['3 Mulcher walk 1.8 → 1.3 m/s', '2 Mulcher health 110 → 131 hp', '1 Created']);
    await pressAt(page, '[aria-label="Compare from revision 1"]');
    const differences = async (...lines: string[]) =>
      page.waitForFunction(
        (wanted) => JSON.stringify([...document.querySelectorAll('[aria-label=Differences] li')].map((one) => one.textContent)) === wanted,
        {},
        JSON.stringify(lines),
      );
    await differences('Mulcher: Health 110 hp → 131 hp', 'Mulcher: Walk 1.8 m/s → 1.3 m/s');
    await pressAt(page, '[aria-label="Compare to revision 2"]');
    await differences('Mulcher: Health 110 hp → 131 hp');
    await fill(page, 'main', 'Name of revision 1', 'as it began');
    await page.waitForFunction(
      () => document.querySelector('[aria-label=Comparison] h2')?.textContent === 'From as it began to revision 2',
    );
    await press(page, 'main', 'Go back to as it began');
    await savedState(page, 'saved');
    expect(await stored(id)).toEqual(before);
    expect(await undoName(page)).toBe('Undo: Went back to as it began');
    await page.reload();
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Name of revision 1"]') as HTMLInputElement)?.value === 'as it began',
    );
    // What can be undone outlives the reload.
    expect(await undoName(page)).toBe('Undo: Went back to as it began');
    await keys(page, 'Control', 'z');
    await savedState(page, 'saved');
    expect(unitOf(await stored(id), 'mulcher').health.max).toBe(131);
  });
});
