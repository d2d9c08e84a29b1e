import { expect, test } from '@jest/globals';
import { suite } from './support/suite';

const at = suite('guard');

test('what fails to be drawn fails alone: it says what and why, offers the project, and comes back', async () => {
  const id = await at.project();
  const page = await at.open(`${id}/enemies/clipper`);
  await page.waitForSelector('[data-testid=digest]');
  // Something that the strips ask of their numbers, and the lists and fields around them do not.
  await page.evaluate(() => {
    const own = Number.prototype.toExponential;
    (window as any).restore = () => (Number.prototype.toExponential = own);
    Number.prototype.toExponential = () => {
      throw new Error('made to fail');
    };
  });
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('aside[aria-label=Enemies] *')].find((one) => one.textContent === 'Mulcher')!.click(),
  );
  await page.waitForSelector('[role=alert]');
  const said = await page.$$eval('[role=alert]', (all) => all.map((one) => one.textContent));
  expect(said.some((words) => words?.includes('can’t be shown: made to fail'))).toBe(true);
  expect(said.some((words) => words?.includes('Save the project as a file'))).toBe(true);
  // Everything around it goes on: the bar, the list, the heading of the page.
  expect(await page.$('nav[aria-label=Sections]')).not.toBeNull();
  expect(await page.$('aside[aria-label=Enemies]')).not.toBeNull();
  if (process.env.INSIDIA_LOOK) await page.screenshot({ path: process.env.INSIDIA_LOOK as `${string}.png` });
  await page.evaluate(() => (window as any).restore());
  // Each is tried again by its own button, or comes back by itself with the next thing it is shown.
  await page.waitForFunction(
    () => {
      const again = document.querySelector<HTMLElement>('[role=alert] button');
      again?.click();
      return !again;
    },
    { polling: 100 },
  );
  at.errors.length = 0; // what was made to fail was told to the console too
  await page.close();
});
