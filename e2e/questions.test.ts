import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { seriousFindings } from './support/accessibility';
import { choose, fill, press } from './support/bench';
import { pressAt } from './support/press';
import { suite } from './support/suite';
import { demo, savedState } from './support/world';

const own = suite('questions');

const QUESTIONS = 'section[aria-label=Questions]';
const TABLE = 'section[aria-label="What moves it"]';
const POINT = 'aside[aria-label="The point"]';
const SHEET = '[data-radix-popper-content-wrapper]';

const crowd = (dials: string, more = '') =>
  `tune?fight=${encodeURIComponent('duel|clipper|||||copies=6')}&skill=regular&runs=100&dials=${encodeURIComponent(dials)}${more}`;

/** Asks what the table lacks, by its key, and waits for the answer. */
async function ask(page: Page): Promise<void> {
  await page.waitForFunction(
    (part) =>
      [...document.querySelectorAll<HTMLButtonElement>(`${part} button`)].some(
        (one) => /^Run \d+ × 100$/.test(one.textContent) && !one.disabled,
      ),
    {},
    TABLE,
  );
  await page.keyboard.down('Control');
  await page.keyboard.press('Enter');
  await page.keyboard.up('Control');
  await page.waitForFunction(
    (part) => [...document.querySelectorAll(`${part} button`)].some((one) => one.textContent === 'All is run'),
    {},
    TABLE,
  );
}

const stateOf = (page: Page, name: string, words: string) =>
  page.waitForFunction(
    (part, called, wanted) =>
      [...document.querySelectorAll(`${part} li`)].some((one) => one.textContent.includes(called) && one.textContent.includes(wanted)),
    {},
    QUESTIONS,
    name,
    words,
  );

