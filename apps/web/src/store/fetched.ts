/** What is fetched apart from the first view at a press; that it could not be is told where every view shows it. */
import { type PayloadAction, createSlice } from '@reduxjs/toolkit';
import { useCallback } from 'react';
import { useDispatch } from 'react-redux';

interface Failure {
  /** What it was wanted for, in words: it is told until that is fetched, whatever else is meanwhile. */
  what: string;
  why: string;
}

const slice = createSlice({
  name: 'fetched',
  initialState: { failed: null as Failure | null },
  reducers: {
    fetchFailed: (state, { payload }: PayloadAction<Failure | null>) => {
      state.failed = payload;
    },
    fetchWorked: (state, { payload: what }: PayloadAction<string>) => {
      if (state.failed?.what === what) state.failed = null;
    },
  },
});

export const { fetchFailed, fetchWorked } = slice.actions;
export const fetchedReducer = slice.reducer;

/** Fetches a part of the program and goes on with it. */
export function useFetched() {
  const dispatch = useDispatch();
  return useCallback(
    <Part>(what: string, load: () => Promise<Part>, goOn: (part: Part) => void): void =>
      void load().then(
        (part) => {
          dispatch(fetchWorked(what));
          goOn(part);
        },
        (error: Error) => dispatch(fetchFailed({ what, why: error.message })),
      ),
    [dispatch],
  );
}
