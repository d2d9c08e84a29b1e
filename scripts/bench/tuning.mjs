/** Tune in Chromium: forty numbers of a crowd until the first bar and the last, and the ten that move most of a crowd and of an encounter. */
import { copied } from './pages.mjs';

const CROWD = 'duel|clipper|||||copies=6';

/** @returns ms */
export async function tuning(address, browser, { numbersOf, compileScenario, parseProject, scenarioOf }, demo) {
  const project = parseProject(demo);
  const cell = { ...scenarioOf(CROWD), skill: 'regular' };
  const dials = numbersOf(project, compileScenario(project, cell)).slice(0, 40);
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  const open = async (fight, more = '') => {
    const id = await copied(address);
    await page.goto(`${address}/projects/${id}/tune?skill=regular&tier=bloom&fight=${encodeURIComponent(fight)}${more}`);
    await page.waitForSelector('section[aria-label="What moves it"]');
  };
  const until = async (act, done) => {
    const start = performance.now();
    await act();
    await page.waitForFunction(done, { polling: 'raf', timeout: 600_000 });
    return performance.now() - start;
  };
  const bars =
    'section[aria-label="What moves it"] tbody td svg[height="22"], section[aria-label="What moves it"] tbody td svg[height="12"]';
  const run = () =>
    page.evaluate(() => [...document.querySelectorAll('main button')].find((one) => /^Run \d+ ×/.test(one.textContent))?.click());
  await open(CROWD, `&runs=200&dials=${dials.map(({ path }) => path).join('+')}`);
  await page.waitForFunction(() =>
    [...document.querySelectorAll('main button')].some((one) => /^Run \d+ ×/.test(one.textContent) && !one.disabled),
  );
  const first = await until(run, `document.querySelectorAll('${bars}').length > 0`);
  const started = performance.now();
  await page.waitForFunction(() => [...document.querySelectorAll('main button')].some((one) => one.textContent === 'All is run'), {
    timeout: 600_000,
  });
  const all = first + performance.now() - started;
  const strongest = async (fight) => {
    await open(fight);
    await page.evaluate(() => [...document.querySelectorAll('main button')].find((one) => one.textContent.startsWith('the ten')).click());
    await page.waitForSelector('[data-radix-popper-content-wrapper] button');
    return until(
      () => page.evaluate(() => document.querySelector('[data-radix-popper-content-wrapper] button').click()),
      'document.querySelectorAll("[data-dial]").length === 10',
    );
  };
  const found = { first, all, crowd: await strongest(CROWD), encounter: await strongest('encounter|evening-shift||||') };
  await context.close();
  return found;
}
