/** Names as long as names may be: nothing is pushed out of the window, and what has no room ends in an ellipsis. */
import { expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { suite } from './support/suite';

const { address, project, open } = suite('names');

/** Letters that a name may have. */
const MOST = 80;
const long = (name: string) =>
  `${name}, to whom nobody ever gave a shorter name: Unabbreviatedgreenhouseinhabitant`.padEnd(MOST, 'm').slice(0, MOST);

/** What is written beyond the edge of what holds it, each with what it is part of. Tables may be wider than their place: they scroll. */
const beyond = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    const tell = (what: string, element: Element, words: string) =>
      found.push(`${what}: ${words.trim().slice(0, 30)} (${element.closest('[aria-label]')?.getAttribute('aria-label')?.slice(0, 40)})`);
    if (document.documentElement.scrollWidth > innerWidth) found.push(`the page is ${document.documentElement.scrollWidth} wide`);
    const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = texts.nextNode(); node; node = texts.nextNode()) {
      const element = node.parentElement!;
      if (!node.nodeValue!.trim() || element.closest('svg, table, .sr-only')) continue;
      const range = document.createRange();
      range.selectNodeContents(element);
      const { left, right, width } = range.getBoundingClientRect();
      if (!width) continue;
      let holder: Element | null = element;
      while (holder && getComputedStyle(holder).overflowX === 'visible') holder = holder.parentElement;
      const box = holder?.getBoundingClientRect() ?? { left: 0, right: innerWidth };
      if (left >= box.left - 1 && right <= box.right + 1) continue;
      if (!holder || getComputedStyle(holder).textOverflow !== 'ellipsis') tell('text', element, node.nodeValue!);
    }
    for (const text of document.querySelectorAll('svg text')) {
      const svg = (text as SVGTextElement).ownerSVGElement!;
      if (getComputedStyle(svg).overflow === 'visible') continue;
      const [own, box] = [text.getBoundingClientRect(), svg.getBoundingClientRect()];
      if (own.width && (own.right > box.right + 2 || own.left < box.left - 2)) tell('picture', text, text.textContent);
    }
    return [...new Set(found)];
  });

test('with the longest names every view stays within the window', async () => {
  const id = await project((document) => {
    document.name = long(document.name);
    for (const list of ['units', 'variants', 'encounters', 'arenas', 'tiers', 'skills', 'styles', 'traits'])
      for (const one of document[list] ?? []) one.name = long(one.name);
    for (const { attacks, states } of document.units) for (const one of [...attacks, ...states]) one.name = long(one.name);
    for (const { waves } of document.encounters) for (const wave of waves) wave.name = long(wave.name ?? wave.id);
  });
  const lens = '?tier=bloom&skill=regular';
  const views = [
    `enemies/thistlejack/attacks/quill${lens}`,
    `enemies/head-gardener${lens}`,
    `party/warden${lens}`,
    `arenas/propagation-hall${lens}`,
    `encounters/first-bell${lens}`,
    `difficulty/tiers${lens}`,
    `difficulty/skills${lens}`,
    `difficulty/traits${lens}`,
    `brief${lens}`,
    `board${lens}&cell=${encodeURIComponent('duel|briar-hound|bloom|regular||')}`,
    `pacing/first-bell${lens}`,
    `replay/first-bell${lens}&seed=3&at=1.5&unit=1`,
    `tune${lens}`,
    `table/enemies${lens}`,
    `history${lens}`,
  ];
  const found: Record<string, string[]> = {};
  for (const view of views) {
    const page = await open(`${id}/${view}`);
    await page.waitForFunction(() => document.querySelector('[aria-label=Readout]')?.getAttribute('aria-busy') !== 'true');
    await page.evaluate(() => document.fonts.ready);
    const all = await beyond(page);
    if (all.length) found[view] = all;
    await page.close();
  }
  expect(found).toEqual({});
});

/** Words of goals that are cut off: more of them than there is room for. */
const cutOff = (page: Page): Promise<string[]> =>
  page.$$eval('[aria-label=Goals] button[role=combobox] > span:first-child', (all) =>
    all.filter((one) => one.scrollWidth > one.clientWidth + 1 || one.scrollHeight > one.clientHeight + 1).map((one) => one.textContent),
  );

test('what the goals of both demos say can be read whole', async () => {
  const made = await fetch(`${address()}/api/demo?of=archive`, { method: 'POST' });
  const { id: archive } = (await made.json()) as { id: string };
  for (const id of [await project(), archive]) {
    const page = await open(`${id}/brief`);
    await page.waitForSelector('[aria-label=Goals] button[role=combobox]');
    await page.evaluate(() => document.fonts.ready);
    expect(await cutOff(page)).toEqual([]);
    await page.close();
  }
});
