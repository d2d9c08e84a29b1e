/** The command line on fights that take turns. */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { called, demo } from './testing';

const folder = mkdtempSync(join(tmpdir(), 'insidia-turns-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const call = (args: string[], input?: string) => called(folder, args, input);

describe('fights in turns', () => {
  /** The demo with First Bell in turns. */
  let turned: string;
  beforeAll(async () => {
    const { status, stdout } = await call(['turns', demo, '-e', 'first-bell', '--round', '2', '--cell', '1']);
    expect(status).toBe(0);
    turned = stdout;
  });

  /** With a Clipper that outlives the Warden's first turn. @param change of it */
  const lasting = (change: (clipper: any) => void = () => undefined) => {
    const document = JSON.parse(turned);
    const clipper = document.units.find(({ id }: { id: string }) => id === 'clipper');
    clipper.health.max = 300;
    change(clipper);
    return JSON.stringify(document);
  };

  test('turns writes what is needed and leaves the rest as it was: seconds go on as ever', async () => {
    const before = JSON.parse(readFileSync(demo, 'utf8'));
    const after = JSON.parse(turned);
    expect(after.encounters[0]).toMatchObject({ clock: 'rounds', rounds: { limit: expect.any(Number), cell: 1 } });
    expect(after.units.filter((unit: { rounds?: object }) => unit.rounds).map(({ id }: { id: string }) => id)).toEqual(
      expect.arrayContaining(['clipper', 'warden']),
    );
    const digest = async (input: string) =>
      JSON.parse((await call(['simulate', '-', '-e', 'cellar-beat', '-n', '5', '-f', 'json'], input)).stdout).digest;
    expect(await digest(turned)).toBe(await digest(JSON.stringify(before)));
    const [nowhere, odd] = [await call(['turns', demo, '-e', 'nowhere']), await call(['turns', demo, '-e', 'first-bell', '--round', '0'])];
    expect([nowhere.status, nowhere.stderr]).toEqual([2, expect.stringContaining('there is no encounter "nowhere" in Verdance Station')]);
    expect([odd.status, odd.stderr]).toEqual([2, expect.stringContaining('a round must be more than 0 and at most 600 s: it is 0')]);
  });

  test('simulate tells rounds, harm a round, and nothing that means nothing in turns; the same again', async () => {
    const table = (await call(['simulate', '-', '-e', 'first-bell', '-n', '20', '-f', 'table'], turned)).stdout;
    expect(table).toMatch(/^rounds-to-kill +Clipper +rounds/m);
    expect(table).toMatch(/^peak pressure +encounter +%\/round/m);
    expect(table).toMatch(/^reach +Clipper/m);
    expect(table).not.toMatch(/unanswerable|engaged|loss of control|time-to-kill|hp\/s/);
    const rows = await call(['simulate', '-', '-e', 'first-bell', '-n', '3', '-f', 'rows'], turned);
    expect(rows.stdout).toBe((await call(['simulate', '-', '-e', 'first-bell', '-n', '3', '-f', 'rows'], turned)).stdout);
    const step = await call(['simulate', '-', '-e', 'first-bell', '--step', '0.1'], turned);
    expect([step.status, step.stderr]).toEqual([2, expect.stringContaining('First Bell takes turns: it has no step')]);
  });

  test('trace tells what happened round by round, with reasons in cells and turns', async () => {
    const { stdout } = await call(['trace', '-', '-e', 'first-bell', '-f', 'text'], lasting());
    expect(stdout).toMatch(/^Round 1: Clipper begins Bite against Warden at 1 cell\.$/m);
    expect(stdout).toMatch(/^Round 1: Clipper has had its turn: it strikes, \d+ cells gone\.$/m);
    expect(stdout).toMatch(/^ {4}Its target is Warden, \d+ cells? away\.$/m);
    expect(stdout).toMatch(/\d turns? of cooldown left/);
    const lines = (await call(['trace', '-', '-e', 'first-bell', '--no-positions'], lasting())).stdout.trim().split('\n');
    const events = lines.map((line) => JSON.parse(line)).filter(({ type }) => type === 'event');
    expect(events.every(({ round }) => Number.isInteger(round) && round >= 1)).toBe(true);
    expect(events.filter(({ event }) => event === 'turn').length).toBeGreaterThan(3);
  });

  test('who can’t come near is told by how many cells, and what would have done', async () => {
    const slow = lasting((clipper) => (clipper.rounds.moves = 1));
    const { stdout } = await call(['trace', '-', '-e', 'first-bell', '-f', 'text'], slow);
    expect(stdout).toMatch(/could not reach anybody this turn: Warden is \d+ cells too far/);
  });

  test('check judges goals in rounds; a goal that means nothing there is refused by its place; report and effective take both clocks', async () => {
    const document = JSON.parse(turned);
    document.brief.bands = [
      {
        id: 'quick',
        measure: 'timeToKill',
        scope: 'unit',
        of: 'clipper',
        encounter: 'first-bell',
        tier: 'bloom',
        skill: 'regular',
        low: 1,
        high: 30,
      },
      {
        id: 'slow',
        measure: 'timeToKill',
        scope: 'unit',
        of: 'clipper',
        encounter: 'first-bell',
        tier: 'bramble',
        skill: 'regular',
        low: 25,
      },
      {
        id: 'reach',
        measure: 'reach',
        scope: 'unit',
        of: 'clipper',
        encounter: 'first-bell',
        tier: 'bloom',
        skill: 'regular',
        statistic: 'mean',
        low: 0.1,
      },
      { id: 'fair', measure: 'unanswerable', scope: 'encounters', tier: 'bloom', skill: 'regular', statistic: 'mean', high: 1 },
    ];
    delete document.brief.curves;
    delete document.tuning;
    const input = JSON.stringify(document);
    const checked = await call(['check', '-', '-n', '20'], input);
    expect(checked.stdout).toMatch(/goal: rounds-to-kill of Clipper in First Bell, Bloom, regular: median \d+(\.\d+)? rounds .*: met/);
    expect(checked.stdout).toMatch(/goal: reach of Clipper in First Bell, Bloom, regular: mean [\d.]+ % /);
    // Of every encounter: of those that go on by themselves.
    expect(checked.stdout.match(/goal: unanswerable share of/g)).toHaveLength(document.encounters.length - 1);
    document.brief.bands[3] = { ...document.brief.bands[3], scope: 'encounter', of: 'first-bell' };
    const refused = await call(['check', '-'], JSON.stringify(document));
    expect([refused.status, refused.stderr]).toEqual([
      3,
      expect.stringContaining(
        '/brief/bands/fair/measure means nothing where a fight takes turns, as First Bell does: it is "unanswerable"',
      ),
    ]);
    const report = await call(['report', '-', '-n', '10'], input);
    expect(report.stdout).toContain('rounds-to-kill');
    expect(report.stdout).toMatch(/wanted at least 25/);
    const effective = (await call(['effective', '-', '--unit', 'clipper', '-t', 'bramble'], input)).stdout;
    expect(effective).toMatch(/\/rounds\/moves/);
    expect(effective).toMatch(/\/attacks\/bite\/rounds\/hits/);
  });
});
