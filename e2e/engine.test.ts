import { afterAll, beforeAll, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { join } from 'node:path';
import type { Browser, Page } from 'puppeteer-core';
import { Runner, compile } from '../packages/core/src/running';
import { arbitraryRounds } from '../packages/core/src/testing/arbitrary-rounds';
import { arbitraryWildFight } from '../packages/core/src/testing/arbitrary-wild';
import { projectTrusted } from '../packages/core/src/testing/builders';
import { inTurns } from '../packages/core/src/testing/rounds';
import { ROOT, demo, joinBrowser } from './support/world';

let browser: Browser;
let page: Page;

/** The engine as one script, bundled as the page's own workers are. */
async function engineScript(): Promise<string> {
  const { build } = await import('vite');
  const built = await build({
    configFile: false,
    root: join(ROOT, 'packages/core'),
    logLevel: 'silent',
    build: { write: false, minify: false, lib: { entry: 'src/running.ts', formats: ['iife'], name: 'engine' } },
  });
  const [{ output }] = built as unknown as { output: { code: string }[] }[];
  return output[0].code;
}

beforeAll(async () => {
  browser = await joinBrowser();
  page = await (await browser.createBrowserContext()).newPage();
  await page.addScriptTag({ content: await engineScript() });
});
afterAll(async () => {
  await page?.browserContext().close();
  await browser?.disconnect();
});

/** Digests of seeds run one after another on one runner, in the browser. */
const inBrowser = (project: unknown, options: object, seeds: readonly number[]) =>
  page.evaluate(
    (document, how, order) => {
      const { Runner: Own, compile: make } = (window as any).engine;
      const runner = new Own(make(document, how));
      return order.map((seed: number) => runner.run(seed).digest as string);
    },
    project as object,
    options,
    seeds as number[],
  );
const alone = (project: unknown, options: { encounter: string }, seed: number) =>
  new Runner(compile(project as never, options)).run(seed).digest;

test('generated fights, in seconds and in turns, come out the same in Chromium, whatever was run before them', async () => {
  const projects = fc.oneof(
    arbitraryWildFight.map(projectTrusted),
    arbitraryRounds.map((sketch) => inTurns(sketch, true)),
  );
  const drawn = fc.sample(fc.tuple(projects, fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 2, maxLength: 4 })), {
    numRuns: 60,
    seed: 20261127,
  });
  for (const [made, seeds] of drawn) {
    const project = JSON.parse(JSON.stringify(made));
    const found = await inBrowser(project, { encounter: 'fight' }, seeds);
    expect(found).toEqual(seeds.map((seed) => alone(project, { encounter: 'fight' }, seed)));
  }
});

test('the demo’s encounters come out the same in Chromium, in any order', async () => {
  const project = demo();
  for (const { id: encounter } of project.encounters) {
    const options = { encounter, tier: 'bloom', skill: 'regular' };
    expect(await inBrowser(project, options, [2, 1, 2])).toEqual([2, 1, 2].map((seed) => alone(project, options, seed)));
  }
});
