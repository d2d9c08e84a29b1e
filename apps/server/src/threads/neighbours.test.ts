import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type TestServer, freePort, newDatabase, startServer } from '../testing';

/** A valid fight without end: nobody is hurt, and it may take an hour. */
function endless(id: string, enemies = 240): any {
  const document = JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8'));
  document.id = document.name = id;
  for (const unit of document.units) for (const attack of unit.attacks) if (attack.effects.damage) attack.effects.damage.amount = 0;
  const bell = document.encounters.find((one: any) => one.id === 'first-bell');
  bell.limit = 3600;
  bell.waves[0].groups[0].count = { min: enemies, max: enemies };
  bell.waves[0].groups[0].pool = [];
  bell.waves[0].groups[0].enemy = 'clipper';
  return document;
}

let server: TestServer;
beforeAll(async () => {
  server = await startServer(await newDatabase(), await freePort(), { THREADS: '2' });
});
afterAll(() => server?.stop());

const call = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}, signal?: AbortSignal) => {
  const response = await fetch(`${server.address}/api/${path}`, {
    method,
    signal,
    headers: { ...(body !== undefined && { 'Content-Type': 'application/json' }), ...headers },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  const text = await response.text();
  return { status: response.status, etag: response.headers.get('etag'), body: text ? JSON.parse(text) : undefined };
};
const make = async (id: string, enemies?: number) => expect((await call('POST', 'projects', endless(id, enemies))).status).toBe(201);
const BELL = 'encounter|first-bell|bloom|regular||';
/** A request that would take many minutes, and how to leave it. */
function long(id: string) {
  const leave = new AbortController();
  const state = { ended: false, status: 0 };
  const done = call(
    'POST',
    `projects/${id}/simulations`,
    { encounter: 'first-bell', tier: 'bloom', skill: 'regular', runs: 40 },
    {},
    leave.signal,
  )
    .then(({ status }) => void (state.status = status))
    .catch(() => undefined)
    .finally(() => void (state.ended = true));
  return { leave: () => leave.abort(), state, done };
}
/** What a neighbour does meanwhile: a duel, the list, a save. */
async function neighbour(): Promise<number[]> {
  const duel = await call('POST', 'projects/verdance/simulations', { encounter: 'first-bell', tier: 'bloom', skill: 'regular', runs: 20 });
  const list = await call('GET', 'projects');
  const { etag } = await call('GET', 'projects/verdance');
  const save = await call('PATCH', 'projects/verdance', [{ op: 'replace', path: '/units/clipper/notes', value: `${etag}` }], {
    'If-Match': etag!,
  });
  return [duel.status, list.status, save.status];
}

describe('one fight does not stop everybody', () => {
  test('two requests and a batch that take minutes: a neighbour is answered before any of them ends; left and cancelled, nothing goes on', async () => {
    await make('hog');
    const [one, two] = [long('hog'), long('hog')];
    const asked = await call('POST', 'projects/hog/batches', { cells: [{ cell: BELL, runs: 200 }] });
    expect(asked.status).toBe(202);
    expect(await neighbour()).toEqual([200, 200, 200]);
    // A neighbour's batch has its turn too.
    await call('POST', 'projects/verdance/batches', { cells: [{ cell: 'duel|clipper|bloom|regular||', runs: 50 }] });
    while ((await call('GET', 'projects/verdance/batches')).body.length);
    expect([one.state.ended, two.state.ended]).toEqual([false, false]);
    const [{ done, wanted }] = (await call('GET', 'projects/hog/batches')).body;
    expect([done, wanted]).toEqual([0, 200]);

    one.leave();
    two.leave();
    expect((await call('DELETE', 'projects/hog/batches')).status).toBe(204);
    expect((await call('GET', 'projects/hog/batches')).body).toEqual([]);
    // The threads are free: others of their kind are run at once, to their end.
    await make('short', 2);
    const free = await call('POST', 'projects/short/simulations', { encounter: 'first-bell', runs: 400 });
    expect(free.status).toBe(200);
    // Nothing of what was stopped is kept.
    const [cell] = (await call('POST', 'projects/hog/cells/read', { cells: [{ cell: BELL, columns: ['dose'] }] })).body;
    expect(cell).toMatchObject({ runs: 0, values: {} });
  });

  test('a project that is deleted stops what is run of it', async () => {
    await make('gone', 241);
    const request = long('gone');
    await call('POST', 'projects/gone/batches', { cells: [{ cell: BELL, runs: 100 }] });
    expect((await call('DELETE', 'projects/gone', undefined, { 'If-Match': '"1"' })).status).toBe(204);
    await request.done;
    expect(request.state.status).toBe(404);
    // Until it is brought back, with its revisions.
    expect((await call('GET', 'projects/gone')).status).toBe(404);
    expect((await call('POST', 'projects', endless('gone', 241))).body.detail).toContain('was deleted and can be brought back still');
    expect((await call('GET', 'deleted-projects')).body).toMatchObject([{ id: 'gone' }]);
    expect(await call('POST', 'deleted-projects/gone/bring-back')).toMatchObject({ status: 200, etag: '"1"' });
    expect((await call('GET', 'projects/gone/batches')).body).toEqual([]);
    expect((await call('POST', 'deleted-projects/gone/bring-back')).status).toBe(404);
  });

  test('what is too much is refused with numbers, before anything is run; what it may cost is told', async () => {
    await make('vast', 480);
    const request = await call('POST', 'projects/vast/simulations', { encounter: 'first-bell', runs: 2000 });
    expect([request.status, request.body.type]).toEqual([422, '/api/problems/too-much-work']);
    expect(request.body.detail).toMatch(
      /^2000 runs may come to \d+ steps of units, and a request that is waited for may ask for 1000000000: ask for at most \d+ runs/,
    );
    const batch = await call('POST', 'projects/vast/batches', { cells: [{ cell: BELL, runs: 100_000 }] });
    expect([batch.status, batch.body.type]).toEqual([422, '/api/problems/too-much-work']);
    const ask = () => call('POST', 'projects/vast/batches', { cells: [{ cell: BELL, runs: 3000 }] });
    expect((await ask()).status).toBe(202);
    const { body } = await call('POST', 'projects/vast/batches', {
      cells: [
        { cell: 'encounter|first-bell|bramble|regular||', runs: 3000 },
        { cell: 'encounter|first-bell|blight|regular||', runs: 300 },
      ],
    });
    expect(body).toHaveLength(2);
    const third = await call('POST', 'projects/vast/batches', { cells: [{ cell: 'encounter|first-bell|seedling|regular||', runs: 3000 }] });
    expect(third.body.detail).toMatch(/wait already, and a project may have 200000000000 waiting: wait, or cancel what waits/);
    await call('DELETE', 'projects/vast/batches');
    const told = await call('POST', 'projects/verdance/batches/estimate', { cells: [{ cell: 'duel|clipper|bloom|regular||', runs: 100 }] });
    expect(told.body.work).toBeGreaterThan(1000);
    const more = await call('POST', 'projects/verdance/batches/estimate', { cells: [{ cell: 'duel|clipper|bloom|regular||', runs: 200 }] });
    expect(more.body.work).toBe(2 * told.body.work);
    expect(more.body.seconds).toBeGreaterThan(0);
  });

  test('so many requests of one client wait, and no more', async () => {
    const all = Array.from({ length: 30 }, () => long('hog'));
    while (all.filter(({ state }) => state.ended).length < 6) await call('GET', 'health');
    expect(all.filter(({ state }) => state.status === 429)).toHaveLength(6);
    for (const one of all) one.leave();
    await Promise.all(all.map(({ done }) => done));
    expect(await neighbour()).toEqual([200, 200, 200]);
  });

  test('a shard that takes its process along is given up after three tries, and named', async () => {
    await make('fatal');
    await call('POST', 'projects/fatal/batches', { cells: [{ cell: BELL, runs: 50 }] });
    const port = Number(new URL(server.address).port);
    const database = server.database;
    for (let kill = 0; kill < 3; kill++) {
      // Not before it has begun.
      for (let begun = false; !begun;)
        begun = (await server.sql(`select 1 from shard where tries = ${kill + 1} and lease is not null`)).length > 0;
      server.process.kill('SIGKILL');
      await server.ended;
      server = await startServer(database, port, { THREADS: '2' });
    }
    let trouble: string | undefined;
    while (!trouble) [{ trouble }] = (await call('POST', 'projects/fatal/cells/read', { cells: [{ cell: BELL, columns: [] }] })).body;
    expect(trouble).toBe('seeds 1 to 50 could not be run: given up after 3 tries, at each of which the process that ran it ended');
    expect((await call('GET', 'projects/fatal/batches')).body).toEqual([]);
  });
});

describe('streams of events', () => {
  test('five hundred are held while others are answered; one client may hold so many and no more', async () => {
    await server.stop();
    server = await startServer(server.database, Number(new URL(server.address).port), { INSIDIA_PASSWORD: 'leaf mould' });
    const token = async (name: string) =>
      (await call('POST', '../sign-in', { name, password: 'leaf mould' }).then(({ body }) => body.token)) as string;
    const clients = await Promise.all(['a', 'b', 'c', 'd', 'e'].map(token));
    const leave = new AbortController();
    const open = (bearer: string) =>
      fetch(`${server.address}/api/projects/verdance/batches/events`, {
        signal: leave.signal,
        headers: { Accept: 'text/event-stream', Authorization: `Bearer ${bearer}` },
      });
    const streams = await Promise.all(clients.flatMap((client) => Array.from({ length: 100 }, () => open(client))));
    expect(new Set(streams.map(({ status }) => status))).toEqual(new Set([200]));
    const more = await open(clients[0]);
    expect([more.status, ((await more.json()) as any).detail]).toEqual([429, 'one client may hold 100 streams of events: close some']);
    expect((await call('GET', 'health')).status).toBe(200);
    const own = { Authorization: `Bearer ${clients[0]}` };
    const { etag } = await call('GET', 'projects/verdance', undefined, own);
    const save = await call('PATCH', 'projects/verdance', [{ op: 'replace', path: '/units/clipper/notes', value: 'streams' }], {
      ...own,
      'If-Match': etag!,
    });
    expect(save.status).toBe(200);
    leave.abort();
  });
});
