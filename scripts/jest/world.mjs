/**
 * What the tests of the server and of the browser stand on, made once for all of them: the build of the sources as they are,
 * a PostgreSQL, an Insidia through its start command, a Chromium. Where each is to be found stands in the environment.
 * Projects are kept apart by their ids, databases by their names.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBrowser, launchBrowser } from '../browser.mjs';
import { startInstance } from '../instance.mjs';
import { createDatabase, startPostgres } from '../postgres.mjs';
import { build, installModules } from '../system.mjs';

/** How to take down what stands, in reverse order. */
const standing = (globalThis.insidiaWorld ??= []);

export function standBuilt() {
  if (process.env.INSIDIA_TEST_BUILT) return;
  installModules();
  build();
  process.env.INSIDIA_TEST_BUILT = 'yes';
}

export async function standDatabase() {
  standBuilt();
  if (process.env.INSIDIA_TEST_DATABASE) return;
  const home = mkdtempSync(join(tmpdir(), 'insidia-db-'));
  const database = await startPostgres(home, { fast: true });
  process.env.INSIDIA_TEST_DATABASE = database.url;
  standing.push(async () => {
    await database.stop();
    rmSync(home, { recursive: true, force: true });
  });
}

export async function standBrowser() {
  await standDatabase();
  if (process.env.INSIDIA_TEST_ADDRESS) return;
  ensureBrowser();
  const url = await createDatabase(process.env.INSIDIA_TEST_DATABASE, 'e2e');
  const instance = await startInstance({ env: { DATABASE_URL: url } });
  standing.push(() => instance.stop());
  const browser = await launchBrowser();
  standing.push(() => browser.close());
  process.env.INSIDIA_TEST_ADDRESS = instance.address;
  process.env.INSIDIA_TEST_BROWSER = browser.wsEndpoint();
}

export async function takeDown() {
  for (const stop of standing.splice(0).reverse()) await stop();
}
