/**
 * npm run worker: runs shards of batches for an Insidia that is up, in a process of its own. DATABASE_URL names its
 * database, on this machine or another; absent: that of this checkout's own `npm start`.
 */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { runningPostgres } from './postgres.mjs';
import { COMPILED, ROOT, Sentence, build, installModules, withSentences } from './system.mjs';

await withSentences(async () => {
  const url = process.env.DATABASE_URL ?? runningPostgres(process.env.INSIDIA_HOME ?? join(ROOT, '.insidia'));
  if (!url) throw new Sentence('no Insidia runs from this folder; start it with npm start, or set DATABASE_URL to its database');
  installModules();
  build();
  const child = spawn(process.execPath, [join(ROOT, 'apps/server/dist/worker-main.js')], {
    cwd: ROOT,
    env: { ...process.env, ...COMPILED, DATABASE_URL: url },
    stdio: ['inherit', 'inherit', 'inherit', 'ipc'],
  });
  for (const signal of ['SIGTERM', 'SIGINT']) process.on(signal, () => child.kill('SIGTERM'));
  child.once('exit', (code) => process.exit(code ?? 1));
});
