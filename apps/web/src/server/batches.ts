/** Batches of the project that is open: how far they are, kept in one place so that every view shows the same. */
import { type Dispatch, type PayloadAction, createSlice } from '@reduxjs/toolkit';
import { type CellProgress, type Until, api } from './api';

export interface BatchesState {
  /** All cells since work began, those that are finished too, by key; empty when nothing is under way. */
  cells: Record<string, { done: number; wanted: number }>;
  /** ms since 1970 when work was first seen, and runs done by then. */
  since: { at: number; done: number } | null;
  /** Something has been told of this project: what it was when the page was opened is no change. */
  told: boolean;
  /** Why the last request for runs was refused. */
  refused: string | null;
  /** Why the last read of what has been run failed. */
  unread: string | null;
  /** Grows whenever something has been done: what was read before may be old. */
  changes: number;
}

const initialState = { cells: {}, since: null, told: false, refused: null, unread: null, changes: 0 } as BatchesState;

const slice = createSlice({
  name: 'batches',
  initialState,
  reducers: {
    batchesProgressed: (state, { payload: { progress, at } }: PayloadAction<{ progress: CellProgress[]; at: number }>) => {
      const before = totals(state.cells);
      if (!progress.length) {
        // Told again that nothing is under way: something began and ended between two tidings.
        if (state.told) state.changes++;
        state.told = true;
        state.cells = {};
        state.since = null;
        return;
      }
      state.told = true;
      // What is no longer told of is finished.
      for (const cell of Object.values(state.cells)) cell.done = cell.wanted;
      for (const { cell, done, wanted } of progress) state.cells[cell] = { done, wanted };
      const { done } = totals(state.cells);
      state.since ??= { at, done };
      if (done !== before.done) state.changes++;
    },
    batchesRefused: (state, { payload }: PayloadAction<string | null>) => {
      state.refused = payload;
    },
    readFailed: (state, { payload }: PayloadAction<string>) => {
      state.unread = payload;
    },
    readWorked: (state) => {
      state.unread = null;
    },
    /** Everything that has been read is read again. */
    readAgain: (state) => {
      state.changes++;
    },
    batchesForgotten: () => initialState,
  },
});

export const { batchesProgressed, batchesForgotten, batchesRefused, readFailed, readWorked, readAgain } = slice.actions;
export const batchesReducer = slice.reducer;

/** Asks for runs; a refusal is told where every view shows it. */
export const runCells = (project: string, cells: { cell: string; runs: number; until?: Until }[]) => (dispatch: Dispatch) => {
  dispatch(batchesRefused(null));
  api.runCells(project, cells).catch((error: Error) => dispatch(batchesRefused(error.message)));
};

function totals(cells: BatchesState['cells']): { done: number; wanted: number } {
  const all = Object.values(cells);
  return { done: all.reduce((sum, { done }) => sum + done, 0), wanted: all.reduce((sum, { wanted }) => sum + wanted, 0) };
}

/** Runs done and wanted, and s until all are done at the pace so far; undefined while that can't be told. */
export function howFar({ cells, since }: BatchesState, now: number): { done: number; wanted: number; elapsed: number; remaining?: number } {
  const { done, wanted } = totals(cells);
  const elapsed = since ? Math.max(0, (now - since.at) / 1000) : 0;
  const gained = since ? done - since.done : 0;
  return { done, wanted, elapsed, ...(gained > 0 && { remaining: ((wanted - done) * elapsed) / gained }) };
}
