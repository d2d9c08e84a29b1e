/** How long the command line takes from its call to its end, against Node that starts and does nothing. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from '../system.mjs';

const INSIDIA = join(ROOT, 'apps/cli/bin/insidia.js');
const DEMO = join(ROOT, 'demo/verdance.insidia.json');
const CALLS = {
  bare: ['-e', '0'],
  version: [INSIDIA, '--version'],
  simulate: [INSIDIA, 'simulate', DEMO, '--encounter', 'first-bell', '--runs', '10'],
};

/** The three alternate; medians of the rounds. @returns {{version: number, simulate: number, versionMs: number, simulateMs: number}} ratios and ms */
export function commandLine(rounds = 9) {
  const took = { bare: [], version: [], simulate: [] };
  for (let round = 0; round < rounds; round++) {
    for (const [name, args] of Object.entries(CALLS)) {
      const start = process.hrtime.bigint();
      const { status } = spawnSync(process.execPath, args, { stdio: 'ignore' });
      if (status !== 0) throw new Error(`${args.join(' ')} ended with ${status}`);
      took[name].push(Number(process.hrtime.bigint() - start) / 1e6);
    }
  }
  const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
  const [bare, version, simulate] = ['bare', 'version', 'simulate'].map((name) => median(took[name]));
  return { version: version / bare, simulate: simulate / bare, versionMs: version, simulateMs: simulate };
}
