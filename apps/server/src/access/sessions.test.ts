import { describe, expect, test } from '@jest/globals';
import { SESSION_MS, Sessions } from './sessions';

describe('sessions', () => {
  const sessions = new Sessions('greenhouse');

  test('what was begun is read again, until its time is over', () => {
    const token = sessions.begin('Ada', 1000);
    expect(sessions.read(token, 2000)).toMatchObject({ name: 'Ada' });
    expect(sessions.read(token, 1000 + SESSION_MS - 1)).toBeDefined();
    expect(sessions.read(token, 1000 + SESSION_MS)).toBeUndefined();
  });

  test('what was changed, made elsewhere, or is nothing is none', () => {
    const token = sessions.begin('Ada');
    const [body, signature] = token.split('.');
    const other = Buffer.from(JSON.stringify({ id: 'x', name: 'Root', until: 9e15 })).toString('base64url');
    for (const wrong of [undefined, {}, '', 'x', body, `${other}.${signature}`, `${token}x`, new Sessions('greenhouses').begin('Ada')])
      expect(sessions.read(wrong)).toBeUndefined();
  });

  test('one that was ended is over at once, the others go on; who keeps them is told', () => {
    const ended: string[] = [];
    const kept = new Sessions('greenhouse', ({ id }) => void ended.push(id));
    const [one, two] = [kept.begin('Ada'), kept.begin('Bo')];
    const session = kept.read(one)!;
    kept.end(session);
    expect([kept.read(one), kept.goesOn(session), kept.read(two)?.name, ended]).toEqual([undefined, false, 'Bo', [session.id]]);
    const restarted = new Sessions('greenhouse');
    restarted.recall(session);
    expect([restarted.read(one), restarted.read(two)?.name]).toEqual([undefined, 'Bo']);
  });

  test('the password is the one it was made of', () => {
    expect(['greenhouse', 'Greenhouse', '', 'greenhouse '].map((one) => sessions.matches(one))).toEqual([true, false, false, false]);
  });
});
