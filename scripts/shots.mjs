/** npm run shots: the pictures in docs/screenshots, made anew from the demo at 1280 × 800, or as large as one says. */
import { join } from 'node:path';
import { launchBrowser } from './browser.mjs';
import { startInstance } from './instance.mjs';
import { ROOT, build, installModules, withSentences } from './system.mjs';

const READY = '[data-testid=digest]';

/** Moves an edge of a strip by arrow presses, so that the readout shows a before and an after. */
const nudge = (edge, key, times) => async (page) => {
  const digest = await page.$eval(READY, (e) => e.textContent);
  await page.$eval(`[role=slider][aria-label="${edge}"]`, (e) => e.focus());
  for (let i = 0; i < times; i++) await page.keyboard.press(key);
  await page.waitForFunction(
    (old) => document.querySelector('[data-testid=digest]')?.textContent !== old && document.querySelector('[aria-busy=false]'),
    {},
    digest,
  );
  await page.waitForSelector('[data-saving=saved]');
  await page.evaluate(() => document.activeElement?.blur());
};
const click =
  (text, within = 'main') =>
  async (page) => {
    for (const one of await page.$$(`${within} button`)) {
      const own = await one.evaluate((each) => each.textContent.trim());
      if (own === text) return one.click();
    }
    throw new Error(`there is no ${text}`);
  };
