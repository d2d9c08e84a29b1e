import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { seriousFindings } from './support/accessibility';
import { choose, fill, press } from './support/bench';
import { cell, chooseMeasure, idle, runs, start, valueOf } from './support/board';
import { pressAt } from './support/press';
import { suite } from './support/suite';
import { ROOT, cliDuel, demo, fetchProject, openPage, savedState } from './support/world';

const at = suite('board');
const { address, project, open, stored } = at;
/** Three enemies and one encounter: a board that is run in seconds. */
const small = (document: any) => {
  const kept = ['warden', 'tender', 'clipper', 'thistlejack', 'mulcher'];
  document.units = document.units.filter(({ id }: any) => kept.includes(id));
  document.variants = [];
  for (const tier of document.tiers) tier.tweaks = tier.tweaks.filter(({ scope, of }: any) => scope !== 'unit' || kept.includes(of));
  document.encounters = document.encounters.filter(({ id }: any) => id === 'first-bell');
  document.brief.bands = document.brief.bands.filter(
    (band: any) => ['swarm', 'skirmisher'].includes(band.of) || band.scope === 'encounters',
  );
};
const states = (page: Page) =>
  page.$$eval('[role=gridcell]', (all) =>
    Object.fromEntries(all.map((one) => [one.getAttribute('data-cell')!, one.getAttribute('data-state')!])),
  );

/** The text of the file that an act hands out. */
async function saved(page: Page, act: () => Promise<void>): Promise<string> {
  await page.evaluate(() => {
    (window as any).saved = new Promise((done) => {
      URL.createObjectURL = (blob: any) => (done(blob.text()), 'blob:kept');
      HTMLAnchorElement.prototype.click = () => undefined;
    });
  });
  await act();
  return page.evaluate(() => (window as any).saved);
}

/** A report as its reader sees it, opened where there is nothing else: what it needs it has with it. */
async function openReport(from: string): Promise<string> {
  const html = await (await fetch(from, { headers: { Connection: 'close' } })).text();
  const page = await openPage(at.browser, at.errors);
  const asked: string[] = [];
  page.on('request', (request) => asked.push(request.url()));
  await page.setContent(html, { waitUntil: 'load' });
  expect(asked.filter((url) => !url.startsWith('data:'))).toEqual([]);
  return page.$eval('body', (one) => one.innerText);
}

/** Shows the board as pictures, as a table or as a ranking. */
const looks = (page: Page, name: string) =>
  page.evaluate(
    (wanted) =>
      [...document.querySelectorAll<HTMLElement>('[aria-label="Shown as"] [role=radio]')]
        .find((one) => one.textContent === wanted)!
        .click(),
    name,
  );

