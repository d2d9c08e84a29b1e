import { describe, expect, test } from '@jest/globals';
import type { HTTPRequest, Page } from 'puppeteer-core';
import { seriousFindings } from './support/accessibility';
import { button, choose, fill, heading, input, keys, press, undoName, unitOf } from './support/bench';
import { pressAt } from './support/press';
import { suite } from './support/suite';
import { demo, newDigest, openPage, savedState, shortFights } from './support/world';

const at = suite('work');
const { address, project, open, stored } = at;

describe('strips', () => {
  /** A place of a handle where nothing lies over it. */
  const placeOf = (page: Page, label: string) =>
    page.evaluate((name) => {
      const handle = document.querySelector(`[role=slider][aria-label="${name}"]`)!;
      handle.scrollIntoView({ block: 'center' });
      for (const part of [handle, ...handle.children]) {
        const { left, top, width, height } = part.getBoundingClientRect();
        for (let i = 1; i < 12; i++)
          for (let j = 1; j < 12; j++) {
            const [x, y] = [left + (width * i) / 12, top + (height * j) / 12];
            if (handle.contains(document.elementFromPoint(x, y))) return { x, y };
          }
      }
      return null;
    }, label);

  /** Drags a handle. @returns false where it can't be taken hold of */
  async function dragEdge(page: Page, label: string, by: number): Promise<boolean> {
    const place = await placeOf(page, label);
    if (!place) return false;
    await page.mouse.move(place.x, place.y);
    await page.mouse.down();
    await page.mouse.move(place.x + by, place.y, { steps: 2 });
    await page.mouse.up();
    return true;
  }

  /** What an edge is the edge of, without whose it is. */
  const kindOf = (label: string) =>
    /(range|keeps) (from|to)$|stops at$|(below|above)$|sight|lose|hears|leash|calls|wind-up|active|recovery|cooldown/.exec(label)![0];
  /** Each kind is dragged once; that it can be taken hold of is asked of every edge of every unit. */
  const dragged = new Set<string>();

  test.each([
    ['briar-hound', 'bite-one'],
    ['thistlejack', 'quill-fan'],
    ['head-gardener', 'volley'],
  ])(
    'every edge of the reach and beat strips of the %s can be taken hold of and dragged, and undo takes each back',
    async (unit, attack) => {
      const id = await project(shortFights);
      const page = await open(`${id}/enemies/${unit}/attacks/${attack}`);
      const labels = await page.$$eval('[aria-label=Reach] [role=slider], [aria-label=Beat] [role=slider]', (all) =>
        all.map((one) => one.getAttribute('aria-label')!),
      );
      expect(labels.length).toBeGreaterThan(8);
      const value = (label: string) =>
        page.$eval(`[role=slider][aria-label="${label}"]`, (one) => Number(one.getAttribute('aria-valuenow')));
      for (const label of labels) expect([label, await placeOf(page, label)]).not.toEqual([label, null]);
      for (const label of labels) {
        if (dragged.has(kindOf(label))) continue;
        dragged.add(kindOf(label));
        const before = await value(label);
        const least = await page.$eval(`[role=slider][aria-label="${label}"]`, (one) => Number(one.getAttribute('aria-valuemin')));
        const moved = (await dragEdge(page, label, before > least ? -9 : 16)) && (await value(label)) !== before;
        // What has nowhere to go to the left goes to the right.
        if (!moved) expect([label, await dragEdge(page, label, 16)]).toEqual([label, true]);
        expect([label, await value(label)]).not.toEqual([label, before]);
        await keys(page, 'Control', 'z');
        expect([label, await value(label)]).toEqual([label, before]);
      }
      await savedState(page, 'saved');
      expect(unitOf(await stored(id), unit)).toEqual(unitOf(demo(), unit));
    },
  );

  test('a weight of the choice is dragged by the edge between two entries', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/enemies/thistlejack`);
    const edge = (await page.$('[role=slider][aria-label="Kick weight"]'))!;
    const box = (await edge.boundingBox())!;
    await page.mouse.move(box.x + 3, box.y + 8);
    await page.mouse.down();
    await page.mouse.move(box.x + 60, box.y + 8, { steps: 5 });
    await page.mouse.up();
    await savedState(page, 'saved');
    expect(unitOf(await stored(id), 'thistlejack').choice.priorities[0].entries[0].weight).toBeGreaterThan(35);
    expect(await undoName(page)).toMatch(/^Undo: Thistlejack weight 20 → /);
  });
});

describe('linked variants', () => {
  test('made on the bench, it follows its base at once except where it has its own; each can be given back; undo', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/enemies/mulcher`);
    await press(page, 'aside', 'Linked variant');
    await fill(page, '.sheet', 'Name', 'Mulcher, rusted');
    await heading(page, 'Mulcher, rusted');
    await fill(page, 'main', 'Health', 77);
    await savedState(page, 'saved');
    expect((await stored(id)).variants[1]).toMatchObject({
      id: 'mulcher-rusted',
      basedOn: 'mulcher',
      tweaks: [{ path: '/health/max', op: '=', value: 77 }],
    });
    await page.goto(`${address()}/projects/${id}/enemies/mulcher`);
    await heading(page, 'Mulcher');
    await fill(page, 'main', 'Walk', 1.1);
    await fill(page, 'main', 'Health', 120);
    await pressAt(page, '#unit-mulcher-rusted');
    await heading(page, 'Mulcher, rusted');
    const value = async (label: string) => (await input(page, 'main', label)).evaluate((one) => (one as HTMLInputElement).value);
    expect([await value('Walk'), await value('Health')]).toEqual(['1.1', '77']);
    await press(page, 'main', 'Reset Health');
    expect(await value('Health')).toBe('120');
    await keys(page, 'Control', 'z');
    expect(await value('Health')).toBe('77');
  });

  test('a unit that is used says where; deleted it takes its places along, and undo brings all of it back', async () => {
    const id = await project(shortFights);
    const before = await stored(id);
    const page = await open(`${id}/enemies/clipper`);
    await press(page, 'main', 'Clipper: more');
    await press(page, '.sheet', 'Delete …');
    const said = () => page.$$eval('[role=dialog].sheet', (all) => all.at(-1)!.textContent!);
    expect(await said()).toContain('Clipper nest');
    expect(await (await button(page, '[role=dialog].sheet', 'Delete it')).evaluate((one) => (one as HTMLButtonElement).disabled)).toBe(
      true,
    );
    await press(page, '[role=dialog].sheet', 'Keep it');
    await page.goto(`${address()}/projects/${id}/enemies/sporecask`);
    await heading(page, 'Sporecask');
    await press(page, 'main', 'Sporecask: more');
    await press(page, '.sheet', 'Delete …');
    await press(page, '[role=dialog].sheet', 'Delete it');
    await page.waitForFunction(() => !document.querySelector('#unit-sporecask'));
    await savedState(page, 'saved');
    const without = await stored(id);
    expect(unitOf(without, 'sporecask')).toBeUndefined();
    expect(JSON.stringify(without.encounters)).not.toContain('"sporecask"');
    await keys(page, 'Control', 'z');
    await savedState(page, 'saved');
    expect(await stored(id)).toEqual(before);
  });
});

