import { type PayloadAction, createSlice } from '@reduxjs/toolkit';
import type { EncounterAnswer } from './encounterProtocol';

export interface EncounterState {
  answer: EncounterAnswer | null;
  failure: string | null;
  /** More runs are on their way. */
  pending: boolean;
}

const initialState = { answer: null, failure: null, pending: false } as EncounterState;

const slice = createSlice({
  name: 'encounterReadout',
  initialState,
  reducers: {
    encounterAsked: (state) => ({ ...state, pending: true }),
    encounterAnswered: (_state, { payload }: PayloadAction<EncounterAnswer>) => ({
      answer: payload,
      failure: null,
      pending: !payload.done,
    }),
    encounterFailed: (_state, { payload }: PayloadAction<string>) => ({ answer: null, failure: payload, pending: false }),
  },
});

export const { encounterAsked, encounterAnswered, encounterFailed } = slice.actions;
export const encounterReducer = slice.reducer;
