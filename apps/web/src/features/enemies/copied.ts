/** What was copied within the page: a part of a unit, to be pasted into another. */
import type { Attack, Choice, Senses, State } from '@insidia/core';
import { type PayloadAction, createSlice } from '@reduxjs/toolkit';

export interface Parts {
  attack: Attack;
  state: State;
  choice: Choice;
  senses: Senses;
}
export type PartKind = keyof Parts;
export const PART_WORDS: Readonly<Record<PartKind, string>> = { attack: 'attack', state: 'state', choice: 'choice', senses: 'senses' };

export type Copied = { [K in PartKind]: { kind: K; value: Parts[K]; from: string } }[PartKind];

const slice = createSlice({
  name: 'clipboard',
  initialState: { copied: null as Copied | null },
  reducers: {
    copied: (_state, { payload }: PayloadAction<Copied>) => ({ copied: payload }),
  },
});

export const { copied } = slice.actions;
export const clipboardReducer = slice.reducer;
