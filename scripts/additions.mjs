/**
 * npm run additions: is adding to the vocabulary still as little as CONTRIBUTING.md says? Made-up additions are made by its
 * recipes to a scratch copy of the core: what was forgotten must not compile; then the copy is built and what was added must
 * be found by everyone who reads the lists. Counts the files that each addition touches.
 */
import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from './system.mjs';

/** A new file, or text put after (or in the place of) what stands there. */
const create = (file, text) => ({ file, make: () => text });
const after = (file, found, text) => ({ file, make: (old) => replaced(file, old, found, found + text) });
const instead = (file, found, text) => ({ file, make: (old) => replaced(file, old, found, text) });

function replaced(file, old, found, by) {
  if (!old.includes(found)) throw new Error(`${file} has no longer "${found}": mend the recipe, and CONTRIBUTING.md with it`);
  return old.replace(found, () => by);
}

/** By addition: how many files it may touch, the first part of its edits (which alone must not compile), and the rest. */
const ADDITIONS = {
  'an effect': {
    most: 3,
    first: [
      create(
        'model/effects/weary.ts',
        `import { About, Quantity } from '../field';
import { brief, effect } from './parts';

@About('Loses energy and pace together.')
export class Weary {
  @Quantity({ label: 'Wearies', unit: '', min: 0, max: 100, about: 'energy taken away' }) amount = 1;
}

export const weary = effect({
  type: Weary,
  label: 'Weary',
  turn: 8,
  compile: ({ amount }: Weary) => (amount > 0 ? { amount } : null),
  strike: (struck, { amount }) => {
    struck.tell('wearied', struck.loseEnergy(amount));
    struck.lasts('slow', 0.5, 1_000_000);
  },
  event: { name: 'wearied', values: ['amount'], told: ({ otherName, values }) => \`\${otherName} wearies by \${brief(values.amount)}\` },
  sentence: ({ amount }) => \`wearies by \${amount}\`,
  typical: { amount: [0, 5] },
});
`,
      ),
    ],
    rest: [
      after('record/log.ts', '  capped: 36,', '\n  /** `other` loses energy and pace; a: how much energy */\n  wearied: 37,'),
      after('model/effects/list.ts', "import { taunt } from './taunt';", "\nimport { weary } from './weary';"),
      instead('model/effects/list.ts', 'taunt, mark };', 'taunt, mark, weary };'),
    ],
  },
  'a condition': {
    most: 2,
    first: [after('model/condition.ts', "energy: count('its energy', 20),", "\n  energyShare: share('its share of energy'),")],
    rest: [
      after(
        'engine/mind/conditions.ts',
        'energy: { number: (fight, unit) => fight.energyNow(unit) },',
        '\n  energyShare: { number: (fight, unit) => fight.energyNow(unit) / fight.kinds[unit].energy },',
      ),
    ],
  },
  'a measure': {
    most: 2,
    first: [],
    rest: [
      create(
        'measures/encounter/losses-counted.ts',
        `import { EITHER, ofRun } from '../measure';

export const lossesCounted = ofRun({
  label: 'losses counted',
  unit: '',
  about: 'how often the party lost anything',
  of: ({ losses }) => losses.length,
  goal: { of: EITHER, usual: 'mean' },
});
`,
      ),
      after(
        'measures/list.ts',
        "import { lossOfControl } from './encounter/loss-of-control';",
        "\nimport { lossesCounted } from './encounter/losses-counted';",
      ),
      after('measures/list.ts', '  lossOfControl,', '\n  lossesCounted,'),
    ],
  },
  'a warning': {
    most: 2,
    first: [
      after(
        'analysis/inspection/beats.ts',
        '  if (beat.every !== undefined && beat.every > beat.active)\n',
        "    warn('repeatsAtAll', { at: ['attacks', id], message: 'it repeats', mend: 'let it not' });\n  if (beat.every !== undefined && beat.every > beat.active)\n",
      ),
    ],
    rest: [after('analysis/rules.ts', "  'repeatBeyondActive',", "\n  'repeatsAtAll',")],
  },
  'a delivery': {
    most: 6,
    first: [
      after(
        'model/delivery.ts',
        'export const DELIVERIES = {',
        `
  lunge: {
    ...STRIKES,
    called: 'lunge',
    about: 'strikes whom it is aimed at, wherever that is within reach',
    escape: 'reach',
    action: (_, { times, where }) => \`lunges\${times} \${where}\`,
    blows: () => 'one lunge',
  },`,
      ),
    ],
    rest: [after('engine/harm/attack.ts', '  melee: strikeMelee,', '\n  lunge: strikeMelee,')],
  },
  'an outcome': {
    most: 1,
    first: [],
    rest: [
      after(
        'record/outcome.ts',
        "  ended: { told: 'an event ended it', short: 'ended' },",
        "\n  fled: { told: 'the party ran', short: 'fled' },",
      ),
    ],
  },
  'an idle reason': {
    most: 1,
    first: [],
    rest: [after('record/doing.ts', "  attacking: { does: 'attacks' },", "\n  singing: { does: 'sings', time: 'singing' },")],
  },
  'another word for an answer': {
    most: 1,
    first: [],
    rest: [instead('model/answer-kind.ts', "dodge: { noun: 'a dodge', verb: 'dodges'", "dodge: { noun: 'a roll', verb: 'rolls'")],
  },
};

