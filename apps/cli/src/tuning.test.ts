import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import { parse } from 'papaparse';
import { create } from 'xmlbuilder2';
import { called, demo } from './testing';

const folder = mkdtempSync(join(tmpdir(), 'insidia-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const call = (args: string[], input?: string) => called(folder, args, input);

describe('tune', () => {
  const clippers = ['--duel', 'clipper', '--copies', '4', '--skill', 'regular'];

  test('turns numbers a tenth on the same seeds: what no fight shows is told apart from what can’t be seen', async () => {
    const dials = ['--dial', '/units/clipper/movement/run', '/units/clipper/senses/memory', '/units/clipper/health/max=20..24'];
    const { status, stdout } = await call([
      'tune',
      demo,
      ...clippers,
      ...dials,
      '--goal',
      'won',
      'timeToKill:p90',
      '--runs',
      '60',
      '-f',
      'json',
    ]);
    expect(status).toBe(0);
    const told = JSON.parse(stdout) as {
      objectives: { statistic: string }[];
      dials: { path: string; to: number; effects: { says: string; runs: number }[] }[];
    };
    expect(told.objectives.map(({ statistic }) => statistic)).toEqual(['share', 'p90']);
    expect(told.dials.map(({ path, to }) => [path, to])).toEqual([
      ['/units/clipper/movement/run', 7.7],
      ['/units/clipper/senses/memory', 4.4],
      ['/units/clipper/health/max', 24],
    ]);
    expect(told.dials[1].effects.map(({ says }) => says)).toEqual(['never', 'never']);
    expect(told.dials[0].effects[0].runs).toBe(60);
  });

  test('names the strongest of all numbers; as text, and as CSV with a line a number and goal', async () => {
    const args = ['tune', demo, ...clippers, '--goal', 'won', '--strongest', '3', '--screen', '300', '--runs', '40'];
    const text = (await call(args)).stdout;
    expect(text).toMatch(/^40 paired runs a number; the 3 that move win share most, of 5 that a screening kept/);
    const rows = parse<Record<string, string>>((await call([...args, '-f', 'csv'])).stdout, { header: true, skipEmptyLines: true }).data;
    expect(rows).toHaveLength(3);
    expect(Object.keys(rows[0])).toEqual(expect.arrayContaining(['path', 'measure', 'difference', 'low', 'high', 'says']));
  });

  test('goes along one number, and says where it enters what is wanted', async () => {
    const { status, stdout } = await call([
      'tune',
      demo,
      '--duel',
      'clipper',
      '--tier',
      'bloom',
      '--skill',
      'regular',
      '--along',
      '/units/clipper/health/max=10..40',
      '--runs',
      '40',
    ]);
    expect(status).toBe(0);
    expect(stdout).toContain('22 hp (as written)');
    expect(stdout).toMatch(/10 hp .*\n15 hp/);
  });

  test('refuses what is not there, by name', async () => {
    const refused = async (...args: string[]) => {
      const { status, stderr } = await call(['tune', demo, ...clippers, ...args]);
      return [status, stderr.trim()];
    };
    expect(await refused('--dial', '/units/nobody/health/max')).toEqual([
      2,
      '"/units/nobody/health/max" leads to no number of the document, or to no such word',
    ]);
    expect(await refused('--dial', '/units/clipper/health/max=30..20')).toEqual([2, '"30..20" must be LOW..HIGH, such as 16..28']);
    expect((await refused('--goal', 'fun'))[1]).toMatch(/^there is no measure "fun": /);
    expect((await refused('--goal', 'won:mode'))[1]).toMatch(/^there is no statistic "mode": /);
  });
});

describe('tune asks a question that the project keeps', () => {
  const question = ['tune', demo, '--question', 'clippers-in-a-crowd', '--runs', '40'];

  test('its fight, goals and dials; by its id or its name; at another tier', async () => {
    const { status, stdout } = await call([...question, '-f', 'json', '--pairs']);
    expect(status).toBe(0);
    const told = JSON.parse(stdout) as {
      subject: string;
      objectives: { measure: string; wanted: string }[];
      dials: { path: string }[];
      together: { dials: string[]; effects: { says: string }[] }[];
    };
    expect(told.subject).toBe('duel|clipper||regular|||copies=6');
    expect(told.objectives.map(({ measure, wanted }) => [measure, wanted])).toEqual([
      ['won', 'wanted 70–90'],
      ['timeToKill', ''],
      ['peakPressureShare', 'wanted 2–8'],
    ]);
    expect(told.dials.map(({ path }) => path)).toEqual([
      '/units/clipper/attacks/bite/beat/cooldown',
      '/units/clipper/health/max',
      '/units/clipper/movement/run',
    ]);
    expect(told.together.map(({ dials }) => dials.length)).toEqual([2, 2, 2]);
    const named = await call(['tune', demo, '--question', 'Clippers in a crowd', '--runs', '40', '-f', 'json', '--tier', 'bloom']);
    expect(JSON.parse(named.stdout)).toMatchObject({ subject: 'duel|clipper|bloom|regular|||copies=6' });
  });

  test('as text with its pairs, as JUnit the goals as they are written', async () => {
    expect((await call([...question, '--pairs'])).stdout).toMatch(/by twos, beyond the sum[^]*Health 24 hp and Clipper, Run 7.7 m\/s/);
    const { stdout } = await call([...question, '-f', 'junit']);
    const { testsuites } = create(stdout).end({ format: 'object' }) as any;
    expect(testsuites.testsuite.testcase.map((one: any) => one['@classname'])).toEqual(['won', 'timeToKill', 'peakPressureShare']);
    expect(testsuites['@tests']).toBe('3');
  });

  test('of a kind of numbers, of a word, of goals given as text', async () => {
    const { status, stdout } = await call([
      ...['tune', demo, '--encounter', 'evening-shift', '--skill', 'regular', '--runs', '6', '-f', 'csv'],
      ...['--dial', 'swarm:/units/*/attacks/*/beat/cooldown=0.8..1.2', '/units/clipper/attacks/bite/beat/tracking=fixed'],
      ...['--goal', 'won:share:0.4..0.9', 'timeToKill@clipper:p90'],
    ]);
    expect(status).toBe(0);
    const rows = parse<Record<string, string>>(stdout, { header: true, skipEmptyLines: true }).data;
    expect(rows.map(({ whose, from, to, measure, of, wanted }) => [whose, from, to, measure, of, wanted])).toEqual([
      ['all of the role swarm', '1', '1.1', 'won', 'evening-shift', 'wanted 40–90'],
      ['all of the role swarm', '1', '1.1', 'timeToKill', 'clipper', ''],
      ['Clipper', 'turns', 'fixed', 'won', 'evening-shift', 'wanted 40–90'],
      ['Clipper', 'turns', 'fixed', 'timeToKill', 'clipper', ''],
    ]);
  });

  test.each([
    [['--question', 'none'], 'there is no question "none": evening-shift-at-bloom, clippers-in-a-crowd'],
    [['--question', 'clippers-in-a-crowd', '--duel', 'clipper'], '--question says which fight'],
    [['--duel', 'clipper', '--goal', 'won:share:9..1'], 'must be MEASURE:STATISTIC:LOW..HIGH'],
    [['--duel', 'clipper', '--dial', '/units/clipper/attacks/bite/beat/tracking=perhaps'], 'no such word'],
    [['--duel', 'clipper', '--dial', '/units/clipper/health/max=9..1'], 'must be LOW..HIGH'],
    [['--duel', 'clipper', '--along', '/units/clipper/attacks/bite/beat/tracking=fixed'], 'no values between'],
  ])('refuses %j', async (args, words) => {
    const { status, stderr } = await call(['tune', demo, ...args, '--runs', '5']);
    expect([status, stderr.includes(words)]).toEqual([2, true]);
  });
});

describe('tune finds numbers', () => {
  const asked = [
    ...['tune', demo, '--duel', 'clipper', '--copies', '4', '--skill', 'regular', '--find'],
    ...['--dial', '/units/clipper/health/max', '/units/clipper/movement/run', '/units/clipper/senses/hearing'],
  ];

  test('with which a goal holds, proved on fresh seeds; the first is written, and holds there; the same each time', async () => {
    const out = join(folder, 'found.insidia.json');
    const goal = ['--goal', 'timeToKill:median:2.6..3.4', '--budget', '6000'];
    const { status, stdout } = await call([...asked, ...goal, '-f', 'json', '--write', out]);
    expect(status).toBe(0);
    const told = JSON.parse(stdout) as {
      runs: number;
      proposals: {
        put: { dial: string; to: number }[];
        proof: { verdict: string; low: number; high: number }[];
        seeds: { runs: number };
      }[];
    };
    const [first] = told.proposals;
    expect(first.proof.map(({ verdict }) => verdict)).toEqual(['met']);
    expect(first.seeds.runs).toBeGreaterThanOrEqual(1200);
    expect(first.put.map(({ dial }) => dial)).not.toContain('/units/clipper/senses/hearing');
    const { units } = JSON.parse(readFileSync(out, 'utf8')) as {
      units: { id: string; health: { max: number }; movement: { run: number } }[];
    };
    const clipper = units.find(({ id }) => id === 'clipper')!;
    for (const { dial, to } of first.put) expect(dial.endsWith('max') ? clipper.health.max : clipper.movement.run).toBe(to);
    const there = await call([
      'tune',
      out,
      '--duel',
      'clipper',
      '--copies',
      '4',
      '--skill',
      'regular',
      ...goal.slice(0, 2),
      '-f',
      'junit',
      '--runs',
      '2000',
    ]);
    expect(there.stdout).toContain('failures="0"');
    expect(JSON.parse((await call([...asked, ...goal, '-f', 'json'])).stdout)).toEqual(told);
    const text = (await call([...asked, ...goal])).stdout;
    expect(text).toMatch(/A: [a-z ]+, \d+ % of a range away[^]*on \d+ fresh seeds[^]*met/);
    const rows = parse<Record<string, string>>((await call([...asked, ...goal, '-f', 'csv'])).stdout, {
      header: true,
      skipEmptyLines: true,
    }).data;
    expect(rows[0]).toMatchObject({ proposal: '1', prefer: 'change' });
  });

  test('nothing found is exit 1, with why; what can’t be asked is exit 2', async () => {
    const { status, stdout, stderr } = await call([...asked, '--goal', 'timeToKill:median:30..40', '--budget', '3000']);
    expect([status, stderr.trim()]).toEqual([1, 'nothing was found']);
    expect(stdout).toMatch(/time-to-kill \(wanted 30–40\) is promised nowhere in these ranges: .*highest/);
    for (const [args, words] of [
      [[...asked, '--goal', 'won'], 'nothing is wanted of the fight'],
      [['tune', demo, '--duel', 'clipper', '--find'], '--find needs numbers to turn'],
      [['tune', demo, '--duel', 'clipper', '--budget', '9'], '--budget belongs to --find'],
    ] as const) {
      const refused = await call([...args]);
      expect([refused.status, refused.stderr.includes(words)]).toEqual([2, true]);
    }
  });
});

describe('compare', () => {
  // Of the brief the goals of one kind: what is not asked is not run.
  const few = JSON.parse(readFileSync(demo, 'utf8')) as { brief: { bands: { measure: string; scope: string }[] } };
  few.brief.bands = few.brief.bands.filter(({ measure, scope }) => measure === 'timeToKill' && scope !== 'encounters');
  const base = join(folder, 'few.json');
  writeFileSync(base, JSON.stringify(few));
  const changed = structuredClone(few) as unknown as {
    units: { id: string; health: { max: number }; movement: { turnRate: number } }[];
  };
  const clipper = changed.units.find(({ id }) => id === 'clipper')!;
  clipper.health.max = 60;
  clipper.movement.turnRate = 500;
  const at = ['--tier', 'bloom', '--skill', 'regular', '--runs', '40'];

  test('tells what changed, which verdicts flip, and the edit that did it', async () => {
    const { status, stdout } = await call(['compare', base, '-', ...at, '--by-edit'], JSON.stringify(changed));
    expect(status).toBe(0);
    expect(stdout).toContain('Clipper: Health 22 hp → 60 hp');
    const part = stdout.split('Which edit moved time-to-kill of Clipper, Bloom, regular')[1].split('\n').slice(2, 4);
    expect(part[0]).toMatch(/^Clipper: Health 22 hp → 60 hp/);
    expect(part[1]).toMatch(/^Clipper: Turn 480 °\/s → 500 °\/s/);
  });

  test('fails for a pipeline where a goal is missed that was not; JSON and JUnit say the same', async () => {
    const { status, stdout, stderr } = await call(
      ['compare', base, '-', ...at, '--fail-on', 'flipped', '-f', 'json'],
      JSON.stringify(changed),
    );
    expect([status, stderr]).toEqual([1, expect.stringMatching(/goals? missed/)]);
    const { goals } = JSON.parse(stdout) as { goals: { before?: { verdict: string }; after?: { verdict: string } }[] };
    const missed = goals.filter(({ after }) => after?.verdict.startsWith('missed')).length;
    const xml = (await call(['compare', base, '-', ...at, '-f', 'junit'], JSON.stringify(changed))).stdout;
    const root = create(xml).root().toObject() as { testsuites: { '@failures': string; '@tests': string } };
    expect([root.testsuites['@failures'], root.testsuites['@tests']]).toEqual([String(missed), String(goals.length)]);
    const same = await call(['compare', base, base, ...at, '--fail-on', 'flipped']);
    expect(same.status).toBe(0);
    expect(same.stdout).toContain('Nothing changed');
    expect(same.stdout).toContain('Verdicts that flipped: none');
  });
});

describe('tune looks for the cheapest way to win', () => {
  const bell = ['tune', demo, '--encounter', 'first-bell', '--tier', 'bloom', '--skill', 'regular', '--cheapest', '--budget', '12000'];

  test('where there is none it says so, and how little there is to do', async () => {
    const { status, stdout } = await call(bell);
    expect(status).toBe(0);
    expect(stdout).toMatch(/no way of playing was found[^]*as written +100 \(\d+ to 100\)[^]*less to do: stands still, .* 100 \(/);
    const [{ stdout: csv }, { stdout: xml }] = await Promise.all([call([...bell, '-f', 'csv']), call([...bell, '-f', 'junit'])]);
    const rows = parse<Record<string, string>>(csv, { header: true, skipEmptyLines: true }).data;
    expect(rows.map(({ kind }) => kind)).toEqual(['as written', 'less to do']);
    expect(Number(rows[1].won)).toBeGreaterThan(0.95);
    expect(create(xml).toObject()).toMatchObject({ testsuites: { testsuite: { '@tests': '1', '@failures': '0' } } });
  });

  test('where there is one it is told with what it turns, and ends by 1', async () => {
    const crowd = [
      'tune',
      demo,
      '--duel',
      'clipper',
      '--copies',
      '6',
      '--skill',
      'regular',
      '--cheapest',
      '--budget',
      '12000',
      '-f',
      'json',
    ];
    const { status, stdout, stderr } = await call(crowd);
    expect([status, stderr.trim()]).toEqual([1, 'there is a far cheaper way to win']);
    const told = JSON.parse(stdout);
    expect(told.ways[0].gain.low).toBeGreaterThan(0.1);
    expect(told.ways[0].says.length).toBeGreaterThan(0);
    expect(told.ways[0].turned.length).toBeGreaterThan(0);
    expect(told.written.dose.value).toBeGreaterThan(told.ways[0].dose.value);
  });

  test('what does not belong to it is refused by name', async () => {
    for (const [more, words] of [
      [['--find'], 'two questions'],
      [['--goal', 'won'], '--goal does not belong to --cheapest'],
      [['--write', 'x.json'], '--write does not belong'],
      [['--budget', '10'], 'at least 12000'],
    ] as const) {
      const { status, stderr } = await call([...bell, ...more]);
      expect([status, stderr]).toEqual([2, expect.stringContaining(words)]);
    }
  });
});
