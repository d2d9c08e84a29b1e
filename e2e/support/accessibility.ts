/** What the accessibility check finds on a page. */
import { readFileSync } from 'node:fs';
import type { Page } from 'puppeteer-core';

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

/**
 * Serious and critical findings, each with the first places where it stands.
 * @param within a selector: the last that fits, alone; absent: the whole page
 */
export async function seriousFindings(page: Page, within?: string): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AXE);
  return page.evaluate(async (part) => {
    const where = part === null ? document : [...document.querySelectorAll(part)].at(-1)!;
    const { violations } = await (window as any).axe.run(where, { resultTypes: ['violations'] });
    return violations
      .filter(({ impact }: any) => impact === 'serious' || impact === 'critical')
      .map(({ id, nodes }: any) => {
        const places = nodes.slice(0, 3).map(({ html }: any) => html.slice(0, 160));
        return `${id}: ${places.join(' | ')}`;
      });
  }, within ?? null);
}
