import { expect, test } from '@jest/globals';
import { plainFields } from './form';
import { Unit } from './unit';

test('a form shows what its class declares, in that order, and only what applies', () => {
  expect(plainFields(Unit, ['body'], {})).toEqual(['radius', 'height', 'eyeHeight', 'muzzleHeight']);
  expect(plainFields(Unit, ['health'], {})).toEqual(['max', 'regen', 'regenDelay', 'regenUpTo']);
  // A small group of numbers stands among them.
  expect(plainFields(Unit, ['player', 'healing'], {})).toEqual(['count', 'below', 'takes', 'heal/amount', 'heal/share']);
  const answer = (kind: string) => plainFields(Unit, ['player', 'answers', 'a'], { kind });
  expect(answer('dodge')).toEqual(['kind', 'window', 'distance', 'way', 'protects', 'cooldown']);
  expect(answer('block')).toEqual(['kind', 'window', 'cooldown', 'reduces']);
  expect(answer('stepOut')).toEqual(['kind', 'cooldown']);
  expect(plainFields(Unit, ['attacks'], {})).toEqual([]);
});
