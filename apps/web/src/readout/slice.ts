import type { Scenario } from '@insidia/core';
import { type PayloadAction, createSlice } from '@reduxjs/toolkit';
import type { DuelAnswer, EncounterAnswer, ReadoutAnswer, StylesAnswer } from './protocol';

interface Shown<Answer> {
  answer: Answer | null;
  failure: string | null;
  /** More runs, or a newer readout, are on their way. */
  pending: boolean;
}

/** The newest readout of each kind: whoever comes back to a page finds it as it was. */
export interface ReadoutState {
  duel: Shown<DuelAnswer>;
  encounter: Shown<EncounterAnswer>;
  /** The duel at each play style; comes later. */
  styles: StylesAnswer | null;
}

const nothing = { answer: null, failure: null, pending: false };
const initialState: ReadoutState = { duel: nothing, encounter: nothing, styles: null };

const slice = createSlice({
  name: 'readout',
  initialState,
  reducers: {
    asked: (state, { payload: kind }: PayloadAction<Scenario['kind']>) => ({ ...state, [kind]: { ...state[kind], pending: true } }),
    answered: (state, { payload }: PayloadAction<ReadoutAnswer>) => ({
      ...state,
      [payload.kind]: { answer: payload, failure: null, pending: !payload.done },
    }),
    styled: (state, { payload }: PayloadAction<StylesAnswer>) => ({ ...state, styles: payload }),
    failed: (state, { payload: { kind, message } }: PayloadAction<{ kind: Scenario['kind']; message: string }>) => ({
      ...state,
      [kind]: { ...nothing, failure: message },
      ...(kind === 'duel' && { styles: null }),
    }),
    forgotten: () => initialState,
  },
});

export const { asked, answered, styled, failed, forgotten } = slice.actions;
export const readoutReducer = slice.reducer;