describe('an attack as a whole', () => {
  test('is renamed but to what another is called, doubled, moved and taken away, from its menu', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/enemies/thistlejack`);
    const attacks = async () => unitOf(await stored(id), 'thistlejack').attacks.map(({ name }: any) => name);
    const [first, second, ...others] = await attacks();
    const menu = async (name: string) => {
      await press(page, 'section[aria-label=Beat] [role=tablist]', name);
      await press(page, 'section[aria-label=Beat]', `${name} …`);
      await page.waitForSelector(`.sheet[aria-label="${name}: name and place"] input`);
      return `.sheet[aria-label="${name}: name and place"]`;
    };
    await fill(page, await menu(first), 'Name', second);
    expect(await page.$eval('.sheet [role=alert]', (one) => one.textContent)).toBe(`Another is called ${second}`);
    await press(page, '.sheet', 'Double it');
    await page.waitForFunction(() => !document.querySelector('.sheet'));
    await savedState(page, 'saved');
    expect(await attacks()).toEqual([first, `${first} 2`, second, ...others]);
    await fill(page, await menu(`${first} 2`), 'Name', 'Bristle');
    await press(page, '.sheet', 'Move Bristle later');
    await savedState(page, 'saved');
    expect(await attacks()).toEqual([first, second, 'Bristle', ...others]);
    await press(page, '.sheet', 'Remove');
    await savedState(page, 'saved');
    expect(await attacks()).toEqual([first, second, ...others]);
  });
});

describe('a part of the program that is fetched at a press', () => {
  test('once it is there, what was opened by a key takes keys, as if it had been there', async () => {
    const page = await openPage(at.browser, at.errors);
    await page.setRequestInterception(true);
    const held: HTTPRequest[] = [];
    let late = true;
    page.on('request', (request) => void (late && request.url().includes('AttackMenuParts') ? held.push(request) : request.continue()));
    await page.goto(`${address()}/projects/${await project(shortFights)}/enemies/clipper`);
    await (await button(page, 'section[aria-label=Beat]', 'Bite …')).focus();
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.activeElement?.matches('.sheet'));
    late = false;
    while (!held.length) await page.waitForFunction(() => new Promise((done) => requestAnimationFrame(() => done(true))));
    for (const request of held) await request.continue();
    await page.waitForFunction(() => (document.activeElement as HTMLInputElement).value === 'Bite');
    await page.keyboard.sendCharacter('Nip');
    await page.keyboard.press('Enter');
    // Its tab may bear a warning's mark besides.
    await page.waitForFunction(() => document.querySelector('section[aria-label=Beat] [role=tablist]')!.textContent.includes('Nip'));
  });

  test('says that it could not be, and is fetched once the page is loaded anew', async () => {
    const id = await project((document) => {
      shortFights(document);
      document.encounters = [];
      document.brief.bands = [];
    });
    const page = await openPage(at.browser, at.errors);
    let away = true;
    await page.setRequestInterception(true);
    page.on('request', (request) => void (away && request.url().includes('unitMade') ? request.abort() : request.continue()));
    await page.goto(`${address()}/projects/${id}/enemies/clipper`);
    await press(page, 'aside[aria-label=Enemies]', 'Give it one');
    await page.waitForSelector('[role=alert]');
    expect(await page.$eval('[role=alert]', (one) => one.textContent)).toContain('A new encounter could not be fetched');
    expect((await stored(id)).encounters).toEqual([]);
    // What was done before is kept.
    await fill(page, 'main', 'Health', '23');
    away = false;
    await press(page, '[role=alert]', 'Load the page anew');
    await page.waitForFunction(() => !document.querySelector('[role=alert]'));
    await press(page, 'aside[aria-label=Enemies]', 'Give it one');
    await page.waitForFunction(() => location.pathname.includes('/encounters/'));
    await savedState(page, 'saved');
    expect((await stored(id)).encounters).toHaveLength(1);
    expect(unitOf(await stored(id), 'clipper').health.max).toBe(23);
  });
});

describe('copy and paste between units', () => {
  test('an attack shows what would change before it does', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/enemies/briar-hound/attacks/bite-one`);
    await press(page, 'section[aria-label=Beat]', 'First bite …');
    await press(page, '.sheet', 'Copy attack');
    await page.keyboard.press('Escape');
    await pressAt(page, '#unit-mulcher');
    await heading(page, 'Mulcher');
    await press(page, 'section[aria-label=Beat]', 'Paste attack …');
    await page.waitForSelector('[role=dialog].sheet h2');
    const said = await page.$$eval('[role=dialog].sheet', (all) => all.at(-1)!.textContent);
    expect(said).toContain('Paste First bite from Briar Hound into Mulcher');
    expect(said).toContain('First bite: added');
    expect(said).toContain('Left out, because Mulcher has nothing of the kind: follow-up attack bite-two');
    await press(page, '[role=dialog].sheet', 'Paste');
    await savedState(page, 'saved');
    expect(unitOf(await stored(id), 'mulcher').attacks.map(({ id: each }: any) => each)).toEqual(['slam', 'bite-one']);
  });
});

