import { expect, test } from '@jest/globals';
import { Attack, Dash } from '../model/attack';
import { blank } from '../model/blank';
import { dashOnPaper } from './dash-on-paper';

const attack = (dash: Partial<Dash>): Attack => ({
  ...blank(Attack),
  id: 'lunge',
  name: 'Lunge',
  delivery: 'melee',
  range: { min: 2, max: 6 },
  beat: { ...blank(Attack).beat, windup: 0.5, active: 1 },
  dash: { ...blank(Dash), speed: 8, distance: 10, ...dash },
});

test('a movement up to its target goes as far as it is away: at the middle of the range unless a distance is named', () => {
  expect(dashOnPaper(attack({}))).toEqual({ from: 0, to: 0.5, metres: 4 });
  expect(dashOnPaper(attack({}), 6)).toEqual({ from: 0, to: 0.75, metres: 6 });
  expect(dashOnPaper(attack({ distance: 3 }))).toMatchObject({ metres: 3 });
  expect(dashOnPaper(attack({ upToTarget: false }))).toMatchObject({ metres: 10, to: 1.25 });
  expect(dashOnPaper({ ...attack({}), dash: undefined })).toBeUndefined();
});

test('its hit falls on the way or at its end; it begins after so long in its part of the attack', () => {
  expect(dashOnPaper(attack({ during: 'active', after: 0.25, way: 'ahead', hurts: 'way' }))).toEqual({
    from: 0.75,
    to: 2,
    metres: 10,
    hit: 1.25,
  });
  expect(dashOnPaper(attack({ way: 'ahead', hurts: 'end' }))).toMatchObject({ to: 1.25, hit: 1.25 });
});
