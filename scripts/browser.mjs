/** Debian's Chromium, headless, with nothing that reaches out to the network. */
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { installPackages } from './system.mjs';

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';

/** @throws Sentence where Chromium is missing and can't be installed */
export function ensureBrowser() {
  if (!existsSync(CHROMIUM))
    installPackages(['chromium'], 'Chromium is not installed; install it with "apt-get install chromium", or set CHROMIUM to its path');
}

export async function launchBrowser({ width = 1280, height = 800 } = {}) {
  ensureBrowser();
  const { default: puppeteer } = await import('puppeteer-core');
  const userDataDir = mkdtempSync(join(tmpdir(), 'insidia-browser-'));
  const browser = await puppeteer.launch({
    executablePath: CHROMIUM,
    headless: true,
    userDataDir,
    // What waits in a page fails by the time-out of whoever waits: runs of a board take minutes.
    protocolTimeout: 1_800_000,
    defaultViewport: { width, height },
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--force-color-profile=srgb',
      // Several pages at once each count as the one in front.
      '--disable-renderer-backgrounding',
      '--disable-background-timer-throttling',
      '--disable-backgrounding-occluded-windows',
      '--font-render-hinting=none',
    ],
  });
  browser.process()?.once('exit', () => rmSync(userDataDir, { recursive: true, force: true, maxRetries: 5, retryDelay: 100 }));
  return browser;
}
