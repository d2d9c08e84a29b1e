/** Hands on the workbench: finding fields as a person does, by what is written beside them, and working them. */
import type { ElementHandle, Page } from 'puppeteer-core';
import { pressOn, sought } from './press';

/** A part of the screen: a CSS selector. */
export type Part = string;

export const group = (name: string): Part => `[role=group][aria-label="${name}"]`;
/** What opened last: a popover or a dialog. */
export const SHEET = '.sheet:last-of-type, [data-radix-popper-content-wrapper] .sheet';

/** A button by its name or its text, within a part; the last such part counts, for sheets lie on top. */
export function button(page: Page, part: Part, name: string): Promise<ElementHandle<HTMLElement>> {
  return sought(page, `button ${name} in ${part}`, async () => {
    const handle = await page.evaluateHandle(
      (inside, wanted) => {
        const parts = [...document.querySelectorAll(inside)].reverse();
        for (const each of parts)
          for (const one of each.querySelectorAll<HTMLElement>('button, a, [role=tab], [role=option], [role=radio]'))
            if (
              one.getAttribute('aria-label') === wanted ||
              one.textContent?.trim() === wanted ||
              document.getElementById(one.getAttribute('aria-labelledby') ?? '')?.textContent?.trim() === wanted
            )
              return one;
        return null;
      },
      part,
      name,
    );
    return handle.asElement() as ElementHandle | null;
  });
}

export const press = (page: Page, part: Part, name: string): Promise<void> =>
  pressOn(page, `${name} in ${part}`, () => button(page, part, name));

/** An input by its label within a part. */
export function input(page: Page, part: Part, label: string): Promise<ElementHandle<HTMLElement>> {
  return sought(page, `field ${label} in ${part}`, async () => {
    const handle = await page.evaluateHandle(
      (inside, wanted) => {
        for (const each of [...document.querySelectorAll(inside)].reverse()) {
          for (const one of each.querySelectorAll('label')) {
            if (one.childNodes[0]?.textContent?.trim() !== wanted) continue;
            const own = one.htmlFor ? document.getElementById(one.htmlFor) : one.querySelector('input');
            if (own) return own;
          }
          const named = each.querySelector(`input[aria-label="${wanted}"]`);
          if (named) return named;
        }
        return null;
      },
      part,
      label,
    );
    return handle.asElement() as ElementHandle | null;
  });
}

/** Puts a value into a field, as a paste does, and leaves it by Enter. Typing key by key has tests of its own. */
export async function fill(page: Page, part: Part, label: string, value: number | string): Promise<void> {
  const field = await input(page, part, label);
  // A list that has just closed gives the focus back to its button, however late: then what was typed went there.
  for (let again = 0; again < 5; again++) {
    await field.evaluate((one) => {
      one.focus();
      (one as HTMLInputElement).select();
    });
    await page.keyboard.sendCharacter(String(value));
    const there = await field.evaluate(
      (one, wanted) => document.activeElement === one && (one as HTMLInputElement).value === wanted,
      String(value),
    );
    if (there) break;
  }
  await page.keyboard.press('Enter');
}

/** Several fields of one part. */
export async function fillAll(page: Page, part: Part, values: Record<string, number | string>): Promise<void> {
  for (const [label, value] of Object.entries(values)) await fill(page, part, label, value);
}

/** Chooses one of a list by its name. */
export async function choose(page: Page, part: Part, label: string, name: string): Promise<void> {
  const trigger = await sought(page, `choice ${label} in ${part}`, async () => {
    const handle = await page.evaluateHandle(
      (inside, wanted) => {
        for (const each of [...document.querySelectorAll(inside)].reverse())
          for (const one of each.querySelectorAll('[role=combobox]')) {
            const id = one.getAttribute('aria-labelledby');
            const own = id ? document.getElementById(id)?.textContent : one.getAttribute('aria-label');
            if (own === wanted) return one;
          }
        return null;
      },
      part,
      label,
    );
    return handle.asElement() as ElementHandle | null;
  });
  await trigger.evaluate((one) => one.scrollIntoView({ block: 'center' }));
  await trigger.focus();
  await page.keyboard.press('Enter');
  // By its key, at once: what is still loading may move the list from under the mouse, or the mouse may take the focus.
  await (
    await button(page, '[role=listbox]', name)
  ).evaluate((option) => {
    option.focus();
    option.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
  });
  await page.waitForFunction(() => !document.querySelector('[data-radix-select-viewport]'));
}

