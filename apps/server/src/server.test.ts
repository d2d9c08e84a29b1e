import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { type Project, compile, duelOptions, parseProject, runBatch } from '@insidia/core';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { join } from 'node:path';
import { type TestServer, freePort, newDatabase, startServer } from './testing';

const demo = (): any => JSON.parse(readFileSync(join(__dirname, '../../../demo/verdance.insidia.json'), 'utf8'));

let database: string;
let server: TestServer;

beforeAll(async () => {
  database = await newDatabase();
  server = await startServer(database, await freePort());
});
afterAll(async () => {
  await server?.stop();
});

interface Answer {
  status: number;
  etag: string | null;
  type: string | null;
  body: any;
}

async function call(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
  const response = await fetch(server.address + path, {
    method,
    headers: { ...(body !== undefined && { 'Content-Type': 'application/json' }), ...headers },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
  });
  const text = await response.text();
  return {
    status: response.status,
    etag: response.headers.get('ETag'),
    type: response.headers.get('Content-Type'),
    body: text ? JSON.parse(text) : undefined,
  };
}

let made = 0;
async function newProject(): Promise<string> {
  const id = `p-${++made}`;
  const { status } = await call('POST', '/api/projects', { ...demo(), id, name: id });
  expect(status).toBe(201);
  return id;
}
const match = (revision: number) => ({ 'If-Match': `"${revision}"` });
const patch = (id: string, revision: number, operations: unknown, label = '') =>
  call('PATCH', `/api/projects/${id}?label=${encodeURIComponent(label)}`, operations, {
    ...match(revision),
    'Content-Type': 'application/json-patch+json',
  });

/** Bytes of what a history is kept in. */
const ROOM = `select pg_total_relation_size('revision') + pg_total_relation_size('object_version') as before`;

