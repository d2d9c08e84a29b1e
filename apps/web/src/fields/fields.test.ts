import { describe, expect, test } from '@jest/globals';
import { type Project, baseFor, effectiveUnit, parseProject, writtenUnit, shown } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { hasOwnTweak, nameOfPlace, resetThroughTier, setNumber, setThroughTier } from './edits';
import * as fc from 'fast-check';
import { evaluate, limitBroken } from './number';

const demo = (): Project => parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8')));

describe('numbers as typed', () => {
  test.each([
    ['2*1.25', 2.5],
    ['(1 + 2) × 3', 9],
    ['1,5', 1.5],
    ['-2', -2],
    ['6/4-.5', 1],
    ['0.1+0.2', 0.3],
    ['1e-7', 1e-7],
    ['2.5E3 × 2', 5000],
    ['1e999', undefined],
    ['', undefined],
    ['2**3', undefined],
    ['1/0', undefined],
    ['(2', undefined],
    ['two', undefined],
    ['2;alert(1)', undefined],
  ])('%s is %p', (text, value) => expect(evaluate(text)).toBe(value));

  test('a number by itself is taken to its last digit, as it is written out by whoever goes through a field', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (x) => evaluate(String(x)) === (x === 0 ? evaluate('0') : x)),
    );
    expect(evaluate('27.9999999725')).toBe(27.9999999725);
  });

  test('limits say which one is broken', () => {
    const info = { label: 'Health', unit: 'hp', min: 0, max: 10, about: '' };
    expect([limitBroken(-1, info), limitBroken(11, info), limitBroken(5, info)]).toEqual(['at least 0', 'at most 10', undefined]);
    expect(limitBroken(1.5, { ...info, whole: true })).toBe('a whole number');
  });

  test('numbers as read have no binary noise', () => {
    expect([shown(7.199999999999999), shown(0.1 + 0.2), shown(-3), shown(Infinity)]).toEqual(['7.2', '0.3', '−3', '∞']);
  });
});

describe('edits', () => {
  test('a base edit has a name people can undo by', () => {
    const { document, name } = setNumber(demo(), 'clipper', '/attacks/bite/beat/cooldown', 0.6);
    expect(name).toBe('Clipper Bite cooldown 1.6 → 0.6 s');
    expect(document.units[1].attacks[0].beat.cooldown).toBe(0.6);
    expect(nameOfPlace(writtenUnit(demo(), 'thistlejack'), '/states/keep-band/near')).toBe('Thistlejack Keep band keeps from');
  });

  test('an edit through a tier becomes that tier’s own value, once, and can be taken back', () => {
    const once = setThroughTier(demo(), 'bramble', 'clipper', '/health/max', 30).document;
    const twice = setThroughTier(once, 'bramble', 'clipper', '/health/max', 31).document;
    expect(twice.tiers[2].tweaks).toHaveLength(demo().tiers[2].tweaks.length + 1);
    expect(effectiveUnit(twice, 'clipper', { tier: 'bramble' }).unit.health.max).toBe(31);
    expect(effectiveUnit(twice, 'clipper', {}).unit.health.max).toBe(22);
    expect(hasOwnTweak(twice, 'bramble', 'clipper', '/health/max')).toBe(true);
    expect(resetThroughTier(twice, 'bramble', 'clipper', '/health/max').document).toEqual(demo());
    expect(parseProject(twice)).toEqual(twice);
  });

  test('an edge dragged through a lens writes the base that comes out as dragged', () => {
    const project = demo();
    const chain = effectiveUnit(project, 'thistlejack', { tier: 'bramble' }).chains.get('/health/max');
    const base = baseFor(40, chain);
    expect(base).toBe(32);
    const { document } = setNumber(project, 'thistlejack', '/health/max', base);
    expect(effectiveUnit(document, 'thistlejack', { tier: 'bramble' }).unit.health.max).toBe(40);
  });
});
