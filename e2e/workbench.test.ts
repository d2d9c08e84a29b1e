import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { seriousFindings } from './support/accessibility';
import { button, choose, fill, input, press } from './support/bench';
import { suite } from './support/suite';
import { demo, newDigest, openPage, savedState, shortFights } from './support/world';

const at = suite('work');
const { address, project, open, stored } = at;

/** A project of these tests as it was made. */
const as = (id: string) => {
  const { tuning: _, ...rest } = demo();
  const document = { ...rest, id, name: id };
  shortFights(document);
  return document;
};
const unitOf = (document: any, id: string) => document.units.find((unit: any) => unit.id === id);
const heading = (page: Page, name: string) =>
  page.waitForFunction((wanted) => document.querySelector('main h1')?.textContent === wanted, {}, name);
const keys = async (page: Page, ...held: string[]) => {
  const last = held.pop()!;
  for (const key of held) await page.keyboard.down(key as 'Control');
  await page.keyboard.press(last as 'z');
  for (const key of held) await page.keyboard.up(key as 'Control');
};
const undoName = (page: Page) => page.$eval('button[aria-label^="Undo"]', (one) => one.getAttribute('aria-label'));

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
    await page.click('#unit-mulcher-rusted');
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
    expect(await stored(id)).toEqual(as(id));
  });
});

describe('the table', () => {
  const cell = (page: Page, row: number, column: number) => page.$eval(`#cell-${row}-${column}`, (one) => one.textContent);
  const paste = (page: Page, text: string) =>
    page.evaluate((words) => {
      const data = new DataTransfer();
      data.setData('text/plain', words);
      document.activeElement!.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }, text);

  test('a column from a spreadsheet is pasted, multiplied and filled down; each is one undo; a bad value changes nothing', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/table/enemies`);
    const health = async () => {
      const { units } = await stored(id);
      return units.filter((unit: any) => unit.side === 'enemy').map((unit: any) => unit.health.max);
    };
    const before = await health();
    await page.click('#cell-0-0');
    await paste(page, '30\n31\n1,032.5\n');
    await savedState(page, 'saved');
    expect((await health()).slice(0, 4)).toEqual([30, 31, 1032.5, before[3]]);
    expect(await undoName(page)).toBe('Undo: 3 cells pasted');

    await page.click('#cell-0-0');
    await keys(page, 'Shift', 'ArrowDown');
    await press(page, 'main', 'Multiply by');
    await savedState(page, 'saved');
    expect((await health()).slice(0, 3)).toEqual([37.5, 38.75, 1032.5]);

    await keys(page, 'Control', 'd');
    await savedState(page, 'saved');
    expect((await health()).slice(0, 3)).toEqual([37.5, 37.5, 1032.5]);

    await page.click('#cell-0-0');
    await paste(page, '5\nmany\n7');
    await page.waitForSelector('[role=alert]');
    expect(await page.$eval('[role=alert]', (one) => one.textContent)).toBe(
      'Nothing was pasted. Thistlejack, Health: “many” is not a number',
    );
    expect(await cell(page, 0, 0)).toBe('37.5');
    await paste(page, '-5');
    await page.waitForFunction(() => document.querySelector('[role=alert]')?.textContent?.includes('at least 0.001'));

    for (let i = 0; i < 3; i++) await keys(page, 'Control', 'z');
    await savedState(page, 'saved');
    expect(await health()).toEqual(before);
  });

  test('typing changes the cell and goes on; copying gives what a spreadsheet takes; sorting, filtering, columns', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/table/enemies`);
    await page.click('#cell-1-0');
    await page.keyboard.type('2*20');
    await page.keyboard.press('Enter');
    expect([await cell(page, 1, 0), await page.evaluate(() => document.activeElement?.id)]).toEqual(['40', 'cell-2-0']);
    await page.click('#cell-0-0');
    await keys(page, 'Shift', 'ArrowDown');
    const text = await page.evaluate(() => {
      const data = new DataTransfer();
      document.activeElement!.dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true }));
      return data.getData('text/plain');
    });
    expect(text).toBe('22\n40');
    await press(page, '[role=grid]', 'Health (hp)');
    expect(await cell(page, 0, 0)).toBe('22');
    await (await input(page, 'main', 'Filter by name or role')).type('bruiser');
    await page.waitForFunction(() => document.querySelectorAll('[role=rowheader]').length === 2);
    await press(page, 'main', 'Columns …');
    await (await input(page, '.sheet', 'Search columns')).type('hearing');
    await (await input(page, '.sheet', 'Hearing')).click();
    await page.waitForFunction(() =>
      [...document.querySelectorAll('[role=columnheader]')].some((one) => one.textContent?.startsWith('Hearing')),
    );
  });
});

