/**
 * npm start: installs what is missing, builds what is stale, starts a private PostgreSQL and the server, prints the
 * address. Ctrl-C stops all of it. PORT, HOST, INSIDIA_HOSTS, INSIDIA_PASSWORD, DATABASE_URL and INSIDIA_HOME are documented in
 * docs/running.md.
 */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { startPostgres } from './postgres.mjs';
import { COMPILED, ROOT, Sentence, build, installModules, withSentences } from './system.mjs';

const home = resolve(process.env.INSIDIA_HOME ?? join(ROOT, '.insidia'));
const port = Number(process.env.PORT ?? 4600);
const host = process.env.HOST || '127.0.0.1';
const lock = join(home, 'start.pid');

/** ms that requests in flight are waited for. */
const LONGEST_STOP_MS = 20_000;

let stopping = false;
let server;
let database;

async function main() {
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Sentence(`PORT must be a whole number from 1 to 65535: it is ${process.env.PORT}`);
  if (!/^(localhost|::1|127(\.\d{1,3}){3})$/i.test(host) && !process.env.INSIDIA_PASSWORD)
    throw new Sentence(`HOST is ${host}, where others can reach it: set INSIDIA_PASSWORD too, or leave HOST at 127.0.0.1`);
  takeLock();
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => stop(0));
  await portIsFree();
  installModules();
  build();
  database = process.env.DATABASE_URL ? undefined : await startPostgres(home);
  if (stopping) return stop(0);
  const env = {
    ...process.env,
    PORT: String(port),
    HOST: host,
    DATABASE_URL: process.env.DATABASE_URL || database.url,
    NODE_ENV: 'production',
    ...COMPILED,
  };
  serve(env);
  watchDatabase();
}

/** Times that a server or a database which ended is brought back. */
const MOST_RETURNS = 3;
const returns = { server: 0, database: 0 };

/** Whether what ended by itself is brought back: it is said, either way. What comes too often ends everything. */
function comesBack(what) {
  if (++returns[what] > MOST_RETURNS) {
    console.error(`insidia: the ${what} ended ${returns[what]} times; start again, everything saved is kept`);
    void stop(1);
    return false;
  }
  console.error(`insidia: the ${what} ended unexpectedly; it is brought back (${returns[what]} of ${MOST_RETURNS})`);
  return true;
}

/** A server that listened and ends by itself is begun again: what it was running goes on from what the database has of it. */
function serve(env) {
  let listened = false;
  server = spawn(process.execPath, [join(ROOT, 'apps/server/dist/main.js')], { env, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
  server.once('message', () => {
    listened = true;
    console.log(`Insidia is at http://${host}:${port}`);
  });
  server.once('exit', async (code) => {
    if (stopping) return;
    if (!listened && !returns.server) {
      console.error('insidia: the server ended before it listened');
      return stop(code || 1);
    }
    if (!comesBack('server')) return;
    await databaseBack;
    if (!stopping) serve(env);
  });
}

/** A database that ends by itself is brought back, where its clients look for it; they wait, and nothing saved is lost. */
function watchDatabase() {
  database?.process.once('exit', () => {
    if (!stopping && comesBack('database')) databaseBack = bringDatabaseBack();
  });
}

/** Once it is, where it had ended. */
let databaseBack;

async function bringDatabaseBack() {
  try {
    database = await startPostgres(home, { port: database.port });
    watchDatabase();
  } catch (error) {
    console.error(`insidia: ${error.message}`);
    void stop(1);
  }
}

/** Whether the one before was killed: what it had begun may be dying still, and hold the port. */
let leftOver = false;

/** One start command for one folder. A lock whose process is gone is left over and taken. */
function takeLock() {
  try {
    mkdirSync(home, { recursive: true });
  } catch (error) {
    throw new Sentence(`${home} can't be used: ${error.message}`);
  }
  leftOver = existsSync(lock);
  if (leftOver) {
    const pid = Number(readFileSync(lock, 'utf8'));
    if (pid !== process.pid && isStart(pid))
      throw new Sentence(`Insidia is running already (process ${pid}); stop it first, or set INSIDIA_HOME to another folder`);
  }
  writeFileSync(lock, String(process.pid));
}

function isStart(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs');
  } catch {
    return false;
  }
}

/** @throws Sentence where the port can't be had; what a start command before this one left dying is waited for */
async function portIsFree() {
  const until = Date.now() + (leftOver ? LONGEST_STOP_MS : 0);
  for (let trouble = await portTrouble(); trouble; trouble = await portTrouble()) {
    if (trouble.code !== 'EADDRINUSE' || Date.now() >= until) {
      rmSync(lock, { force: true });
      const taken = `port ${port} is taken; set PORT to another one`;
      throw new Sentence(trouble.code === 'EADDRINUSE' ? taken : `port ${port} can't be used: ${trouble.message}`);
    }
    await new Promise((done) => setTimeout(done, 100));
  }
}

/** The error of whoever would listen there now. */
function portTrouble() {
  return new Promise((done) => {
    const probe = createServer();
    probe.once('error', done);
    probe.listen(port, host, () => probe.close(() => done(undefined)));
  });
}

async function stop(code) {
  if (stopping) return;
  stopping = true;
  if (server && server.exitCode === null && server.signalCode === null) {
    await new Promise((done) => {
      server.once('exit', done);
      server.kill('SIGTERM');
      // Everything acknowledged is in the database: a server that does not end by itself may be ended.
      setTimeout(() => server.kill('SIGKILL'), LONGEST_STOP_MS).unref();
    });
  }
  await database?.stop();
  rmSync(lock, { force: true });
  process.exit(code);
}

await withSentences(async () => {
  try {
    await main();
  } catch (error) {
    await database?.stop();
    if (existsSync(lock) && readFileSync(lock, 'utf8') === String(process.pid)) rmSync(lock, { force: true });
    throw error;
  }
});
