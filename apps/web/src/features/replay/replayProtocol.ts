import type { Project, ReasonLook, Replay, Scenario } from '@insidia/core';

export type ReplayRequest = { id: number; project: Project; scenario: Scenario; seed: number } & (
  { asks: 'replay' } | { asks: 'reasons'; unit: number; time: number }
);

export type ReplayMessage = { id: number } & ({ replay: Replay } | { reasons: ReasonLook | undefined } | { failure: string });
