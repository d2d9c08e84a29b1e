import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { request as send } from 'node:http';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { type TestServer, freePort, newDatabase, startServer } from './testing';

const CASES = Number(process.env.INSIDIA_CASES ?? 1500);
const SEED = Number(process.env.INSIDIA_SEED ?? 20261127);
const demo = () => JSON.parse(readFileSync(join(__dirname, '../../../demo/verdance.insidia.json'), 'utf8')) as Record<string, unknown>;

let server: TestServer;
beforeAll(async () => {
  server = await startServer(await newDatabase(), await freePort());
});
afterAll(() => server?.stop());

interface Odd {
  method: string;
  path: string;
  headers: Record<string, string>;
  body?: Buffer;
}

function ask({ method, path, headers, body }: Odd): Promise<{ status: number; type: string; text: string }> {
  const { hostname, port } = new URL(server.address);
  return new Promise((done, fail) => {
    const length = body && !('Transfer-Encoding' in headers) ? { 'Content-Length': String(body.length) } : {};
    const sent = send({ hostname, port, method, path, headers: { ...headers, ...length }, agent: false }, (response) => {
      const { statusCode: status = 0, headers: got } = response;
      const type = String(got['content-type']);
      // A stream has no end to wait for.
      if (type.startsWith('text/event-stream')) {
        response.destroy();
        return done({ status, type, text: '' });
      }
      let text = '';
      response.on('data', (chunk: Buffer) => (text += String(chunk)));
      response.on('end', () => done({ status, type, text }));
      response.on('error', fail);
    });
    sent.on('error', fail);
    sent.end(body);
  });
}

const json = (value: unknown) => Buffer.from(JSON.stringify(value) ?? '');
/** No more than 4xx, told as problem details, in few words, and nothing of the server's inside. */
function refusedWell({ status, type, text }: Awaited<ReturnType<typeof ask>>, what: unknown): void {
  if (status >= 500) throw new Error(`${status} for ${JSON.stringify(what).slice(0, 600)}: ${text.slice(0, 300)}`);
  if (status < 400) return;
  expect(type).toContain('application/problem+json');
  const { detail } = JSON.parse(text) as { detail: string };
  expect(detail.length).toBeLessThan(1600);
  expect(text).not.toMatch(/node_modules|\.js:\d+|at \w+ \(|validate function|select |insert into/);
}

const oddText = fc.oneof(
  fc.string({ maxLength: 12 }),
  fc.constantFrom(
    '',
    '0',
    '-1',
    '1e9',
    '1'.repeat(400),
    '99999999999',
    'verdance',
    '\u0000',
    'a\u0007b',
    '../..',
    '%',
    '%00',
    '😀',
    '\ud800',
    "'; drop table shard; --",
    '__proto__',
    'null',
  ),
);
const oddHeader = fc.oneof(
  fc.constant({}),
  fc.constantFrom<Record<string, string>>(
    { 'If-Match': '"1"' },
    { 'If-Match': `"${'9'.repeat(400)}"` },
    { 'If-Match': '"99999999999999"' },
    { 'If-Match': '*' },
    { 'Content-Encoding': 'gzip' },
    { 'Content-Encoding': 'br' },
    { 'Content-Encoding': 'zip' },
    { 'Content-Type': 'application/json; charset=utf-7' },
    { 'Content-Type': 'application/json; charset=klingon' },
    { 'Content-Type': 'text/plain' },
    { 'Content-Type': 'application/x-www-form-urlencoded' },
    { 'Content-Type': 'multipart/form-data' },
    { Accept: 'text/event-stream' },
    { Authorization: 'Bearer x' },
    { Cookie: 'insidia-session=x; a' },
    { Range: 'bytes=9-1' },
    { 'Transfer-Encoding': 'chunked' },
    { 'X-Forwarded-For': '\u00ff' },
  ),
);
/** What routes take, more or less. */
const nearly: unknown[] = [
  { encounter: 'first-bell', runs: 2 },
  { duel: { enemy: 'clipper', against: ['warden'] }, runs: 1 },
  { cells: [{ cell: 'duel|clipper|bloom|regular||', runs: 1 }] },
  { cells: [{ cell: 'duel|clipper|bloom|regular||', columns: ['dose'] }] },
  { cell: 'encounter|first-bell|bloom|regular||', from: 0, to: 3, without: ['wave:bell'] },
  [{ op: 'replace', path: '/units/clipper/health/max', value: 9 }],
  [{ op: 'add', path: '/units/-', value: {} }],
  { name: 'first' },
  { ...demo(), id: 'odd' },
];
/** Something of those, with one thing in it set to another. */
const changed = fc
  .tuple(
    fc.constantFrom(...nearly),
    fc.nat(),
    fc.oneof(fc.jsonValue({ maxDepth: 2 }), oddText, fc.constantFrom([], [[]], {}, null, 1e308, -1)),
  )
  .map(([base, place, value]) => {
    const made = structuredClone(base) as object;
    const places: [any, string][] = [];
    const walk = (at: any) => {
      for (const key of Object.keys(at)) {
        places.push([at, key]);
        if (typeof at[key] === 'object' && at[key] !== null && places.length < 4000) walk(at[key]);
      }
    };
    walk(made);
    const [parent, key] = places[place % places.length];
    parent[key] = value;
    return json(made);
  });
const oddBody = fc.oneof(
  { weight: 5, arbitrary: changed },
  { weight: 2, arbitrary: fc.jsonValue({ maxDepth: 3 }).map(json) },
  { weight: 1, arbitrary: fc.uint8Array({ maxLength: 30 }).map((bytes) => Buffer.from(bytes)) },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      undefined,
      Buffer.from('{"a":'),
      Buffer.from('[[['),
      gzipSync('{}'),
      gzipSync('{}').subarray(0, 9),
      json({ cells: [[]] }),
      json([[]]),
    ),
  },
);

