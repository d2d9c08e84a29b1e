import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { request as send } from 'node:http';
import { join } from 'node:path';
import { type TestServer, freePort, newDatabase, startServer } from '../testing';
import { TRIES } from './access';

interface Answer {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  text: string;
  body: any;
}

/** A request with any headers at all: fetch sets Host and Origin by itself. */
function ask(server: TestServer, method: string, path: string, headers: Record<string, string> = {}, body?: string): Promise<Answer> {
  const { hostname, port } = new URL(server.address);
  return new Promise((done, fail) => {
    const sent = send({ hostname, port, method, path, headers, setHost: !('Host' in headers) }, (response) => {
      let text = '';
      response.on('data', (chunk: Buffer) => (text += String(chunk)));
      response.on('end', () => {
        let parsed: unknown;
        try {
          parsed = JSON.parse(text);
        } catch {
          parsed = undefined;
        }
        done({ status: response.statusCode!, headers: response.headers, text, body: parsed });
      });
    });
    sent.on('error', fail);
    sent.end(body);
  });
}

const PATCH = [{ op: 'replace', path: '/units/clipper/name', value: 'Snipper' }];

describe('only its own page', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startServer(await newDatabase(), await freePort(), { INSIDIA_HOSTS: 'insidia.station.example, greenhouse:8080' });
  });
  afterAll(() => server?.stop());
  const own = () => new URL(server.address).host;

  test.each([
    'evil.example',
    'evil.example:4600',
    '127.0.0.1.evil.example',
    'localhost.evil.example',
    '10.1.2.3',
    '',
    'a b',
    '[::2]:4600',
    'localhost@evil.example',
  ])('a request to “%s” is refused, whatever it asks', async (host) => {
    for (const [method, path] of [
      ['GET', '/api/projects/verdance'],
      ['GET', '/'],
      ['PATCH', '/api/projects/verdance'],
      ['GET', '/api/health'],
    ]) {
      const { status } = await ask(server, method, path, { Host: host, 'If-Match': '"1"', 'Content-Type': 'application/json' });
      expect([421, 400]).toContain(status);
    }
  });

  test.each(['127.0.0.1', 'localhost', 'LOCALHOST:1', '[::1]:4600', 'insidia.station.example', 'Greenhouse'])(
    'one to “%s” is answered',
    async (host) => {
      expect((await ask(server, 'GET', '/api/health', { Host: host })).status).toBe(200);
    },
  );

  test('a change that another page wants is refused; its own page’s and a program’s are made', async () => {
    const change = (headers: Record<string, string>, revision: number) =>
      ask(
        server,
        'PATCH',
        '/api/projects/verdance',
        { 'Content-Type': 'application/json', 'If-Match': `"${revision}"`, ...headers },
        JSON.stringify(PATCH),
      );
    for (const headers of [
      { Origin: 'http://evil.example' },
      { Origin: 'null' },
      { Origin: `http://${own()}.evil.example` },
      { Origin: 'http://127.0.0.1:1' },
      { 'Sec-Fetch-Site': 'cross-site' },
      { 'Sec-Fetch-Site': 'same-site' },
    ] as Record<string, string>[])
      expect([headers, (await change(headers, 1)).status]).toEqual([headers, 403]);
    expect((await ask(server, 'GET', '/api/projects/verdance')).headers.etag).toBe('"1"');
    expect((await change({ Origin: `http://${own()}` }, 1)).status).toBe(200);
    expect((await change({ Host: 'proxied.invalid', Origin: 'http://proxied.invalid' }, 2)).status).toBe(421);
    expect((await change({ Origin: 'https://insidia.station.example' }, 2)).status).toBe(200);
    expect((await change({ Origin: 'http://greenhouse:8080' }, 3)).status).toBe(200);
    expect((await change({}, 4)).status).toBe(200);
    for (const [method, path] of [
      ['POST', '/api/projects'],
      ['DELETE', '/api/projects/verdance'],
      ['POST', '/api/projects/verdance/batches'],
      ['PUT', '/api/projects/verdance'],
    ])
      expect((await ask(server, method, path, { Origin: 'http://evil.example' })).body).toMatchObject({
        status: 403,
        title: 'Not from its own page',
      });
  });

  test('what is said back of a long name is short', async () => {
    const { status, text } = await ask(server, 'GET', '/api/health', { Host: `${'x'.repeat(4000)}.example` });
    expect(status).toBe(421);
    expect(text.length).toBeLessThan(600);
  });
});

