/** The page of all projects: what is begun, named, copied, opened from files, deleted and brought back there. */
import { describe, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { seriousFindings } from './support/accessibility';
import { fill, press } from './support/bench';
import { pressAt } from './support/press';
import { suite } from './support/suite';
import { demo, openFile, openPage, savedState } from './support/world';

const own = suite('projects');
const { address, project, stored } = own;
const rowOf = (name: string) => `li[aria-label="${name}"]`;

async function home(): Promise<Page> {
  const page = await openPage(own.browser, own.errors);
  await page.goto(address());
  await page.waitForSelector('ul[aria-label=Projects] li');
  return page;
}

/** Gives the page a file, as whoever chooses one does. */
async function give(page: Page, document: object, name = 'fight.insidia.json'): Promise<void> {
  const file = join(mkdtempSync(join(tmpdir(), 'insidia-file-')), name);
  writeFileSync(file, JSON.stringify(document));
  await openFile(page, file);
}

const opened = (page: Page) => page.waitForSelector('nav[aria-label=Sections]').then(() => new URL(page.url()).pathname.split('/')[2]);

describe('a new project', () => {
  test('a name is enough: it has somebody to fight, and its first enemy a fight', async () => {
    const page = await home();
    await page.type('input[aria-label="Name of the new project"]', 'Räuber & Gendarm');
    await page.keyboard.press('Enter');
    const id = await opened(page);
    expect(id).toBe('rauber-gendarm');
    const made = await stored(id);
    expect([made.name, made.units.length, made.arenas.length, made.skills.length]).toEqual(['Räuber & Gendarm', 1, 1, 3]);
    await press(page, 'main', 'New enemy');
    await fill(page, '.sheet', 'Name', 'Biter');
    await page.waitForFunction(() => document.querySelector('main h1')?.textContent === 'Biter');
    await savedState(page, 'saved');
    expect((await stored(id)).units.at(-1)).toMatchObject({ name: 'Biter', attacks: [{ name: 'Bite', range: { max: 1 } }] });
    // Without another word of the party: the Opponent shoots it, and the readout says how soon.
    await page.waitForFunction(() => {
      const value = document
        .querySelector('aside[aria-label=Readout] [data-measure="Time-to-kill"] [data-median]')
        ?.getAttribute('data-median');
      return value && Number(value) > 1;
    });
  });
});

describe('the list', () => {
  test('says what each holds and what was last done; names, copies, deletes and undoes', async () => {
    const id = await project((document) => {
      document.units = document.units.filter(({ id: unit }: any) => ['warden', 'clipper', 'thistlejack'].includes(unit));
      document.variants = [];
      document.encounters = [document.encounters[0]];
      document.tiers = [];
      document.brief = { bands: [], curves: [] };
      document.accepted = [];
    });
    const page = await home();
    const text = await page.$eval(rowOf(id), (row) => row.textContent);
    expect(text).toMatch(/2 enemies, 1 member, 1 encounter; changed .+: Created$/);
    expect(await seriousFindings(page)).toEqual([]);

    await press(page, rowOf(id), `Rename ${id}`);
    await page.waitForSelector(`${rowOf(id)} input`);
    await fill(page, rowOf(id), `Name of ${id}`, 'Hedge row');
    await page.waitForSelector(rowOf('Hedge row'));
    expect((await stored(id)).name).toBe('Hedge row');

    await press(page, rowOf('Hedge row'), 'Copy Hedge row');
    await page.waitForSelector(rowOf('Hedge row 2'));
    const copy = await stored('hedge-row-2');
    expect({ ...copy, id: 0, name: 0 }).toEqual({ ...(await stored(id)), id: 0, name: 0 });

    await press(page, rowOf('Hedge row 2'), 'Delete Hedge row 2');
    await page.waitForSelector('[role=status]');
    await page.waitForFunction((row) => !document.querySelector(row), {}, rowOf('Hedge row 2'));
    await press(page, '[role=status]', 'Undo');
    await page.waitForSelector(rowOf('Hedge row 2'));
    expect(await stored('hedge-row-2')).toEqual(copy);
  });

  test('has the demo once more, beside what has become of it', async () => {
    const page = await home();
    await press(page, 'main', 'The demo once more');
    const id = await opened(page);
    expect(id).not.toBe('verdance');
    expect((await stored(id)).name).toMatch(/^Verdance Station \d+$/);
    expect((await stored(id)).encounters).toHaveLength(5);
  });
});

describe('a file', () => {
  test('of a project that is here becomes a copy or its newest revision, as one likes, with what that changes', async () => {
    const id = await project();
    const document = await stored(id);
    const other = structuredClone(document);
    other.units.find((unit: any) => unit.id === 'clipper').health.max = 33;
    const page = await home();
    await give(page, other);
    const part = 'section[aria-label="The file and the project"]';
    await page.waitForSelector(part);
    expect(await page.$$eval(`${part} li`, (all) => all.map((one) => one.textContent))).toEqual(['Clipper: Health 22 hp → 33 hp']);
    expect(await seriousFindings(page, part)).toEqual([]);
    await press(page, part, 'Leave it');
    expect((await stored(id)).units[1].health.max).toBe(22);

    await give(page, other);
    await page.waitForSelector(part);
    await press(page, part, 'Open as a copy');
    const copy = await opened(page);
    expect([copy === id, (await stored(copy)).units[1].health.max, (await stored(id)).units[1].health.max]).toEqual([false, 33, 22]);

    await page.goto(address());
    await page.waitForSelector('ul[aria-label=Projects] li');
    await give(page, other);
    await page.waitForSelector(part);
    await press(page, part, 'Make it the newest revision');
    expect(await opened(page)).toBe(id);
    expect((await stored(id)).units[1].health.max).toBe(33);
    const { revisions } = (await (await fetch(`${address()}/api/projects/${id}/revisions`)).json()) as { revisions: { label: string }[] };
    expect(revisions.map(({ label }) => label)).toEqual(['From fight.insidia.json', 'Created']);
  });

  test('that is wrong is told with its name, the place and the rule; one that is dropped is taken like one that is chosen', async () => {
    const page = await home();
    await give(
      page,
      { ...JSON.parse(readFileSync(join(__dirname, '../docs/duels/worked-duel-1.insidia.json'), 'utf8')), units: 'none' },
      'odd.json',
    );
    await page.waitForFunction(() =>
      document.querySelector('[role=alert]')?.textContent?.startsWith('odd.json was not taken: /units must be'),
    );
    const text = JSON.stringify({ ...(await stored(await project())), id: 'dropped', name: 'Dropped' });
    await page.evaluate((json) => {
      const data = new DataTransfer();
      data.items.add(new File([json], 'dropped.json', { type: 'application/json' }));
      document.querySelector('main')!.dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: data }));
    }, text);
    expect(await opened(page)).toBe('dropped');
  });
});

