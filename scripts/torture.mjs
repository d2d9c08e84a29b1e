/**
 * npm run torture: what a studio's server may meet, at any length. Kills of the whole server while people save, of the database
 * alone, and of the server in the middle of a batch; documents with something wrong in them; odd requests. Seeded: the same
 * seed kills after the same number of saves. Ends with an error at the first thing that was promised and not kept.
 *
 *   npm run torture -- --server 40 --database 10 --batch 10 --documents 20000 --requests 5000 --seed 1
 */
import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as delay } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import { killInstance, startInstance } from './instance.mjs';
import { ROOT, Sentence, withSentences } from './system.mjs';

const DEFAULTS = { server: '4', database: '1', batch: '1', documents: '500', requests: '300', seed: '20261127' };
const CLIENTS = 4;
/** ms before somebody who was not answered tries again. */
const RETRY_MS = 20;
/** Times that one start command brings its database back. */
const RETURNS = 3;

const { values } = parseArgs({ options: Object.fromEntries(Object.keys(DEFAULTS).map((name) => [name, { type: 'string' }])) });
const wanted = Object.fromEntries(Object.entries(DEFAULTS).map(([name, usual]) => [name, Number(values[name] ?? usual)]));

/** Numbers from 0 to 1, the same for the same seed (splitmix32). */
function drawing(seed) {
  let state = seed | 0;
  return () => {
    state = (state + 0x9e3779b9) | 0;
    let mixed = state ^ (state >>> 16);
    mixed = Math.imul(mixed, 0x21f0aaad);
    mixed ^= mixed >>> 15;
    mixed = Math.imul(mixed, 0x735a2d97);
    return ((mixed ^ (mixed >>> 15)) >>> 0) / 2 ** 32;
  };
}

const draw = drawing(wanted.seed);
const among = (list) => list[Math.floor(draw() * list.length)];
const demo = () => JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8'));
const json = { 'Content-Type': 'application/json', Connection: 'close' };
const ODD = [0, -1, 1e9, 1e308, 0.5, null, true, '', 'x', '\u0000', '__proto__', 'a'.repeat(5000), [], {}, [[]], [{}], { id: 'x' }];
let instance;

await withSentences(async () => {
  for (const [name, number] of Object.entries(wanted))
    if (!Number.isInteger(number) || number < 0) throw new Sentence(`--${name} must be a whole number: it is ${values[name]}`);
  instance = await startInstance();
  try {
    const told = { ...(await saves()), ...(await batches()), ...documents(), ...(await requests()) };
    console.log(JSON.stringify(told));
  } finally {
    await instance.stop();
  }
});