describe('projects', () => {
  test('an empty database holds the demo, in the words and the order of the file', async () => {
    const { body, etag } = await call('GET', '/api/projects/verdance');
    expect(JSON.stringify(body.units)).toBe(JSON.stringify(demo().units));
    expect(body).toEqual(demo());
    expect(etag).toBe('"1"');
    const { body: listed } = await call('GET', '/api/projects');
    expect([...listed].sort((a: any, b: any) => a.id.localeCompare(b.id))).toMatchObject([
      { id: 'archive', name: 'Seed Archive', revision: 1 },
      { id: 'verdance', name: 'Verdance Station', revision: 1 },
    ]);
    const archive = readFileSync(join(__dirname, '../../../demo/archive.insidia.json'), 'utf8');
    expect((await call('GET', '/api/projects/archive')).body).toEqual(JSON.parse(archive));
  });

  test('a demo comes once more under an id of its own; one that is none is refused by its name', async () => {
    for (const [of, name] of [
      ['', 'Verdance Station'],
      ['?of=archive', 'Seed Archive'],
    ]) {
      const { status, body } = await call('POST', `/api/demo${of}`);
      expect([status, body.name]).toEqual([201, expect.stringMatching(new RegExp(`^${name} \\d+$`))]);
    }
    const refused = await call('POST', '/api/demo?of=moth');
    expect([refused.status, refused.body.detail]).toEqual([400, 'of must be one of station, archive: it is "moth"']);
  });

  test('a patch by ids is a new revision with its label, and the old one is still there', async () => {
    const id = await newProject();
    const changed = await patch(
      id,
      1,
      [{ op: 'replace', path: '/units/clipper/attacks/bite/beat/cooldown', value: 0.9 }],
      'Clipper Bite cooldown 1.6 → 0.9 s',
    );
    expect([changed.status, changed.etag]).toEqual([200, '"2"']);
    expect((await call('GET', `/api/projects/${id}`)).body.units[1].attacks[0].beat.cooldown).toBe(0.9);
    expect((await call('GET', `/api/projects/${id}/revisions/1`)).body.units[1].attacks[0].beat.cooldown).toBe(1.6);
    expect((await call('GET', `/api/projects/${id}/revisions`)).body.revisions).toMatchObject([
      { number: 2, label: 'Clipper Bite cooldown 1.6 → 0.9 s' },
      { number: 1, label: 'Created' },
    ]);
  });

  test('objects come, go and move, and every revision shows its own', async () => {
    const id = await newProject();
    const document = (await call('GET', `/api/projects/${id}`)).body as Project;
    // The Thistlejack first, and only what First Bell needs besides.
    const moved = {
      ...document,
      units: [document.units[2], document.units[0], document.units[1]],
      variants: [],
      tiers: document.tiers.map((tier) => ({ ...tier, tweaks: tier.tweaks.filter(({ scope }) => scope !== 'unit') })),
      encounters: document.encounters.slice(0, 1),
      brief: { bands: [], curves: [] },
      tuning: undefined,
    };
    expect((await call('PUT', `/api/projects/${id}`, moved, match(1))).status).toBe(200);
    expect((await call('GET', `/api/projects/${id}`)).body.units.map((u: { id: string }) => u.id)).toEqual([
      'thistlejack',
      'warden',
      'clipper',
    ]);
    const restored = await call('POST', `/api/projects/${id}/revisions/1/restore`, undefined, match(2));
    expect([restored.status, restored.etag]).toEqual([200, '"3"']);
    expect(restored.body).toEqual(document);
    expect((await call('GET', `/api/projects/${id}/revisions/2`)).body).toEqual(moved);
  });

  test('a project kept in the form of an earlier version is read, changed and restored as one of today', async () => {
    const id = await newProject();
    const document = (await call('GET', `/api/projects/${id}`)).body as Project;
    const said = JSON.stringify(id).replace(/"/g, "'");
    // What version 1 had kept: traits were elites of their groups, and no list of traits was there.
    const kept = (await server.sql(`select collection, object_id, body from object_version where project = ${said}`)) as {
      collection: string;
      object_id: string;
      body: any;
    }[];
    for (const { collection, object_id: object, body } of kept) {
      if (collection !== 'arenas') delete body.traits;
      if (collection === 'encounters') {
        delete body.ends.also;
        for (const wave of body.waves) {
          delete wave.traits;
          for (const group of wave.groups) {
            const [given] = group.traits;
            delete group.traits;
            if (given) group.elite = { chance: given.share, tweaks: document.traits[0].tweaks };
          }
        }
      }
      await server.sql(
        `update object_version set body = '${JSON.stringify(body).replace(/'/g, "''")}' where project = ${said} and collection = '${collection}' and object_id = '${object}'`,
      );
    }
    await server.sql(`delete from object_version where project = ${said} and collection = 'traits'`);
    await server.sql(
      `update revision set outline = jsonb_set(outline::jsonb #- '{order,traits}', '{fields,version}', '1') where project = ${said}`,
    );

    const { notes: _, ...hardened } = document.traits[0];
    const elite = { ...hardened, id: 'elite', name: 'Elite' };
    const asToday = JSON.parse(
      JSON.stringify({ ...document, traits: [elite] }).replaceAll('"trait":"hardened"', '"trait":"elite"'),
    ) as Project;
    expect((await call('GET', `/api/projects/${id}`)).body).toEqual(asToday);

    const [wave, group] = document.encounters.flatMap(({ waves }) =>
      waves.flatMap((one) => one.groups.filter(({ traits }) => traits.length).map((each) => [one.id, each.id])),
    )[0];
    const share = `/encounters/glasshouse-defence/waves/${wave}/groups/${group}/traits/0/share`;
    expect((await patch(id, 1, [{ op: 'replace', path: share, value: 0.5 }])).status).toBe(200);
    const changed = structuredClone(asToday);
    changed.encounters[4].waves.find((one) => one.id === wave)!.groups.find((each) => each.id === group)!.traits[0].share = 0.5;
    expect((await call('GET', `/api/projects/${id}`)).body).toEqual(changed);
    expect((await patch(id, 2, [{ op: 'replace', path: '/units/clipper/health/max', value: 30 }])).status).toBe(200);
    expect((await call('GET', `/api/projects/${id}/revisions/1`)).body).toEqual(asToday);
    const restored = await call('POST', `/api/projects/${id}/revisions/1/restore`, undefined, match(3));
    expect([restored.status, restored.body]).toEqual([200, asToday]);
  });

  test('a stale write is a 409 with both versions, and nothing is written', async () => {
    const id = await newProject();
    await patch(id, 1, [{ op: 'replace', path: '/units/clipper/health/max', value: 30 }]);
    const stale = await patch(id, 1, [{ op: 'replace', path: '/units/clipper/health/max', value: 40 }]);
    expect([stale.status, stale.type]).toEqual([409, 'application/problem+json; charset=utf-8']);
    expect(stale.body).toMatchObject({ type: '/api/problems/stale-write', current: { revision: 2 }, yours: { revision: 1 } });
    expect(stale.body.current.document.units[1].health.max).toBe(30);
    expect(stale.body.yours.document.units[1].health.max).toBe(22);
    expect((await call('GET', `/api/projects/${id}`)).etag).toBe('"2"');
  });

  test('of twenty writers at once one wins each revision; none is lost without being told', async () => {
    const id = await newProject();
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) => patch(id, 1, [{ op: 'replace', path: '/units/clipper/health/max', value: 100 + i }])),
    );
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1);
    expect(answers.filter(({ status }) => status === 409)).toHaveLength(19);
  });

  test.each([
    [
      'a value out of range',
      [{ op: 'replace', path: '/units/clipper/health/max', value: -1 }],
      422,
      { errors: [{ pointer: '/units/clipper/health/max', rule: 'min', value: -1 }] },
    ],
    [
      'turns without a word of them',
      [{ op: 'replace', path: '/encounters/first-bell/clock', value: 'rounds' }],
      422,
      { errors: [{ pointer: '/encounters/first-bell/rounds', rule: 'required' }] },
    ],
    [
      'a place that is not there',
      [{ op: 'replace', path: '/units/moth/name', value: 'x' }],
      422,
      { type: '/api/problems/bad-patch', detail: expect.stringContaining('there is nothing at "moth"') },
    ],
    ['another id', [{ op: 'replace', path: '/id', value: 'other' }], 422, { errors: [{ pointer: '/id', rule: 'fixed', value: 'other' }] }],
    ['no list', { op: 'replace' }, 400, { detail: expect.stringContaining('a JSON Patch is a list') }],
    [
      'no such operation',
      [{ op: 'move', path: '/name' }],
      400,
      { detail: expect.stringContaining('op must be add, remove, replace or test: it is "move"') },
    ],
    ['text that is not JSON', '[{', 400, { type: '/api/problems/not-json' }],
  ])('%s is refused by name and changes nothing', async (_, operations, status, body) => {
    const id = await newProject();
    const refused = await patch(id, 1, operations);
    expect(refused.type).toContain('application/problem+json');
    expect(refused).toMatchObject({ status, body: { status, ...body } });
    expect(await call('GET', `/api/projects/${id}`)).toMatchObject({ etag: '"1"', body: { id } });
  });

  test('a write without If-Match is a 428, a strange one a 400, a missing project a 404', async () => {
    const id = await newProject();
    expect((await call('PUT', `/api/projects/${id}`, demo())).status).toBe(428);
    expect((await call('PUT', `/api/projects/${id}`, demo(), { 'If-Match': '*' })).status).toBe(400);
    expect(await call('GET', '/api/projects/nowhere')).toMatchObject({ status: 404, body: { detail: 'there is no project "nowhere"' } });
    expect((await call('GET', `/api/projects/${id}/revisions/9`)).status).toBe(404);
    expect((await call('GET', `/api/projects/${id}/revisions/x`)).status).toBe(400);
  });

  test('a revision can be named as a baseline and loses the name again; a name that is none is refused', async () => {
    const id = await newProject();
    const named = async (name: unknown, number = 1) => (await call('PUT', `/api/projects/${id}/revisions/${number}/name`, { name })).status;
    const names = async () =>
      ((await call('GET', `/api/projects/${id}/revisions`)).body.revisions as { name?: string }[]).map(({ name }) => name);
    expect(await named('  before the boss  ')).toBe(204);
    expect(await names()).toEqual(['before the boss']);
    expect(await named('')).toBe(204);
    expect(await names()).toEqual([undefined]);
    expect(await named('x'.repeat(81))).toBe(400);
    expect(await named(4)).toBe(400);
    expect(await named('gone', 7)).toBe(404);
  });

  test('a second project of one id is refused; a deleted one is gone with its revisions', async () => {
    const id = await newProject();
    expect(await call('POST', '/api/projects', { ...demo(), id })).toMatchObject({ status: 409, body: { type: '/api/problems/exists' } });
    expect((await call('DELETE', `/api/projects/${id}`, undefined, match(2))).status).toBe(409);
    expect((await call('DELETE', `/api/projects/${id}`, undefined, match(1))).status).toBe(204);
    expect((await call('GET', `/api/projects/${id}`)).status).toBe(404);
    expect((await call('GET', `/api/projects/${id}/revisions`)).status).toBe(404);
  });

  test('many edits take little room, and are listed by pages', async () => {
    const id = await newProject();
    const [{ before }] = (await server.sql(ROOM)) as { before: string }[];
    const edits = 120;
    for (let i = 1; i <= edits; i++) {
      const unit = demo().units[i % 9].id;
      const change = [{ op: 'replace', path: `/units/${unit}/health/max`, value: 10 + i }];
      expect((await call('PATCH', `/api/projects/${id}`, change, match(i))).status).toBe(200);
    }
    const [{ before: after }] = (await server.sql(ROOM)) as { before: string }[];
    expect((Number(after) - Number(before)) / edits).toBeLessThan(5000);
    const numbers: number[] = [];
    for (let older: number | undefined = 1e6; older;) {
      const { body } = await call('GET', `/api/projects/${id}/revisions?before=${older}&limit=50`);
      expect(body.revisions.length).toBeLessThanOrEqual(50);
      numbers.push(...body.revisions.map(({ number }: { number: number }) => number));
      older = body.older;
    }
    expect(numbers).toEqual(Array.from({ length: edits + 1 }, (_, i) => edits + 1 - i));
    expect((await call('GET', `/api/projects/${id}/revisions/60`)).body.units[59 % 9].health.max).toBe(69);
  });

  test('a body past the limit is a 413 that says the limit', async () => {
    const big = JSON.stringify({ ...demo(), id: 'big', notes: 'x'.repeat(9 * 1024 * 1024) });
    expect(await call('POST', '/api/projects', big)).toMatchObject({ status: 413, body: { detail: 'a request may hold at most 8 MB' } });
  });
});

