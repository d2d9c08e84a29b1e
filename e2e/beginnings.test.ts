import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { pressOn } from './support/press';
import { BEAT, STATES, begun } from './support/acts';
import { seriousFindings } from './support/accessibility';
import { choose, group, press } from './support/bench';
import { suite } from './support/suite';
import { savedState } from './support/world';

const own = suite('begins');
const { stored } = own;

const READOUT = 'aside[aria-label=Readout]';

/** Nothing serious by the rules of accessibility, in either theme. */
async function reads(page: Page): Promise<void> {
  for (const theme of ['light', 'dark']) {
    await page.evaluate((name) => (document.documentElement.dataset.theme = name), theme);
    expect([theme, await seriousFindings(page)]).toEqual([theme, []]);
  }
}

describe('what a project begins with', () => {
  test('every sheet that makes something reads well in both themes', async () => {
    const { acts, page } = await begun(own, 'Sheets');
    await reads(page);
    const looked = async (part: string, opener: string) => {
      await acts.click(part, opener);
      await page.waitForSelector('.sheet form');
      await reads(page);
      await page.keyboard.press('Escape');
      await page.waitForFunction(() => !document.querySelector('.sheet form'));
    };
    await looked('main', 'New enemy');
    await acts.enemy('rushes and bites', 'Rusher');
    await looked(BEAT, 'New attack');
    await looked(STATES, 'New state');
    await acts.click(BEAT, '+ effect …');
    await reads(page);
    await page.keyboard.press('Escape');
    await acts.encounter('three waves, each larger', 'Waves');
    await reads(page);
    await looked('main', 'Add a wave');
    await looked('aside', 'New encounter');
    await acts.section('Difficulty');
    await looked('aside', 'New tier');
    await acts.section('Arenas');
    await looked('aside', 'New arena');
  });

  test('six steps are each done by doing it; they can be put away, and come back when they are asked for', async () => {
    const { acts, page } = await begun(own, 'First steps');
    const todo = () => page.$$eval('nav[aria-label="First steps"] a[aria-label$="to do"]', (all) => all.map((one) => one.textContent));
    const done = (step: string) =>
      page.waitForFunction((name) => document.querySelector(`nav[aria-label="First steps"] a[aria-label="${name}: done"]`), {}, step);
    await page.waitForSelector('nav[aria-label="First steps"]');
    expect(await todo()).toEqual(['an enemy', 'its attack', 'its fight', 'a wave', 'a goal', 'the board']);
    await acts.enemy('rushes and bites', 'Rusher');
    await done('an enemy');
    await acts.type(BEAT, 'Wind-up', 0.55);
    await done('its attack');
    await acts.click(READOUT, 'open');
    await done('its fight');
    await acts.encounter('one wave', 'One wave');
    await done('a wave');
    // Opened again with more than it began with, it goes on where it was.
    await acts.section('Enemies');
    await acts.enemy('bursts', 'Second');
    await savedState(page, 'saved');
    await page.reload();
    await done('its fight');
    await acts.section('Brief');
    await acts.click('main', 'Add a goal');
    await done('a goal');
    await acts.section('Board');
    await savedState(page, 'saved');
    await acts.board();
    await done('the board');
    expect(await todo()).toEqual([]);
    const line = 'nav[aria-label="First steps"]';
    expect(await page.$eval(line, (one) => one.textContent)).toContain('All six done');
    await acts.click(line, 'put away');
    await page.waitForFunction((selector) => !document.querySelector(selector), {}, line);
    await page.reload();
    await page.waitForSelector('main h1');
    expect(await page.$(line)).toBeNull();
    await acts.click('header', 'Ctrl K');
    await page.waitForSelector('[cmdk-input]');
    await page.keyboard.sendCharacter('first steps');
    await acts.chord('Enter');
    await page.waitForSelector(line);
  });

  test('by a jump: a new enemy, an encounter for it, the next missed goal', async () => {
    const { acts, page, id } = await begun(own, 'By jumps');
    const jump = async (words: string) => {
      await acts.chord('Control', 'k');
      await page.waitForSelector('[cmdk-input]');
      await page.keyboard.sendCharacter(words);
      await page.waitForFunction(() => document.querySelector('[cmdk-item][data-selected=true]'));
      await acts.chord('Enter');
      await page.waitForFunction(() => !document.querySelector('[cmdk-input]'));
    };
    await jump('new enemy slow');
    await acts.heading('Heavy');
    await jump('new encounter alone');
    await acts.heading('Alone');
    await acts.section('Brief');
    await acts.click('main', 'Add a goal');
    await page.waitForSelector('table[aria-label=Goals] tbody tr');
    // A heavy one does not fall within a second.
    await acts.type('table[aria-label=Goals]', 'time-to-kill of every enemy: at most', 1);
    await savedState(page, 'saved');
    await jump('run the board');
    await page.waitForFunction(() => document.querySelector('nav[aria-label=Sections] [aria-current=page]')?.textContent === 'Board');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[role=gridcell]')].some((one) => one.getAttribute('data-verdict') === 'missedHigh'),
    );
    await jump('next missed');
    await page.waitForFunction(() => new URL(location.href).searchParams.has('band'));
    const [band] = (await stored(id)).brief.bands;
    expect(new URL(page.url()).searchParams.get('band')).toBe(band.id);
  });

  test('goals are marked, copied for a tier and taken away together', async () => {
    const id = await own.project((document) => {
      document.brief.bands = document.brief.bands.slice(0, 4);
    });
    const page = await own.open(`${id}/brief`);
    const goals = () => page.$$eval('table[aria-label=Goals] tbody tr', (all) => all.length);
    const mark = (n: number) => pressOn(page, `mark ${n}`, async () => (await page.$$('input.mark'))[n] ?? null);
    await mark(0);
    await page.keyboard.down('Shift');
    await mark(2);
    await page.keyboard.up('Shift');
    const bar = group('Marked goals');
    expect(await page.$eval(bar, (one) => one.textContent)).toContain('3 goals marked');
    await choose(page, bar, 'Copy for a tier', 'Blight');
    await page.waitForFunction((n) => document.querySelectorAll('table[aria-label=Goals] tbody tr').length === n, {}, 7);
    expect(await page.$eval(bar, (one) => one.textContent)).toContain('3 goals marked');
    await savedState(page, 'saved');
    expect((await stored(id)).brief.bands.slice(4).map(({ tier }: any) => tier)).toEqual(['blight', 'blight', 'blight']);
    await press(page, bar, 'Remove');
    await page.waitForFunction((n) => document.querySelectorAll('table[aria-label=Goals] tbody tr').length === n, {}, 4);
    expect([await goals(), await page.$(bar)]).toEqual([4, null]);
    await reads(page);
  });
});
