/** What processes hold: a server at its most, and a page with its workers after many edits. */
import { readFileSync, readdirSync } from 'node:fs';
import { SHIFT, edit, figures, opened } from './pages.mjs';

function read(pid, file, pattern) {
  try {
    return pattern.exec(readFileSync(`/proc/${pid}/${file}`, 'utf8'))?.[1];
  } catch {
    return undefined;
  }
}

const megabytes = (pid, field) => Number(read(pid, 'status', new RegExp(`${field}:\\s+(\\d+)`))) / 1000;

/** The processes of a program that another process has started. */
function children(parent, program) {
  return readdirSync('/proc').filter(
    (pid) => /^\d+$/.test(pid) && Number(read(pid, 'stat', /\) \S (\d+)/)) === parent && read(pid, 'cmdline', /(.*)/s)?.includes(program),
  );
}

/** MB that a program has ever held at once. */
export const peakMemory = (parent, program) => Math.max(...children(parent, program).map((pid) => megabytes(pid, 'VmHWM')));

const SERVER = 'dist/main.js';

/**
 * Edits as somebody makes them in an hour, one in ten seconds, without the time in between: each changes a number of Evening
 * Shift, waits for the figures, and is saved.
 * @returns MB of the page's process (its workers in it) and of the server after the first tenth of them and after all, and of
 *   what the page's own thread holds after its collector has run
 */
export async function memoryOfEdits(instance, browser, edits = 360) {
  const { page, close } = await opened(browser, instance.address, SHIFT.path);
  const cdp = await browser.target().createCDPSession();
  const own = await page.createCDPSession();
  const seen = new Set(
    (await cdp.send('SystemInfo.getProcessInfo')).processInfo.filter(({ type }) => type === 'renderer').map(({ id }) => id),
  );
  const held = async () => {
    await own.send('HeapProfiler.collectGarbage');
    const { usedSize } = await own.send('Runtime.getHeapUsage');
    const page = Math.max(...[...seen].map((pid) => megabytes(pid, 'VmRSS')).filter(Number.isFinite));
    return {
      page,
      heap: usedSize / 1e6,
      server: Math.max(...children(instance.process.pid, SERVER).map((pid) => megabytes(pid, 'VmRSS'))),
    };
  };
  let early;
  const pressed = ['ArrowRight', 'ArrowRight', 'ArrowRight', 'ArrowLeft', 'ArrowLeft'];
  for (let made = 0; made < edits; made++) {
    await edit(page, SHIFT.slider, pressed[made % pressed.length]);
    await page.waitForFunction(figures);
    if (made === Math.floor(edits / 10)) early = await held();
  }
  const late = await held();
  await close();
  return { edits, early, late };
}
