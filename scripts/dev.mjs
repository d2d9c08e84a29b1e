/** npm run dev: PostgreSQL, the server and the page in watch mode. */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { startPostgres } from './postgres.mjs';
import { ROOT, build, installModules, withSentences } from './system.mjs';

await withSentences(async () => {
  installModules();
  build();
  const database = process.env.DATABASE_URL ? undefined : await startPostgres(join(ROOT, '.insidia'));
  const env = { ...process.env, DATABASE_URL: process.env.DATABASE_URL ?? database.url, PORT: '4600' };
  const run = (...args) => spawn(process.execPath, args, { cwd: ROOT, env, stdio: 'inherit' });
  const children = [
    run('node_modules/typescript/bin/tsc', '-b', '--watch', '--preserveWatchOutput'),
    run('--watch', '--watch-preserve-output', 'apps/server/dist/main.js'),
    spawn(process.execPath, [join(ROOT, 'node_modules/vite/bin/vite.js')], { cwd: join(ROOT, 'apps/web'), env, stdio: 'inherit' }),
  ];
  process.once('SIGINT', () => {
    children.forEach((child) => child.kill('SIGTERM'));
    void database?.stop().then(() => process.exit(0));
  });
});