/** A wave put off by the arrow keys, so that the fights before and after stand side by side. */
const putOff = async (page) => {
  await page.waitForSelector('aside[aria-label=Readout][aria-busy=false]');
  const change = () => document.querySelector('[data-measure=Length]')?.textContent?.includes('before');
  await page.$eval('[role=slider][aria-label="Wave 3 delay"]', (one) => one.focus());
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await page.waitForFunction(change);
  await page.waitForSelector('[data-saving=saved]');
};
/** The boss, whose health a cap cuts. */
const lookAtBoss = async (page) => {
  await page.click('aside[aria-label="Effective values"] [role=combobox]');
  await page.waitForSelector('[role=option]');
  for (const one of await page.$$('[role=option]'))
    if ((await one.evaluate((each) => each.textContent)) === 'Head Gardener') await one.click();
  await page.waitForFunction(() => document.querySelector('aside s'));
};
/** The whole board of the demo; minutes of work, unless it has been done. */
const runBoard = async (page) => {
  const known = () => [...document.querySelectorAll('[role=gridcell]')].every((one) => one.dataset.state);
  await page.waitForFunction(known);
  const done = () =>
    !document.querySelector('[role=status][aria-label=Running]') &&
    [...document.querySelectorAll('[role=gridcell]')].every((one) => one.dataset.state === 'fresh');
  if (await page.evaluate(done)) return;
  await click('Run the board')(page);
  await page.waitForFunction(done);
};
/** What the board of a project knows, before its page is looked at. */
const boardFirst = (project, after) => async (page) => {
  const own = page.url();
  await page.goto(new URL(`/projects/${project}/board?measure=won`, own));
  await page.waitForSelector('[role=gridcell]');
  await runBoard(page);
  await page.goto(own);
  await after?.(page);
};
const AT = 'tier=bloom&skill=regular&seed=7';
/** Names of those to make; none: all. */
const only = process.argv.slice(2);
const SHOTS = [
  {
    name: 'enemy',
    path: '/projects/verdance/enemies/thistlejack/attacks/quill?tier=bramble&skill=regular',
    act: nudge('Quill cooldown', 'ArrowRight', 16),
  },
  { name: 'encounter', path: '/projects/verdance/encounters/evening-shift?tier=bloom&skill=regular', act: putOff },
  {
    name: 'replay',
    path: `/projects/verdance/replay/evening-shift?${AT}&at=3.55&unit=3`,
    wait: 'aside[aria-label=Reasons] svg[aria-label^="from the side"]',
  },
  { name: 'turns', path: '/projects/archive/replay/store-room?tier=dormant&seed=7&at=24', wait: 'section[aria-label="Order of turns"]' },
  {
    name: 'turns-bench',
    path: '/projects/archive/enemies/binder?tier=dormant',
    wait: '[aria-label^="Beat strip"][aria-label$="in turns"]',
    theme: 'dark',
  },
  { name: 'turns-table', path: '/projects/archive/table/enemies?tier=roused', wait: '[role=grid] [role=gridcell]' },
  {
    name: 'turns-encounter',
    path: '/projects/archive/encounters/store-room?tier=dormant',
    wait: '[aria-label=Readout][aria-busy=false] [data-testid=digest]',
    theme: 'dark',
  },
  { name: 'turns-board', path: '/projects/archive/board?measure=won', wait: '[role=gridcell]', act: runBoard },
  {
    name: 'turns-pacing',
    path: '/projects/archive/pacing/cold-core?tier=dormant',
    wait: 'main section',
    act: async (page) => {
      await page.evaluate(() =>
        [...document.querySelectorAll('main button')].find((one) => one.textContent.startsWith('Run what'))?.click(),
      );
      await page.waitForFunction(() => document.querySelectorAll('main section svg[role=group]').length === 2);
      await page.waitForFunction(() => ![...document.querySelectorAll('main button')].some((one) => one.textContent.startsWith('Run')));
    },
  },
  {
    name: 'turns-tune',
    path: `/projects/archive/tune?fight=${encodeURIComponent('encounter|store-room||||')}&tier=dormant&runs=200&dials=${encodeURIComponent(
      ['/units/ember-moth/health/max', ...['ember-moth', 'binder', 'warden'].map((id) => `/units/${id}/rounds/moves`)].join(' '),
    )}`,
    wait: 'section[aria-label="What moves it"] tbody tr',
    act: async (page) => {
      const part = 'section[aria-label="What moves it"]';
      const has = ([within, word]) => [...document.querySelectorAll(`${within} button`)].some((one) => one.textContent === word);
      const ready = (within) =>
        [...document.querySelectorAll(`${within} button`)].find((one) => /^Run \d+ (×|of)/.test(one.textContent) && !one.disabled);
      await page.waitForFunction(ready, {}, part);
      await page.evaluate(`(${ready})('${part}').click()`);
      await page.waitForFunction(has, {}, [part, 'All is run']);
      await click('Look for it')(page);
      await page.waitForFunction(has, {}, ['main', 'Look again']);
      await page.evaluate(() => document.activeElement?.blur());
    },
  },
  {
    name: 'arena',
    path: '/projects/verdance/arenas/boiler-court',
    wait: 'main svg',
    act: async (page) => {
      await page.keyboard.press('Tab');
      await page.$eval('main svg [role=button][aria-label^=spawn]', (one) => one.focus());
    },
  },
  {
    name: 'difficulty',
    path: '/projects/verdance/difficulty?tier=bramble&skill=regular',
    wait: 'table[aria-label="What is changed"]',
    act: lookAtBoss,
  },
  {
    name: 'board',
    path: '/projects/verdance/board?tier=bramble&skill=regular&cell=duel%7Cbriar-hound%7Cbramble%7Cregular%7C%7C',
    wait: '[role=gridcell]',
    act: runBoard,
  },
  {
    name: 'brief',
    path: '/projects/archive/brief?tier=dormant',
    wait: 'aside[aria-label=Goal]',
    act: async (page) => {
      // By itself, without the board's runs, it has to run first.
      await page.evaluate(() =>
        [...document.querySelectorAll('aside button')].find((one) => one.textContent.startsWith('Run what it needs'))?.click(),
      );
      const run = () =>
        document.querySelectorAll('aside tr').length > 0 &&
        !/Not run yet|Running/.test(document.querySelector('aside').textContent) &&
        [...document.querySelectorAll('aside tr')].every((row) => row.querySelector('svg[role=img]'));
      await page.waitForFunction(run, { timeout: 120_000 });
    },
  },
  {
    name: 'pacing',
    path: '/projects/verdance/pacing/evening-shift?tier=bloom&skill=regular',
    wait: 'main section svg[role=group]',
    act: async (page) => {
      await click('From the present median', 'aside')(page);
      await page.waitForSelector('main section [role=slider]');
      await page.waitForSelector('[data-saving=saved]');
      const bloom = 'section[aria-label="Findings at Bloom"]';
      await click('cause …', bloom)(page);
      const ready = (part) =>
        [...document.querySelectorAll(`${part} button`)].find((one) => one.textContent.startsWith('Run without') && !one.disabled);
      await page.waitForFunction(ready, {}, bloom);
      await page.evaluate(
        (part) => [...document.querySelectorAll(`${part} button`)].find((one) => one.textContent.startsWith('Run'))?.click(),
        bloom,
      );
      const done = (part) =>
        document.querySelector(`${part} [data-without]`) &&
        ![...document.querySelectorAll(`${part} button`)].some((one) => one.textContent.startsWith('Run'));
      await page.waitForFunction(done, { timeout: 600_000 }, bloom);
    },
  },
  {
    name: 'tune',
    path: '/projects/verdance/tune',
    wait: 'section[aria-label=Questions] [data-question=clippers-in-a-crowd]',
    act: async (page) => {
      await page.click('[data-question=clippers-in-a-crowd] button');
      const part = 'section[aria-label="What moves it"]';
      const waiting = (within) => [...document.querySelectorAll(`${within} button`)].find((one) => /^Run \d+ (×|of)/.test(one.textContent));
      await page.waitForFunction(`(${waiting})('${part}')?.disabled === false`);
      await page.evaluate(`(${waiting})('${part}').click()`);
      await page.waitForFunction(`!(${waiting})('${part}')`, { timeout: 600_000 });
      const all = (within) => [...document.querySelectorAll(`${within} button`)].some((one) => one.textContent === 'All is run');
      await page.waitForFunction(all, { timeout: 600_000 }, part);
      // A search to its end, and its first proposal as it is told at the right.
      await click('Search', 'section[aria-label=Find]')(page);
      const found = () => /stopped by itself/.test(document.querySelector('section[aria-label=Find]').textContent);
      await page.waitForFunction(found, { timeout: 600_000 });
      await page.click('[data-proposal=A]');
      const both = () => document.querySelector('aside[aria-label="The point"] [data-objective=won]')?.textContent.includes('→');
      await page.waitForFunction(both, { timeout: 600_000 });
      await page.waitForFunction(all, { timeout: 600_000 }, part);
      await page.evaluate(() => {
        document.querySelector('section[aria-label=Find]').scrollIntoView({ block: 'end' });
        document.activeElement?.blur();
      });
    },
  },
  {
    name: 'turns-report',
    path: '/api/projects/archive/report?measure=won&measure=timeToKill',
    wait: 'section',
    act: boardFirst('archive'),
  },
  {
    name: 'turns-difficulty',
    path: '/projects/archive/difficulty?tier=roused',
    wait: 'table[aria-label="What is changed"]',
    act: boardFirst('archive', async (page) => {
      await page.waitForSelector('section[aria-label=Measured] svg');
    }),
  },
  { name: 'projects', path: '/', wait: 'ul li a' },
];

