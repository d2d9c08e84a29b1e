import { expect, test } from '@jest/globals';
import { fetchFailed, fetchWorked, fetchedReducer } from './fetched';

test('what could not be fetched is told until it is, whatever else is fetched meanwhile', () => {
  const failed = fetchedReducer(undefined, fetchFailed({ what: 'Tune', why: 'the server does not answer' }));
  expect(fetchedReducer(failed, fetchWorked('warnings'))).toEqual(failed);
  expect(fetchedReducer(failed, fetchWorked('Tune')).failed).toBeNull();
  expect(fetchedReducer(failed, fetchFailed(null)).failed).toBeNull();
});
