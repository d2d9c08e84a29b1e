import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { choose, fill, input, press } from './support/bench';
import { suite } from './support/suite';
import { savedState } from './support/world';

const { project, open, stored } = suite('tiers');

const TABLE = 'table[aria-label="What is changed"]';

/** A row more: whose number or word, and which. */
async function another(page: Page, whose: string, what: string): Promise<void> {
  await press(page, 'main', 'Change something else …');
  const sheet = '.sheet[aria-label="Something else"]';
  await page.waitForSelector(sheet);
  await choose(page, sheet, 'Whose', whose);
  await choose(page, sheet, 'What', what);
  await page.waitForFunction((selector) => !document.querySelector(selector), {}, sheet);
}

describe('difficulty', () => {
  test('a tier made from nothing: a name, numbers of all, of a role and of the encounter, limits; what comes of it stands beside', async () => {
    const id = await project((document) => {
      document.tiers = [];
      document.brief.bands = [];
    });
    const page = await open(`${id}/difficulty`);
    const list = 'aside[aria-label=Tiers]';
    await press(page, list, 'New tier');
    await fill(page, '.sheet', 'Name', 'Bramble');
    await another(page, 'all enemies', 'Health');
    await press(page, TABLE, 'Change all enemies Health at Bramble');
    await fill(page, TABLE, 'all enemies Health at Bramble', 1.25);
    await another(page, 'role boss', 'Health');
    await press(page, TABLE, 'Change role boss Health at Bramble');
    await fill(page, TABLE, 'role boss Health at Bramble', 1.5);
    await press(page, TABLE, 'role boss Health at Bramble: limits');
    await fill(page, '.sheet[aria-label="role boss Health at Bramble: limits"]', 'At most', 600);
    await page.keyboard.press('Escape');
    await another(page, 'the encounter', 'Time limit');
    await press(page, TABLE, 'Change the encounter Time limit at Bramble');
    await choose(page, TABLE, 'the encounter Time limit at Bramble: how', '+');
    await fill(page, TABLE, 'the encounter Time limit at Bramble', 20);
    await savedState(page, 'saved');
    expect((await stored(id)).tiers).toEqual([
      {
        id: 'bramble',
        name: 'Bramble',
        traits: [],
        tweaks: [
          { scope: 'enemies', path: '/health/max', op: '×', value: 1.25 },
          { scope: 'role', of: 'boss', path: '/health/max', op: '×', value: 1.5, max: 600 },
          { scope: 'encounter', path: '/limit', op: '+', value: 20 },
        ],
      },
    ]);
    // 420 × 1.25 × 1.5 = 787.5, which the limit cuts to 600.
    await press(page, TABLE, 'Health');
    await choose(page, 'aside[aria-label="Effective values"]', 'Of', 'Head Gardener');
    const effective = await page.$eval('table[aria-label="Effective values"]', (one) => one.textContent);
    expect(effective).toContain('420787.5600!');
    // A harder one is copied from it, one between the two is half-way, and they change places.
    await press(page, list, 'Copy');
    await fill(page, TABLE, 'all enemies Health at Bramble 2', 1.8);
    // Two of one name could not be told apart: said beside the name, and what stood stays.
    await fill(page, list, 'Name', 'Bramble');
    expect(await page.$eval(`${list} [role=alert]`, (one) => one.textContent)).toBe('Another is called Bramble');
    expect(await (await input(page, list, 'Name')).evaluate((one) => (one as HTMLInputElement).value)).toBe('Bramble 2');
    await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('aside[aria-label=Tiers] li button')]
        .find((one) => one.textContent?.startsWith('1Bramble'))!
        .click(),
    );
    expect(await page.$(`${list} [role=alert]`)).toBeNull();
    await press(page, list, 'Half-way to the next');
    await savedState(page, 'saved');
    const { tiers } = await stored(id);
    expect(tiers.map(({ name }: any) => name)).toEqual(['Bramble', 'Bramble to Bramble 2', 'Bramble 2']);
    expect(tiers[1].tweaks[0].value).toBe(1.5);
    await press(page, list, 'Move Bramble to Bramble 2 up');
    await savedState(page, 'saved');
    expect((await stored(id)).tiers.map(({ name }: any) => name)).toEqual(['Bramble to Bramble 2', 'Bramble', 'Bramble 2']);
    await press(page, list, 'Remove Bramble to Bramble 2');
    await savedState(page, 'saved');
    expect((await stored(id)).tiers).toHaveLength(2);
  });

  test('the planted faults of the tiers stand where they were made: the Hound at Bramble, the cap at Blight', async () => {
    const page = await open(`${await project()}/difficulty`);
    await page.waitForFunction((selector) => document.querySelectorAll(`${selector} .warned`).length === 4, {}, TABLE);
    const titles = await page.$$eval(`${TABLE} .warned`, (all) => all.map((one) => one.parentElement!.title.split('\n')[0]));
    expect(titles).toContainEqual(expect.stringContaining('meets its cap of 420'));
    expect(titles).toContainEqual(expect.stringContaining('Health of Briar Hound is × 0.8 at Bramble'));
  });

  test('a tier sets a word and a yes-or-no: in the table, on the bench of who has it, at that tier; the fight goes by it', async () => {
    const id = await project();
    const page = await open(`${id}/difficulty`);
    await another(page, 'Mulcher', 'Pace of all states');
    await press(page, TABLE, 'Change Mulcher Pace of all states at Blight');
    await choose(page, TABLE, 'Mulcher Pace of all states at Blight', 'walk');
    await another(page, 'all enemies', 'Aim of all attacks (beat)');
    await press(page, TABLE, 'Change all enemies Aim of all attacks (beat) at Blight');
    await choose(page, TABLE, 'all enemies Aim of all attacks (beat) at Blight', 'fixed');
    await savedState(page, 'saved');
    const tier = async () => (await stored(id)).tiers.find((one: any) => one.id === 'blight').tweaks;
    expect((await tier()).slice(-2)).toEqual([
      { scope: 'unit', of: 'mulcher', path: '/states/*/pace', op: '=', value: 'walk' },
      { scope: 'enemies', path: '/attacks/*/beat/tracking', op: '=', value: 'fixed' },
    ]);
    // What comes of it stands beside, for one of those it speaks of.
    await choose(page, 'aside[aria-label="Effective values"]', 'Of', 'Clipper');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('table[aria-label="Effective values"] tr')].some((row) => /[Aa]im.*fixed/.test(row.textContent)),
    );
    await choose(page, TABLE, 'all enemies Aim of all attacks (beat) at Blight', 'leave it alone');
    await savedState(page, 'saved');
    expect((await tier()).at(-1).path).toBe('/states/*/pace');
    // On the bench the word is as written, with what the tier makes of it; edited at the tier it is the tier's own.
    await page.goto(page.url().replace(/difficulty.*/, 'enemies/mulcher?tier=blight'));
    await page.waitForFunction(() => document.body.innerText.includes('= walk Blight'));
    await page.goto(page.url().replace(/enemies.*/, 'enemies/mulcher?tier=blight&edit=tier'));
    await page.waitForSelector('[aria-label=States], main');
    await choose(page, 'main', 'Pace', 'run');
    await savedState(page, 'saved');
    expect((await tier()).at(-1)).toEqual({ scope: 'unit', of: 'mulcher', path: '/states/trudge/pace', op: '=', value: 'run' });
    await press(page, 'main', 'Reset Pace');
    await savedState(page, 'saved');
    expect((await tier()).at(-1).path).toBe('/states/*/pace');
  });

  test('a tweak of a trait goes over from a number to a word and back, and a state’s as well', async () => {
    const id = await project();
    const page = await open(`${id}/difficulty?list=traits`);
    await press(page, 'aside', 'Traits');
    await press(page, 'aside[aria-label=Traits]', 'New trait');
    await fill(page, '.sheet', 'Name', 'Stubborn');
    await choose(page, 'main', 'Whoever has it 1: number', 'Aim of all attacks (beat)');
    await choose(page, 'main', 'Whoever has it 1: to what', 'fixed');
    await savedState(page, 'saved');
    const trait = async () => (await stored(id)).traits.find((one: any) => one.name === 'Stubborn').tweaks;
    expect(await trait()).toEqual([{ path: '/attacks/*/beat/tracking', op: '=', value: 'fixed' }]);
    await choose(page, 'main', 'Whoever has it 1: number', 'damage of all attacks');
    await fill(page, 'main', 'Whoever has it 1: how much', 1.5);
    await savedState(page, 'saved');
    expect(await trait()).toEqual([{ path: '/attacks/*/effects/damage/amount', op: '×', value: 1.5 }]);
  });
});
