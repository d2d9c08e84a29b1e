import { type PayloadAction, createSlice } from '@reduxjs/toolkit';
import type { ReadoutAnswer, StylesAnswer } from './protocol';

export interface ReadoutState {
  answer: ReadoutAnswer | null;
  failure: string | null;
  /** The same duel at each play style; comes later. */
  styles: StylesAnswer | null;
  /** A newer one is being computed. */
  pending: boolean;
}

const initialState = { answer: null, failure: null, styles: null, pending: false } as ReadoutState;

const slice = createSlice({
  name: 'readout',
  initialState,
  reducers: {
    asked: (state) => ({ ...state, pending: true }),
    answered: (state, { payload }: PayloadAction<ReadoutAnswer>) => ({
      ...state,
      answer: payload,
      failure: null,
      pending: payload.early === true,
    }),
    styled: (state, { payload }: PayloadAction<StylesAnswer>) => ({ ...state, styles: payload }),
    failed: (_state, { payload }: PayloadAction<string>) => ({ answer: null, failure: payload, styles: null, pending: false }),
    forgotten: () => initialState,
  },
});

export const { asked, answered, styled, failed, forgotten } = slice.actions;
export const readoutReducer = slice.reducer;
