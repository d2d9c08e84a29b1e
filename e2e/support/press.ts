/**
 * The mouse of the tests. What comes in while it is on its way (a warning, a figure, a bar drawn anew) may move a thing, take it
 * out of sight for a moment or put another in its place: a person looks again and presses again, and so is it done here.
 */
import type { ElementHandle, Page } from 'puppeteer-core';

type Target = ElementHandle<Element>;

/** How often one looks again before what can't be pressed is a fault of the page. */
const LOOKS = 60;

/** One frame further: what was under way has been drawn. */
export const frame = (page: Page) => page.waitForFunction(() => new Promise((done) => requestAnimationFrame(() => done(true))));

/** Looks for something until it is there: as long as the page is waited for. @throws when it is not */
export async function sought(page: Page, what: string, find: () => Promise<ElementHandle | null>): Promise<ElementHandle<HTMLElement>> {
  for (const until = Date.now() + page.getDefaultTimeout(); Date.now() < until;) {
    const found = await find();
    if (found) return found as ElementHandle<HTMLElement>;
    await frame(page);
  }
  throw new Error(`there is no ${what}`);
}

/** Presses once. @returns whether the press came to the thing, or to what stands in its place now */
async function pressed(page: Page, target: Target, find: () => Promise<Target | null>, count: number): Promise<boolean> {
  await target.evaluate((one) => {
    // Scrolling what is in view would move it.
    one.scrollIntoView({ block: 'nearest' });
    const told = window as unknown as { pressedOn: EventTarget[] };
    told.pressedOn = [];
    document.addEventListener('click', (event) => (told.pressedOn = event.composedPath()), { once: true, capture: true });
  });
  let failed: unknown;
  await target.click({ count }).catch((error: unknown) => (failed = error));
  // Where it led to another page nothing can be told any more: then it was pressed.
  const came = (one: Target) =>
    one
      .evaluate((each) => {
        const on = (window as unknown as { pressedOn?: EventTarget[] }).pressedOn;
        return on === undefined || on.includes(each);
      })
      .catch(() => true);
  if (await came(target)) return true;
  if (failed) throw failed;
  const now = await find();
  return now === null || (await came(now));
}

/**
 * Presses what `find` finds, found anew for every try, once it takes a press: what waits for something (a save under way) takes
 * none and says nothing of it.
 * @param what for the error
 * @throws the last try's error, or that it takes no press
 */
export async function pressOn(page: Page, what: string, find: () => Promise<Target | null>, count = 1): Promise<void> {
  let failed: unknown;
  for (let look = 0; look < LOOKS; look++) {
    const target = await sought(page, what, find);
    await page.waitForFunction((one) => !one.isConnected || !(one as HTMLButtonElement).disabled, {}, target);
    try {
      if (await pressed(page, target, find, count)) return;
      failed = undefined;
    } catch (error) {
      failed = error;
    }
    await frame(page);
  }
  throw failed ?? new Error(`${what} takes no press`);
}

/** Presses the first that a selector finds. */
export const pressAt = (page: Page, selector: string, count?: number): Promise<void> =>
  pressOn(page, selector, () => page.$(selector), count);
