import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';

const insidia = join(__dirname, '../bin/insidia.js');
const demo = join(__dirname, '../../../demo/verdance.insidia.json');

/** The built command line as a pipeline would call it. */
function call(args: string[], input?: string) {
  const { status, stdout, stderr } = spawnSync(process.execPath, [insidia, ...args], { input, encoding: 'utf8' });
  return { status, stdout, stderr };
}

describe('insidia', () => {
  test('simulate prints the same measures for a file and for standard input', () => {
    const fromFile = call(['simulate', demo, '--encounter', 'first-bell', '--runs', '20', '--format', 'json']);
    const fromInput = call(['simulate', '-', '--encounter', 'first-bell', '--runs', '20', '--format', 'json'], readFileSync(demo, 'utf8'));
    expect(fromFile.status).toBe(0);
    expect(fromInput.stdout).toBe(fromFile.stdout);
    const result = JSON.parse(fromFile.stdout);
    expect(result).toMatchObject({ encounter: 'first-bell', runs: 20, firstSeed: 1 });
    expect(result.digest).toMatch(/^[0-9a-f]{16}$/);
    expect(result.kinds.find((kind: { id: string }) => kind.id === 'clipper').timeToKill.median).toBeGreaterThan(0);
  });

  test('another seed is another batch; the same one is the same', () => {
    const digest = (seed: string) =>
      JSON.parse(call(['simulate', demo, '--duel', 'mulcher', '--runs', '5', '--seed', seed, '--format', 'json']).stdout).digest;
    expect(digest('7')).toBe(digest('7'));
    expect(digest('7')).not.toBe(digest('8'));
  });

  test('csv has a line a measure, a table says seeds and digest', () => {
    const csv = call(['simulate', demo, '--duel', 'thistlejack', '--tier', 'bramble', '--runs', '10', '--format', 'csv'])
      .stdout.trim()
      .split('\n');
    expect(csv[0]).toBe('measure,of,unit,n,median,low,high,p10,p90,mean');
    expect(csv.some((line) => line.startsWith('time-to-kill,Thistlejack,s,10,'))).toBe(true);
    expect(call(['simulate', demo, '--duel', 'thistlejack', '--runs', '10']).stdout).toMatch(
      /^10 runs, seeds 1 to 10, digest [0-9a-f]{16}\n/,
    );
  });

  test('check accepts the demo', () => {
    expect(call(['check', demo])).toMatchObject({ status: 0, stdout: expect.stringContaining('Verdance Station is valid: 4 units') });
  });

  test('an invalid document is exit 3 and says path, rule and value of every problem', () => {
    const document = JSON.parse(readFileSync(demo, 'utf8'));
    document.units[1].health.max = -3;
    document.units[1].leash = { radius: 20 };
    document.units[1].speed = 4;
    const { status, stderr } = call(['check', '-'], JSON.stringify(document));
    expect(status).toBe(3);
    expect(stderr).toContain('/units/clipper/health/max must not be less than 0.001: it is -3');
    expect(stderr).toContain('/units/clipper/leash is part of the format but not built yet (leashes)');
    expect(stderr).toContain('/units/clipper/speed is not a field of the format: it is 4');
  });

  test.each([
    [['simulate', demo], 2, 'say what to run'],
    [['simulate', demo, '--encounter', 'nowhere'], 2, 'there is no encounter "nowhere" in Verdance Station'],
    [['simulate', demo, '--encounter', 'first-bell', '--tier', 'gale'], 2, 'there is no tier "gale"'],
    [['simulate', demo, '--encounter', 'first-bell', '--runs', '0'], 2, 'runs must be a whole number'],
    [['simulate', demo, '--encounter', 'first-bell', '--runs', 'many'], 2, 'it must be a number'],
    [['check', '/nowhere/file.json'], 4, "can't be read"],
    [['prune'], 2, 'unknown command'],
  ])('%j is exit %d', (args, status, message) => {
    const result = call(args as string[]);
    expect(result.stderr).toContain(message);
    expect(result.status).toBe(status);
  });

  test('text that is not JSON is exit 3', () => {
    expect(call(['check', '-'], '{')).toMatchObject({ status: 3, stderr: expect.stringContaining('is not JSON') });
  });

  test('schema is a JSON Schema of 2020-12 that knows units, limits and defaults', () => {
    const schema = JSON.parse(call(['schema']).stdout);
    expect(schema.$schema).toContain('2020-12');
    expect(schema.$defs.Beat.properties.windup).toMatchObject({ type: 'number', minimum: 0, maximum: 60, default: 0 });
    expect(schema.$defs.Unit.properties.attacks).toMatchObject({ type: 'array', items: { $ref: '#/$defs/Attack' } });
    expect(schema.$defs.Unit.properties.leash).toBeUndefined();
  });
});