describe('warnings', () => {
  const warnings = (page: Page) => page.$eval('main', (one) => /(\d+) warnings?/.exec(one.textContent ?? '')?.[1] ?? '0');

  test('one is made, shown beside its field and in the list, mended by a click; another is accepted and comes back when its cause changes', async () => {
    const id = await project();
    const page = await open(`${id}/enemies/mulcher`);
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('1 warning'));
    await fill(page, '[aria-label=States][role=region]', 'Stops at', 4);
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('2 warnings'));
    expect(await page.$eval('#unit-mulcher [role=img][aria-label*=warning]', (one) => one.getAttribute('aria-label'))).toContain(
      'Trudge stops at 4 m, but nothing reaches farther than 3 m',
    );
    expect(await page.$('[aria-label=States] [aria-label^="Trudge stops at 4 m"]')).not.toBeNull();
    await press(page, 'main', '2 warnings');
    await press(page, '.sheet', 'Stop at 2.7 m');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('1 warning'));
    await savedState(page, 'saved');
    expect(unitOf(await stored(id), 'mulcher').states[0].stopAt).toBe(2.7);

    await press(page, 'main', '1 warning');
    await press(page, '.sheet', 'It is meant …');
    await (await input(page, '.sheet', 'Why it is meant')).type('it lunges');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('1 accepted'));
    await savedState(page, 'saved');
    expect((await stored(id)).accepted).toMatchObject([{ rule: 'areaShorterThanRange', reason: 'it lunges' }]);
    await fill(page, 'section[aria-label=Beat]', 'Range to', 3.2);
    await page.waitForFunction(() => document.querySelector('main')?.textContent?.includes('1 warning'));
    expect(await warnings(page)).toBe('1');
  });
});

