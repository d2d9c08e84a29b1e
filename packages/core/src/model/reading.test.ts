import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { arbitraryRounds } from '../testing/arbitrary-rounds';
import { casesOf } from '../testing/cases';
import { type FieldFound, fieldsIn } from '../testing/fields-in';
import { arbitraryWildFight } from '../testing/arbitrary-wild';
import { inTurns } from '../testing/rounds';
import { sketched } from '../testing/builders';
import type { Loose } from '../testing/duels';
import { type Constructor, classFields } from './field';
import type { Problem } from './problem';
import { Project } from './project';
import { read } from './reading';
import { breaches, broken, filled } from './validate';

const demo = () => JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8')) as Loose;
const CASES = casesOf(1_000);

/** What a class of the document may be given: the demo's own, one of each list. */
const pieces = [...classFields(Project)!.lists].flatMap(([key, type]) =>
  (demo()[key] as Loose[]).map((value) => ({ type: type(), value: JSON.stringify(value) })),
);

/** Every place in a value, as steps. */
function places(value: unknown, at: string[] = []): string[][] {
  const below =
    typeof value === 'object' && value !== null ? Object.entries(value).flatMap(([key, item]) => places(item, [...at, key])) : [];
  return at.length ? [at, ...below] : below;
}

const odd = fc.oneof(
  fc.jsonValue({ maxDepth: 2 }),
  fc.constantFrom(
    ...[
      0,
      -0,
      -1,
      1,
      0.5,
      1e-9,
      1e6,
      1e9,
      NaN,
      Infinity,
      undefined,
      null,
      '',
      'a',
      'a-b',
      'A',
      '/a/b',
      '\uFE0F',
      '😀',
      [],
      {},
      [''],
      ['a'],
    ],
  ),
  fc.integer({ min: 0, max: 90 }).map((n) => 'x'.repeat(n)),
  fc.integer({ min: 0, max: 50 }).map((n) => '😀'.repeat(n)),
  fc.integer({ min: 0, max: 90 }).map((n) => Array<string>(n).fill('a')),
);

/** Of a field: its least and its most, and just beyond; of a text every length that some text may have, and one more. */
function aboutItsBorders({ kind, value }: FieldFound): unknown[] | undefined {
  if (kind?.kind !== 'number') {
    if (typeof value !== 'string') return undefined;
    return [0, 1, 60, 80, 120, 400, 2000].flatMap((many) => ['a'.repeat(many), 'a'.repeat(many + 1)]);
  }
  const { min, max, whole } = kind.info;
  const beyond = whole ? 1 : 1e-6;
  return [min, max, min - beyond, max + beyond, min + 0.5];
}

type Change = typeof change extends fc.Arbitrary<infer T> ? T : never;

const change = fc.record({
  piece: fc.constantFrom(...pieces),
  place: fc.nat(),
  how: fc.constantFrom('set', 'set', 'set', 'drop', 'add', 'swap'),
  value: odd,
  other: fc.nat(),
});

/** A piece of the demo with something set, dropped, added, or put where something else was. */
function changed({ piece, place, how, value, other }: Change): [Constructor, Loose] {
  const made = JSON.parse(piece.value) as Loose;
  const all = places(made);
  const at = (steps: string[]) => steps.reduce<any>((inside, step) => inside[step], made);
  const steps = all[place % all.length];
  const [parent, last] = [at(steps.slice(0, -1)), steps.at(-1)!];
  const list = Array.isArray(parent);
  if (how === 'set') parent[last] = value;
  else if (how === 'swap') parent[last] = structuredClone(at(all[other % all.length]));
  else if (how === 'drop' && list) parent.splice(Number(last), 1);
  else if (how === 'drop') delete parent[last];
  else if (list) parent.push(value);
  else parent[`${last}-more`] = value;
  return [piece.type, made];
}

const sorted = (problems: Problem[]) =>
  problems.map(({ path, rule, message }) => `${path} ${rule} ${message}`).sort((a, b) => (a < b ? -1 : 1));

describe('reading a document straight through', () => {
  test('comes to the same as the rules, field by field and in the same order', () => {
    const same = (document: Loose) => expect(JSON.stringify(read(Project, document))).toBe(JSON.stringify(filled(Project, document)));
    same(demo());
    fc.assert(
      fc.property(arbitraryWildFight, (sketch) => same(sketched(sketch) as Loose)),
      { numRuns: Math.ceil(CASES / 50) },
    );
    fc.assert(
      fc.property(arbitraryRounds, (sketch) => same(inTurns(sketch, true) as unknown as Loose)),
      { numRuns: Math.ceil(CASES / 50) },
    );
  });

  test('takes what the rules take and nothing else; what is refused is refused with the same words', () => {
    let taken = 0;
    fc.assert(
      fc.property(change, (drawn) => {
        const [type, value] = changed(drawn);
        const all = broken(type, value, []);
        expect(sorted(breaches(type, value, []))).toEqual(sorted(all));
        const made = read(type, value);
        if (made) {
          taken++;
          expect(all).toEqual([]);
          expect(JSON.stringify(made)).toBe(JSON.stringify(filled(type, value)));
        } else if (!all.length)
          expect(JSON.stringify(value, (_, each: unknown) => (each === undefined ? 'absent' : each))).toMatch(
            /[\uFE0E\uFE0F\uD800-\uDFFF]|"absent"/,
          );
      }),
      { numRuns: CASES },
    );
    expect(taken).toBeGreaterThan(CASES / 20);
    expect(taken).toBeLessThan((CASES * 19) / 20);
  });

  test('takes just as much and as many as the rules do', () => {
    let borders = 0;
    const known = new Set<string>();
    for (const piece of pieces) {
      for (const field of fieldsIn(piece.type, JSON.parse(piece.value) as Loose, known)) {
        const taken = (aboutItsBorders(field) ?? []).map((other) => {
          const one = { ...field.of, [field.key]: other };
          const all = broken(field.type, one, []);
          expect([one, sorted(breaches(field.type, one, []))]).toEqual([one, sorted(all)]);
          return all.length === 0;
        });
        if (taken.includes(true) && taken.includes(false)) borders++;
      }
    }
    expect(borders).toBeGreaterThan(100);
  });
});
