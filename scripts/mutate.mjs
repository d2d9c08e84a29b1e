/**
 * npm run mutate: are the core's tests able to fail? Small faults are put into a scratch copy one after the other, and what
 * `npm test` asks of the core is asked of it: for a fault of the fight first whether every kept digest is the same, then the
 * core's tests, those first that import it and are soon done. A fault that none of them sees survives, and is named.
 *
 *   npm run mutate -- --count 200 --seed 1 --in engine,measures,analysis,model
 *
 * A long run that was ended is gone on with by --from NUMBER: the same seed draws the same faults. --only 5,26 asks those alone.
 * --times FILE keeps how long each test took, and need not find it out again. --within 10 asks only tests that take at most ten
 * seconds: what survives them is asked of all of them by --only.
 */
import { spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { parseArgs } from 'node:util';
import ts from 'typescript';
import { ROOT } from './system.mjs';

const { values } = parseArgs({
  options: {
    count: { type: 'string', default: '200' },
    seed: { type: 'string', default: '1' },
    from: { type: 'string', default: '1' },
    only: { type: 'string' },
    times: { type: 'string' },
    within: { type: 'string' },
    in: { type: 'string', default: 'engine,measures,analysis,model,record' },
  },
});
const SOURCES = 'packages/core/src';
/** A test that a fault keeps from ending has seen it: so many times as long as without, and not less than a minute. */
const PATIENCE = 8;
const LEAST_PATIENCE_MS = 60_000;

const OTHER = {
  '<': '<=',
  '<=': '<',
  '>': '>=',
  '>=': '>',
  '+': '-',
  '-': '+',
  '*': '/',
  '/': '*',
  '&&': '||',
  '||': '&&',
  '===': '!==',
  '!==': '===',
};

/** Every place of a file where a fault can be put: from, to, and what stands there instead. */
function faultsOf(path) {
  const text = readFileSync(join(ROOT, path), 'utf8');
  const file = ts.createSourceFile(path, text, ts.ScriptTarget.ES2022, true);
  const faults = [];
  const add = (node, by, from = node.getStart(file), to = node.end) =>
    faults.push({ path, from, to, by, was: text.slice(from, to), line: file.getLineAndCharacterOfPosition(from).line + 1 });
  const visit = (node) => {
    // Words, limits and types are no behaviour that a test could see.
    if (ts.isTypeNode(node) || ts.isDecorator(node) || ts.isImportDeclaration(node) || ts.isEnumDeclaration(node)) return;
    if (ts.isBinaryExpression(node)) {
      const { operatorToken } = node;
      const other = OTHER[operatorToken.getText(file)];
      if (other) add(operatorToken, other);
    } else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken) add(node, node.operand.getText(file));
    else if (ts.isNumericLiteral(node) && !ts.isPropertyAssignment(node.parent)) add(node, String(Number(node.text) + 1));
    else if (node.kind === ts.SyntaxKind.TrueKeyword) add(node, 'false');
    else if (node.kind === ts.SyntaxKind.FalseKeyword) add(node, 'true');
    else if (ts.isConditionalExpression(node)) {
      const [yes, no] = [node.whenTrue.getText(file), node.whenFalse.getText(file)];
      add(node, `${no} : ${yes}`, node.whenTrue.getStart(file));
    } else if (ts.isExpressionStatement(node) && ts.isCallExpression(node.expression)) add(node, ';');
    ts.forEachChild(node, visit);
  };
  visit(file);
  return faults;
}

function tree(folder) {
  return readdirSync(join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return tree(path);
    return path.endsWith('.ts') ? [path] : [];
  });
}

const sources = (folder) => tree(folder).filter((path) => !path.endsWith('.test.ts'));