describe('by the keyboard', () => {
  test('Ctrl K jumps to an attack by a part of its name, “?” shows the keys, arrows walk the list', async () => {
    const page = await open('verdance/enemies/clipper?skill=regular');
    await newDigest(page, null);
    await keys(page, 'Control', 'k');
    await page.waitForSelector('[cmdk-input]');
    await page.keyboard.type('roots');
    await page.waitForFunction(() => document.querySelector('[cmdk-item][data-selected=true]')?.textContent?.includes('Bursting roots'));
    await page.keyboard.press('Enter');
    await heading(page, 'Head Gardener');
    expect(new URL(page.url()).pathname).toBe('/projects/verdance/enemies/head-gardener/attacks/roots');
    await page.evaluate(() => (document.activeElement as HTMLElement)?.blur());
    await page.keyboard.type('?');
    await page.waitForFunction(() => document.querySelector('[role=dialog] h2')?.textContent === 'Keys');
    await page.keyboard.press('Escape');
    await page.focus('#unit-head-gardener');
    await page.keyboard.press('ArrowUp');
    await heading(page, 'Clipper nest');
  });

  test('forty enemies with long names and twenty attacks on one stay readable and searchable', async () => {
    const long = 'The unreasonably overgrown greenhouse warden of the northern annex';
    const id = await project((document) => {
      const clipper = unitOf(document, 'clipper');
      for (let i = 0; i < 32; i++) document.units.push({ ...structuredClone(clipper), id: `many-${i}`, name: `${long} ${i}` });
      const last = document.units.at(-1);
      for (let i = 0; i < 19; i++)
        last.attacks.push({
          ...structuredClone(clipper.attacks[0]),
          id: `a-${i}`,
          name: `Bite of a long name ${i}`,
          range: { min: i % 5, max: (i % 5) + 2 },
        });
    });
    const page = await open(`${id}/enemies/many-31`);
    await newDigest(page, null);
    expect(await page.$$eval('[role=tab]', (all) => all.length)).toBe(20);
    // Nothing pushes the page wider than the window.
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
    expect(await page.$eval('main', (one) => one.scrollWidth <= one.clientWidth)).toBe(true);
    await (await input(page, 'aside', 'Search')).type('annex 7');
    await page.waitForFunction(() => document.querySelectorAll('aside li button').length === 1);
    await choose(page, 'aside', 'Which', 'changed since it was opened');
    await page.waitForFunction(() => document.querySelector('aside ul')?.textContent === 'Nobody like that.');
  });
});

