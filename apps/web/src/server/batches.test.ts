import { describe, expect, test } from '@jest/globals';
import {
  type BatchesState,
  batchesForgotten,
  batchesProgressed,
  batchesReducer,
  howFar,
  readAgain,
  readFailed,
  readWorked,
} from './batches';

const progressed = (state: BatchesState | undefined, at: number, ...cells: [string, number, number][]) =>
  batchesReducer(state, batchesProgressed({ at, progress: cells.map(([cell, done, wanted]) => ({ cell, done, wanted })) }));

describe('how far batches are', () => {
  test('elapsed from when work was first seen; what remains at the pace so far, once there is one', () => {
    let state = progressed(undefined, 1000, ['a', 50, 200], ['b', 0, 100]);
    expect(howFar(state, 3000)).toEqual({ done: 50, wanted: 300, elapsed: 2 });
    state = progressed(state, 5000, ['a', 100, 200], ['b', 50, 100]);
    // A hundred runs in four seconds: 150 more take six.
    expect(howFar(state, 5000)).toEqual({ done: 150, wanted: 300, elapsed: 4, remaining: 6 });
  });

  test('what is told of no longer is finished and stays in the sum, until nothing is under way', () => {
    let state = progressed(undefined, 0, ['a', 50, 100], ['b', 0, 100]);
    state = progressed(state, 1000, ['b', 50, 100]);
    expect(howFar(state, 1000)).toMatchObject({ done: 150, wanted: 200 });
    state = progressed(state, 2000);
    expect(state.cells).toEqual({});
    expect(state.since).toBeNull();
  });

  test('what was over before anything was told of it is a change as well; how it was at the opening is none', () => {
    let state = progressed(undefined, 0);
    expect(state.changes).toBe(0);
    state = progressed(state, 1);
    expect(state.changes).toBe(1);
    state = progressed(state, 2, ['a', 0, 50]);
    const { changes } = state;
    state = progressed(state, 3);
    expect(state.changes).toBe(changes + 1);
    state = progressed(batchesReducer(state, batchesForgotten()), 4);
    expect(state.changes).toBe(0);
  });

  test('every step forward is a change that others read by; the same news twice is none', () => {
    let state = progressed(undefined, 0, ['a', 0, 100]);
    const first = state.changes;
    state = progressed(state, 1, ['a', 50, 100]);
    expect(state.changes).toBe(first + 1);
    state = progressed(state, 2, ['a', 50, 100]);
    expect(state.changes).toBe(first + 1);
    state = progressed(state, 3);
    expect(state.changes).toBe(first + 2);
  });

  test('a read that failed is told until one works; asking again makes everybody read anew', () => {
    const failed = batchesReducer(progressed(undefined, 0, ['a', 0, 100]), readFailed('the database does not answer'));
    expect(failed.unread).toBe('the database does not answer');
    expect(batchesReducer(failed, readAgain()).changes).toBe(failed.changes + 1);
    expect(batchesReducer(failed, readWorked()).unread).toBeNull();
  });

  test('the clock never runs backwards, and another project begins anew', () => {
    const state = progressed(undefined, 5000, ['a', 0, 100]);
    expect(howFar(state, 4000).elapsed).toBe(0);
    expect(batchesReducer(state, batchesForgotten())).toEqual(batchesReducer(undefined, { type: 'none' }));
  });
});
