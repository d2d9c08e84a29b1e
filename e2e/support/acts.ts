/**
 * What somebody does, counted: a click, a chord, or one typed value is one action. Everything is done where a person would do
 * it, on what is to be seen; how it is found is the other helpers' business.
 */
import type { ElementHandle, Page } from 'puppeteer-core';
import { type Part, SHEET, button, choose, fill, input, press, tick } from './bench';
import { pressAt } from './press';
import type { Suite } from './suite';
import { openPage } from './world';

export class Acts {
  count = 0;

  constructor(readonly page: Page) {}

  async click(part: Part, name: string): Promise<void> {
    this.count++;
    await press(this.page, part, name);
  }

  /** A click into a field, and its value. */
  async type(part: Part, label: string, value: number | string): Promise<void> {
    this.count += 2;
    await fill(this.page, part, label, value);
  }

  /** A list opened, and one of it chosen. */
  async choose(part: Part, label: string, name: string): Promise<void> {
    this.count += 2;
    await choose(this.page, part, label, name);
  }

  async tick(part: Part, label: string, on = true): Promise<void> {
    this.count++;
    await tick(this.page, part, label, on);
  }

  async chord(...keys: Parameters<Page['keyboard']['press']>[0][]): Promise<void> {
    this.count++;
    for (const key of keys.slice(0, -1)) await this.page.keyboard.down(key);
    await this.page.keyboard.press(keys[keys.length - 1]);
    for (const key of keys.slice(0, -1).reverse()) await this.page.keyboard.up(key);
  }

  /** A new project by its name, from the list of projects. @returns its id */
  async project(address: string, name: string): Promise<string> {
    await this.page.goto(`${address}/`);
    const field = 'input[aria-label="Name of the new project"]';
    await this.page.waitForSelector(field);
    this.count++;
    await pressAt(this.page, field);
    this.count++;
    await this.page.type(field, name);
    await this.chord('Enter');
    await this.page.waitForSelector('nav[aria-label=Sections]');
    return new URL(this.page.url()).pathname.split('/')[2];
  }

  /** Goes on in a sheet that something new is made with: its name, what it begins as, and it is there. */
  private async made(begins: string | undefined, name: string | undefined): Promise<void> {
    await this.page.waitForSelector('.sheet form');
    if (name !== undefined) {
      this.count++;
      await this.page.keyboard.sendCharacter(name);
    }
    // What is chosen already need not be.
    const chosen = await this.page
      .$eval('.sheet [role=radio][aria-checked=true]', (one) => one.getAttribute('aria-label'))
      .catch(() => null);
    if (begins !== undefined && begins !== chosen) await this.click('.sheet', begins);
    await this.chord('Enter');
    await this.page.waitForFunction(() => !document.querySelector('.sheet form'));
  }

  async enemy(begins: string, name: string): Promise<void> {
    await this.click('main, aside', 'New enemy');
    await this.made(begins, name);
    await this.heading(name);
  }

  async attack(begins: string, name: string): Promise<void> {
    await this.click(BEAT, 'New attack');
    await this.made(begins, name);
    await this.page.waitForFunction((wanted) => document.querySelector('[role=tab][aria-selected=true]')?.textContent === wanted, {}, name);
  }

  async state(begins: string, name: string): Promise<void> {
    await this.click(STATES, 'New state');
    await this.made(begins, name);
    await this.page.waitForFunction(
      (wanted) => document.querySelector('[role=option][aria-selected=true]')?.textContent?.includes(wanted),
      {},
      name,
    );
  }

  /** One of the states that stand there, chosen. */
  async chooseState(name: string): Promise<void> {
    this.count++;
    await pressAt(this.page, `::-p-xpath(//*[@aria-label="States" and @role="region"]//*[@role="option"][.//*[@title="${name}"]])`);
  }

  async encounter(begins: string, name: string, against?: string): Promise<void> {
    await this.section('Encounters');
    await this.click('main, aside', 'New encounter');
    if (against !== undefined) {
      await this.page.waitForSelector('.sheet form');
      await this.choose('.sheet', 'Against', against);
      this.count++;
      await pressAt(this.page, '.sheet input');
    }
    await this.made(begins, name);
    await this.heading(name);
  }

  async wave(begins: string, name: string, brings?: string): Promise<void> {
    await this.click('main', 'Add a wave');
    if (brings !== undefined) {
      await this.page.waitForSelector('.sheet form');
      await this.choose('.sheet', 'Brings', brings);
      this.count++;
      await pressAt(this.page, '.sheet input');
    }
    await this.made(begins, name);
    await this.page.waitForSelector(`[role=group][aria-label="${name}"]`);
  }

