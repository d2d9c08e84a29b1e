import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { type Project, parseProject } from '@insidia/core';
import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type TestServer, freePort, newDatabase, startServer } from '../testing';

const ROOT = join(__dirname, '../../../..');
const demo = () => JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8'));
const CROWD = 'duel|clipper||regular|||copies=2';
const EVENING = 'encounter|evening-shift|bloom|regular|||';
let server: TestServer;

beforeAll(async () => {
  server = await startServer(await newDatabase(), await freePort());
});
afterAll(() => server?.stop());

async function call(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) {
  const response = await fetch(`${server.address}/api/projects${path}`, {
    method,
    headers: { ...(body !== undefined && { 'Content-Type': 'application/json' }), ...headers },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  const text = await response.text();
  return { status: response.status, body: text ? JSON.parse(text) : undefined, etag: response.headers.get('etag') };
}

let made = 0;
/** A project of its own. */
async function project(change: (document: any) => void = () => undefined): Promise<Project> {
  const document = demo();
  document.id = document.name = `jobs-${++made}`;
  change(document);
  expect((await call('POST', '', document)).status).toBe(201);
  return parseProject(document);
}

/** What a job told until it ended, by its stream of events, and what it is then. */
async function ended(id: string, job: string, each: (told: any) => Promise<void> | void = () => undefined) {
  const response = await fetch(`${server.address}/api/projects/${id}/jobs/${job}/events`, { headers: { Accept: 'text/event-stream' } });
  const told: any[] = [];
  let text = '';
  for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>) {
    text += Buffer.from(chunk).toString();
    for (const [, data] of text.matchAll(/data: (.*)\n\n/g)) {
      told.push(JSON.parse(data));
      await each(told.at(-1));
    }
    text = text.slice(text.lastIndexOf('\n\n') + 2);
  }
  return { told, job: (await call('GET', `/${id}/jobs/${job}`)).body };
}

/** What the command line prints of the same. */
const commandLine = (document: Project, args: (file: string) => string[], more: Record<string, Project> = {}) => {
  const program = `
    const fs = require('fs'), path = require('path'), os = require('os');
    const { documents, args } = JSON.parse(fs.readFileSync(0, 'utf8'));
    const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'insidia-jobs-'));
    for (const [name, document] of Object.entries(documents)) fs.writeFileSync(path.join(folder, name), JSON.stringify(document));
    require('./apps/cli/dist/main.js').runCommand(['node', 'insidia', ...args.map((one) => one.startsWith('FILE:') ? path.join(folder, one.slice(5)) : one)],
      (text) => process.stdout.write(text), (text) => process.stderr.write(text), () => {}).then(() => fs.rmSync(folder, { recursive: true }));`;
  const input = JSON.stringify({ documents: { own: document, ...more }, args: args('FILE:own') });
  return JSON.parse(execFileSync(process.execPath, ['-e', program], { input, cwd: ROOT, encoding: 'utf8', maxBuffer: 1e9 }));
};

describe('jobs', () => {
  test('what moves a fight is what the command line says, to the last bit; progress comes as events', async () => {
    const own = await project();
    const { status, body } = await call('POST', `/${own.id}/jobs`, {
      kind: 'moves',
      cell: CROWD,
      goals: ['won', 'timeToKill'],
      runs: 60,
      strongest: 3,
      screen: 120,
      pairs: true,
    });
    expect([status, body.state, body.kind, body.revision]).toEqual([202, 'waiting', 'moves', 1]);
    const { told, job } = await ended(own.id, body.id);
    expect(job.state).toBe('done');
    expect(told.at(-1).state).toBe('done');
    for (const { progress } of told) if (progress) expect(progress.runs).toBeLessThanOrEqual(progress.of);
    const subject = ['--duel', 'clipper', '--copies', '2', '--skill', 'regular', '--goal', 'won', 'timeToKill', '--runs', '60'];
    const same = commandLine(own, (file) => [
      'tune',
      file,
      ...subject,
      '--strongest',
      '3',
      '--screen',
      '120',
      '--pairs',
      '--format',
      'json',
    ]);
    expect({ ...job.result, subject: '' }).toEqual({ ...same, subject: '' });
    expect(job.result.dials).toHaveLength(3);
    expect(job.result.subject).toContain('clipper');
    // What was answered on the way is of no use any more.
    expect(await server.sql('select count(*)::int as n from job_part')).toEqual([{ n: 0 }]);
    expect((await call('GET', `/${own.id}/jobs`)).body.map(({ id }: { id: string }) => id)).toEqual([body.id]);
  });

  test('two revisions, and which edit did it', async () => {
    const own = await project((document) => {
      document.brief.bands = document.brief.bands.filter(({ scope, of }: any) => scope === 'role' && of === 'swarm');
    });
    const place = own.units.findIndex(({ id }) => id === 'clipper');
    const patch = [{ op: 'replace', path: `/units/clipper/health/max`, value: own.units[place].health.max * 2 }];
    const { etag } = await call('GET', `/${own.id}`);
    const saved = await call('PATCH', `/${own.id}`, patch, { 'Content-Type': 'application/json-patch+json', 'If-Match': etag! });
    expect(saved.status).toBe(200);
    const asked = { kind: 'compare', before: 1, runs: 50, tiers: ['bloom'], skills: ['regular'], byEdit: true };
    const { body } = await call('POST', `/${own.id}/jobs`, asked);
    expect(body.revision).toBe(2);
    const { job } = await ended(own.id, body.id);
    expect(job).toMatchObject({ state: 'done', request: asked });
    const { body: after } = await call('GET', `/${own.id}`);
    const same = commandLine(
      own,
      (file) => ['compare', file, 'FILE:after', '--runs', '50', '--tier', 'bloom', '--skill', 'regular', '--by-edit', '--format', 'json'],
      { after },
    );
    expect(job.result).toEqual(same);
    expect(job.result.edits).toHaveLength(1);
  });

  test('a search that is killed again and again comes to what one comes to that nobody disturbed', async () => {
    const own = await project();
    const asked = {
      kind: 'find',
      cell: CROWD,
      goals: ['timeToKill:median:2.2..4'],
      dials: ['/units/clipper/health/max', '/units/clipper/movement/run'],
      budget: 8000,
    };
    const first = await ended(own.id, (await call('POST', `/${own.id}/jobs`, asked)).body.id);
    expect(first.job.state).toBe('done');
    expect(first.job.result.proposals.length).toBeGreaterThan(0);
    expect(first.told.some(({ progress }) => progress?.phase === 'prove')).toBe(true);

    const { body } = await call('POST', `/${own.id}/jobs`, asked);
    const database = server.database;
    const parts: number[] = [];
    // Twice the whole server goes while answers come in; what was answered stays.
    for (let time = 0; time < 2; time++) {
      const before = parts.at(-1) ?? 0;
      await untilAnswered(body.id, before);
      const gone = server.ended;
      server.process.kill('SIGKILL');
      await gone;
      server = await startServer(database, await freePort());
      parts.push(Number(((await server.sql(`select count(*)::int as n from job_part where job = '${body.id}'`)) as { n: number }[])[0].n));
      expect(parts.at(-1)).toBeGreaterThan(before);
    }
    const { job } = await ended(own.id, body.id);
    expect(job.state).toBe('done');
    expect(job.result).toEqual(first.job.result);
  });

  test('the cheapest way to win, and how little there is to do', async () => {
    const own = await project();
    const asked = { kind: 'cheapest', cell: 'encounter|first-bell|bloom|regular|||', budget: 12_000 };
    const { job } = await ended(own.id, (await call('POST', `/${own.id}/jobs`, asked)).body.id);
    const subject = ['--encounter', 'first-bell', '--tier', 'bloom', '--skill', 'regular', '--budget', '12000'];
    expect(job.result).toEqual(commandLine(own, (file) => ['tune', file, '--cheapest', ...subject, '--format', 'json']));
    expect([job.result.ways, job.result.dullest.says]).toEqual([[], expect.arrayContaining(['stands still'])]);
  });

  test('another process takes part, and goes on with what this one leaves', async () => {
    const own = await project();
    const asked = { kind: 'moves', cell: CROWD, goals: ['won'], dials: ['/units/clipper/health/max'], runs: 2000 };
    const alone = await ended(own.id, (await call('POST', `/${own.id}/jobs`, asked)).body.id);
    const worker = spawn(process.execPath, [join(ROOT, 'apps/server/dist/worker-main.js')], {
      env: { ...process.env, DATABASE_URL: server.database, LOG_LEVEL: 'fatal', THREADS: '1' },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    try {
      await once(worker, 'message');
      const ids = await Promise.all([1, 2, 3, 4].map(async () => (await call('POST', `/${own.id}/jobs`, asked)).body.id));
      for (const id of ids) {
        const { job } = await ended(own.id, id);
        expect(job.state).toBe('done');
        expect(job.result).toEqual(alone.job.result);
      }
    } finally {
      const ending = once(worker, 'exit');
      worker.kill('SIGTERM');
      await ending;
    }
  });

  test('is stopped, wherever it is; what has ended stays as it is; a deleted project has none', async () => {
    const own = await project();
    const long = { kind: 'moves', cell: EVENING, goals: ['won'], runs: 5000 };
    const running = (await call('POST', `/${own.id}/jobs`, long)).body.id;
    await untilAnswered(running, 0);
    expect((await call('DELETE', `/${own.id}/jobs/${running}`)).status).toBe(204);
    const { job } = await ended(own.id, running);
    expect([job.state, job.result]).toEqual(['cancelled', undefined]);
    expect((await call('DELETE', `/${own.id}/jobs/${running}`)).status).toBe(204);
    expect((await call('GET', `/${own.id}/jobs/${running}`)).body.state).toBe('cancelled');

    const left = (await call('POST', `/${own.id}/jobs`, long)).body.id;
    await untilAnswered(left, 0);
    const { etag } = await call('GET', `/${own.id}`);
    expect((await call('DELETE', `/${own.id}`, undefined, { 'If-Match': etag! })).status).toBe(204);
    expect((await call('GET', `/${own.id}/jobs/${left}`)).status).toBe(404);
    expect(await server.sql(`select state from job where id = '${left}'`)).toEqual([{ state: 'cancelled' }]);
  });

  test('what can’t be begun is refused with the reason; so is what is too much, and too many', async () => {
    // An encounter that may last its hour.
    const own = await project((document) => {
      document.encounters.find(({ id }: { id: string }) => id === 'evening-shift').limit = 3600;
    });
    const refused = async (asked: object) => {
      const { status, body } = await call('POST', `/${own.id}/jobs`, asked);
      return [status, body.detail];
    };
    expect(await refused({ kind: 'dance' })).toEqual([400, expect.stringContaining('kind must be one of')]);
    expect(await refused({ kind: 'moves' })).toEqual([400, expect.stringContaining('which fight')]);
    expect(await refused({ kind: 'moves', question: 'nobody-asks' })).toEqual([400, expect.stringContaining('evening-shift-at-bloom')]);
    expect(await refused({ kind: 'moves', question: 'evening-shift-at-bloom', cell: CROWD })).toEqual([
      400,
      expect.stringContaining('leave'),
    ]);
    expect(await refused({ kind: 'moves', cell: 'duel|nobody|||||' })).toEqual([400, expect.stringContaining('nobody')]);
    expect(await refused({ kind: 'moves', cell: CROWD, goals: ['won:median'] })).toEqual([400, expect.stringContaining('share')]);
    expect(await refused({ kind: 'moves', cell: CROWD, dials: ['/units/clipper/nose'] })).toEqual([400, expect.stringContaining('nose')]);
    expect(await refused({ kind: 'moves', cell: CROWD, budget: 5000 })).toEqual([
      400,
      expect.stringContaining('budget is nothing that moves'),
    ]);
    expect(await refused({ kind: 'find', cell: CROWD, goals: ['won:share:0.2..0.3'] })).toEqual([400, expect.stringContaining('dials')]);
    expect(await refused({ kind: 'find', cell: CROWD, goals: ['won'], dials: ['/units/clipper/health/max'] })).toEqual([
      400,
      expect.stringContaining('nothing is wanted'),
    ]);
    expect(await refused({ kind: 'cheapest', cell: CROWD, budget: 100 })).toEqual([400, expect.stringContaining('at least 12000')]);
    expect(await refused({ kind: 'cheapest', cell: CROWD, goals: ['won'] })).toEqual([400, expect.stringContaining('goals is nothing')]);
    expect(await refused({ kind: 'compare' })).toEqual([400, expect.stringContaining('before')]);
    expect(await refused({ kind: 'compare', before: 7 })).toEqual([404, expect.stringContaining('7')]);
    const dials = own.units.slice(0, 8).map(({ id }) => `/units/${id}/health/max`);
    expect(await refused({ kind: 'moves', cell: EVENING, runs: 10_000, dials })).toEqual([422, expect.stringContaining('steps of units')]);
    expect((await call('GET', `/${own.id}/jobs/none`)).status).toBe(404);
    expect((await call('GET', `/${own.id}/jobs/none/events`)).status).toBe(404);

    const long = { kind: 'moves', cell: CROWD, goals: ['won'], runs: 5000, dials: ['/units/clipper/health/max'] };
    const begun: string[] = [];
    let last = await call('POST', `/${own.id}/jobs`, long);
    while (last.status === 202) {
      begun.push(last.body.id);
      last = await call('POST', `/${own.id}/jobs`, long);
    }
    expect([begun.length, last.status, last.body.detail]).toEqual([20, 429, expect.stringContaining('20 jobs')]);
    for (const id of begun) expect((await call('DELETE', `/${own.id}/jobs/${id}`)).status).toBe(204);
    const states = (await call('GET', `/${own.id}/jobs`)).body.map(({ state }: { state: string }) => state);
    expect(new Set(states)).toEqual(new Set(['cancelled']));
  });
});

/** Resolves once more than so many parts of a job have been answered. */
async function untilAnswered(job: string, more: number): Promise<void> {
  for (;;) {
    const [{ n }] = (await server.sql(`select count(*)::int as n from job_part where job = '${job}'`)) as { n: number }[];
    if (n > more) return;
    const [{ state }] = (await server.sql(`select state from job where id = '${job}'`)) as { state: string }[];
    if (!['waiting', 'running'].includes(state)) throw new Error(`it is ${state} already`);
  }
}
