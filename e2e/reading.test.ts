import { expect, test } from '@jest/globals';
import { press } from './support/bench';
import { frame } from './support/press';
import { suite } from './support/suite';
import { openPage } from './support/world';

const own = suite('reading');

const dial = encodeURIComponent('/units/clipper/health/max');
test.each([
  ['board', 'board?measure=length'],
  ['brief', 'brief'],
  ['pacing', 'pacing/first-bell?skill=regular'],
  ['difficulty', 'difficulty?tier=bloom&unit=clipper'],
  ['encounter', 'encounters/first-bell?tier=bloom&skill=regular'],
  ['enemy', 'enemies/clipper?tier=bloom&skill=regular'],
  ['tune', `tune?fight=${encodeURIComponent('duel|clipper||||')}&skill=regular&dials=${dial}&at=30`],
])('%s: until it is known what has been run, nothing says that it has not been', async (_, path) => {
  const id = await own.project();
  const page = await openPage(own.browser, own.errors);
  await page.setRequestInterception(true);
  let held = 0;
  let open = false;
  const waiting: (() => void)[] = [];
  page.on('request', (request) => {
    const go = () => void request.continue();
    if (open || !/\/cells\/(read|curve)/.test(request.url())) return go();
    held++;
    waiting.push(go);
  });
  await page.goto(`${own.address()}/projects/${id}/${path}`);
  await page.waitForSelector('main h1');
  while (!held) await frame(page);
  for (let i = 0; i < 5; i++) await frame(page);
  const words = () => page.$eval('body', (one) => one.innerText);
  expect(await words()).toMatch(/Reading|reading …/);
  expect(await words()).not.toMatch(/not run(?! again)|All is run/i);
  // It does wait for what is held, and then tells.
  open = true;
  for (const go of waiting) go();
  await page.waitForFunction(() => /not run(?! again)|Run the board|Run what lacks|Run \d+ ×/i.test(document.body.innerText));
});

test('a board through which no goal is seen says where most of them are, and goes there', async () => {
  const id = await own.project();
  const page = await own.open(`${id}/board`);
  const list = 'nav[aria-label=Measures]';
  await page.waitForFunction((part) => /None of the brief’s \d+ goals/.test(document.querySelector(part)!.textContent), {}, list);
  await press(page, list, 'Look at regular');
  await page.waitForFunction((part) => /in the brief/.test(document.querySelector(part)!.textContent), {}, list);
  expect(new URL(page.url()).searchParams.get('skill')).toBe('regular');
  await page.waitForSelector('[data-testid=met]');
  // By the keys one goes on with the first of them.
  await page.keyboard.press('Tab');
  expect(await page.evaluate((part) => document.activeElement === document.querySelector(`${part} button`), list)).toBe(true);
});
