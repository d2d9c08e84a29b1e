/** What the end-to-end tests stand on: a whole Insidia through its start command, a real Chromium, the command line. */
import { type ChildProcess, spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, ElementHandle, Page } from 'puppeteer-core';

export const ROOT = join(__dirname, '../..');

interface Instance {
  address: string;
  home: string;
  port: number;
  process: ChildProcess;
  stop: (more?: { keep?: boolean }) => Promise<number | null>;
}

export async function startInstance(options: { home?: string; port?: number; env?: Record<string, string> } = {}): Promise<Instance> {
  const { startInstance: start } = (await import('../../scripts/instance.mjs' as string)) as {
    startInstance: (o: object) => Promise<Instance>;
  };
  return start(options);
}

/** The one browser of all suites. */
export async function joinBrowser(): Promise<Browser> {
  const { default: puppeteer } = await import('puppeteer-core');
  // What waits in the page fails by the time-out of whoever waits, not by the connection's; that by itself before the test's.
  const protocolTimeout = 1_650_000;
  return puppeteer.connect({
    browserWSEndpoint: process.env.INSIDIA_TEST_BROWSER,
    defaultViewport: { width: 1280, height: 800 },
    protocolTimeout,
  });
}

/** A page whose errors fail the test that made it. */
export async function openPage(browser: Browser, errors: string[]): Promise<Page> {
  const page = await (await browser.createBrowserContext()).newPage();
  await page.setViewport({ width: 1280, height: 800 });
  page.on('pageerror', (error) => errors.push(String(error)));
  // A page whose process is gone answers nothing any more: what waits for it is to fail now, by that name.
  page.on('error', (error) => {
    errors.push(String(error));
    void page.browserContext().close();
  });
  // Long enough for any machine; less to find out at once where a new test waits for what never comes.
  page.setDefaultTimeout(Number(process.env.INSIDIA_TEST_PATIENCE_MS ?? 1_500_000));
  sayWhatIsShown(page);
  // What a test reads stays what it is, and what it does not look at costs nothing: readouts wait to be told to go on.
  await page.evaluateOnNewDocument(() => {
    if (location.protocol === 'http:' && sessionStorage.getItem('begun') === null) localStorage.setItem('insidia.readouts-held', 'yes');
    if (location.protocol === 'http:') sessionStorage.setItem('begun', 'yes');
  });
  return page;
}

/** ms that a page is waited for to say what it shows. */
const SILENCE = 60_000;

/** What waits in vain says where the page was and what it showed: where a test fails on another machine nothing else tells. */
function sayWhatIsShown(page: Page): void {
  for (const name of ['waitForFunction', 'waitForSelector'] as const) {
    const wait = page[name].bind(page) as (...asked: unknown[]) => Promise<unknown>;
    const telling = async (...asked: unknown[]) => {
      try {
        return await wait(...asked);
      } catch (error) {
        // A page that hangs answers nothing: that is told too, before the test's own time is up.
        const silence = new Promise<string>((done) => setTimeout(done, SILENCE, 'nothing: it does not answer').unref());
        const words = page.evaluate(() => document.body.innerText).catch(() => 'nothing that can be read');
        const shown = (await Promise.race([words, silence])).replace(/\s+/g, ' ').slice(0, 3000);
        throw new Error(`${(error as Error).message}; waited for ${asked.join(' ').slice(0, 500)}; ${page.url()} shows: ${shown}`, {
          cause: error,
        });
      }
    };
    page[name] = telling as never;
  }
}

export const demo = (): any => JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8'));

/**
 * For tests of what is written and shown, not of what fights come to: the party fells whatever it sees with one shot, and
 * nothing lasts long, so that the readouts which follow every edit cost next to nothing.
 */
export function shortFights(document: any): void {
  for (const unit of document.units)
    if (unit.side === 'party')
      for (const attack of unit.attacks)
        if (attack.effects.damage)
          Object.assign(attack, { range: { min: 0, max: 40 }, effects: { damage: { ...attack.effects.damage, amount: 1e4 } } });
  for (const encounter of document.encounters) encounter.limit = 10;
}