describe('a question', () => {
  test('is kept in the project with its own goals, asked again by one key after an edit, and says which edit made it old', async () => {
    const id = await own.project((document) => {
      document.tuning = demo().tuning;
      // Of its own, so that nobody has run it before.
      document.units.find((unit: any) => unit.id === 'clipper').health.max = 21;
    });
    const page = await own.open(`${id}/${crowd('/units/clipper/health/max /units/clipper/movement/run')}`);
    await page.waitForSelector(TABLE);
    // Goals of its own: who wins, between 70 and 90 %.
    await press(page, 'main', '4 measures');
    await fill(page, SHEET, 'win share at least', 70);
    await fill(page, SHEET, 'win share at most', 90);
    await press(page, SHEET, 'Leave out pressure dose');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => new URLSearchParams(location.search).get('goals')?.startsWith('won:share:0.7..0.9 '));
    await press(page, QUESTIONS, 'keep this');
    await page.waitForSelector(`${SHEET} input`);
    await page.keyboard.type('Do Clippers win too rarely');
    await page.keyboard.press('Enter');
    await savedState(page, 'saved');
    const kept = (await own.stored(id)).tuning.questions.at(-1);
    expect(kept).toMatchObject({
      name: 'Do Clippers win too rarely',
      fight: 'duel',
      of: 'clipper',
      copies: 6,
      at: [{ skill: 'regular' }],
      goals: [{ measure: 'won', statistic: 'share', low: 0.7, high: 0.9 }, { measure: 'timeToKill' }, { measure: 'peakPressureShare' }],
      dials: [
        { scope: 'unit', of: 'clipper', path: '/health/max' },
        { scope: 'unit', of: 'clipper', path: '/movement/run' },
      ],
      runs: 100,
    });
    await ask(page);
    await stateOf(page, 'Do Clippers win', 'answered');
    expect(await seriousFindings(page)).toEqual([]);

    // Another question, and back: everything as it was kept.
    await page.evaluate(
      (part) => document.querySelector<HTMLElement>(`${part} [data-question="evening-shift-at-bloom"] button`)!.click(),
      QUESTIONS,
    );
    await page.waitForFunction(() => document.querySelectorAll('section[aria-label="What moves it"] tbody tr').length === 4);
    await page.evaluate(
      (part, called) =>
        [...document.querySelectorAll<HTMLElement>(`${part} li button`)].find((one) => one.textContent.includes(called))!.click(),
      QUESTIONS,
      'Do Clippers win',
    );
    await page.waitForFunction(() => document.querySelectorAll('section[aria-label="What moves it"] tbody tr').length === 2);
    expect(new URL(page.url()).searchParams.get('runs')).toBe('100');

    // A point of it is written at a tier: the question remembers it, and its answer is old.
    await press(page, POINT, 'Write it to …');
    await press(page, SHEET, 'Bloom');
    await savedState(page, 'saved');
    const after = await own.stored(id);
    expect(after.units.find((unit: any) => unit.id === 'clipper').health.max).toBe(21);
    expect(after.tiers.find((tier: any) => tier.id === 'bloom').tweaks.find(({ of }: any) => of === 'clipper')).toMatchObject({
      scope: 'unit',
      of: 'clipper',
      path: '/health/max',
    });
    expect(after.tuning.questions.at(-1).ledTo).toBe('Clipper, Health 23 hp, at Bloom');
    await page.waitForFunction(() => new URLSearchParams(location.search).get('tier') === 'bloom');
    // As it was kept it is asked as written, which the tier does not change.
    await press(page, QUESTIONS, 'as it was kept');
    await stateOf(page, 'Do Clippers win', 'answered');
    await press(page, POINT, 'Write 23 hp');
    await savedState(page, 'saved');
    await stateOf(page, 'Do Clippers win', 'not since Tune: Clipper, Health 23 hp');
    await ask(page);
    await stateOf(page, 'Do Clippers win', 'answered');
  });

  test('of kinds of numbers and words: a factor for a role, another word; what goes with what it is of, told before', async () => {
    const id = await own.project();
    const page = await own.open(`${id}/tune?fight=${encodeURIComponent('encounter|evening-shift||||')}&skill=regular&runs=100`);
    await page.waitForSelector(TABLE);
    const add = async (typed: string, value: string) => {
      await press(page, 'main', 'add a number …');
      await (await page.waitForSelector('[cmdk-input]'))!.type(typed);
      await pressAt(page, `[cmdk-item][data-value="${value}"]`);
      await page.waitForSelector(`[data-dial="${value}"]`);
    };
    await add('role bruiser wind-up', 'bruiser/units/*/attacks/*/beat/windup×');
    await add('bite aim', '/units/clipper/attacks/bite/beat/tracking=fixed');
    await ask(page);
    const rows = await page.$$eval(`${TABLE} tbody tr`, (all) => all.map((row) => row.textContent));
    expect(rows[0]).toContain('all of the role bruiser, to × 1.1');
    expect(rows[1]).toContain('no values between');
    expect(rows[1]).toContain('fixed');
    await page.evaluate((part) => document.querySelectorAll<HTMLElement>(`${part} tbody tr`)[1].click(), TABLE);
    await page.waitForFunction((part) => document.querySelector(part)!.textContent.includes('turns to fixed'), {}, POINT);
    await press(page, POINT, 'Write fixed');
    await savedState(page, 'saved');
    const unit = async (of: string) => (await own.stored(id)).units.find((one: any) => one.id === of);
    expect((await unit('clipper')).attacks.find((attack: any) => attack.id === 'bite').beat.tracking).toBe('fixed');
    // An attack taken out: what spoke of it goes with it.
    await add('thistlejack attacks: quill', '/units/thistlejack/attacks/quill=false');
    await ask(page);
    await page.evaluate(() =>
      document.querySelector<HTMLElement>('[data-dial="/units/thistlejack/attacks/quill=false"]')!.closest('tr')!.click(),
    );
    await page.waitForFunction((part) => document.querySelector(part)!.textContent.includes('there to taken out'), {}, POINT);
    await press(page, POINT, 'Take it out');
    await savedState(page, 'saved');
    const thistlejack = await unit('thistlejack');
    expect(thistlejack.attacks.map((attack: any) => attack.id)).toEqual(['quill-fan', 'kick']);
    expect(JSON.stringify(thistlejack.choice)).not.toContain('"quill"');
  });
});

