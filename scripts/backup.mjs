/**
 * npm run backup FILE: everything that Insidia keeps, as one file in the format of pg_dump. It may run while Insidia does.
 * npm run restore FILE: puts it into an empty Insidia. DATABASE_URL or INSIDIA_HOME say which, as for the start command.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ensurePostgres, runningPostgres, startPostgres } from './postgres.mjs';
import { ROOT, Sentence, installModules, withSentences } from './system.mjs';

const home = resolve(process.env.INSIDIA_HOME ?? join(ROOT, '.insidia'));

await withSentences(async () => {
  const [what, file, ...more] = process.argv.slice(2);
  if (!file || more.length) throw new Sentence(`say one file: npm run ${what} FILE`);
  const running = process.env.DATABASE_URL || runningPostgres(home);
  if (!running && what === 'backup' && !existsSync(join(home, 'postgres'))) throw new Sentence(`there is no Insidia in ${home} to back up`);
  const own = running ? undefined : await startPostgres(home);
  try {
    await (what === 'backup' ? backup : restore)(running || own.url, resolve(file));
  } finally {
    await own?.stop();
  }
});

async function backup(url, file) {
  if (existsSync(file)) throw new Sentence(`${file} is there already; choose another name`);
  try {
    run('pg_dump', ['--format=custom', '--no-owner', '--no-privileges', `--file=${file}`, ...tables(), url]);
  } catch (error) {
    rmSync(file, { force: true });
    throw error;
  }
  console.log(`${file} has everything that is kept`);
}

/** What queues hold is put in anew from what is kept. */
function tables() {
  return ['--exclude-schema=pgboss'];
}

async function restore(url, file) {
  if (!existsSync(file)) throw new Sentence(`there is no ${file}`);
  installModules();
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const { rows } = await client.query(`select count(*)::int as n from information_schema.tables where table_schema = 'public'`);
    if (rows[0].n > 0) {
      const { rows: projects } = await client.query('select count(*)::int as n from project');
      throw new Sentence(
        `that Insidia is not empty: it has ${projects[0].n} projects; restore into a new folder (INSIDIA_HOME) or database (DATABASE_URL)`,
      );
    }
  } finally {
    await client.end();
  }
  run('pg_restore', ['--no-owner', '--no-privileges', '--exit-on-error', '--single-transaction', `--dbname=${url}`, file]);
  console.log(`${file} is restored; npm start serves it`);
}

function run(program, args) {
  const { status, stderr, error } = spawnSync(join(ensurePostgres(), program), args, { encoding: 'utf8' });
  if (status === 0) return;
  const said = (error?.message ?? stderr ?? '').trim().split('\n').at(-1) ?? '';
  // The address holds a password.
  throw new Sentence(`${program}: ${said.replace(/postgres(ql)?:\/\/\S+/g, 'the database')}`);
}