describe('copy and paste between units', () => {
  test('an attack shows what would change before it does', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/enemies/briar-hound/attacks/bite-one`);
    await press(page, 'section[aria-label=Beat]', 'First bite …');
    await press(page, '.sheet', 'Copy attack');
    await page.keyboard.press('Escape');
    await page.click('#unit-mulcher');
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

describe('two tabs at once', () => {
  async function tabs(id: string, ...paths: string[]): Promise<Page[]> {
    const context = await at.browser.createBrowserContext();
    return Promise.all(
      paths.map(async (path) => {
        const page = await context.newPage();
        await page.setViewport({ width: 1280, height: 800 });
        page.on('pageerror', (error) => at.errors.push(String(error)));
        await page.goto(`${address()}/projects/${id}/enemies/${path}`);
        await page.waitForSelector('main h1');
        return page;
      }),
    );
  }
  const shows = (page: Page, label: string, value: string) =>
    page.waitForFunction(
      (wanted, number) =>
        [...document.querySelectorAll('main label')].some(
          (one) =>
            one.textContent === wanted &&
            (document.getElementById((one as HTMLLabelElement).htmlFor) as HTMLInputElement)?.value === number,
        ),
      { polling: 100 }, // a tab behind another paints no frames
      label,
      value,
    );

  test('a change in one shows in the other; changes in different places are merged', async () => {
    const id = await project(shortFights);
    const [one, two] = await tabs(id, 'mulcher', 'mulcher');
    await one.bringToFront();
    await fill(one, 'main', 'Health', 131);
    await savedState(one, 'saved');
    await shows(two, 'Health', '131');
    await two.bringToFront();
    await fill(two, 'main', 'Walk', 1.3);
    await savedState(two, 'saved');
    await shows(one, 'Walk', '1.3');
    expect(unitOf(await stored(id), 'mulcher')).toMatchObject({ health: { max: 131 }, movement: { walk: 1.3 } });
  });

  test('the same number changed in both before either was saved is shown as a conflict, and nothing is overwritten unseen', async () => {
    const id = await project(shortFights);
    const [one, two] = await tabs(id, 'mulcher', 'mulcher');
    // The second tab can’t save until the first has.
    let held = true;
    await two.setRequestInterception(true);
    two.on('request', (request) => void (held && request.url().includes('/api/') ? request.abort() : request.continue()));
    await two.bringToFront();
    await fill(two, 'main', 'Health', 200);
    await savedState(two, 'away');
    await one.bringToFront();
    await fill(one, 'main', 'Health', 150);
    await savedState(one, 'saved');
    held = false;
    await two.bringToFront();
    await savedState(two, 'conflict');
    expect(unitOf(await stored(id), 'mulcher').health.max).toBe(150);
    const said = await two.$eval('[role=alertdialog]', (all) => all.textContent);
    expect(said).toContain('/units/mulcher/health/max200150');
    await press(two, '[role=alertdialog]', 'Keep what is here');
    await savedState(two, 'saved');
    expect(unitOf(await stored(id), 'mulcher').health.max).toBe(200);
    await shows(one, 'Health', '200');
  });
});

describe('history', () => {
  test('what changed is told in words, any two can be compared, a baseline has a name, and one can go back', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/enemies/mulcher`);
    await fill(page, 'main', 'Health', 131);
    await savedState(page, 'saved');
    await fill(page, 'main', 'Walk', 1.3);
    await savedState(page, 'saved');
    await press(page, 'main', 'History');
    await page.waitForFunction(() => document.querySelectorAll('[aria-label=Revisions] tbody tr').length === 4);
    const rows = await page.$$eval('[aria-label=Revisions] tbody tr', (all) => all.map((row) => row.children[3].textContent));
    expect(rows.slice(1)).toEqual(['3 Mulcher walk 1.8 → 1.3 m/s', '2 Mulcher health 110 → 131 hp', '1 Created']);
    await page.click('[aria-label="Compare from revision 1"]');
    const differences = async (...lines: string[]) =>
      page.waitForFunction(
        (wanted) => JSON.stringify([...document.querySelectorAll('[aria-label=Differences] li')].map((one) => one.textContent)) === wanted,
        {},
        JSON.stringify(lines),
      );
    await differences('Mulcher: Health 110 hp → 131 hp', 'Mulcher: Walk 1.8 m/s → 1.3 m/s');
    await page.click('[aria-label="Compare to revision 2"]');
    await differences('Mulcher: Health 110 hp → 131 hp');
    await fill(page, 'main', 'Name of revision 1', 'as it began');
    await page.waitForFunction(
      () => document.querySelector('[aria-label=Comparison] h2')?.textContent === 'From as it began to revision 2',
    );
    await press(page, 'main', 'Go back to as it began');
    await savedState(page, 'saved');
    expect(await stored(id)).toEqual(as(id));
    expect(await undoName(page)).toBe('Undo: Went back to as it began');
    await page.reload();
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Name of revision 1"]') as HTMLInputElement)?.value === 'as it began',
    );
    // What can be undone outlives the reload.
    expect(await undoName(page)).toBe('Undo: Went back to as it began');
    await keys(page, 'Control', 'z');
    await savedState(page, 'saved');
    expect(unitOf(await stored(id), 'mulcher').health.max).toBe(131);
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
    await (await page.$('[aria-label=Choice] [aria-label^="Priority 1 is tried if"]'))!.click();
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
