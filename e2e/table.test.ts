import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { fill, input, keys, press, tick, undoName, unitOf } from './support/bench';
import { pressAt } from './support/press';
import { suite } from './support/suite';
import { savedState, shortFights } from './support/world';

const { project, open, stored } = suite('tables');

describe('the table', () => {
  const cell = (page: Page, row: number, column: number) => page.$eval(`#cell-${row}-${column}`, (one) => one.textContent);
  const paste = (page: Page, text: string) =>
    page.evaluate((words) => {
      const data = new DataTransfer();
      data.setData('text/plain', words);
      document.activeElement!.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }, text);

  test('a column from a spreadsheet is pasted, multiplied and filled down; each is one undo; a bad value changes nothing', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/table/enemies`);
    const health = async () => {
      const { units } = await stored(id);
      return units.filter((unit: any) => unit.side === 'enemy').map((unit: any) => unit.health.max);
    };
    const before = await health();
    await pressAt(page, '#cell-0-0');
    await paste(page, '30\n31\n1,032.5\n');
    await savedState(page, 'saved');
    expect((await health()).slice(0, 4)).toEqual([30, 31, 1032.5, before[3]]);
    expect(await undoName(page)).toBe('Undo: 3 cells pasted');

    await pressAt(page, '#cell-0-0');
    await keys(page, 'Shift', 'ArrowDown');
    await press(page, 'main', 'Multiply by');
    await savedState(page, 'saved');
    expect((await health()).slice(0, 3)).toEqual([37.5, 38.75, 1032.5]);

    await keys(page, 'Control', 'd');
    await savedState(page, 'saved');
    expect((await health()).slice(0, 3)).toEqual([37.5, 37.5, 1032.5]);

    await pressAt(page, '#cell-0-0');
    await paste(page, '5\nmany\n7');
    await page.waitForSelector('[role=alert]');
    expect(await page.$eval('[role=alert]', (one) => one.textContent)).toBe(
      'Nothing was pasted. Thistlejack, Health: “many” is not a number',
    );
    expect(await cell(page, 0, 0)).toBe('37.5');
    await paste(page, '-5');
    await page.waitForFunction(() => document.querySelector('[role=alert]')?.textContent?.includes('at least 0.001'));

    for (let i = 0; i < 3; i++) await keys(page, 'Control', 'z');
    await savedState(page, 'saved');
    expect(await health()).toEqual(before);
  });

  test('typing changes the cell and goes on; copying gives what a spreadsheet takes; sorting, filtering, columns', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/table/enemies`);
    await pressAt(page, '#cell-1-0');
    await page.keyboard.type('2*20');
    await page.keyboard.press('Enter');
    expect([await cell(page, 1, 0), await page.evaluate(() => document.activeElement?.id)]).toEqual(['40', 'cell-2-0']);
    await pressAt(page, '#cell-0-0');
    await keys(page, 'Shift', 'ArrowDown');
    const text = await page.evaluate(() => {
      const data = new DataTransfer();
      document.activeElement!.dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }));
      return data.getData('text/plain');
    });
    expect(text).toBe('22\n40');
    await press(page, '[role=grid]', 'Health (hp)');
    expect(await cell(page, 0, 0)).toBe('22');
    await (await input(page, 'main', 'Filter by name or role')).type('bruiser');
    await page.waitForFunction(() => document.querySelectorAll('[role=rowheader]').length === 2);
    await press(page, 'main', 'Columns …');
    await (await input(page, '.sheet', 'Search columns')).type('hearing');
    await tick(page, '.sheet', 'Hearing', true);
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[role=columnheader]')].some((one) => one.textContent?.startsWith('Hearing')),
    );
  });
});

describe('warnings', () => {
  const warnings = (page: Page) => page.$eval('main', (one) => /(\d+) warnings?/.exec(one.textContent ?? '')?.[1] ?? '0');

  test('one is made, shown beside its field and in the list, mended by a click; another is accepted and comes back when its cause changes', async () => {
    const id = await project();
    const page = await open(`${id}/enemies/mulcher`);
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('1 warning'));
    await fill(page, '[aria-label=States][role=region]', 'Stops at', 4);
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('2 warnings'));
    expect(await page.$eval('#unit-mulcher [role=img][aria-label*=warning]', (one) => one.getAttribute('aria-label'))).toContain(
      'Trudge stops at 4 m, but nothing reaches farther than 3 m',
    );
    expect(await page.$('[aria-label=States] [aria-label^="Trudge stops at 4 m"]')).not.toBeNull();
    await press(page, 'main', '2 warnings');
    await press(page, '.sheet', 'Stop at 2.7 m');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('1 warning'));
    await savedState(page, 'saved');
    expect(unitOf(await stored(id), 'mulcher').states[0].stopAt).toBe(2.7);

    await press(page, 'main', '1 warning');
    await press(page, '.sheet', 'It is meant …');
    await (await input(page, '.sheet', 'Why it is meant')).type('it lunges');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('1 accepted'));
    await savedState(page, 'saved');
    expect((await stored(id)).accepted).toMatchObject([{ rule: 'areaShorterThanRange', reason: 'it lunges' }]);
    await fill(page, 'section[aria-label=Beat]', 'Range to', 3.2);
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('1 warning'));
    expect(await warnings(page)).toBe('1');
  });
});