/** What the command line says of a duel in a document. */
export function cliDuel(document: unknown, enemy: string, more: string[] = []) {
  const args = [
    join(ROOT, 'apps/cli/bin/insidia.js'),
    'simulate',
    '-',
    '--duel',
    enemy,
    '--against',
    'warden',
    '--format',
    'json',
    ...more,
  ];
  const { stdout, stderr, status } = spawnSync(process.execPath, args, { input: JSON.stringify(document), encoding: 'utf8' });
  if (status !== 0) throw new Error(stderr);
  return JSON.parse(stdout) as {
    digest: string;
    encounter: { peakPressureShare: { median: number } };
    members: { timeToDown: { median: number | 'Infinity' } }[];
    kinds: { id: string; damagePerAlertedSecond: number; timeToKill?: { median: number } }[];
  };
}

/** Waits until the readout shows another digest than this one, and is done; the new one. */
export async function newDigest(page: Page, old: string | null): Promise<string> {
  const handle = await page.waitForFunction(
    (before) => {
      const shown = document.querySelector('[data-testid=digest]')?.textContent;
      const busy = document.querySelector('[aria-label=Readout]')?.getAttribute('aria-busy') === 'true';
      return shown && shown !== before && !busy ? shown : undefined;
    },
    { polling: 50 },
    old,
  );
  return (await handle.jsonValue()) as string;
}

export const savedState = (page: Page, state: string) =>
  page.waitForFunction((wanted) => document.querySelector('[data-saving]')?.getAttribute('data-saving') === wanted, { polling: 50 }, state);

/** A measure's median as the readout shows it. */
export async function median(page: Page, measure: string): Promise<number> {
  return Number(await page.$eval(`[data-measure="${measure}"] [data-median]`, (element) => element.getAttribute('data-median')));
}

/** Opens a project file on the page of projects. What is still being listed above it can't move it from under the hand. */
export async function openFile(page: Page, file: string): Promise<void> {
  const chosen = (await page.waitForSelector('main input[type=file]')) as ElementHandle<HTMLInputElement>;
  await chosen.uploadFile(file);
}

/** Drags an element's middle sideways by so many pixels. */
export async function drag(page: Page, element: ElementHandle, by: number): Promise<void> {
  const box = await element.boundingBox();
  if (!box) throw new Error('nothing to drag');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + by, y + 3, { steps: 3 });
  await page.mouse.up();
}

export async function label(page: Page, name: string): Promise<ElementHandle> {
  const found = await page.waitForSelector(`::-p-aria(${name})`);
  if (!found) throw new Error(`there is no ${name}`);
  return found;
}

/** The field of a number, by its visible label within a part of the screen. */
export async function field(page: Page, part: string, name: string): Promise<ElementHandle<HTMLInputElement>> {
  const handle = await page.evaluateHandle(
    (inside, wanted) => {
      const root = inside ? document.querySelector(inside) : document;
      const found = [...(root?.querySelectorAll('label') ?? [])].find((each) => each.textContent === wanted);
      return found ? (document.getElementById(found.htmlFor) as HTMLInputElement) : null;
    },
    part,
    name,
  );
  const element = handle.asElement();
  if (!element) throw new Error(`there is no field ${name} in ${part}`);
  return element as ElementHandle<HTMLInputElement>;
}

export async function fetchProject(address: string, id = 'verdance') {
  // A connection of its own: one kept alive may be closed by the server in the instant it is used again.
  const response = await fetch(`${address}/api/projects/${id}`, { headers: { Connection: 'close' } });
  return { document: (await response.json()) as any, etag: response.headers.get('ETag') };
}

/** Waits until the readout of an encounter has all its runs. */
export const fought = (page: Page) =>
  page.waitForFunction(
    () =>
      document.querySelector('[data-testid=digest]') &&
      document.querySelector('[aria-label=Readout]')?.getAttribute('aria-busy') === 'false',
  );