/** The demo as it is loaded, whatever the last picture made of it. */
async function restore(address) {
  const project = `${address}/api/projects/verdance`;
  const [now, first] = await Promise.all([fetch(project), fetch(`${project}/revisions/1`)]);
  const document = await first.json();
  if (JSON.stringify(await now.json()) === JSON.stringify(document)) return;
  const headers = { 'Content-Type': 'application/json', 'If-Match': now.headers.get('ETag') };
  const put = await fetch(project, { method: 'PUT', headers, body: JSON.stringify(document) });
  if (!put.ok) throw new Error(`the demo was not restored: ${await put.text()}`);
}

await withSentences(async () => {
  installModules();
  build();
  const instance = await startInstance();
  const browser = await launchBrowser();
  try {
    for (const { name, path, act, theme = 'light', wait = READY, size } of SHOTS.filter(
      ({ name }) => !only.length || only.includes(name),
    )) {
      await restore(instance.address);
      const page = await browser.newPage();
      page.setDefaultTimeout(900_000);
      if (size) await page.setViewport(size);
      await page.evaluateOnNewDocument((wanted) => {
        localStorage.setItem('insidia.theme', wanted);
        // The same runs in every picture: none come by themselves.
        localStorage.setItem('insidia.readouts-held', 'yes');
      }, theme);
      await page.goto(instance.address + path);
      await page.waitForSelector(wait);
      await page.evaluate(() => document.fonts.ready);
      await act?.(page);
      // A readout that takes long is shown when all of its runs are in.
      await page.waitForFunction(() => document.querySelector('[aria-label=Readout]')?.getAttribute('aria-busy') !== 'true');
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      await page.screenshot({ path: join(ROOT, `docs/screenshots/${name}.png`) });
      await page.close();
    }
  } finally {
    await browser.close();
    await instance.stop();
  }
});