describe('no request is answered by a fault of the server’s own', () => {
  test('of every route that is described, whatever it is asked', async () => {
    const { paths } = (await (await fetch(`${server.address}/api/openapi.json`)).json()) as {
      paths: Record<string, Record<string, unknown>>;
    };
    const routes = Object.entries(paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => ({ path, method: method.toUpperCase() })),
    );
    expect(routes.length).toBeGreaterThan(20);
    const odd = fc.record({
      route: fc.constantFrom(...routes),
      parts: fc.array(
        fc.oneof(
          { weight: 3, arbitrary: fc.constant('verdance') },
          { weight: 2, arbitrary: oddText },
          { weight: 1, arbitrary: fc.constantFrom('1', '2') },
        ),
        { minLength: 4, maxLength: 4 },
      ),
      raw: fc.boolean(),
      query: fc.array(
        fc.tuple(
          fc.oneof(fc.constantFrom('label', 'cell', 'column', 'of', 'before', 'limit', 'measure', 'players', 'skill', 'style'), oddText),
          oddText,
        ),
        { maxLength: 3 },
      ),
      header: oddHeader,
      type: fc.constantFrom('application/json', 'application/json', 'application/json-patch+json'),
      body: oddBody,
    });
    const seen = new Map<number, number>();
    await fc.assert(
      fc.asyncProperty(odd, async ({ route, parts, raw, query, header, type, body }) => {
        let part = 0;
        const written = (text: string) => (raw ? text.replace(/[^\w%.~-]/g, '') : encodeURIComponent(text.replace(/\p{Surrogate}/gu, '?')));
        const path = route.path.replace(/\{\w+\}/g, () => written(parts[part++]) || 'x');
        const asked = query.map(([name, value]) => `${written(name)}=${written(value)}`).join('&');
        const mayHaveBody = !['GET', 'HEAD'].includes(route.method);
        const headers: Record<string, string> = {
          ...(mayHaveBody && { 'Content-Type': type }),
          ...(route.method !== 'POST' && mayHaveBody && { 'If-Match': '"1"' }),
          ...header,
        };
        const request: Odd = {
          method: route.method,
          path: asked ? `${path}?${asked}` : path,
          headers,
          body: mayHaveBody ? body : undefined,
        };
        const answer = await ask(request);
        seen.set(answer.status, (seen.get(answer.status) ?? 0) + 1);
        refusedWell(answer, { ...request, body: request.body?.toString().slice(0, 300) });
      }),
      { numRuns: CASES, seed: SEED, endOnFailure: true },
    );
    expect([...seen.keys()].sort()).toEqual(expect.arrayContaining([200, 400, 404]));
  });

  test.each<[string, () => Buffer]>([
    ['6 MB of nesting', () => Buffer.from('['.repeat(6e6))],
    ['20,000 nested brackets', () => Buffer.from('['.repeat(2e4) + ']'.repeat(2e4))],
    ['300,000 unknown keys', () => json({ ...demo(), ...Object.fromEntries(Array.from({ length: 3e5 }, (_, i) => [`k${i}`, i])) })],
    ['1,900 unknown keys', () => json({ ...demo(), ...Object.fromEntries(Array.from({ length: 1900 }, (_, i) => [`k${i}`, i])) })],
    ['100,000 empty cells', () => json({ cells: Array.from({ length: 1e5 }, () => ({})) })],
    ['19,000 empty cells', () => json({ cells: Array.from({ length: 19_000 }, () => ({})) })],
    ['19,000 empty units', () => json({ ...demo(), units: Array.from({ length: 19_000 }, () => ({})) })],
    ['a name of 5 MB', () => json({ ...demo(), name: 'x'.repeat(5e6) })],
    ['a NUL in a name', () => json({ ...demo(), id: 'nul', name: 'a\u0000b' })],
  ])('%s: refused, in few words, while others are answered', async (_, make) => {
    const body = make();
    for (const path of ['/api/projects', '/api/projects/verdance/batches', '/api/projects/verdance/cells/read']) {
      const refused = ask({ method: 'POST', path, headers: { 'Content-Type': 'application/json' }, body });
      expect((await ask({ method: 'GET', path: '/api/health', headers: {} })).status).toBe(200);
      const answer = await refused;
      expect([path, answer.status >= 400 && answer.status < 500, answer.text.length < 60_000]).toEqual([path, true, true]);
      refusedWell(answer, path);
    }
  });
});