/** Draws the same for the same seed: a 32-bit generator is enough to choose with. */
function drawn(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const all = values.in
  .split(',')
  .flatMap((folder) => sources(join(SOURCES, folder)))
  .flatMap(faultsOf);
const chance = drawn(Number(values.seed));
const chosen = [];
while (chosen.length < Math.min(Number(values.count), all.length)) {
  const [fault] = all.splice(Math.floor(chance() * all.length), 1);
  chosen.push(fault);
}

const home = mkdtempSync(join(tmpdir(), 'insidia-mutants-'));
for (const part of [
  SOURCES,
  'packages/core/package.json',
  'packages/core/tsconfig.json',
  'scripts',
  'demo',
  'docs',
  'golden',
  'apps/web/src',
  'package.json',
  '.prettierrc.json',
  'package-lock.json',
  'jest.config.mjs',
  'tsconfig.base.json',
]) {
  mkdirSync(dirname(join(home, part)), { recursive: true });
  cpSync(join(ROOT, part), join(home, part), { recursive: true });
}
// Jest looks for the folders of all projects.
for (const folder of ['apps/cli/src', 'apps/server/src', 'e2e']) mkdirSync(join(home, folder), { recursive: true });
symlinkSync(join(ROOT, 'node_modules'), join(home, 'node_modules'));
// Older than what is installed: nothing is to be installed anew.
utimesSync(join(home, 'package-lock.json'), 0, 0);

/** What orders the tests of the copy: a number by path, the least first. */
const times = join(home, 'times.json');
writeFileSync(times, '{}');

/** How long each test took, ms by path. */
let timesKnown = {};

/** How long each check took before faults were put in, ms. */
const took = new Map();

/** Runs Node in the copy, as long as patience lasts. What is asked for the first time has an hour. */
function node(what, args, env = process.env) {
  const before = took.get(what);
  const begun = performance.now();
  const { status } = spawnSync(process.execPath, args, {
    cwd: home,
    stdio: 'ignore',
    timeout: Math.round(before === undefined ? 3_600_000 : Math.max(LEAST_PATIENCE_MS, PATIENCE * before)),
    env,
  });
  if (before === undefined) took.set(what, performance.now() - begun);
  return status === 0;
}

/** Whether these tests of the copy pass. */
function passes(patterns, more = []) {
  return node(
    'tests',
    [
      join(home, 'node_modules/jest/bin/jest.js'),
      '--selectProjects',
      'core',
      '--bail',
      '--silent',
      '--testSequencer',
      join(home, 'scripts/jest/in-order.cjs'),
      ...more,
      ...(patterns.length ? ['--testPathPatterns', ...patterns] : []),
    ],
    { ...process.env, INSIDIA_CASES: '60', INSIDIA_TIMES: times },
  );
}

/** All of them, timed. @throws Error where they do not pass as they are */
function timeAll() {
  if (!sameReference()) throw new Error('the reference of the format must be fresh before faults are put in: it is not');
  if (!sameFights()) throw new Error('the kept fights must be the same before faults are put in: they are not');
  if (values.times && existsSync(values.times)) {
    timesKnown = JSON.parse(readFileSync(values.times, 'utf8'));
    return took.set(
      'tests',
      Object.values(timesKnown).reduce((sum, ms) => sum + ms, 0),
    );
  }
  const results = join(home, 'results.json');
  if (!passes([], ['--json', '--outputFile', results])) throw new Error('the tests must pass before faults are put in: they do not');
  const { testResults } = JSON.parse(readFileSync(results, 'utf8'));
  timesKnown = Object.fromEntries(testResults.map((one) => [relative(home, one.name), one.endTime - one.startTime]));
  if (values.times) writeFileSync(values.times, JSON.stringify(timesKnown));
}

/** Patterns of the tests that are asked: all, or those that are soon done. */
function everything() {
  if (!values.within) return [];
  const soon = Object.entries(timesKnown).filter(([, ms]) => ms <= 1000 * Number(values.within));
  return soon.map(([path]) => `${path}$`);
}

/** Which files of the core each imports, tests among them. */
const imports = new Map(
  tree(SOURCES).map((path) => [
    path,
    ts
      .preProcessFile(readFileSync(join(ROOT, path), 'utf8'))
      .importedFiles.filter(({ fileName }) => fileName.startsWith('.'))
      .map(({ fileName }) => join(dirname(path), fileName))
      .flatMap((to) => [`${to}.ts`, join(to, 'index.ts')].filter((one) => existsSync(join(ROOT, one)))),
  ]),
);

/** How many imports away from each test a file is. */
function stepsFrom(path) {
  const steps = new Map([[path, 0]]);
  for (let near = [path], k = 1; near.length; k++) {
    near = [...imports].filter(([one, to]) => !steps.has(one) && to.some((other) => near.includes(other))).map(([one]) => one);
    for (const one of near) steps.set(one, k);
  }
  return steps;
}

/** Tells the copy's tests in which order they are asked: those soon that are near the fault and soon done. */
function order(path) {
  const steps = stepsFrom(path);
  const waits = Object.entries(timesKnown).map(([test, ms]) => [test, ms * 4 ** (steps.get(test) ?? 10)]);
  writeFileSync(times, JSON.stringify(Object.fromEntries(waits)));
}

function holds(script, how) {
  return node(script, [join(home, 'scripts', script), how]);
}

/** Whether every fight that is kept is the same as ever. */
const sameFights = () => holds('golden.mjs', '--first');

/** Whether the reference of the format says what the classes say: their limits, defaults and words. */
const sameReference = () => holds('reference.mjs', '--check');

const only = values.only?.split(',').map(Number);
const byDigests = { seen: 0 };
let killed = 0;
const survivors = [];
try {
  timeAll();
  const asked = everything();
  for (const [i, fault] of chosen.entries()) {
    if (only ? !only.includes(i + 1) : i + 1 < Number(values.from)) continue;
    const path = join(home, fault.path);
    const text = readFileSync(path, 'utf8');
    writeFileSync(path, text.slice(0, fault.from) + fault.by + text.slice(fault.to));
    order(fault.path);
    const fight = relative(SOURCES, fault.path).startsWith('engine');
    const digests = fight && !sameFights();
    const reference = relative(SOURCES, fault.path).startsWith('model') && !sameReference();
    const seen = digests || reference || !passes(asked);
    writeFileSync(path, text);
    if (digests) byDigests.seen++;
    if (seen) killed++;
    else survivors.push(fault);
    const short = (code) => code.replaceAll(/\s+/g, ' ').slice(0, 60);
    console.log(
      `${i + 1} of ${chosen.length}: ${digests ? 'seen by digests' : seen ? 'seen' : 'SURVIVES'} ${relative(SOURCES, fault.path)}:${fault.line} ${short(fault.was)} → ${short(fault.by)}`,
    );
  }
} finally {
  rmSync(home, { recursive: true, force: true });
}
const tried = killed + survivors.length;
console.log(`${killed} of ${tried} faults are seen: ${((100 * killed) / tried).toFixed(1)} %; ${byDigests.seen} of them by digests first`);
