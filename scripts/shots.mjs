/** npm run shots: the pictures in docs/screenshots, made anew from the demo at 1280 × 800. */
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
const allFields = async (page) => {
  for (const button of await page.$$('main button[aria-expanded=false]')) await button.click();
};

const SHOTS = [
  {
    name: 'enemy',
    path: '/projects/verdance/enemies/thistlejack/attacks/quill?tier=bramble&skill=regular',
    act: nudge('Quill cooldown', 'ArrowRight', 16),
  },
  { name: 'enemy-dark', path: '/projects/verdance/enemies/mulcher?tier=bramble&skill=novice', theme: 'dark' },
  { name: 'first-bell', path: '/projects/verdance/enemies/clipper?skill=regular&copies=3', act: nudge('Bite cooldown', 'ArrowRight', 10) },
  { name: 'party', path: '/projects/verdance/party/warden?skill=novice&against=thistlejack', act: allFields },
  { name: 'projects', path: '/', wait: 'ul li a' },
];

await withSentences(async () => {
  installModules();
  build();
  const instance = await startInstance();
  const browser = await launchBrowser();
  for (const { name, path, act, theme = 'light', wait = READY } of SHOTS) {
    const page = await browser.newPage();
    await page.evaluateOnNewDocument((wanted) => localStorage.setItem('insidia.theme', wanted), theme);
    await page.goto(instance.address + path);
    await page.waitForSelector(wait);
    await page.evaluate(() => document.fonts.ready);
    await act?.(page);
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    await page.screenshot({ path: join(ROOT, `docs/screenshots/${name}.png`) });
    await page.close();
  }
  await browser.close();
  await instance.stop();
});