describe('from section to section', () => {
  test('what is chosen stays chosen, the lens goes along, and what belongs to one section clings to no other', async () => {
    const id = await project();
    const page = await own.open(`${id}/enemies/mulcher?copies=3&tier=bloom`);
    const go = async (name: string, path: string) => {
      await pressAt(page, `nav[aria-label=Sections] ::-p-text(${name})`);
      await page.waitForFunction((wanted) => location.pathname.split('/').slice(3).join('/') === wanted, {}, path);
      return new URLSearchParams(new URL(page.url()).search);
    };
    expect((await go('Encounters', 'encounters/first-bell')).toString()).toBe('tier=bloom');
    await pressAt(page, 'aside ::-p-text(Evening Shift)');
    await page.waitForFunction(() => location.pathname.endsWith('/evening-shift'));
    expect((await go('Enemies', 'enemies/mulcher')).toString()).toBe('copies=3&tier=bloom');
    await go('Encounters', 'encounters/evening-shift');
    await page.goto(`${address()}/projects/${id}/replay/duel?enemy=clipper&members=warden&seed=4&tier=blight`);
    await page.waitForSelector('main h1');
    // A page opened anew remembers nothing: from here on it does.
    expect((await go('Enemies', 'enemies/clipper')).toString()).toBe('tier=blight');
    await pressAt(page, 'aside ::-p-text(Mulcher)');
    await page.waitForFunction(() => location.pathname.endsWith('/mulcher'));
    const back = await go('Replay', 'replay/duel');
    expect([back.get('enemy'), back.get('members'), back.get('seed')]).toEqual(['clipper', 'warden', '4']);
    expect((await go('Enemies', 'enemies/mulcher')).has('seed')).toBe(false);
  });

  test('an address of what is not there says so and offers what is, with the lens', async () => {
    const id = await project();
    const page = await own.open(`${id}/enemies/clipper`);
    for (const [section, path, name] of [
      ['encounters', 'encounters/evening-shift', 'Evening Shift'],
      ['pacing', 'pacing/cellar-beat', 'Cellar Beat'],
      ['replay', 'replay/first-bell', 'First Bell'],
      ['arenas', `arenas/${demo().arenas[0].id}`, demo().arenas[0].name],
      ['party', 'party/tender', 'Tender'],
      ['enemies', 'enemies/mulcher', 'Mulcher'],
    ]) {
      await page.goto(`${address()}/projects/${id}/${section}/no-such?tier=bloom`);
      await page.waitForSelector('main ::-p-text(There is no “no-such” here)');
      if (section === 'arenas') expect(await seriousFindings(page)).toEqual([]);
      await pressAt(page, `main ul a::-p-text(${name})`);
      await page.waitForFunction((end) => location.pathname.endsWith(end) && location.search === '?tier=bloom', {}, path);
    }
  });

  test('page and address never part: what is clicked before anything else can happen goes by where one is', async () => {
    const page = await own.open(`${await project()}/enemies/clipper`);
    // Nothing but what belongs to a click comes between them: no timer, no message, no frame.
    const seen = await page.evaluate(async () => {
      const places: string[] = [];
      const click = async (within: string, name: string) => {
        const all = [...document.querySelectorAll<HTMLElement>(`${within} *`)];
        all.findLast(({ textContent }) => textContent.includes(name))!.click();
        await null;
        places.push(location.pathname.split('/').slice(3).join('/'));
      };
      await click('aside', 'Mulcher');
      await click('nav[aria-label=Sections]', 'Party');
      await click('nav[aria-label=Sections]', 'Enemies');
      await click('nav[aria-label=Sections]', 'Party');
      return places;
    });
    expect(seen[0]).toBe('enemies/mulcher');
    expect(seen[2]).toBe('enemies/mulcher');
    expect(seen[3]).toBe(seen[1]);
  });
});
