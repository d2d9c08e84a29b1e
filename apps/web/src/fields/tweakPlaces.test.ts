import { describe, expect, test } from '@jest/globals';
import { Encounter, type Project, parseProject, changeableAt, pointerSteps, Unit, placeName } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { changeOf, placeOffers, scopeOf, whoseOf, whoseOffers } from './tweakPlaces';

const demo = (): Project => parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8')));

describe('whose number a tweak changes', () => {
  test('every offer leads to a scope, and back to its word', () => {
    for (const { id } of whoseOffers(demo())) expect(whoseOf(scopeOf(id))).toBe(id);
    expect(scopeOf('role quick and small')).toEqual({ scope: 'role', of: 'quick and small' });
  });
  test('every tweak of the demo is one of the offers, with its number', () => {
    const project = demo();
    for (const { tweaks } of [...project.tiers, ...project.skills, ...project.styles])
      for (const tweak of tweaks) {
        expect(whoseOffers(project).map(({ id }) => id)).toContain(whoseOf(tweak));
        expect(placeOffers(project, whoseOf(tweak)).map(({ id }) => id)).toContain(tweak.path);
      }
  });
});

describe('which number', () => {
  test('each offer is a number of the model, named once', () => {
    const project = demo();
    for (const whose of ['enemies', 'party', 'role boss', 'unit clipper']) {
      const offers = placeOffers(project, whose);
      expect(offers.length).toBeGreaterThan(10);
      expect(new Set(offers.map(({ id }) => id)).size).toBe(offers.length);
      for (const { id, name } of offers) {
        expect(changeableAt(Unit, pointerSteps(id))).toBeDefined();
        expect(name).not.toMatch(/^\/|undefined/);
      }
    }
  });
  test('of all units there are only numbers that hold for lists as a whole; of one also those of its own attacks', () => {
    const project = demo();
    const wide = placeOffers(project, 'enemies').map(({ id }) => id);
    expect(wide).toContain('/attacks/*/beat/cooldown');
    expect(wide.some((path) => path.startsWith('/attacks/bite'))).toBe(false);
    const own = placeOffers(project, 'unit clipper').map(({ id }) => id);
    expect(own).toContain('/attacks/bite/beat/cooldown');
    expect(own.indexOf('/attacks/*/beat/cooldown')).toBeLessThan(own.indexOf('/attacks/bite/beat/cooldown'));
  });
  test('of the encounter there are the encounter’s', () => {
    const project = demo();
    const offers = placeOffers(project, 'encounter', project.encounters[0]);
    expect(offers.map(({ id }) => id)).toContain('/limit');
    for (const { id } of offers) expect(changeableAt(Encounter, pointerSteps(id))).toBeDefined();
  });
  test('names say the list and the group where the label alone would not do', () => {
    expect(placeName('/attacks/*/beat/cooldown')).toBe('Cooldown of all attacks (beat)');
    expect(placeName('/health/max')).toBe('Health');
    expect(placeName('/senses/sight')).toBe('Sight (senses)');
    expect(placeName('/limit', Encounter)).toBe('Time limit');
  });
});

describe('what a tweak becomes where it is to change another place', () => {
  test.each([
    ['a number keeps its factor', '/health/max', { op: '×', value: 1.5 }, { op: '×', value: 1.5 }],
    ['a number that was a word is left alone', '/health/max', { op: '=', value: 'fixed' }, { op: '×', value: 1 }],
    ['a number from nothing is left alone', '/health/max', undefined, { op: '×', value: 1 }],
    ['a word that was a number is the first there is', '/attacks/*/beat/tracking', { op: '×', value: 1.5 }, { op: '=', value: 'turns' }],
    ['a word that another has too stays', '/attacks/*/beat/tracking', { op: '=', value: 'fixed' }, { op: '=', value: 'fixed' }],
    ['a word that it has not is the first there is', '/states/*/pace', { op: '=', value: 'fixed' }, { op: '=', value: 'walk' }],
    ['a yes-or-no is yes', '/attacks/*/needsLine', { op: '×', value: 2 }, { op: '=', value: true }],
    ['a no stays no', '/attacks/*/needsLine', { op: '=', value: false }, { op: '=', value: false }],
  ] as const)('%s', (_, path, was, becomes) => {
    expect(changeOf(Unit, path, was)).toEqual({ path, ...becomes });
  });
});
