import { describe, expect, test } from '@jest/globals';
import { type Project, parseProject } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setNumber } from '../fields/edits';
import {
  type DocumentState,
  changed,
  documentReducer,
  merge,
  opened,
  opening,
  overtaken,
  redone,
  savingBegan,
  savingDone,
  settled,
  undone,
} from './document';

const demo = (): Project => parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8')));
type Action = Parameters<typeof documentReducer>[1];
const play = (...actions: Action[]): DocumentState =>
  actions.reduce<DocumentState | undefined>(documentReducer, undefined) as DocumentState;
const start = [opening('verdance'), opened({ saved: { revision: 1, document: demo() } })];
const edit = (state: DocumentState, path: string, value: number, mark?: string) =>
  documentReducer(state, changed({ ...setNumber(state.document as Project, 'clipper', path, value), mark }));
const health = (state: DocumentState) => state.document?.units[1].health.max;

describe('undo and redo', () => {
  test('go back and forth by name', () => {
    let state = edit(edit(play(...start), '/health/max', 30), '/health/max', 40);
    expect(state.past.map(({ name }) => name)).toEqual(['Clipper health 22 → 30 hp', 'Clipper health 30 → 40 hp']);
    state = documentReducer(state, undone());
    expect([health(state), state.lastChange, state.before?.units[1].health.max]).toEqual([30, 'Undo: Clipper health 30 → 40 hp', 40]);
    state = documentReducer(documentReducer(state, undone()), undone());
    expect(health(state)).toBe(22);
    state = documentReducer(documentReducer(state, redone()), redone());
    expect([health(state), state.future.length]).toEqual([40, 0]);
  });

  test('all moves of one drag are one change; a drag back to where it began is none', () => {
    let state = play(...start);
    for (const value of [23, 24, 25]) state = edit(state, '/health/max', value, 'drag 1');
    expect(state.past.map(({ name }) => name)).toEqual(['Clipper health 22 → 25 hp']);
    expect(state.before?.units[1].health.max).toBe(22);
    expect(health(documentReducer(state, undone()))).toBe(22);
    state = edit(state, '/health/max', 22, 'drag 1');
    expect([state.past.length, health(state)]).toEqual([0, 22]);
  });

  test('leave what they do not touch the very same objects', () => {
    const before = play(...start);
    const state = edit(before, '/health/max', 30);
    const [was, now] = [before.document as Project, state.document as Project];
    expect(now.units.filter((unit, i) => unit !== was.units[i]).map(({ id }) => id)).toEqual(['clipper']);
    expect([now.encounters, now.arenas, now.units[1].attacks]).toEqual([was.encounters, was.arenas, was.units[1].attacks]);
    expect([now.encounters === was.encounters, now.units[1].attacks === was.units[1].attacks]).toEqual([true, true]);
    const undo = documentReducer(state, undone());
    expect(undo.document?.units.every((unit, i) => i === 1 || unit === was.units[i])).toBe(true);
    const saved = documentReducer(state, savingDone({ revision: 2, document: structuredClone(now) }));
    expect([saved.saved?.document === now, saved.saving]).toEqual([true, 'saved']);
  });

  test('a new change forgets what was undone', () => {
    const state = edit(documentReducer(edit(play(...start), '/health/max', 30), undone()), '/health/max', 50);
    expect([state.past.length, state.future.length]).toEqual([1, 0]);
  });
});

describe('saving', () => {
  test('what was changed while a save was under way still waits', () => {
    let state = edit(play(...start), '/health/max', 30);
    const sent = state.document as Project;
    state = edit(documentReducer(state, savingBegan()), '/health/max', 31);
    state = documentReducer(state, savingDone({ revision: 2, document: sent }));
    expect([state.saving, health(state), state.saved?.revision]).toEqual(['waiting', 31, 2]);
  });

  test('another’s change elsewhere is merged and mine kept', () => {
    const theirs = demo();
    theirs.units[2].movement.run = 7;
    const state = documentReducer(edit(play(...start), '/health/max', 30), overtaken({ revision: 2, document: theirs }));
    expect([state.saving, health(state), state.document?.units[2].movement.run]).toEqual(['waiting', 30, 7]);
  });

  test('another’s change of the same number is a conflict until it is settled', () => {
    const theirs = demo();
    theirs.units[1].health.max = 99;
    const clash = documentReducer(edit(play(...start), '/health/max', 30), overtaken({ revision: 2, document: theirs }));
    expect([clash.saving, health(clash), clash.theirs?.revision]).toEqual(['conflict', 30, 2]);
    expect(documentReducer(clash, settled('mine'))).toMatchObject({ saving: 'waiting', theirs: null, saved: { revision: 2 } });
    expect(health(documentReducer(clash, settled('theirs')))).toBe(99);
  });

  test('the answer to a save that was lost on its way is recognised: both have the same', () => {
    const state = edit(play(...start), '/health/max', 30);
    expect(documentReducer(state, overtaken({ revision: 2, document: state.document as Project }))).toMatchObject({
      saving: 'saved',
      saved: { revision: 2 },
    });
  });

  test('a merge tells which places clash', () => {
    const [mine, theirs] = [demo(), demo()];
    mine.units[1].health.max = 1;
    theirs.units.splice(1, 1);
    expect(merge(demo(), mine, theirs)).toEqual({ clash: ['/units/clipper/health/max'] });
  });
});