describe('accessibility', () => {
  const FOLD = async (page: Page) => {
    for (const one of await page.$$('main button[aria-expanded=false]'))
      await one.evaluate((each) => each.textContent === 'all fields' && (each as HTMLElement).click());
  };

  test.each([
    ['enemies', '/enemies/thistlejack?tier=bramble&skill=regular', 'light'],
    ['enemies, dark', '/enemies/head-gardener?skill=regular', 'dark'],
    ['party', '/party/warden', 'light'],
    ['table', '/table/enemies?tier=bramble', 'light'],
    ['history', '/history', 'light'],
    ['projects', '..', 'light'],
  ])('%s: no serious finding', async (name, path, theme) => {
    const page = await openPage(at.browser, at.errors);
    await page.evaluateOnNewDocument((wanted) => localStorage.setItem('insidia.theme', wanted), theme);
    await page.goto(`${address()}/projects/${name === 'projects' ? '' : await project(shortFights)}${path}`);
    await page.waitForSelector(name === 'projects' ? 'ul li a' : 'main h1');
    if (['enemies', 'enemies, dark', 'party'].includes(name)) {
      await newDigest(page, null);
      await FOLD(page);
    }
    expect(await seriousFindings(page)).toEqual([]);
  });

  test('what opens over the page is named and free of findings too', async () => {
    const page = await open(`${await project(shortFights)}/enemies/sapwright?skill=regular`);
    await newDigest(page, null);
    const check = async (what: string) => {
      expect([what, await seriousFindings(page, '.sheet')]).toEqual([what, []]);
    };
    await pressAt(page, '[aria-label=Choice] [aria-label^="Priority 1 is tried if"]');
    await page.waitForSelector('.sheet');
    await check('condition');
    await page.keyboard.press('Escape');
    await keys(page, 'Control', 'k');
    await page.waitForSelector('[cmdk-input]');
    await check('palette');
    await page.keyboard.press('Escape');
    await press(page, 'main', 'Sapwright: more');
    await page.waitForSelector('.sheet');
    await check('menu');
  });
});
