/** The project’s warnings through the lens, kept up behind the edits. */
import type { Warning } from '@insidia/core';
import { type PayloadAction, createSlice } from '@reduxjs/toolkit';

export interface Warnings {
  open: readonly Warning[];
  accepted: readonly Warning[];
}

const slice = createSlice({
  name: 'warnings',
  initialState: { open: [], accepted: [] } as Warnings,
  reducers: { inspected: (_state, { payload }: PayloadAction<Warnings>) => payload },
});

export const { inspected } = slice.actions;
export const warningsReducer = slice.reducer;
