/** What every file of tasks in the browser needs: one Insidia and one Chromium for all its tests, projects of their own. */
import { afterAll, afterEach, beforeAll, expect, jest } from '@jest/globals';
import { createHash } from 'node:crypto';
import type { Browser, Page } from 'puppeteer-core';
import { demo, fetchProject, joinBrowser, openPage, startInstance } from './world';

/** A whole task on a slow machine; what waits for something fails by its own time-out, with its own words, long before. */
const TASK = 1_800_000;

/**
 * Makes what is fought in a document its own. Runs are kept by what is fought, not by whose it is: what another suite has run of
 * the demo would be known here already, and what a test finds not run yet would go by which suite came first. Nothing comes of
 * the number that is changed: it multiplies hits that never happen.
 */
function fightsOfItsOwn(document: any, id: string): void {
  const own = createHash('sha256').update(id).digest().readUInt32BE() / 2 ** 32;
  for (const { side, attacks } of document.units)
    for (const { effects } of side === 'party' ? attacks : [])
      if (effects.damage && !effects.damage.critChance) effects.damage.critMultiplier = 2 + own;
}

export interface Suite {
  address: () => string;
  /** Its own, where it asked for one; a test that stops it puts the next one here. */
  instance: Awaited<ReturnType<typeof startInstance>>;
  browser: Browser;
  /** What pages have thrown; a test that leaves something here fails. */
  errors: string[];
  /** A project of its own for a test: the demo without its questions, changed as the test likes. @returns its id */
  project: (change?: (document: any) => void) => Promise<string>;
  /** The page of a path under /projects, with its heading. */
  open: (path: string) => Promise<Page>;
  stored: (id: string) => Promise<any>;
}

/**
 * @param name begins the ids of the suite's projects
 * @param options own: an Insidia of its own, to be stopped and killed
 */
export function suite(name: string, { own: alone = false } = {}): Suite {
  jest.setTimeout(TASK);
  let made = 0;
  const started: Partial<Pick<Suite, 'instance' | 'browser'>> = {};
  beforeAll(async () => {
    if (alone) own.instance = await startInstance();
    own.browser = await joinBrowser();
  });
  afterEach(async () => {
    for (const context of own.browser.browserContexts().slice(1)) await context.close();
  });
  afterAll(async () => {
    await started.browser?.disconnect();
    await started.instance?.stop();
  });
  afterEach(() => expect(own.errors.splice(0)).toEqual([]));
  const address = () => (alone ? own.instance.address : process.env.INSIDIA_TEST_ADDRESS!);
  const own: Suite = Object.assign(started as Pick<Suite, 'instance' | 'browser'>, {
    address,
    errors: [] as string[],
    project: async (change: (document: any) => void = () => {}) => {
      const id = `${name}-${++made}`;
      // Without its questions: what a test takes out of the demo they may speak of.
      const { tuning: _, ...rest } = demo();
      const document = { ...rest, id, name: id };
      change(document);
      fightsOfItsOwn(document, id);
      const response = await fetch(`${address()}/api/projects`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', Connection: 'close' },
        body: JSON.stringify(document),
      });
      expect(await response.json()).toMatchObject({ id });
      return id;
    },
    open: async (path: string) => {
      const page = await openPage(own.browser, own.errors);
      await page.goto(`${address()}/projects/${path}`);
      await page.waitForSelector('nav[aria-label=Sections]');
      await page.waitForSelector('main h1');
      return page;
    },
    stored: async (id: string) => (await fetchProject(address(), id)).document,
  });
  return own;
}