describe('simulations', () => {
  test('a duel on the server is the duel of the core: same digest', async () => {
    const id = await newProject();
    const { status, body } = await call('POST', `/api/projects/${id}/simulations`, {
      duel: { enemy: 'clipper', against: 'warden' },
      tier: 'bramble',
      skill: 'novice',
      runs: 30,
      seed: 5,
    });
    const project = parseProject(demo());
    const here = runBatch(
      compile(project, duelOptions(project, { tier: 'bramble', skill: 'novice' }, { enemy: 'clipper', against: 'warden' })),
      5,
      30,
    );
    expect([status, body.digest, body.revision]).toEqual([200, here.digest, 1]);
  });

  test('so is one of a handful that comes from behind, over a wall, against eight', async () => {
    const project = parseProject(demo());
    const duel = {
      enemy: 'sapwright',
      against: Array<string>(8).fill('warden'),
      company: [{ unit: 'clipper', count: 2 }],
      from: 'behind' as const,
      wall: 1.5,
    };
    const { status, body } = await call('POST', '/api/projects/verdance/simulations', { duel, runs: 5, seed: 3 });
    expect([status, body.digest]).toEqual([200, runBatch(compile(project, duelOptions(project, {}, duel)), 3, 5).digest]);
  });

  test.each([
    [{ runs: 3 }, 'say either encounter or duel'],
    [{ encounter: 'attic', runs: 3 }, 'there is no encounter "attic"'],
    [{ encounter: 'first-bell', runs: 0 }, 'runs must not be less than 1: it is 0'],
    [{ encounter: 'first-bell', speed: 2 }, 'property speed should not exist'],
    [{ duel: { enemy: 'clipper', against: 'warden', from: 'above' }, runs: 3 }, 'from must be ahead, behind or point: and a spawn point'],
    [{ duel: { enemy: 'clipper', against: 'warden', wall: 21 }, runs: 3 }, 'wall must not be greater than 20'],
    [
      { duel: { enemy: 'clipper', against: 'warden', company: [{ unit: 'clipper', count: 13 }] }, runs: 3 },
      'count must not be greater than 12',
    ],
    [{ duel: { enemy: 'clipper', against: 'warden', wall: 2, distance: 0 }, runs: 3 }, 'a wall between needs a distance of at least 1 m'],
  ])('%j is a 400 that says why', async (request, detail) => {
    expect(await call('POST', '/api/projects/verdance/simulations', request)).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining(detail) },
    });
  });
});