  async section(name: string): Promise<void> {
    await this.click('nav[aria-label=Sections]', name);
    await this.page.waitForFunction(
      (wanted) => document.querySelector('nav[aria-label=Sections] [aria-current=page]')?.textContent === wanted,
      {},
      name,
    );
    await this.page.waitForSelector('main');
  }

  /** Runs all of the board; its button says whether some of these fights are known already, of another project. */
  async board(): Promise<void> {
    await this.page.waitForSelector('[role=gridcell]');
    const name = await this.page.waitForFunction(() =>
      [...document.querySelectorAll('main button')].map((one) => one.textContent).find((words) => /^Run (the board|all)$/.test(words)),
    );
    await this.click('main', (await name.jsonValue())!);
  }

  async heading(name: string): Promise<void> {
    await this.page.waitForFunction((wanted) => document.querySelector('main h1')?.textContent === wanted, {}, name);
  }

  /** A thing on a plan, chosen by a click on it. */
  async thing(name: string): Promise<void> {
    this.count++;
    await pressAt(this.page, `main svg [role=button][aria-label="${name}"]`);
  }

  /** Opens a condition by what it is for: "Round leaves for Chase when". */
  async condition(isFor: string): Promise<void> {
    this.count++;
    await pressAt(this.page, `button[aria-label^="${isFor}"]`);
    await this.page.waitForSelector(SHEET);
  }

  /** A comparison built in the sheet of a condition that is open. */
  async compare(
    what: string,
    { is, value, within, which }: { is?: string; value?: number; within?: number; which?: string },
  ): Promise<void> {
    await this.choose(SHEET, 'What', what);
    if (which !== undefined) await this.choose(SHEET, 'Which', which);
    if (is !== undefined) await this.choose(SHEET, ['yes', 'no'].includes(is) ? 'Is so' : 'Is', is);
    if (value !== undefined) await this.type(SHEET, 'Value', value);
    if (within !== undefined) await this.type(SHEET, 'Within', within);
    await this.click(SHEET, 'Done');
  }
}

export const BEAT = 'section[aria-label=Beat]';
export const STATES = '[aria-label=States][role=region]';

/** How often Tab is pressed on the way to something before it is out of reach. */
const FAR = 400;

/** The same by the keyboard alone: whatever is used is come to by Tab, or by the arrow keys within a list. */
export class Keys extends Acts {
  override async click(part: Part, name: string): Promise<void> {
    this.count++;
    const target = await button(this.page, part, name);
    await this.reach(target, `button ${name} in ${part}`);
    // In a form Enter is the form's: one of several that exclude one another is chosen by the space bar, if not by being come to.
    const [radio, checked] = await target.evaluate((one) => [
      one.getAttribute('role') === 'radio' && one.closest('.sheet form') !== null,
      one.getAttribute('aria-checked') === 'true',
    ]);
    if (!checked) await this.page.keyboard.press(radio ? ' ' : 'Enter');
  }

  override async type(part: Part, label: string, value: number | string): Promise<void> {
    this.count += 2;
    await this.reach(await input(this.page, part, label), `field ${label} in ${part}`);
    await this.page.keyboard.down('Control');
    await this.page.keyboard.press('a');
    await this.page.keyboard.up('Control');
    await this.page.keyboard.sendCharacter(String(value));
    await this.page.keyboard.press('Enter');
  }

  private async reach(target: ElementHandle<HTMLElement>, what: string): Promise<void> {
    const there = () => target.evaluate((one) => document.activeElement === one);
    for (let i = 0; i < FAR; i++) {
      if (await there()) return;
      // In a list of which one is in the order of Tab, the others are come to by the arrow keys.
      const beside = await target.evaluate((one) => {
        const list = one.closest('[role=radiogroup]');
        return one.tabIndex < 0 && list !== null && list.contains(document.activeElement);
      });
      await this.page.keyboard.press(beside ? 'ArrowDown' : 'Tab');
    }
    throw new Error(`the keyboard does not come to ${what}`);
  }
}

/** A new project on a page of its own, by its name. */
export async function begun(own: Suite, name: string): Promise<{ acts: Acts; page: Page; id: string }> {
  const page = await openPage(own.browser, own.errors);
  const acts = new Acts(page);
  const id = await acts.project(own.address(), name);
  return { acts, page, id };
}
