import { expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { Digest } from '../digest';
import { DUE, EventQueue } from './queue';

const event = fc.record({
  time: fc.integer({ min: 0, max: 5 }),
  kind: fc.constantFrom(...Object.values(DUE)),
  unit: fc.integer({ min: 0, max: 4000 }),
  serial: fc.integer({ min: 0, max: 9 }),
  detail: fc.integer({ min: 0, max: 9 }),
});
/** The class of each kind. */
const CLASSES: Record<keyof typeof DUE, number> = {
  tick: 0,
  shotEnd: 1,
  expiry: 1,
  aid: 2,
  task: 2,
  hit: 3,
  impact: 3,
  burst: 3,
  contact: 3,
  counter: 3,
  dash: 3,
  dashMeets: 3,
  dashEnds: 3,
  bleedOut: 5,
  phaseEnd: 6,
  wave: 7,
  timeout: 7,
  notice: 8,
  cue: 4,
  answer: 8,
  dodge: 8,
  block: 8,
  stepOut: 8,
  choice: 8,
  spawn: 9,
  end: 10,
};
const CLASS_OF = (Object.keys(DUE) as (keyof typeof DUE)[]).sort((a, b) => DUE[a] - DUE[b]).map((name) => CLASSES[name]);

test('events come by time, class, unit and order of arrival, whatever the order they were pushed in', () => {
  fc.assert(
    fc.property(fc.array(event, { maxLength: 300 }), (events) => {
      const queue = new EventQueue();
      events.forEach(({ time, kind, unit, serial, detail }) => queue.push(time, kind, unit, serial, detail));
      const expected = events
        .map((each, sequence) => ({ ...each, sequence }))
        .sort((a, b) => a.time - b.time || CLASS_OF[a.kind] - CLASS_OF[b.kind] || a.unit - b.unit || a.sequence - b.sequence)
        .map(({ time, kind, unit, serial, detail }) => ({ time, kind, unit, serial, detail }));
      const taken = [];
      while (queue.size) {
        const time = queue.next;
        const count = queue.takeDue();
        for (let i = 0; i < count; i++) taken.push({ time, ...queue.due[i] });
      }
      expect(taken).toEqual(expected);
      expect(queue.next).toBe(Infinity);
    }),
    { numRuns: 300 },
  );
});

test('pushing between takings, and clearing, keep the order', () => {
  const queue = new EventQueue();
  for (let i = 0; i < 200; i++) queue.push(i % 7, DUE.hit, i, 0, 0);
  queue.takeDue();
  queue.push(0, DUE.choice, 1, 0, 0);
  expect(queue.next).toBe(0);
  queue.clear();
  expect([queue.size, queue.next]).toEqual([0, Infinity]);
});

test('the digest tells apart what differs in one bit, takes −0 for 0 and refuses what is no number', () => {
  const of = (...values: number[]) => {
    const digest = new Digest();
    values.forEach((value) => digest.number(value));
    return digest.toString();
  };
  expect(of(1, 2)).not.toBe(of(2, 1));
  expect(of(0.1 + 0.2)).not.toBe(of(0.3));
  expect(of(-0)).toBe(of(0));
  expect(() => of(NaN)).toThrow('not a number');
  const seen = new Set(Array.from({ length: 20_000 }, (_, i) => of(i)));
  expect(seen.size).toBe(20_000);
});