/** Turns a yes-or-no to what it should be. */
export async function tick(page: Page, part: Part, label: string, on: boolean): Promise<void> {
  const box = await input(page, part, label);
  if ((await box.evaluate((one) => one.getAttribute('aria-checked') === 'true')) !== on)
    await pressOn(page, label, () => input(page, part, label));
}

/** Turns each of some switches over, by the keyboard: a result that lands and moves the page can't put the press beside it. */
export async function choosesAll(page: Page, part: Part, names: readonly string[]): Promise<void> {
  for (const name of names) {
    await (await button(page, part, name)).focus();
    await page.keyboard.press('Space');
  }
}

/** Folds out what is folded, within a part. */
export async function allFields(page: Page, part: Part): Promise<void> {
  await page.waitForFunction(
    (inside) => {
      const all = [...(document.querySelector(inside)?.querySelectorAll<HTMLElement>('button[aria-expanded]') ?? [])];
      const folded = all.filter((one) => one.textContent === 'all fields');
      folded.forEach((one) => one.click());
      return !folded.length && all.some((one) => one.textContent === 'fewer fields');
    },
    {},
    part,
  );
}

/** One comparison of the open condition's builder. */
export interface Asked {
  what: string;
  is?: string;
  value?: number;
  within?: number;
  chance?: number;
}

const SUBJECT_PART = '.sheet [role=group]';

/** Builds a condition in the sheet that is open: one comparison, or several that must all hold. */
export async function condition(page: Page, label: string, ...asked: Asked[]): Promise<void> {
  const sheet = `.sheet[aria-label="${label}"]`;
  await page.waitForSelector(sheet);
  const one = async (inside: Part, { what, is, value, within, chance }: Asked) => {
    await choose(page, inside, 'What', what);
    if (is) await choose(page, inside, ['yes', 'no'].includes(is) ? 'Is so' : 'Is', is);
    if (value !== undefined) await fill(page, inside, 'Value', value);
    if (within !== undefined) await fill(page, inside, 'Within', within);
    if (chance !== undefined) await fill(page, inside, 'Chance', chance);
  };
  if (asked.length === 1) await one(sheet, asked[0]);
  else {
    await press(page, sheet, 'and …');
    for (let i = 0; i < asked.length; i++) {
      await page.waitForFunction((selector, n) => document.querySelectorAll(selector).length > n, {}, SUBJECT_PART, i + 1);
      // The parts of the group, in their order; each is a group of its own inside the first.
      await page.evaluate((n) => {
        document.querySelectorAll('[data-part]').forEach((each) => each.removeAttribute('data-part'));
        document.querySelectorAll('.sheet [role=group] [role=group]')[n]?.setAttribute('data-part', String(n));
      }, i);
      const { what, ...rest } = asked[i];
      await choose(page, `[data-part="${i}"]`, 'What', what);
      await page.evaluate((n) => document.querySelectorAll('.sheet [role=group] [role=group]')[n]?.setAttribute('data-part', String(n)), i);
      if (rest.is) await choose(page, `[data-part="${i}"]`, 'Is', rest.is);
      if (rest.value !== undefined) await fill(page, `[data-part="${i}"]`, 'Value', rest.value);
      if (rest.chance !== undefined) await fill(page, `[data-part="${i}"]`, 'Chance', rest.chance);
    }
  }
  await press(page, sheet, 'Done');
  await page.waitForFunction((selector) => !document.querySelector(selector), {}, sheet);
}

export const unitOf = (document: any, id: string) => document.units.find((unit: any) => unit.id === id);
export const heading = (page: Page, name: string) =>
  page.waitForFunction((wanted) => document.querySelector('main h1')?.textContent === wanted, {}, name);
export const keys = async (page: Page, ...held: string[]) => {
  const last = held.pop()!;
  for (const key of held) await page.keyboard.down(key as 'Control');
  await page.keyboard.press(last as 'z');
  for (const key of held) await page.keyboard.up(key as 'Control');
};
export const undoName = (page: Page) => page.$eval('button[aria-label^="Undo"]', (one) => one.getAttribute('aria-label'));
