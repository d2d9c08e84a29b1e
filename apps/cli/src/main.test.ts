import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import { parse } from 'papaparse';
import { create } from 'xmlbuilder2';
import { called, demo, insidia, spawned } from './testing';

const folder = mkdtempSync(join(tmpdir(), 'insidia-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const call = (args: string[], input?: string) => called(folder, args, input);

describe('insidia', () => {
  test('simulate prints the same measures for a file and for standard input', async () => {
    const fromFile = spawned(['simulate', demo, '--encounter', 'first-bell', '--runs', '20', '--format', 'json']);
    const fromInput = spawned(
      ['simulate', '-', '--encounter', 'first-bell', '--runs', '20', '--format', 'json'],
      readFileSync(demo, 'utf8'),
    );
    expect(fromFile.status).toBe(0);
    expect(fromInput.stdout).toBe(fromFile.stdout);
    const result = JSON.parse(fromFile.stdout);
    expect(result).toMatchObject({ subject: { encounter: 'first-bell' }, runs: 20, firstSeed: 1 });
    expect(result.digest).toMatch(/^[0-9a-f]{16}$/);
    expect(result.kinds.find((kind: { id: string }) => kind.id === 'clipper').timeToKill.median).toBeGreaterThan(0);
  });

  test('another seed is another batch; the same one is the same', async () => {
    const digest = async (seed: string) =>
      JSON.parse((await call(['simulate', demo, '--duel', 'mulcher', '--runs', '5', '--seed', seed, '--format', 'json'])).stdout).digest;
    expect(await digest('7')).toBe(await digest('7'));
    expect(await digest('7')).not.toBe(await digest('8'));
  });

  test('csv has a line a measure, a table says seeds and digest', async () => {
    const csv = (await call(['simulate', demo, '--duel', 'thistlejack', '--tier', 'bramble', '--runs', '10', '--format', 'csv'])).stdout
      .trim()
      .split('\n');
    expect(csv[0]).toBe('measure,of,unit,n,median,low,high,p10,p90,mean');
    expect(csv.some((line) => line.startsWith('time-to-kill,Thistlejack,s,10,'))).toBe(true);
    expect((await call(['simulate', demo, '--duel', 'thistlejack', '--runs', '10'])).stdout).toMatch(
      /^10 runs, seeds 1 to 10, digest [0-9a-f]{16}\n/,
    );
  });

  test.each(['first-bell', 'evening-shift', 'cellar-beat', 'the-head-gardener', 'glasshouse-defence'])(
    'simulate runs %s',
    async (encounter) => {
      const { status, stdout } = await call([
        'simulate',
        demo,
        '--encounter',
        encounter,
        '--tier',
        'bloom',
        '--style',
        'careful',
        '--runs',
        '4',
      ]);
      expect(status).toBe(0);
      expect(stdout).toMatch(/^4 runs, seeds 1 to 4, digest [0-9a-f]{16}\nwon /);
      expect(stdout).toContain('longest stretch without a lull');
    },
  );

  test('trace prints a run as JSON lines in order of time, with the digest the batch has for that seed', async () => {
    const lines = (await call(['trace', demo, '--encounter', 'first-bell', '--seed', '9'])).stdout
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line));
    const [head, ...rest] = lines;
    expect(head).toMatchObject({ type: 'run', seed: 9, outcome: 'cleared' });
    expect(head.units.map(({ name }: { name: string }) => name)).toEqual(['Warden', 'Clipper']);
    expect(new Set(rest.map(({ type }) => type))).toEqual(new Set(['event', 'positions', 'reasons']));
    expect(rest.map(({ time }) => time)).toEqual(rest.map(({ time }) => time).sort((a, b) => a - b));
    const bare = (await call(['trace', demo, '--encounter', 'first-bell', '--seed', '9', '--no-positions', '--no-reasons'])).stdout
      .trim()
      .split('\n');
    expect(JSON.parse(bare[0]).digest).toBe(head.digest);
    expect(bare.slice(1).every((line) => JSON.parse(line).type === 'event')).toBe(true);
    const parts = (await call(['trace', demo, '--encounter', 'first-bell', '--seed', '9', '--format', 'text'])).stdout;
    expect(parts).toContain('Clipper begins Bite');
  });

  test('check accepts the demo', async () => {
    expect(await call(['check', demo])).toMatchObject({
      status: 0,
      stdout: expect.stringContaining(
        'Verdance Station is valid: 11 units, 1 variants, 4 arenas, 5 encounters, 4 tiers, 3 skills, 4 styles',
      ),
    });
  });

  test('check lists what inspection finds, as text and as JSON, and fails on open problems only when asked to', async () => {
    expect((await call(['check', demo])).stdout).toContain(
      'problem: /tiers/blight/tweaks/1 Health × 1.5 meets its cap of 420: Head Gardener has 420, as written; raise the cap (tweakUndone)',
    );
    expect(await call(['check', demo, '--strict'])).toMatchObject({ status: 1, stderr: '4 problems\n' });
    const { warnings } = JSON.parse((await call(['check', demo, '--format', 'json'])).stdout) as {
      warnings: { rule: string; path: string }[];
    };
    expect(warnings.map(({ rule }) => rule)).toContain('leashInsideSight');

    const document = JSON.parse(readFileSync(demo, 'utf8'));
    document.tiers[3].tweaks.splice(1, 1);
    document.units.find((unit: any) => unit.id === 'briar-hound').leash.radius = 60;
    document.units.find((unit: any) => unit.id === 'clipper').attacks[0].hits.perTarget = 'once';
    expect(await call(['check', '-', '--strict'], JSON.stringify(document))).toMatchObject({ status: 0 });
  });

  test('a duel may be against several, in an arena', async () => {
    const run = async (...more: string[]) =>
      JSON.parse((await call(['simulate', demo, '--duel', 'mulcher', '--runs', '4', '--format', 'json', ...more])).stdout) as any;
    expect((await run('--against', 'warden', 'tender')).members).toHaveLength(2);
    expect((await run('--arena', 'root-cellar')).digest).not.toBe((await run()).digest);
    expect(await call(['simulate', demo, '--duel', 'mulcher', '--arena', 'moon'])).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('there is no arena "moon" in Verdance Station'),
    });
  });

  test('check judges the brief when told how often to run: as text, JSON and JUnit XML, exit 1 when a goal is missed', async () => {
    const document = JSON.parse(readFileSync(demo, 'utf8'));
    const band = { measure: 'timeToKill', scope: 'unit', of: 'clipper', tier: 'bloom', skill: 'regular', statistic: 'median' };
    document.brief = {
      bands: [
        { ...band, id: 'met', low: 0.5, high: 4 },
        { ...band, id: 'missed', low: 20 },
        { ...band, id: 'elsewhere', skill: 'expert', low: 20 },
      ],
      curves: [],
    };
    const input = JSON.stringify(document);
    const text = await call(['check', '-', '--runs', '60', '--skill', 'regular'], input);
    expect(text).toMatchObject({ status: 1, stderr: '1 goal missed\n' });
    expect(text.stdout).toMatch(/goal: time-to-kill of Clipper, Bloom, regular: median [\d.]+ s \([\d.]+ to [\d.]+\), wanted 0.5–4: met/);
    expect(text.stdout).toContain('wanted at least 20: missed low');
    expect(text.stdout).toContain('brief: 1 of 2 goals met, 1 missed, 0 undecided');
    const { brief } = JSON.parse((await call(['check', '-', '--runs', '60', '--format', 'json'], input)).stdout);
    expect(brief).toMatchObject([
      { band: 'met', runs: 60, verdict: 'met', wanted: { low: 0.5, high: 4 } },
      { band: 'missed', verdict: 'missedLow' },
      { band: 'elsewhere', skill: 'expert', verdict: 'missedLow' },
    ]);
    const duel = JSON.parse(
      (
        await call(
          ['simulate', '-', '--duel', 'clipper', '--tier', 'bloom', '--skill', 'regular', '--runs', '60', '--format', 'json'],
          input,
        )
      ).stdout,
    );
    expect(brief[0].value).toBe(duel.kinds.find(({ id }: { id: string }) => id === 'clipper').timeToKill.median);
    const { stdout: xml } = await call(['check', '-', '--runs', '60', '--format', 'junit'], input);
    expect(xml).toContain('<testsuite name="brief" tests="3" failures="2" skipped="0">');
    expect(xml).toMatch(
      /<testcase classname="timeToKill" name="time-to-kill of Clipper, Bloom, regular">\s*<failure message="median [^"]*missed low"/,
    );
    expect((await call(['check', '-'], input)).stdout).toContain('brief: 3 bands, not judged; say how many runs with --runs');
    expect(await call(['check', '-', '--runs', '0'], input)).toMatchObject({ status: 2 });
    document.brief.bands.splice(1);
    expect((await call(['check', '-', '--runs', '60'], JSON.stringify(document))).status).toBe(0);
  });

  test('report runs what it shows and prints one page that needs nothing else; a skill that is not there is exit 2', async () => {
    const document = JSON.parse(readFileSync(demo, 'utf8'));
    document.encounters = document.encounters.filter(({ id }: { id: string }) => id === 'first-bell');
    document.tiers = document.tiers.filter(({ id }: { id: string }) => id === 'bloom');
    // It asks of fights that are not there any more.
    delete document.tuning;
    document.brief = {
      bands: [
        { id: 'hard', measure: 'timeToKill', scope: 'unit', of: 'mulcher', tier: 'bloom', skill: 'regular', statistic: 'median', high: 1 },
        { id: 'fair', measure: 'unanswerable', scope: 'encounters', skill: 'regular', statistic: 'mean', high: 0.9 },
      ],
      curves: [],
    };
    const input = JSON.stringify(document);
    const { status, stdout } = await call(['report', '-', '--runs', '50'], input);
    expect(stdout.match(/@font-face\{[^}]*url\(data:font\/woff2;base64,d09GMg/g)).toHaveLength(2);
    expect(status).toBe(0);
    expect(stdout.startsWith('<!doctype html>')).toBe(true);
    expect(stdout).toContain('2 goals met, 1 missed');
    expect(stdout).toMatch(/Mulcher, Bloom, regular<\/b>: time-to-kill median [\d.]+ s/);
    expect(stdout).toContain('Pacing of First Bell');
    expect(stdout).not.toMatch(/https?:/);
    // The same numbers as the check of the same runs.
    const value = /time-to-kill median ([\d.]+) s/.exec(stdout)![1];
    const checked = JSON.parse((await call(['check', '-', '--runs', '50', '--format', 'json'], input)).stdout);
    expect(Number(checked.brief.find(({ band }: { band: string }) => band === 'hard').value.toPrecision(3))).toBe(Number(value));
    const refused = await call(['report', '-', '--skill', 'godlike'], input);
    expect([refused.status, refused.stderr]).toEqual([2, expect.stringContaining('there is no skill "godlike"')]);
  });

  test('an invalid document is exit 3 and says path, rule and value of every problem', async () => {
    const document = JSON.parse(readFileSync(demo, 'utf8'));
    document.units[1].health.max = -3;
    document.encounters[0].clock = 'ticks';
    document.units[1].speed = 4;
    const { status, stderr } = await call(['check', '-'], JSON.stringify(document));
    expect(status).toBe(3);
    expect(stderr).toContain('/units/clipper/health/max must not be less than 0.001: it is -3');
    expect(stderr).toContain('/encounters/first-bell/clock must be one of the following values: continuous, rounds: it is "ticks"');
    expect(stderr).toContain('/units/clipper/speed is not a field of the format: it is 4');
  });

  test.each([
    [['simulate', demo], 2, 'say what to run'],
    [['simulate', demo, '--encounter', 'nowhere'], 2, 'there is no encounter "nowhere" in Verdance Station'],
    [['simulate', demo, '--encounter', 'first-bell', '--tier', 'gale'], 2, 'there is no tier "gale"'],
    [['simulate', demo, '--encounter', 'first-bell', '--runs', '0'], 2, 'runs must be a whole number'],
    [['simulate', demo, '--encounter', 'first-bell', '--runs', 'many'], 2, 'it must be a number'],
    [['trace', demo, '--encounter', 'first-bell', '--seed', '-1'], 2, 'seed must be a whole number from 0 to 2147483647: it is -1'],
    [['simulate', demo, '--encounter', 'first-bell', '--style', 'sly'], 2, 'there is no style "sly"'],
    [['simulate', demo, '--encounter', 'first-bell', '--players', '9'], 2, 'players must be a whole number from 1 to 8: it is 9'],
    [['check', '/nowhere/file.json'], 4, "can't be read"],
    [['prune'], 2, 'unknown command'],
  ])('%j is exit %d', async (args, status, message) => {
    const result = await call(args as string[]);
    expect(result.stderr).toContain(message);
    expect(result.status).toBe(status);
  });

  test('text that is not JSON is exit 3', async () => {
    expect(await call(['check', '-'], '{')).toMatchObject({ status: 3, stderr: expect.stringContaining('is not JSON') });
  });

  test('schema is a JSON Schema of 2020-12 that knows units, limits and defaults', async () => {
    const schema = JSON.parse((await call(['schema'])).stdout);
    expect(schema.$schema).toContain('2020-12');
    expect(schema.$defs.Beat.properties.windup).toMatchObject({ type: 'number', minimum: 0, maximum: 60, default: 0 });
    expect(schema.$defs.Unit.properties.attacks).toMatchObject({ type: 'array', items: { $ref: '#/$defs/Attack' } });
  });

  test('what only a duel has is refused with an encounter, not passed over', async () => {
    for (const option of [
      ['--distance', '3'],
      ['--copies', '2'],
      ['--against', 'warden'],
      ['--arena', 'boiler-court'],
      ['--with', 'mulcher:1'],
      ['--from', 'behind'],
      ['--wall', '2'],
    ]) {
      for (const command of ['simulate', 'trace']) {
        const { status, stderr } = await call([command, demo, '--encounter', 'first-bell', ...option]);
        expect([command, option[0], status]).toEqual([command, option[0], 2]);
        expect(stderr).toBe(`${option[0]} belongs to a duel: give it with --duel, or leave it out\n`);
      }
    }
    expect((await call(['simulate', demo, '--duel', 'clipper', '--distance', '3', '--copies', '2', '--runs', '2'])).status).toBe(0);
  });

  test('a duel of a handful, from behind or from a spawn point, over a wall; json says how it was set up', async () => {
    const duel = async (...options: string[]) =>
      call(['simulate', demo, '--duel', 'sapwright', ...options, '--runs', '3', '--format', 'json']);
    const { stdout } = await duel('--with', 'clipper:2', 'mulcher', '--from', 'behind', '--wall', '1.5');
    const { subject, kinds } = JSON.parse(stdout);
    expect(subject).toEqual({
      duel: 'sapwright',
      copies: 1,
      distance: 12,
      company: [
        { unit: 'clipper', count: 2 },
        { unit: 'mulcher', count: 1 },
      ],
      from: 'behind',
      wall: 1.5,
    });
    expect(kinds.map(({ id }: { id: string }) => id)).toEqual(['warden', 'sapwright', 'clipper', 'mulcher']);
    expect(JSON.parse((await duel('--arena', 'boiler-court', '--from', 'hatch')).stdout).subject.from).toBe('point:hatch');
    for (const [options, message] of [
      [['--with', 'clipper:many'], 'company of clipper must be a whole number from 1 to 12: it is NaN'],
      [['--with', 'moth:1'], 'there is no unit "moth" in Verdance Station'],
      [['--from', 'hatch'], 'the spawn point "hatch" is of an arena: say which'],
      [['--wall', '30'], 'the wall between must be from 0.1 to 20 m high: it is 30'],
    ] as const)
      expect(await duel(...options)).toMatchObject({ status: 2, stderr: expect.stringContaining(message) });
  });

  test('json and jsonl are one word where they mean the same', async () => {
    const lines = async (format: string) =>
      (await call(['trace', demo, '--encounter', 'first-bell', '--no-positions', '--format', format])).stdout;
    expect(await lines('json')).toBe(await lines('jsonl'));
    expect((await lines('json')).length).toBeGreaterThan(100);
  });

  test('a reader that has had enough ends the program quietly', async () => {
    for (const args of [
      ['trace', demo, '--encounter', 'evening-shift'],
      ['schema'],
      ['simulate', demo, '--encounter', 'first-bell', '--runs', '3000', '--format', 'rows'],
    ]) {
      const command = [process.execPath, insidia, ...args].map((word) => `'${word}'`).join(' ');
      const { stdout, stderr } = spawnSync('bash', ['-c', `${command} | head -c 20; echo " \${PIPESTATUS[0]}"`], { encoding: 'utf8' });
      expect([args[0], stderr]).toEqual([args[0], '']);
      expect(stdout.trim().endsWith(' 0')).toBe(true);
    }
  });

  test('rows: a row a run, with the digest of the same seed traced', async () => {
    const rows = (
      await call(['simulate', demo, '--encounter', 'first-bell', '--tier', 'bloom', '--runs', '4', '--seed', '6', '--format', 'rows'])
    ).stdout
      .trim()
      .split('\n')
      .map((line) => line.split(','));
    expect(rows).toHaveLength(5);
    expect(rows[0].slice(0, 5)).toEqual(['seed', 'digest', 'outcome', 'won', 'timeToDown']);
    expect(rows.slice(1).map(([seed]) => seed)).toEqual(['6', '7', '8', '9']);
    const traced = await call([
      'trace',
      demo,
      '--encounter',
      'first-bell',
      '--tier',
      'bloom',
      '--seed',
      '8',
      '--no-positions',
      '--no-reasons',
    ]);
    expect(JSON.parse(traced.stdout.split('\n')[0]).digest).toBe(rows[3][1]);
    const at = rows[0].indexOf('type clipper timeToKill');
    const all = JSON.parse(
      (await call(['simulate', demo, '--encounter', 'first-bell', '--tier', 'bloom', '--runs', '4', '--seed', '6', '--format', 'json']))
        .stdout,
    );
    const times = rows
      .slice(1)
      .map((row) => Number(row[at]))
      .sort((a, b) => a - b);
    expect(times[1]).toBe(all.kinds.find(({ id }: { id: string }) => id === 'clipper').timeToKill.median);
  });

  test('effective: every number with its chain, as a fight has it; what does not exist is named', async () => {
    const text = (await call(['effective', demo, '--unit', 'head-gardener', '--tier', 'blight', '--changed'])).stdout;
    expect(text).toMatch(/^\/health\/max +420 hp +420 → ×/m);
    expect(text).toContain('(asked 945, capped)');
    const { values } = JSON.parse((await call(['effective', demo, '--unit', 'clipper-elder', '--format', 'json'])).stdout);
    expect(values.find(({ path }: { path: string }) => path === '/health/max')).toMatchObject({ unit: 'hp', chain: { base: 22 } });
    for (const [args, said] of [
      [['--unit', 'nobody'], 'there is no unit "nobody" in Verdance Station'],
      [['--unit', 'clipper', '--tier', 'x'], 'there is no tier "x": there are seedling, bloom, bramble, blight'],
      [['--unit', 'warden', '--players', '2'], '--players counts in an encounter'],
    ] as const) {
      const { status, stderr } = await call(['effective', demo, ...args]);
      expect(status).toBe(2);
      expect(stderr).toContain(said);
    }
  });

  test('names that a spreadsheet or a parser would trip over leave tables, JUnit and the report well-formed', async () => {
    const names = [
      '=HYPERLINK("http://x")',
      '+1',
      '-1',
      '@x',
      'a,b"c',
      '<b>&amp;</b>',
      ']]>',
      'new\nline',
      'half \ud800 pair',
      'bell \u0007',
      'é ü 漢',
    ];
    for (const [i, name] of names.entries()) {
      const document = JSON.parse(readFileSync(demo, 'utf8'));
      Object.assign(document, { name });
      document.units.find(({ id }: { id: string }) => id === 'clipper').name = name;
      document.encounters.find(({ id }: { id: string }) => id === 'first-bell').name = name;
      document.brief.bands = document.brief.bands.slice(0, 1);
      const input = JSON.stringify(document);
      const csv = await call(['simulate', '-', '--encounter', 'first-bell', '--runs', '3', '--format', 'csv'], input);
      if (csv.status === 3) continue; // the format takes no such name
      const cells = parse<string[]>(csv.stdout).data;
      // eslint-disable-next-line no-control-regex
      for (const cell of cells.flat()) if (Number.isNaN(Number(cell))) expect(cell).not.toMatch(/^[=+\-@\t\r\n\u0000-\u001f]/);
      if (i % 3 !== 0) continue; // these take their time
      const junit = (await call(['check', '-', '--runs', '20', '--tier', 'bloom', '--skill', 'regular', '--format', 'junit'], input))
        .stdout;
      expect(() => create(junit)).not.toThrow();
      const report = (await call(['report', '-', '--runs', '2', '--skill', 'regular'], input)).stdout;
      // eslint-disable-next-line no-control-regex
      expect(report).not.toMatch(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]|<b>&amp;amp;<\/b>/);
      expect(report.match(/<script/g)).toBeNull();
    }
  });

  test('what is nested too deep is refused with the place', async () => {
    const document = JSON.parse(readFileSync(demo, 'utf8'));
    let deep: any = { subject: 'chance', value: 0.5 };
    for (let i = 0; i < 400; i++) deep = { subject: 'not', parts: [deep] };
    document.units.find(({ id }: { id: string }) => id === 'clipper').attacks[0].condition = deep;
    const { status, stderr } = await call(['check', '-'], JSON.stringify(document));
    expect(status).toBe(3);
    expect(stderr).toMatch(/^\/units\/clipper\/attacks\/bite\/condition\/parts\/0\/.* must not be nested deeper than \d+ levels/);
  });
});