describe('a password', () => {
  let server: TestServer;
  let database: string;
  let port: number;
  const begin = async (password: string) => {
    server = await startServer(database, port, { INSIDIA_PASSWORD: password, HOST: '0.0.0.0' });
  };
  beforeAll(async () => {
    [database, port] = [await newDatabase(), await freePort()];
    await begin('leaf mould');
  });
  afterAll(() => server?.stop());
  const form = (fields: Record<string, string>, headers: Record<string, string> = {}) =>
    ask(
      server,
      'POST',
      '/sign-in',
      { 'Content-Type': 'application/x-www-form-urlencoded', ...headers },
      new URLSearchParams(fields).toString(),
    );
  const cookieOf = ({ headers }: Answer) => String((headers['set-cookie'] as string[])[0]);
  const signIn = async (name = 'Ada') => cookieOf(await form({ name, password: 'leaf mould' })).split(';')[0];

  test('without one an address that others can reach is one sentence, and no server', async () => {
    const { status, stderr } = spawnSync(process.execPath, [join(__dirname, '../../dist/main.js')], {
      env: { ...process.env, DATABASE_URL: database, PORT: '0', HOST: '0.0.0.0', INSIDIA_PASSWORD: '' },
      encoding: 'utf8',
    });
    expect([status, stderr.trim()]).toEqual([
      1,
      'insidia: the server could not start: HOST is 0.0.0.0, where others can reach it: set INSIDIA_PASSWORD too, or leave HOST at 127.0.0.1',
    ]);
  });

  test('nothing is told before it is given: pages lead to the sign-in page, everything else is 401', async () => {
    const page = await ask(server, 'GET', '/projects/verdance/board?tier=bloom', { Accept: 'text/html' });
    expect([page.status, page.headers.location]).toEqual([303, '/sign-in?next=%2Fprojects%2Fverdance%2Fboard%3Ftier%3Dbloom']);
    for (const [method, path] of [
      ['GET', '/api/projects'],
      ['GET', '/api/docs'],
      ['GET', '/api/openapi.json'],
      ['GET', '/api/projects/verdance/batches/events'],
      ['POST', '/api/projects'],
      ['GET', '/api/session'],
      ['POST', '/sign-out'],
      ['GET', '/assets/index.js'],
    ]) {
      const { status, headers } = await ask(server, method, path);
      expect([method, path, status, headers['www-authenticate']]).toEqual([method, path, 401, 'Bearer realm="Insidia"']);
    }
    expect((await ask(server, 'GET', '/api/health')).body).toMatchObject({ status: 'ok' });
  });

  test('signed in with a cookie that scripts and other sites don’t get; the history says who', async () => {
    const answer = await form({ name: '  Ada  ', password: 'leaf mould', next: '/projects/verdance/board' });
    expect([answer.status, answer.headers.location]).toEqual([303, '/projects/verdance/board']);
    expect(cookieOf(answer)).toMatch(/^insidia-session=[^;]+; Max-Age=2592000; Path=\/; Expires=[^;]+; HttpOnly; SameSite=Strict$/);
    expect(cookieOf(await form({ name: 'Ada', password: 'leaf mould' }, { 'X-Forwarded-Proto': 'https' }))).toContain('; Secure');
    const cookie = cookieOf(answer).split(';')[0];
    expect((await ask(server, 'GET', '/api/session', { Cookie: cookie })).body.name).toBe('Ada');
    const headers = { Cookie: cookie, 'Content-Type': 'application/json', 'If-Match': '"1"' };
    expect((await ask(server, 'PATCH', '/api/projects/verdance', headers, JSON.stringify(PATCH))).status).toBe(200);
    const { body } = await ask(server, 'GET', '/api/projects/verdance/revisions', { Cookie: cookie });
    expect(body.revisions.map(({ author }: { author?: string }) => author)).toEqual(['Ada', undefined]);
  });

  test('a cookie that is none is nobody’s', async () => {
    for (const cookie of ['insidia-session=j:{}', 'insidia-session=j:[1]', 'insidia-session=%', 'insidia-session', 'insidia-session=a.b'])
      expect((await ask(server, 'GET', '/api/session', { Cookie: cookie })).status).toBe(401);
  });

  test('it leads nowhere else afterwards, and says nothing back unescaped', async () => {
    for (const next of ['https://evil.example', '//evil.example', '/\\evil.example', 'javascript:alert(1)', '/a\r\nSet-Cookie: x'])
      expect((await form({ name: 'Ada', password: 'leaf mould', next })).headers.location).toBe('/');
    const { text } = await ask(server, 'GET', '/sign-in?next=/%22%3E%3Cscript%3E');
    expect(text).toContain('value="/&#34;&#62;&#60;script&#62;"');
  });

  test('a program signs in with JSON and shows a bearer token', async () => {
    const answer = await ask(
      server,
      'POST',
      '/sign-in',
      { 'Content-Type': 'application/json' },
      JSON.stringify({ name: 'nightly', password: 'leaf mould' }),
    );
    expect(answer.status).toBe(200);
    expect((await ask(server, 'GET', '/api/session', { Authorization: `Bearer ${answer.body.token}` })).body.name).toBe('nightly');
    expect((await ask(server, 'GET', '/api/session', { Authorization: `Bearer ${answer.body.token}x` })).status).toBe(401);
  });

  test('signing out ends that session alone, its event stream too, and a restart does not bring it back', async () => {
    const [one, two] = [await signIn('Ada'), await signIn('Bo')];
    const stream = await fetch(`${server.address}/api/projects/verdance/batches/events`, {
      headers: { Cookie: one, Accept: 'text/event-stream' },
    });
    expect(stream.status).toBe(200);
    expect((await ask(server, 'POST', '/sign-out', { Cookie: one })).headers.location).toBe('/sign-in');
    await stream.text(); // comes to its end
    const status = async (cookie: string) => (await ask(server, 'GET', '/api/session', { Cookie: cookie })).status;
    expect([await status(one), await status(two)]).toEqual([401, 200]);
    await server.stop();
    await begin('leaf mould');
    expect([await status(one), await status(two)]).toEqual([401, 200]);
    await server.stop();
    await begin('compost');
    expect(await status(two)).toBe(401);
    await server.stop();
    await begin('leaf mould');
  });

  test(`after ${TRIES} wrong passwords the right one is not heard either, for a while`, async () => {
    for (let i = 0; i < TRIES; i++) {
      const { status, text } = await form({ name: 'Eve', password: `guess ${i}` });
      expect([status, text.includes('that is not the password')]).toEqual([401, true]);
    }
    const late = await form({ name: 'Eve', password: 'leaf mould' });
    expect([late.status, late.text.includes('wait a minute'), late.headers['retry-after'] !== undefined]).toEqual([429, true, true]);
  });

  test('names that can’t be one are refused by the rule', async () => {
    await server.stop();
    await begin('leaf mould');
    for (const name of ['', '   ', 'x'.repeat(61), 'a\u0000b']) expect((await form({ name, password: 'leaf mould' })).status).toBe(400);
  });
});