test('health, schema and the OpenAPI document are there', async () => {
  expect((await call('GET', '/api/health')).body).toMatchObject({ status: 'ok' });
  expect((await call('GET', '/api/schema')).body.$schema).toContain('2020-12');
  const { body } = await call('GET', '/api/openapi.json');
  expect(Object.keys(body.paths)).toEqual(expect.arrayContaining(['/api/projects/{id}', '/api/projects/{id}/simulations', '/api/health']));
  expect(body.components.schemas.Unit.properties.attacks.items).toEqual({ $ref: '#/components/schemas/Attack' });
});

test('SIGTERM lets requests in flight finish before the server ends', async () => {
  const other = await startServer(database, await freePort());
  const request = fetch(`${other.address}/api/projects/verdance/simulations`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ duel: { enemy: 'mulcher', against: 'warden' }, runs: 2000 }),
  });
  // Only once the server is at work on it does the signal come: a second answer proves that the first has arrived.
  await fetch(`${other.address}/api/health`);
  const ended = once(other.process, 'exit');
  other.process.kill('SIGTERM');
  const response = await request;
  expect([response.status, ((await response.json()) as { runs: number }).runs]).toEqual([200, 2000]);
  expect((await ended)[0]).toBe(0);
});

test('a connection that is open without a request does not keep the server from ending', async () => {
  const other = await startServer(database, await freePort());
  const socket = connect(Number(new URL(other.address).port), '127.0.0.1');
  await once(socket, 'connect');
  await fetch(`${other.address}/api/health`); // the server has seen the connection by now
  const closed = once(socket, 'close');
  await other.stop();
  await closed;
  expect(other.process.exitCode).toBe(0);
});
