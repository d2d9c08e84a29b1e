import { expect, test } from '@jest/globals';
import { InvalidDocument } from './problem';

test('a refusal names the place, the rule and the value; what is too long for a line is cut at eighty characters', () => {
  const said = (value: unknown) => new InvalidDocument([{ path: '/units/a', rule: 'r', message: 'must not be', value }]).message;
  expect(said(5)).toContain('/units/a must not be: it is 5');
  expect(said(undefined)).toMatch(/must not be$/m);
  // With its quotation marks: 80 characters are whole, 81 end in an ellipsis after 77.
  expect(said('x'.repeat(78))).toContain(`it is "${'x'.repeat(78)}"`);
  expect(said('x'.repeat(79))).toContain(`it is "${'x'.repeat(76)}…`);
});
