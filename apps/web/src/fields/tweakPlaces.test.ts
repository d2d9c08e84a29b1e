import { describe, expect, test } from '@jest/globals';
import { Encounter, type Project, parseProject, quantityAt, pointerSteps, Unit, placeName } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { numberOffers, scopeOf, whoseOf, whoseOffers } from './tweakPlaces';

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
        expect(numberOffers(project, whoseOf(tweak)).map(({ id }) => id)).toContain(tweak.path);
      }
  });
});

describe('which number', () => {
  test('each offer is a number of the model, named once', () => {
    const project = demo();
    for (const whose of ['enemies', 'party', 'role boss', 'unit clipper']) {
      const offers = numberOffers(project, whose);
      expect(offers.length).toBeGreaterThan(10);
      expect(new Set(offers.map(({ id }) => id)).size).toBe(offers.length);
      for (const { id, name } of offers) {
        expect(quantityAt(Unit, pointerSteps(id))).toBeDefined();
        expect(name).not.toMatch(/^\/|undefined/);
      }
    }
  });
  test('of all units there are only numbers that hold for lists as a whole; of one also those of its own attacks', () => {
    const project = demo();
    const wide = numberOffers(project, 'enemies').map(({ id }) => id);
    expect(wide).toContain('/attacks/*/beat/cooldown');
    expect(wide.some((path) => path.startsWith('/attacks/bite'))).toBe(false);
    const own = numberOffers(project, 'unit clipper').map(({ id }) => id);
    expect(own).toContain('/attacks/bite/beat/cooldown');
    expect(own.indexOf('/attacks/*/beat/cooldown')).toBeLessThan(own.indexOf('/attacks/bite/beat/cooldown'));
  });
  test('of the encounter there are the encounter’s', () => {
    const project = demo();
    const offers = numberOffers(project, 'encounter', project.encounters[0]);
    expect(offers.map(({ id }) => id)).toContain('/limit');
    for (const { id } of offers) expect(quantityAt(Encounter, pointerSteps(id))).toBeDefined();
  });
  test('names say the list and the group where the label alone would not do', () => {
    expect(placeName('/attacks/*/beat/cooldown')).toBe('Cooldown of all attacks (beat)');
    expect(placeName('/health/max')).toBe('Health');
    expect(placeName('/senses/sight')).toBe('Sight (senses)');
    expect(placeName('/limit', Encounter)).toBe('Time limit');
  });
});
