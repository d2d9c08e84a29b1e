/**
 * npm run golden: the digests of fights that must not change by accident, in golden/*.json. `-- --check` compares and prints
 * each difference, and is part of npm test; `-- --first` ends at the first; without either they are written anew, and the commit
 * that does so says why.
 *
 * What is covered: encounters × tiers × skills, a duel of every enemy, styles, party sizes; and 500 generated documents with
 * several seeds each, in seconds and in turns, told apart by a hash of the document, so that a new generator is not taken for a new fight.
 */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { ROOT, installModules, withSentences } from './system.mjs';

const FOLDER = join(ROOT, 'golden');
/** Of the generator; not that of the property tests, which may be drawn anew. */
const GENERATED = { documents: 500, seed: 20261127, seeds: 3 };
const RUNS = 2;

await withSentences(async () => {
  installModules();
  const require = createRequire(import.meta.url);
  require('./jest/sources.cjs');
  const core = require('../packages/core/src/index.ts');
  const fights = { demo: demoDigests(core), generated: generatedDigests(require, core), turns: turnDigests(require, core) };
  if (process.argv.includes('--first')) return untilFirst(fights);
  const found = Object.fromEntries(Object.entries(fights).map(([name, digests]) => [name, Object.fromEntries(digests)]));
  if (process.argv.includes('--check')) return check(found);
  mkdirSync(FOLDER, { recursive: true });
  for (const [name, digests] of Object.entries(found)) writeFileSync(fileOf(name), written(digests));
  console.log(`${Object.values(found).reduce((sum, digests) => sum + Object.keys(digests).length, 0)} fights written`);
});

function fileOf(name) {
  return join(FOLDER, `${name}.json`);
}

/** A line a fight. */
function written(digests) {
  const lines = Object.entries(digests).map(([name, digest]) => `  ${JSON.stringify(name)}: ${JSON.stringify(digest)}`);
  return `{\n${lines.join(',\n')}\n}\n`;
}

/** By what it is: the digest of its first runs. */
function* demoDigests({ compile, duelOptions, parseProject, runBatch, unitHeads }) {
  const demo = parseProject(JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8')));
  const digest = (name, options) => [name, runBatch(compile(demo, options), 1, RUNS).digest];
  const ids = (list) => list.map(({ id }) => id);
  for (const encounter of ids(demo.encounters)) {
    for (const tier of ids(demo.tiers))
      for (const skill of ids(demo.skills)) yield digest(`${encounter}, ${tier}, ${skill}`, { encounter, tier, skill });
    for (const style of ids(demo.styles))
      yield digest(`${encounter}, bloom, regular, ${style}`, { encounter, tier: 'bloom', skill: 'regular', style });
    for (const players of [1, 2, 3, 4])
      yield digest(`${encounter}, bloom, regular, ${players} players`, { encounter, tier: 'bloom', skill: 'regular', players });
  }
  const members = ids(demo.units.filter(({ side }) => side === 'party'));
  for (const { id: enemy, side } of unitHeads(demo)) {
    if (side !== 'enemy') continue;
    for (const against of members) {
      const lens = { tier: 'bloom', skill: 'regular' };
      yield digest(`duel of ${enemy} and ${against}`, { ...lens, ...duelOptions(demo, lens, { enemy, against }) });
    }
  }
}

/** Of fights that go on by themselves. */
function generatedDigests(require, core) {
  const { arbitraryWildFight } = require('../packages/core/src/testing/arbitrary-wild.ts');
  const { compiledTrusted, sketched } = require('../packages/core/src/testing/builders.ts');
  return digestsOf(require, core, arbitraryWildFight, compiledTrusted, sketched);
}

/** Of fights that take turns. */
function turnDigests(require, core) {
  const { arbitraryRounds } = require('../packages/core/src/testing/arbitrary-rounds.ts');
  const { sketched } = require('../packages/core/src/testing/builders.ts');
  const { turnTablesTrusted } = require('../packages/core/src/testing/rounds.ts');
  return digestsOf(require, core, arbitraryRounds, turnTablesTrusted, sketched);
}

/** By number: the document's hash, and a digest a seed. */
function* digestsOf(require, { run }, arbitrary, compiledOf, sketched) {
  const fc = require('fast-check');
  const sketches = fc.sample(arbitrary, { numRuns: GENERATED.documents, seed: GENERATED.seed });
  for (const [i, sketch] of sketches.entries()) {
    const compiled = compiledOf(sketch);
    const document = createHash('sha256')
      .update(JSON.stringify(sketched(sketch)))
      .digest('hex')
      .slice(0, 16);
    yield [`fight ${i + 1}`, [document, ...Array.from({ length: GENERATED.seeds }, (_, n) => run(compiled, n + 1).digest)]];
  }
}

function keptIn(name) {
  return existsSync(fileOf(name)) ? JSON.parse(readFileSync(fileOf(name), 'utf8')) : {};
}

/** A fight of each kind in turns, until one differs. */
function untilFirst(fights) {
  const going = Object.entries(fights).map(([name, digests]) => ({ kept: keptIn(name), digests }));
  while (going.length) {
    for (const one of [...going]) {
      const { value, done } = one.digests.next();
      if (done) going.splice(going.indexOf(one), 1);
      else if (JSON.stringify(one.kept[value[0]]) !== JSON.stringify(value[1])) {
        console.log(`${value[0]} differs`);
        process.exitCode = 1;
        return;
      }
    }
  }
}

function check(found) {
  const differences = [];
  for (const [name, digests] of Object.entries(found)) {
    const kept = keptIn(name);
    for (const fight of new Set([...Object.keys(kept), ...Object.keys(digests)])) {
      const [before, after] = [kept[fight], digests[fight]];
      if (JSON.stringify(before) === JSON.stringify(after)) continue;
      if (before === undefined) differences.push(`${fight}: is not among the kept`);
      else if (after === undefined) differences.push(`${fight}: is no more`);
      else if (Array.isArray(before) && before[0] !== after[0]) differences.push(`${fight}: the generator made another document`);
      else differences.push(`${fight}: ${[before].flat().join(' ')} has become ${[after].flat().join(' ')}`);
    }
  }
  for (const difference of differences) console.log(difference);
  console.log(
    differences.length
      ? `${differences.length} fights differ; npm run golden keeps them as they are now`
      : 'every fight is the same as ever',
  );
  process.exitCode = differences.length ? 1 : 0;
}