describe('the board', () => {
  test('all cells are run with progress shown; an edit makes exactly its cells stale; what lacks is run again', async () => {
    const id = await project(small);
    const page = await open(`${id}/board?tier=bloom&skill=regular`);
    await runs(page, 100, 50);
    await start(page);
    await page.waitForSelector('[role=progressbar][aria-label="Runs done"]');
    await idle(page);
    expect(new Set(Object.values(await states(page)))).toEqual(new Set(['fresh']));
    const met = await page.$eval('[data-testid=met]', (one) => one.textContent);
    expect(met).toMatch(/^\d+ of 8 met$/);

    // The same verdicts as the command line’s, of the same runs.
    const { stdout } = spawnSync(
      process.execPath,
      [join(ROOT, 'apps/cli/bin/insidia.js'), 'check', '-', '--runs', '100', '--skill', 'regular', '--format', 'json'],
      { input: JSON.stringify(await stored(id)), encoding: 'utf8' },
    );
    const { brief } = JSON.parse(stdout);
    for (const goal of brief.filter((one: any) => one.measure === 'timeToKill')) {
      const key = `duel|${goal.of}|${goal.tier}|regular`;
      await pressAt(page, cell(key));
      await page.waitForSelector('[data-value]');
      const value = await page.$eval('aside [data-value]', (one) => one.getAttribute('data-value'));
      expect([key, Number(value)]).toEqual([key, goal.value === 'Infinity' ? Infinity : goal.value]);
    }

    // One number of one enemy: its duels, and nothing else of the board.
    const edited = await stored(id);
    const mulcher = edited.units.findIndex((unit: any) => unit.id === 'mulcher');
    const { etag } = await fetchProject(address(), id);
    edited.units[mulcher].health.max += 10;
    const response = await fetch(`${address()}/api/projects/${id}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json', 'If-Match': etag! },
      body: JSON.stringify(edited),
    });
    expect(response.status).toBe(200);
    await page.reload();
    await page.waitForFunction(() => document.querySelector('[data-state=stale]'));
    const after = await states(page);
    const stale = Object.keys(after).filter((key) => after[key] === 'stale');
    expect(stale.map((key) => key.split('|')[1])).toEqual(new Array(demo().tiers.length).fill('mulcher'));
    await press(page, 'main', `Run the ${stale.length} that lack`);
    await idle(page);
  });

  test('it goes on while the page is away, and is there after a reload; cancelling stops it', async () => {
    const id = await project((document) => {
      small(document);
      document.units[2].health.max += 1;
    });
    const page = await open(`${id}/board?tier=bloom&skill=regular`);
    await runs(page, 3000, 1000);
    await start(page);
    await page.waitForSelector('[role=status][aria-label=Running]');
    await page.reload();
    await page.waitForSelector('[role=status][aria-label=Running]');
    await page.waitForFunction(() => Number(document.querySelector('[role=progressbar]')?.getAttribute('aria-valuenow')) > 0);
    await press(page, '[aria-label=Running]', 'Cancel');
    await page.waitForFunction(() => !document.querySelector('[role=status][aria-label=Running]'));
    await page.waitForSelector('[role=gridcell][data-state=fresh]');
  });

  test('keys move through the cells; a band is dragged on the distribution, and its verdict follows; numbers leave as CSV', async () => {
    const id = await project((document) => {
      small(document);
      for (const unit of document.units) unit.health.max += 0.5;
    });
    const page = await open(`${id}/board?tier=bloom&skill=regular`);
    await runs(page, 200, 50);
    await start(page);
    await idle(page);
    await page.focus(cell('duel|clipper|seedling|regular'));
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowDown');
    await page.waitForFunction(() => document.activeElement?.getAttribute('data-cell') === 'duel|thistlejack|bloom|regular||');
    await page.waitForFunction(() => {
      const heading = document.querySelector('aside[aria-label=Cell]')?.textContent;
      return heading?.includes('Thistlejack') && heading.includes('Bloom');
    });
    expect(await page.$eval('aside [data-verdict]', (one) => one.getAttribute('data-verdict'))).toBe('met');
    // The upper edge is dragged below the median: too slow to die.
    const edge = (await page.$('[aria-label="Band, at most"]'))!;
    const box = (await edge.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x - 130, box.y + box.height / 2, { steps: 8 });
    await page.mouse.up();
    await page.waitForFunction(() => document.querySelector('aside [data-verdict]')?.getAttribute('data-verdict') === 'missedHigh');
    await savedState(page, 'saved');
    const band = (document: any) => document.brief.bands.find((one: any) => one.id === 'ttk-skirmisher-bloom');
    expect(band(await stored(id)).high).toBeLessThan(band(demo()).high);
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await page.waitForFunction(() => document.querySelector('aside [data-verdict]')?.getAttribute('data-verdict') === 'met');
    // A cell that nobody spoke of gets a band of its own.
    await pressAt(page, cell('duel|mulcher|bloom|regular'));
    await page.waitForFunction(() => document.querySelector('aside[aria-label=Cell]')?.textContent?.includes('Mulcher'));
    await press(page, 'aside[aria-label=Cell]', 'Want a band here');
    await page.waitForSelector('aside [data-verdict]');
    await savedState(page, 'saved');
    expect((await stored(id)).brief.bands.at(-1)).toMatchObject({
      measure: 'timeToKill',
      scope: 'unit',
      of: 'mulcher',
      tier: 'bloom',
      skill: 'regular',
    });
    await looks(page, 'table');
    await page.waitForSelector('table[aria-label="Board as a table"]');
    expect(await page.$eval('table[aria-label="Board as a table"]', (one) => one.textContent)).toContain('met');
  });

  test('the median run behind a cell opens as a replay; the ranking names a tier out of order', async () => {
    const id = await project((document) => {
      document.encounters = document.encounters.filter(({ id: one }: any) => one === 'cellar-beat');
      document.tiers = document.tiers.filter(({ id: one }: any) => ['bloom', 'bramble'].includes(one));
      document.brief = { bands: [], curves: [] };
    });
    const page = await open(`${id}/board?tier=bloom&skill=regular&measure=dose`);
    await runs(page, 50, 100);
    await start(page);
    await idle(page);
    await page.waitForFunction(() =>
      document.querySelector('[aria-label="Tiers out of order"]')?.textContent?.includes('Bramble is no harder than'),
    );
    // The same by a sum of shares of the lowest tier's: each is 1 there, and the one above it comes to less.
    const check = '[aria-label="Ranking check"]';
    await press(page, check, 'Ranked by pressure dose');
    await press(page, '[data-radix-popper-content-wrapper] .sheet', 'and another …');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() =>
      /weighted sum [\d.]+ against 2(?![\d.])/.test(document.querySelector('[aria-label="Tiers out of order"]')?.textContent ?? ''),
    );
    expect(new URL(page.url()).searchParams.get('rank')).toMatch(/^dose:1,\w+:1$/);
    await pressAt(page, cell('encounter|cellar-beat|bramble|regular'));
    await page.waitForFunction(() => document.querySelector('aside[aria-label=Cell]')?.textContent?.includes('Cellar Beat'));
    const link = await page.waitForSelector('[aria-label="Runs to open"] a');
    // Read and followed at once: figures that come in meanwhile may name another run.
    const told = await link!.evaluate((one) => {
      const { textContent } = one;
      (one as HTMLElement).click();
      return textContent;
    });
    const seed = /seed (\d+)/.exec(told!)![1];
    await page.waitForFunction(() => location.pathname.includes('/replay/cellar-beat'));
    expect(new URL(page.url()).searchParams.get('seed')).toBe(seed);
    expect(new URL(page.url()).searchParams.get('tier')).toBe('bramble');
  });

  test('the range across play styles: a mark a style in every cell, and the values beside', async () => {
    const id = await project((document) => {
      small(document);
      document.tiers = document.tiers.slice(0, 1);
      document.units.forEach((unit: any) => (unit.health.max += 0.75));
      document.brief.bands = [];
    });
    const page = await open(`${id}/board?tier=seedling&skill=regular`);
    await runs(page, 50, 50);
    await choose(page, 'main', 'Play style', 'the range across all');
    await start(page);
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[role=gridcell]')].every((one) => one.getAttribute('aria-label')!.includes('by play style: still')),
    );
    await page.waitForFunction(() => document.querySelectorAll('table[aria-label="Across play styles"] tr').length === 4);
  });

  test('by skills and by player counts; waves have rows of their own; the ranking tells apart only what is apart', async () => {
    const id = await project((document) => {
      document.encounters = document.encounters.filter(({ id: one }: any) => one === 'first-bell');
      document.tiers = document.tiers.filter(({ id: one }: any) => one === 'blight');
      document.units.forEach((unit: any) => (unit.health.max += 0.375));
      document.brief.bands = document.brief.bands.filter((band: any) => band.tier === 'blight' && band.of === 'swarm');
    });
    const page = await open(`${id}/board?tier=blight&skill=regular&measure=dose`);
    await runs(page, 50, 50);
    await choose(page, 'main', 'Columns', 'skills');
    await page.waitForFunction(() => [...document.querySelectorAll('[role=columnheader]')].some((one) => one.textContent === 'expert'));
    await start(page);
    await idle(page);
    const heads = () => page.$$eval('[role=columnheader]', (all) => all.map((one) => one.textContent));
    expect((await heads()).slice(1)).toEqual(['novice', 'regular', 'expert']);
    // A novice is hurt more than an expert.
    const dose = (skill: string) => valueOf(page, cell(`encounter|first-bell|blight|${skill}`));
    expect(await dose('novice')).toBeGreaterThan(await dose('expert'));
    await chooseMeasure(page, 'Wave’s pressure dose');
    await page.waitForSelector(cell('encounter|first-bell|blight|regular', 'bell'));
    expect(await page.$$eval('[role=rowheader]', (all) => all.map((one) => one.textContent))).toEqual(['First Bell: Bell']);
    await chooseMeasure(page, 'Pressure dose');
    await choose(page, 'main', 'Columns', 'player counts');
    await page.waitForFunction(() => [...document.querySelectorAll('[role=columnheader]')].some((one) => one.textContent === '1 player'));
    // Duels have one player: only encounters are left.
    expect(await page.$$eval('[role=rowheader]', (all) => all.map((one) => one.textContent))).toEqual(['First Bell']);
    await choose(page, 'main', 'Columns', 'tiers');
    await chooseMeasure(page, 'Time-to-kill');
    await looks(page, 'ranking');
    await page.waitForSelector('table[aria-label="Ranking of enemies"]');
    const ranks = await page.$$eval('[data-rank]', (all) =>
      all.map((one) => [one.getAttribute('data-rank')!, one.getAttribute('data-apart')]),
    );
    expect(ranks).toHaveLength(10);
    const place = (one: string) => ranks.findIndex(([name]) => name === one);
    expect(place('head-gardener')).toBeLessThan(place('mulcher'));
    expect(place('mulcher')).toBeLessThan(place('clipper'));
    expect(ranks.slice(1).every(([, apart]) => apart === 'true' || apart === 'false')).toBe(true);
  });

  test('a readout is run as a batch with its own copies and distance; the figures are those of the command line', async () => {
    // Numbers of its own: what other tests have run is known, and would not be run again.
    const id = await project((document) => document.units.forEach((unit: any) => (unit.health.max += 0.875)));
    const page = await open(`${id}/enemies/clipper?tier=bloom&skill=regular&copies=3&distance=4`);
    const part = 'section[aria-label="As a batch"]';
    await page.waitForSelector(part);
    await page.waitForSelector('aside[aria-label=Readout][aria-busy=false]');
    await fill(page, part, 'Runs', 300);
    await savedState(page, 'saved');
    await press(page, part, 'Run as a batch');
    await page.waitForFunction((inside) => document.querySelector(`${inside} .note`)?.textContent === '300 runs', {}, part);
    const value = await page.$eval(`${part} [data-batch=timeToKill] [data-value]`, (one) => Number(one.getAttribute('data-value')));
    const three = ['--tier', 'bloom', '--skill', 'regular', '--copies', '3', '--distance', '4', '--runs', '300'];
    const computed = cliDuel(await stored(id), 'clipper', three);
    expect(value).toBeCloseTo(computed.kinds.find((kind) => kind.id === 'clipper')!.timeToKill!.median, 9);
  });

  test('a handful from behind, over a wall, is set up on the page, stands in the address, and is what batch, replay and command line run', async () => {
    const id = await project((document) => document.units.forEach((unit: any) => (unit.health.max += 0.625)));
    const page = await open(`${id}/enemies/sapwright?tier=bloom&skill=regular`);
    await page.waitForSelector('aside[aria-label=Readout][aria-busy=false] [data-measure]');
    await press(page, 'aside[aria-label=Readout]', 'with others, from behind, over a wall …');
    const sheet = '.sheet[aria-label="How they stand"]';
    await press(page, sheet, 'somebody beside it …');
    await choose(page, sheet, 'With it 1', 'Clipper');
    await fill(page, sheet, 'How many 1', 2);
    await choose(page, sheet, 'Comes', 'from behind');
    await press(page, sheet, 'a wall between …');
    await fill(page, sheet, 'Wall', 0.8);
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => new URLSearchParams(location.search).get('wall') === '0.8');
    const query = new URLSearchParams(new URL(page.url()).search);
    expect([query.get('with'), query.get('from')]).toEqual(['clipper:2', 'behind']);
    const set = ['--with', 'clipper:2', '--from', 'behind', '--wall', '0.8'];
    const lens = ['--tier', 'bloom', '--skill', 'regular'];
    const part = 'section[aria-label="As a batch"]';
    await page.waitForSelector(part);
    await fill(page, part, 'Runs', 200);
    await savedState(page, 'saved');
    await press(page, part, 'Run as a batch');
    await page.waitForFunction((inside) => document.querySelector(`${inside} .note`)?.textContent === '200 runs', {}, part);
    const value = await page.$eval(`${part} [data-batch=timeToKill] [data-value]`, (one) => Number(one.getAttribute('data-value')));
    const computed = cliDuel(await stored(id), 'sapwright', [...lens, ...set, '--runs', '200']);
    expect(value).toBeCloseTo(computed.kinds.find((kind) => kind.id === 'sapwright')!.timeToKill!.median, 9);
    expect(await page.$eval('[data-testid=digest]', (one) => one.textContent)).toBe(computed.digest);
    // The same in a replay.
    await pressAt(page, 'section[aria-label=Approach] a');
    await page.waitForFunction(() => document.body.textContent?.includes('Clipper 2'));
  });

  test('the board leaves as a picture and as a page to print', async () => {
    const id = await project((document) => {
      small(document);
      document.brief.bands = document.brief.bands.filter((band: any) => ['seedling', 'bloom', undefined].includes(band.tier));
      document.tiers = document.tiers.slice(0, 2);
    });
    const page = await open(`${id}/board?skill=regular`);
    await runs(page, 50, 50);
    await start(page);
    await idle(page);
    await page.evaluate(() => {
      (window as any).saved = new Promise((done) => {
        URL.createObjectURL = (blob: any) => (done(blob), 'blob:kept');
        HTMLAnchorElement.prototype.click = () => undefined;
      });
    });
    await press(page, 'main', 'PNG');
    const picture = await page.evaluate(async () => {
      const bitmap = await createImageBitmap(await (window as any).saved);
      const canvas = Object.assign(document.createElement('canvas'), { width: bitmap.width, height: bitmap.height });
      const context = canvas.getContext('2d')!;
      context.drawImage(bitmap, 0, 0);
      const colours = new Set<number>();
      const { data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
      for (let i = 0; i < data.length; i += 4) colours.add((data[i] << 16) | (data[i + 1] << 8) | data[i + 2]);
      return { width: bitmap.width, colours: colours.size };
    });
    expect(picture.width).toBe(2200);
    expect(picture.colours).toBeGreaterThan(20);
    const address = await page.$$eval('main a', (all) => all.find((one) => one.textContent === 'Report to print')!.href);
    const report = await openReport(address);
    expect(report).toContain('Verdicts');
    expect(report).toContain('Pacing of First Bell');
    expect(report).toMatch(/\d+ of \d+ goals met/);
  });

  test.each([
    ['board', 'board', '[role=gridcell]'],
    ['difficulty', 'difficulty', 'table[aria-label="What is changed"]'],
    ['skills', 'difficulty/skills', 'table[aria-label="What is changed"]'],
    ['brief', 'brief', 'table[aria-label=Goals]'],
    ['pacing', 'pacing/first-bell', 'aside[aria-label=Findings]'],
  ])('%s: no serious finding of the accessibility check', async (_, path, ready) => {
    const id = await project(small);
    const page = await open(`${id}/${path}?tier=bloom&skill=regular`);
    await page.waitForSelector(ready);
    expect(await seriousFindings(page)).toEqual([]);
  });
});

describe('the brief', () => {
  test('goals are built by choosing, judged as soon as they are run, and set from what is or from another tier', async () => {
    const id = await project((document) => {
      document.brief = { bands: [], curves: [] };
      for (const unit of document.units) unit.health.max += 0.25;
    });
    const page = await open(`${id}/brief`);
    await press(page, 'main', 'Add a goal');
    const goals = 'table[aria-label=Goals]';
    await page.waitForSelector(goals);
    await choose(page, goals, 'time-to-kill of every enemy: of', 'role swarm');
    await choose(page, goals, 'time-to-kill of role swarm: tier', 'Bloom');
    await choose(page, goals, 'time-to-kill of role swarm: skill', 'regular');
    await fill(page, goals, 'time-to-kill of role swarm: at most', 0.5);
    await savedState(page, 'saved');
    expect((await stored(id)).brief.bands).toEqual([
      {
        id: 'timetokill-enemies',
        measure: 'timeToKill',
        scope: 'role',
        of: 'swarm',
        tier: 'bloom',
        skill: 'regular',
        statistic: 'median',
        high: 0.5,
      },
    ]);
    const panel = 'aside[aria-label=Goal]';
    await press(page, panel, 'Run what it needs (2)');
    await page.waitForFunction(() => document.querySelector('aside [data-verdict]')?.getAttribute('data-verdict') === 'missedHigh');
    // Both enemies, to the last run: a band about half of what is to come need not hold the rest.
    await page.waitForFunction(() =>
      [...document.querySelectorAll('aside[aria-label=Goal] tbody tr')].every((one) => one.getAttribute('data-runs') === '400'),
    );
    await press(page, panel, 'About the present values, ± 20 %');
    await page.waitForFunction(() => document.querySelector('aside [data-verdict]')?.getAttribute('data-verdict') === 'met');
    await savedState(page, 'saved');
    const [set] = (await stored(id)).brief.bands;
    expect(set.low).toBeLessThan(set.high);
    // The same at another tier, by a factor.
    await press(page, 'main', 'Add a goal');
    await page.waitForFunction(() => document.querySelectorAll('table[aria-label=Goals] tbody tr').length === 2);
    await page.evaluate(() => document.querySelectorAll('table[aria-label=Goals] tbody tr')[1].setAttribute('data-second', ''));
    await choose(page, '[data-second]', 'time-to-kill of role swarm: tier', 'Blight');
    await fill(page, panel, 'Factor', 2);
    await choose(page, panel, 'of the goal at', 'Bloom');
    await savedState(page, 'saved');
    const second = (await stored(id)).brief.bands[1];
    expect(second).toMatchObject({
      tier: 'blight',
      low: Number((set.low * 2).toPrecision(3)),
      high: Number((set.high * 2).toPrecision(3)),
    });
    // What is yes or no in a run is told as a share, and is not of a wave.
    await choose(page, '[data-second]', 'time-to-kill of role swarm: measure', 'win share');
    await savedState(page, 'saved');
    expect((await stored(id)).brief.bands[1]).toMatchObject({ measure: 'won', statistic: 'share' });
  });
});

describe('pacing', () => {
  test('curves of every tier; an intended curve is drawn by hand, kept, and what lies outside it is told and leads to the run', async () => {
    const id = await project((document) => {
      document.units.forEach((unit: any) => (unit.health.max += 1.25));
      document.brief.curves = [];
    });
    const page = await open(`${id}/pacing/cellar-beat?tier=bloom&skill=regular`);
    await press(page, 'main', `Run what lacks (${demo().tiers.length})`);
    await page.waitForFunction((n) => document.querySelectorAll('main svg[role=group]').length === n, {}, demo().tiers.length);
    await page.waitForFunction(() => ![...document.querySelectorAll('main button')].some((one) => one.textContent?.includes('Running')));
    const chart = (await page.$('main section[aria-label=Bloom] svg'))!;
    const box = (await chart.boundingBox())!;
    for (const [across, up] of [
      [0.1, 0.2],
      [0.4, 0.7],
      [0.7, 0.3],
    ])
      await page.mouse.click(box.x + box.width * across, box.y + box.height * (1 - up) - 16, { count: 2 });
    await page.waitForFunction(() => document.querySelectorAll('section[aria-label=Bloom] [role=slider]').length === 3);
    // One is dragged to the right while the page is scrolled under it, one put down by the keys, one taken away.
    await page.setViewport({ width: 1280, height: 480 });
    const point = (await page.$('section[aria-label=Bloom] [aria-label="Intended, point 2"]'))!;
    await point.scrollIntoView();
    const second = (await point.boundingBox())!;
    await page.mouse.move(second.x + 5, second.y + 5);
    await page.mouse.down();
    await page.mouse.wheel({ deltaY: 60 });
    await page.waitForFunction((one, y) => one.getBoundingClientRect().y < y - 20, {}, point, second.y);
    const { y: now } = (await point.boundingBox())!;
    await page.mouse.move(second.x + 65, now + 5, { steps: 6 });
    await page.mouse.up();
    await savedState(page, 'saved');
    const [curve] = (await stored(id)).brief.curves;
    const { y: then } = (await point.boundingBox())!;
    expect(Math.abs(then - now)).toBeLessThan(3);
    await page.setViewport({ width: 1280, height: 800 });
    expect(curve).toMatchObject({ encounter: 'cellar-beat' });
    expect(curve.points).toHaveLength(3);
    await page.$eval('section[aria-label=Bloom] [aria-label="Intended, point 2"]', (one) => (one as SVGElement).focus());
    await page.keyboard.press('ArrowDown');
    await page.$eval('section[aria-label=Bloom] [aria-label="Intended, point 3"]', (one) => (one as SVGElement).focus());
    await page.keyboard.press('Delete');
    await savedState(page, 'saved');
    const [after] = (await stored(id)).brief.curves;
    expect(after.points).toHaveLength(2);
    expect(after.points[1].at).toBe(curve.points[1].at);
    expect(after.points[1].value).toBeLessThan(curve.points[1].value);
    // Nothing comes near a pressure of half the top of the ruler in Cellar Beat: it is below what is intended.
    await page.waitForFunction(() =>
      document.querySelector('[aria-label="Findings at Bloom"]')?.textContent?.includes('below what is intended'),
    );
    expect(await page.$eval('main section[aria-label=Bloom]', (one) => one.textContent)).toMatch(
      /\d+ % of the time within what is intended/,
    );
    // Another measure on the same clock: the intended curve is of pressure alone.
    await choose(page, 'main', 'Over the clock', 'party health');
    await page.waitForSelector('svg[aria-label="Bloom: party health over the clock"]');
    expect(await page.$$('section[aria-label=Bloom] [role=slider]')).toHaveLength(0);
    const csv = await saved(page, () => press(page, 'main', 'CSV'));
    const [head, ...lines] = csv.trim().split(/\r?\n/);
    expect(head).toBe('encounter,of,measure,time,going,p10,p25,median,p75,p90');
    expect(new Set(lines.map((line) => line.split(',')[1]))).toEqual(new Set(demo().tiers.map(({ name }: any) => name)));
    expect(lines.every((line) => line.startsWith('Cellar Beat,') && line.split(',')[2] === 'party health')).toBe(true);
    await choose(page, 'main', 'Over the clock', 'pressure');
    await page.waitForFunction(() => document.querySelectorAll('section[aria-label=Bloom] [role=slider]').length === 2);
    await press(page, 'aside[aria-label=Findings]', 'Its own at Bloom');
    await savedState(page, 'saved');
    expect((await stored(id)).brief.curves.map(({ tier }: any) => tier)).toEqual([undefined, 'bloom']);
    await pressAt(page, '[aria-label="Findings at Bloom"] a');
    await page.waitForFunction(() => location.pathname.includes('/replay/cellar-beat') && new URLSearchParams(location.search).has('at'));
  });
});
