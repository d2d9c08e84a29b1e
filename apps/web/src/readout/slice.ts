import { type PayloadAction, createSlice } from '@reduxjs/toolkit';
import type { ReadoutAnswer } from './protocol';

export interface ReadoutState {
  answer: ReadoutAnswer | null;
  failure: string | null;
  /** A newer one is being computed. */
  pending: boolean;
}

const initialState = { answer: null, failure: null, pending: false } as ReadoutState;

const slice = createSlice({
  name: 'readout',
  initialState,
  reducers: {
    asked: (state) => ({ ...state, pending: true }),
    answered: (_state, { payload }: PayloadAction<ReadoutAnswer>) => ({ answer: payload, failure: null, pending: false }),
    failed: (_state, { payload }: PayloadAction<string>) => ({ answer: null, failure: payload, pending: false }),
    forgotten: () => initialState,
  },
});

export const { asked, answered, failed, forgotten } = slice.actions;
export const readoutReducer = slice.reducer;