/** What must be true of the copy once it is built: run by itself, beside the built files. */
const PROBE = `
const core = require('./dist/index.js');
const { projectSchema } = require('./dist/schema.js');
const assert = require('node:assert');
const demo = JSON.parse(require('node:fs').readFileSync(process.argv[2], 'utf8'));
const clipper = demo.units.find(({ id }) => id === 'clipper');
const [bite] = clipper.attacks;
Object.assign(bite, { delivery: 'lunge', effects: { ...bite.effects, weary: { amount: 3 } }, condition: { subject: 'energyShare', is: 'above', value: 0 } });
clipper.energy = { max: 10, start: 10, regen: 1 };
demo.units.find(({ id }) => id === 'mulcher').attacks[0].beat.every = 9;
demo.units.find(({ id }) => id === 'warden').energy = { max: 50, start: 50, regen: 0 };
demo.brief.bands.push({ id: 'made-up', measure: 'lossesCounted', scope: 'encounters', statistic: 'mean', low: 0 });
const project = core.parseProject(demo);
const fight = core.compile(project, { encounter: 'evening-shift', tier: 'blight', skill: 'novice' });
const events = [1, 2, 3, 4].flatMap((seed) => core.trace(fight, seed).events);
const wearied = events.find(({ event }) => event === 'wearied');
assert.ok(wearied, 'somebody is wearied');
assert.match(core.sentenceOf(wearied), /wearies by/);
assert.match(core.attackSentence(project.units.find(({ id }) => id === 'clipper').attacks[0]), /lunges.*wearies by 3/);
assert.equal(core.fieldLabel(core.Unit, ['attacks', '0', 'effects', 'weary']), 'Weary');
assert.ok(core.effectsFor(true).includes('weary') && !core.effectsFor(false).includes('weary'));
assert.match(core.conditionSentence({ subject: 'energyShare', is: 'below', value: 0.5 }), /its share of energy is below 0.5/);
const summary = core.runBatch(core.compile(project, { encounter: 'first-bell' }), 1, 3);
assert.ok(summary.encounter.lossesCounted.n === 3 && summary.outcomes.fled === 0);
assert.ok(core.GOAL_MEASURES.lossesCounted.usual === 'mean' && core.goalsOf(project).some(({ column }) => column === 'lossesCounted'));
assert.ok(core.inspectAll(project).some(({ rule }) => rule === 'repeatsAtAll'));
assert.equal(core.timeUseWords('singing'), 'singing');
assert.equal(core.outcomeWords('fled').told, 'the party ran');
assert.ok(core.fieldWords(core.Unit, ['attacks', '0', 'answers']).some(({ name }) => name === 'a roll'));
assert.ok(core.fieldWords(core.Unit, ['player', 'answers', '0', 'kind']).some(({ name }) => name === 'rolls'));
assert.match(core.sentenceOf({ time: 1, event: 'answer', answer: 'dodge', cause: 'tried' }), /rolls/);
const schema = JSON.stringify(projectSchema());
for (const word of ['weary', 'energyShare', 'lossesCounted', 'lunge']) assert.ok(schema.includes(word), word);
`;

const home = mkdtempSync(join(tmpdir(), 'insidia-additions-'));
const core = join(home, 'packages/core');
mkdirSync(core, { recursive: true });
cpSync(join(ROOT, 'packages/core/src'), join(core, 'src'), { recursive: true });
for (const file of ['tsconfig.json', 'package.json']) cpSync(join(ROOT, 'packages/core', file), join(core, file));
cpSync(join(ROOT, 'tsconfig.base.json'), join(home, 'tsconfig.base.json'));
symlinkSync(join(ROOT, 'node_modules'), join(home, 'node_modules'));

function apply({ file, make }) {
  const path = join(core, 'src', file);
  writeFileSync(path, make(existsSync(path) ? readFileSync(path, 'utf8') : ''));
}

function compiles() {
  const { status, stdout } = spawnSync(process.execPath, [join(ROOT, 'node_modules/typescript/bin/tsc'), '-p', core], { encoding: 'utf8' });
  return { ok: status === 0, said: stdout };
}

let fine = true;
const expect = (what, true_, said = '') => {
  if (!true_) fine = false;
  console.log(`${true_ ? 'ok' : 'NOT SO'}: ${what}${true_ ? '' : `\n${said}`}`);
};

try {
  const all = Object.entries(ADDITIONS);
  for (const [, { first }] of all) first.forEach(apply);
  const { said } = compiles();
  for (const [what, { first }] of all)
    if (first.length)
      expect(
        `${what}, half made, does not compile`,
        first.some(({ file }) => tellsOf(said, what, file)),
        said,
      );
  for (const [what, { first, rest, most }] of all) {
    rest.forEach(apply);
    const files = new Set([...first, ...rest].map(({ file }) => file));
    expect(
      `${what} touches ${files.size} ${files.size === 1 ? 'file' : 'files'} (at most ${most}): ${[...files].join(', ')}`,
      files.size <= most,
    );
  }
  const whole = compiles();
  expect('all of them compile', whole.ok, whole.said);
  if (whole.ok) {
    writeFileSync(join(core, 'probe.cjs'), PROBE);
    const run = spawnSync(process.execPath, [join(core, 'probe.cjs'), join(ROOT, 'demo/verdance.insidia.json')], { encoding: 'utf8' });
    expect('what was added is found by whoever reads the lists', run.status === 0, run.stderr);
  }
} finally {
  rmSync(home, { recursive: true, force: true });
}
process.exit(fine ? 0 : 1);

/** Whether the compiler speaks of a half-made addition: by its own file, or where the other half is missing. */
function tellsOf(said, what, file) {
  const elsewhere = { 'a condition': 'engine/mind/conditions.ts', 'a delivery': 'engine/harm/attack.ts' }[what];
  return said.includes(elsewhere ?? file);
}