/** An answer, or undefined where there was none: then nothing is known of what was sent. */
async function call(method, path, body, headers = {}) {
  try {
    const response = await fetch(`${instance.address}/api/${path}`, {
      method,
      headers: { ...json, ...headers },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
    const text = await response.text();
    return {
      status: response.status,
      etag: response.headers.get('etag'),
      body: text && response.headers.get('content-type')?.includes('json') ? JSON.parse(text) : undefined,
    };
  } catch {
    return undefined;
  }
}

async function again() {
  const { home, port } = instance;
  // Somebody else may have taken the port meanwhile.
  instance = await startInstance({ home, port }).catch(() => startInstance({ home }));
}

/** People save without pause; the server and its database are killed; whatever was acknowledged is there, and nothing else. */
async function saves() {
  const acknowledged = new Map();
  let value = 100;
  let over = false;
  let unknown = 0;
  const refused = {};
  const client = async () => {
    let revision = 1;
    while (!over) {
      const own = ++value;
      const answer = await call('PATCH', 'projects/verdance', [{ op: 'replace', path: '/units/clipper/health/max', value: own }], {
        'If-Match': `"${revision}"`,
      });
      if (answer?.status === 200) {
        revision = Number(answer.etag.slice(1, -1));
        if (acknowledged.has(revision)) throw new Sentence(`revision ${revision} was acknowledged twice`);
        acknowledged.set(revision, own);
      } else if (answer?.status === 409) revision = answer.body.current.revision;
      else if (answer === undefined || answer.status === 503) {
        unknown++;
        await delay(RETRY_MS);
      } else refused[answer.status] = (refused[answer.status] ?? 0) + 1;
    }
  };
  const clients = Array.from({ length: CLIENTS }, client);
  const kills = [...Array(wanted.server).fill('server'), ...Array(wanted.database).fill('database')].sort(() => draw() - 0.5);
  let returned = 0;
  for (const kill of kills) {
    const enough = acknowledged.size + 1 + Math.floor(draw() * 8);
    while (acknowledged.size < enough) {
      await delay(2);
    }
    if (kill === 'server' || returned === RETURNS) {
      await killInstance(instance);
      await again();
      returned = 0;
    }
    if (kill === 'database') {
      returned++;
      process.kill(Number(readFileSync(join(instance.home, 'postgres/postmaster.pid'), 'utf8').split('\n')[0]), 'SIGKILL');
    }
  }
  const last = acknowledged.size + 2;
  while (acknowledged.size < last) await delay(2);
  over = true;
  await Promise.all(clients);
  const { body } = await call('GET', 'projects/verdance');
  const numbers = [];
  for (let before; ;) {
    const page = (await call('GET', `projects/verdance/revisions${before ? `?before=${before}` : ''}`)).body;
    numbers.push(...page.revisions.map(({ number }) => number));
    if (!page.older) break;
    before = page.older;
  }
  if (numbers.some((number, i) => number !== numbers.length - i)) throw new Sentence(`there are gaps between the revisions: ${numbers}`);
  for (const [revision, own] of acknowledged) {
    const found = (await call('GET', `projects/verdance/revisions/${revision}`)).body?.units.find(({ id }) => id === 'clipper').health.max;
    if (found !== own) throw new Sentence(`revision ${revision} was acknowledged with ${own} and has ${found}`);
  }
  if (Object.keys(refused).length) throw new Sentence(`saves were answered with ${JSON.stringify(refused)}`);
  if (!body) throw new Sentence('the project is gone');
  return {
    serverKills: wanted.server,
    databaseKills: wanted.database,
    acknowledged: acknowledged.size,
    unknown,
    revisions: numbers.length,
    lost: 0,
  };
}

/** A batch whose server is killed once some of it is done ends as one that nobody disturbed. */
async function batches() {
  const core = createRequire(import.meta.url)('../packages/core/dist/index.js');
  const cell = { kind: 'encounter', id: 'first-bell', tier: 'bloom', skill: 'regular' };
  const runs = 500;
  for (let kill = 0; kill < wanted.batch; kill++) {
    const document = demo();
    document.id = `batch-${kill}`;
    document.units[1].health.max = 20 + kill / 64;
    await call('POST', 'projects', document);
    const path = `projects/${document.id}`;
    await call('POST', `${path}/batches`, { cells: [{ cell: core.scenarioKey(cell), runs }] });
    const enough = 50 * (1 + Math.floor(draw() * 4));
    const done = async () =>
      (await call('POST', `${path}/cells/read`, { cells: [{ cell: core.scenarioKey(cell), columns: ['dose'] }] })).body[0];
    while ((await done()).runs < enough);
    await killInstance(instance);
    await again();
    while ((await call('GET', `${path}/batches`)).body.length);
    const found = (await done()).values.dose;
    const compiled = core.compileScenario(core.parseProject(document), cell);
    const batch = new core.Batch(compiled, 1, runs);
    batch.advance(runs);
    const own = Array.from(core.sampleOf(compiled, batch.rows).columns.dose, (one) => (one === one ? one : null));
    if (JSON.stringify(found) !== JSON.stringify(own)) throw new Sentence(`the batch of ${document.id} is another than undisturbed`);
  }
  return { batchKills: wanted.batch };
}

/** Documents with something in them set to something else are refused with what is wrong, or are valid; nothing in between. */
function documents() {
  const core = createRequire(import.meta.url)('../packages/core/dist/index.js');
  const text = JSON.stringify(demo());
  let taken = 0;
  for (let i = 0; i < wanted.documents; i++) {
    const document = JSON.parse(text);
    for (let n = 1 + Math.floor(draw() * 3); n > 0; n--) {
      let at = document;
      for (let depth = Math.floor(draw() * 8); depth > 0; depth--) {
        const next = at[among(Object.keys(at))];
        if (typeof next !== 'object' || next === null || !Object.keys(next).length) break;
        at = next;
      }
      const key = among(Object.keys(at));
      if (key !== undefined) at[key] = draw() < 0.3 && typeof at[key] === 'number' ? at[key] * (draw() * 3) : structuredClone(among(ODD));
    }
    let project;
    try {
      project = core.parseProject(document);
    } catch (error) {
      if (!(error instanceof core.InvalidDocument) || !error.problems.length) throw error;
      continue;
    }
    taken++;
    if (JSON.stringify(core.parseProject(project)) !== JSON.stringify(project))
      throw new Sentence('a document that was read reads otherwise');
    const [encounter] = project.encounters;
    if (encounter && taken % 20 === 0) core.runBatch(core.compile(project, { encounter: encounter.id }), 1, 1);
  }
  return { documents: wanted.documents, valid: taken };
}

/** Whatever is asked is answered, and never by a fault of the server's own. */
async function requests() {
  const { paths } = (await call('GET', 'openapi.json')).body;
  const routes = Object.entries(paths).flatMap(([path, methods]) => Object.keys(methods).map((method) => [method.toUpperCase(), path]));
  const bodies = [
    {},
    [],
    { cells: [[]] },
    { cells: [{ cell: 'duel|clipper|bloom|regular||', runs: 1 }] },
    { encounter: 'first-bell', runs: 1 },
    ...ODD,
  ];
  const counts = {};
  for (let i = 0; i < wanted.requests; i++) {
    const [method, path] = among(routes);
    if (path.endsWith('events')) continue;
    const filled = path.replace(/\{\w+\}/g, () => encodeURIComponent(among(['verdance', '1', 'x', '9'.repeat(40), '\u0000', '%', '..'])));
    const answer = await call(
      method,
      `${filled.slice(5)}?label=${encodeURIComponent(among(['', 'a', '\u0007']))}`,
      ['GET', 'HEAD'].includes(method) ? undefined : among(bodies),
      {
        'If-Match': among(['"1"', '"9"', 'x', `"${'9'.repeat(300)}"`]),
      },
    );
    if (!answer) throw new Sentence(`${method} ${filled} was not answered`);
    if (answer.status >= 500) throw new Sentence(`${method} ${filled} was answered with ${answer.status}`);
    counts[answer.status] = (counts[answer.status] ?? 0) + 1;
  }
  return { requests: wanted.requests, answers: counts };
}