describe('a point', () => {
  test('is looked through before it is written: the board’s fights are those of the point, in every section, until it is let go', async () => {
    const id = await own.project((document) => {
      const band = {
        id: 'kill',
        measure: 'timeToKill',
        scope: 'unit',
        of: 'clipper',
        tier: 'bloom',
        skill: 'regular',
        statistic: 'median',
      };
      document.brief = { bands: [{ ...band, low: 3, high: 9 }], curves: [] };
    });
    const page = await own.open(
      `${id}/tune?fight=${encodeURIComponent('duel|clipper||||')}&tier=bloom&skill=regular&runs=100&dials=/units/clipper/health/max=22..60&at=60`,
    );
    await press(page, POINT, 'Look through it');
    const bar = 'aside[aria-label="Looked through"]';
    await page.waitForSelector(bar);
    expect(await page.$eval(bar, (one) => one.textContent)).toContain('Clipper, Health 60 hp');
    await page.waitForFunction(() => location.pathname.endsWith('/board'));
    expect(await seriousFindings(page)).toEqual([]);
    // The bench shows the fight of the point beside the number that is written.
    await press(page, 'header', 'Enemies');
    await page.waitForFunction(() => location.pathname.includes('/enemies'));
    expect(await page.$(bar)).not.toBeNull();
    await page.goto(page.url().replace(/\/enemies[^?]*/, '/enemies/clipper'));
    const digest = () => page.waitForFunction(() => document.querySelector('[data-testid=digest]')?.textContent);
    const through = await (await digest()).jsonValue();
    await press(page, bar, 'as written');
    await page.waitForFunction((old) => (document.querySelector('[data-testid=digest]')?.textContent ?? old) !== old, {}, through);
    expect(await page.$(bar)).toBeNull();
    await page.goBack();
    await page.goto(
      `${own.address()}/projects/${id}/board?tier=bloom&skill=regular&turned=${encodeURIComponent(encodeURIComponent(JSON.stringify([['/units/clipper/health/max', '=', 60]])))}`,
    );
    await press(page, bar, 'write it');
    await savedState(page, 'saved');
    expect((await own.stored(id)).units.find((unit: any) => unit.id === 'clipper').health.max).toBe(60);
    expect(await page.$(bar)).toBeNull();
  });

  test('numbers by twos: what they do together beyond the sum', async () => {
    const id = await own.project();
    const page = await own.open(`${id}/${crowd('/units/clipper/health/max /units/clipper/movement/run')}`);
    const together = 'section[aria-label=Together]';
    await page.waitForFunction(
      (part) =>
        [...document.querySelectorAll<HTMLButtonElement>(`${part} button`)].some(
          (one) => /^Run \d of 4 for 1 pair$/.test(one.textContent) && !one.disabled,
        ),
      {},
      together,
    );
    await page.evaluate((part) => document.querySelector<HTMLElement>(`${part} button`)!.click(), together);
    await page.waitForFunction(
      (part) => /beyond the(ir)? sum/.test(document.querySelector(part)!.textContent) && !document.querySelector(`${part} button`),
      {},
      together,
    );
    expect(await page.$eval(together, (one) => one.textContent)).toMatch(/beyond their sum|Nothing beyond the sum is seen/);
  });

  test('becomes a new tier, which is looked at then', async () => {
    const id = await own.project();
    const page = await own.open(`${id}/${crowd('/units/clipper/health/max', '&tier=bloom')}`);
    await press(page, POINT, 'Write it to …');
    await press(page, SHEET, 'at a new tier, like Bloom …');
    await page.keyboard.type('Bloom, sturdy');
    await page.keyboard.press('Enter');
    await savedState(page, 'saved');
    const { tiers } = await own.stored(id);
    const made = tiers.find(({ name }: { name: string }) => name === 'Bloom, sturdy');
    expect(made.tweaks.find(({ of }: any) => of === 'clipper')).toMatchObject({ of: 'clipper', path: '/health/max' });
    await page.waitForFunction((tier) => new URLSearchParams(location.search).get('tier') === tier, {}, made.id);
    await choose(page, 'header', 'Tier', 'as written');
  });
});
