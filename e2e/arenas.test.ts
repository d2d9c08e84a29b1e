import { describe, expect, test } from '@jest/globals';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fill, fillAll, group, press } from './support/bench';
import { suite } from './support/suite';
import { savedState, shortFights } from './support/world';

const { project, open, stored } = suite('grounds');

describe('arenas', () => {
  test('a wall is made, moved, turned and measured; corners stay convex; GeoJSON goes out and comes back', async () => {
    const id = await project(shortFights);
    const page = await open(`${id}/arenas/boiler-court`);
    await press(page, 'main', '+ wall');
    await page.waitForSelector(group('Chosen'));
    const wall = async () => (await stored(id)).arenas.find((one: any) => one.id === 'boiler-court').walls.at(-1);
    await fillAll(page, group('Chosen'), { x: 5, y: -3, Width: 6, Height: 1.2 });
    await savedState(page, 'saved');
    expect(await wall()).toMatchObject({
      height: 1.2,
      corners: [
        { x: 2, y: -3.5 },
        { x: 8, y: -3.5 },
        { x: 8, y: -2.5 },
        { x: 2, y: -2.5 },
      ],
    });
    await page.$eval('[aria-label="wall Wall"]', (one) => (one as unknown as HTMLElement).focus());
    await page.keyboard.press('ArrowRight');
    await fill(page, group('Chosen'), 'Turn by', 90);
    await savedState(page, 'saved');
    expect((await wall()).corners[0]).toEqual({ x: 6, y: -6 });
    // A corner dragged across the shape would fold it: it stays.
    const corner = (await page.$('[data-corner="0"]'))!;
    const box = (await corner.boundingBox())!;
    const before = (await wall()).corners;
    await page.mouse.move(box.x + 4, box.y + 4);
    await page.mouse.down();
    await page.mouse.move(box.x - 300, box.y - 300, { steps: 3 });
    await page.mouse.up();
    const after = (await wall()).corners;
    expect(after.length).toBe(before.length);
    const href = await page.$eval('a[download="boiler-court.geojson"]', (one) =>
      decodeURIComponent((one as HTMLAnchorElement).href.split(',').slice(1).join(',')),
    );
    const path = join(mkdtempSync(join(tmpdir(), 'insidia-ground-')), 'court.geojson');
    (await import('node:fs')).writeFileSync(path, href);
    const upload = (await page.$('input[type=file]'))! as any;
    await upload.uploadFile(path);
    await page.waitForFunction(() => document.querySelector('main h1')?.textContent === 'Boiler Court 2');
    await savedState(page, 'saved');
    const { arenas } = await stored(id);
    const [old, copy] = [arenas.find((one: any) => one.id === 'boiler-court'), arenas.at(-1)];
    expect({ ...copy, id: '', name: '' }).toEqual({ ...old, id: '', name: '' });
  });
});
