/** Tune in Chromium: forty numbers of a crowd until the first bar and the last, the ten that move most, and a fault of an encounter found and mended. */
import { copied } from './pages.mjs';

/** ms that the page has been open before anything is asked. */
const OPEN_MS = 2000;

const CROWD = 'duel|clipper|||||copies=6';
const SHIFT = 'encounter|evening-shift||||';

/** Eight numbers of Evening Shift, of which three are pushed by 30 %, and four goals about what it came to before. */
const TURNED = [
  '/units/clipper/health/max',
  '/units/clipper/movement/run',
  '/units/clipper/attacks/bite/effects/damage/amount',
  '/units/thistlejack/health/max',
  '/units/thistlejack/attacks/quill/effects/damage/amount',
  '/units/mulcher/health/max',
  '/units/mulcher/attacks/slam/effects/damage/amount',
  '/units/briar-hound/health/max',
];
const PUSHED = { 0: 1.3, 2: 1.3, 4: 1.3 };
const WANTED = { won: 0.15, length: 0.15, peakPressureShare: 0.15, dose: 0.15 };
const BASE_RUNS = 400;

/** What is wanted: about what the fight comes to as the demo has it. */
function goalsAbout(core, project) {
  const cell = { ...core.scenarioOf(SHIFT), tier: 'bloom', skill: 'regular' };
  const objectives = Object.keys(WANTED).map((measure) => core.lookAt(cell, measure));
  const { columns } = core.runFights({
    project,
    cell,
    firstSeed: 7_000_000,
    runs: BASE_RUNS,
    columns: objectives.map(({ column }) => column),
  });
  return objectives.map(({ measure, statistic, column }) => {
    const { value } = core.estimate(columns[column], statistic);
    const by = WANTED[measure] * (statistic === 'share' ? Math.max(value, 0.5) : value);
    const [low, high] = [value - by, value + by].map((edge) =>
      Number(Math.max(0, statistic === 'share' ? Math.min(1, edge) : edge).toPrecision(3)),
    );
    return `${measure}:${statistic}:${low}..${high}`;
  });
}

/** @returns ms */
export async function tuning(address, browser, core, demo) {
  const { numbersOf, compileScenario, parseProject, scenarioOf } = core;
  const project = parseProject(demo);
  const cell = { ...scenarioOf(CROWD), skill: 'regular' };
  const dials = numbersOf(project, compileScenario(project, cell)).slice(0, 40);
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  const open = async (fight, more = '', change = undefined) => {
    const id = await copied(address, change);
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
  // Somebody who has just come reads what stands there first.
  await new Promise((then) => setTimeout(then, OPEN_MS));
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
  const mended = async () => {
    const goals = goalsAbout(core, project).join('+');
    const pushed = core.turnedProject(
      project,
      Object.entries(PUSHED).map(([i, value]) => ({ path: TURNED[i], op: '×', value })),
    );
    await open(SHIFT, `&goals=${goals}&dials=${TURNED.join('+')}`, () => structuredClone(pushed));
    await page.waitForFunction(() =>
      [...document.querySelectorAll('main button')].some((one) => one.textContent === 'Search' && !one.disabled),
    );
    return until(
      () => page.evaluate(() => [...document.querySelectorAll('main button')].find((one) => one.textContent === 'Search').click()),
      'document.querySelectorAll("[data-proposal]").length > 0',
    );
  };
  const found = { first, all, crowd: await strongest(CROWD), encounter: await strongest(SHIFT), mended: await mended() };
  await context.close();
  return found;
}
