import { expect, test } from '@jest/globals';
import { databaseProblem, isFull, written } from './trouble';

const told = (error: unknown, changing = true) => {
  const problem = databaseProblem(error, changing);
  return problem && [problem.getStatus(), problem.body.type.split('/').at(-1)];
};
const coded = (code: string, message = 'x') => Object.assign(new Error(message), { code });

test.each<[string, unknown, unknown[] | undefined]>([
  ['a full disk', coded('53100'), [507, 'disk-full']],
  ['a full disk, by its words', new Error('could not extend file "base/5/1": No space left on device'), [507, 'disk-full']],
  ['a statement that took too long', coded('57014'), [503, 'too-slow']],
  ['a server that is shut down', coded('57P01'), [503, 'database-away']],
  ['a server that is starting', coded('57P03'), [503, 'database-away']],
  ['no connection', coded('ECONNREFUSED'), [503, 'database-away']],
  ['too many connections', coded('53300'), [503, 'database-away']],
  ['a connection that broke', new Error('Connection terminated unexpectedly'), [503, 'database-away']],
  ['a transaction whose connection broke', new Error('Transaction query already complete, run with DEBUG=knex:tx'), [503, 'database-away']],
  ['a pool without any', new Error('Knex: Timeout acquiring a connection. The pool is probably full.'), [503, 'database-away']],
  ['a cause within', Object.assign(new Error('driver'), { previous: coded('57P02') }), [503, 'database-away']],
  ['a broken rule of the database', coded('23505'), undefined],
  ['a fault of the server’s own', new TypeError('x is not a function'), undefined],
  ['nothing', undefined, undefined],
])('%s', (_, error, wanted) => expect(told(error)).toEqual(wanted));

test('a change that was lost on its way may or may not have been saved; a question was just not answered', () => {
  expect(databaseProblem(coded('08006'), true)!.body.detail).toContain('may or may not have been saved');
  expect(databaseProblem(coded('08006'), false)!.body.detail).not.toContain('saved');
});

test('a full disk is told until something is written', () => {
  databaseProblem(coded('53100'), true);
  expect(isFull()).toBe(true);
  written();
  expect(isFull()).toBe(false);
});
