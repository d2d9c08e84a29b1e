import { describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { choose, input, press } from './support/bench';
import { pressAt } from './support/press';
import { suite } from './support/suite';
import { ROOT, fought, openPage } from './support/world';

const at = suite('replays');
const { address, project, open } = at;

describe('a replay', () => {
  test('the worst run is opened, an event is found by its words, and the reasons are those that the command line prints', async () => {
    const page = await open('verdance/encounters/evening-shift?tier=bloom&skill=regular');
    await fought(page);
    await press(page, 'aside[aria-label=Readout]', 'The worst');
    await page.waitForSelector('[data-testid=replay-digest]');
    const seed = new URL(page.url()).searchParams.get('seed')!;
    const lines = spawnSync(
      process.execPath,
      [
        join(ROOT, 'apps/cli/bin/insidia.js'),
        'trace',
        join(ROOT, 'demo/verdance.insidia.json'),
        '--encounter',
        'evening-shift',
        '--tier',
        'bloom',
        '--skill',
        'regular',
        '--seed',
        seed,
        '--no-positions',
      ],
      { encoding: 'utf8', maxBuffer: 2 ** 28 },
    )
      .stdout.trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    expect(await page.$eval('[data-testid=replay-digest]', (one) => one.textContent)).toBe(lines[0].digest);

    // Somebody who could not use anything, said at a step of the fight.
    const told = lines.filter(({ type }) => type === 'reasons');
    const found = told.find(
      ({ time, hindrance, target, priorities, unit }) =>
        time > 5 &&
        Math.abs(time / 0.05 - Math.round(time / 0.05)) < 1e-6 &&
        !hindrance &&
        target &&
        lines[0].units[unit].side === 'enemy' &&
        priorities.some(({ entries }: any) => entries.some(({ hurdle }: any) => hurdle === 'line' || hurdle === 'range')) &&
        priorities.every(({ entries }: any) => entries.every(({ usable }: any) => !usable)) &&
        told.filter((one) => one.time === time && one.unit === unit).length === 1,
    );
    expect(found).toBeDefined();
    await page.goto(
      `${address()}/projects/verdance/replay/evening-shift?tier=bloom&skill=regular&seed=${seed}&at=${found.time}&unit=${found.unit}`,
    );
    await page.waitForSelector('[data-reason]');
    const shown = await page.$$eval('[data-reason]', (all) => all.map((one) => one.textContent));
    const text = spawnSync(
      process.execPath,
      [
        join(ROOT, 'apps/cli/bin/insidia.js'),
        'trace',
        join(ROOT, 'demo/verdance.insidia.json'),
        '--encounter',
        'evening-shift',
        '--tier',
        'bloom',
        '--skill',
        'regular',
        '--seed',
        seed,
        '--no-positions',
        '--format',
        'text',
      ],
      { encoding: 'utf8', maxBuffer: 2 ** 28 },
    ).stdout.split('\n');
    for (const sentence of shown) expect(text).toContain(`    ${sentence}`);
    expect(shown.length).toBeGreaterThan(2);

    // By its words.
    await (await input(page, 'aside[aria-label=Events]', 'Search events')).type('Slam');
    await page.waitForFunction(() => document.querySelectorAll('aside[aria-label=Events] li button').length > 0);
    await pressAt(page, 'aside[aria-label=Events] li button');
    await page.waitForFunction(() => document.querySelector('aside[aria-label=Reasons] h3')?.textContent?.includes('Mulcher'));
    const at = Number((await page.$eval('[role=slider][aria-label=Instant]', (one) => one.getAttribute('aria-valuenow')))!);
    const slam = lines.find(({ type, what }) => type === 'event' && String(what).includes('Slam'));
    expect(at).toBeCloseTo(slam.time, 1);
    await page.waitForFunction((time) => new URL(location.href).searchParams.get('at') === time, {}, at.toFixed(2));
  });

  test('it plays, steps and jumps; two runs side by side say where they part; the address keeps the instant', async () => {
    const page = await open('verdance/replay/first-bell?skill=regular&seed=3');
    await page.waitForSelector('[data-testid=stage]');
    const clock = () => page.$eval('[data-testid=clock]', (one) => one.textContent);
    expect(await clock()).toBe('0:00.00');
    await page.keyboard.press('ArrowRight');
    expect(await clock()).toBe('0:00.05');
    await page.keyboard.press('n');
    expect(await clock()).not.toBe('0:00.05');
    await press(page, 'main', 'Play');
    // Read and paused in one go: on a busy machine the fight is over before a second call arrives.
    await page.waitForFunction(() => {
      if (!(Number(document.querySelector('[role=slider][aria-label=Instant]')?.getAttribute('aria-valuenow')) > 1.2)) return false;
      const pause = [...document.querySelectorAll<HTMLElement>('main button')].find((one) => one.textContent?.trim() === 'Pause');
      pause?.click();
      return true;
    });
    await choose(page, 'main', 'Compare with', 'seed 4');
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('They part at'));
    expect(await page.$$eval('[data-testid=stage]', (all) => all.length)).toBe(2);
    const parts = await page.$$eval('main button.link', (all) => all.at(-1)!.textContent);
    await press(page, 'main', parts!);
    expect(await clock()).toBe(parts);
    // The address follows the clock, a little later.
    const instant = Number(await page.$eval('[role=slider][aria-label=Instant]', (one) => one.getAttribute('aria-valuenow')));
    await page.waitForFunction((wanted) => new URL(location.href).searchParams.get('at') === wanted, {}, instant.toFixed(2));
    const again = await openPage(at.browser, at.errors);
    await again.goto(page.url());
    await again.waitForSelector('[data-testid=clock]');
    await again.waitForFunction((wanted) => document.querySelector('[data-testid=clock]')?.textContent === wanted, {}, parts);
  });

  test('the approach chart has the unit and, thin, others of its kind', async () => {
    const page = await open('verdance/replay/evening-shift?tier=bloom&skill=regular&seed=7&at=6&unit=3');
    await page.waitForSelector('section[aria-label=Approach] svg');
    const kind = await page.$eval('section[aria-label=Approach] svg', (one) => /of (\w+)/.exec(one.getAttribute('aria-label')!)![1]);
    expect(kind).toBe('Thistlejack');
    await page.goto(page.url().replace('unit=3', 'unit=8'));
    await page.waitForSelector('section[aria-label=Approach] svg[aria-label*=Clipper]');
    const thin = await page.$$eval('section[aria-label=Approach] svg title', (all) => all.map((one) => one.textContent));
    expect(thin.length).toBeGreaterThan(0);
    expect(thin.every((name) => /^Clipper \d+$/.test(name!))).toBe(true);
  });

  test('an enemy that stands still is explained: the wall in its line, drawn and in words, and what would have done', async () => {
    const id = await project();
    const trace = spawnSync(
      process.execPath,
      [
        join(ROOT, 'apps/cli/bin/insidia.js'),
        'trace',
        join(ROOT, 'demo/verdance.insidia.json'),
        '--encounter',
        'evening-shift',
        '--tier',
        'bloom',
        '--skill',
        'regular',
        '--seed',
        '7',
        '--no-positions',
      ],
      { encoding: 'utf8', maxBuffer: 2 ** 28 },
    )
      .stdout.trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    const blocked = trace.find(
      ({ type, priorities, hindrance }) =>
        type === 'reasons' &&
        !hindrance &&
        priorities.some(({ entries }: any) => entries.some(({ attack, hurdle }: any) => attack === 'Quill' && hurdle === 'line')),
    );
    const page = await open(`${id}/replay/evening-shift?tier=bloom&skill=regular&seed=7&at=${blocked.time + 0.05}&unit=${blocked.unit}`);
    await page.waitForSelector('aside[aria-label=Reasons] svg[aria-label^="from the side"]');
    const said = await page.$eval('aside[aria-label=Reasons]', (one) => one.textContent!);
    expect(said).toMatch(/is in the way: [\d.]+ m too high/);
    expect(said).toMatch(/It would have used Quill if .+ were [\d.]+ m high, not [\d.]+\./);
  });
});
