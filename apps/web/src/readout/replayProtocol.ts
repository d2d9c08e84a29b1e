import type { DuelOptions, Lens, Project, ReasonLook, Replay } from '@insidia/core';

/** What is run: an encounter of the project, or a duel. */
export type ReplaySubject = { encounter: string } | { duel: DuelOptions };

export type ReplayRequest = { id: number; project: Project; lens: Lens; subject: ReplaySubject; seed: number } & (
  { asks: 'replay' } | { asks: 'reasons'; unit: number; time: number }
);

export type ReplayMessage = { id: number } & ({ replay: Replay } | { reasons: ReasonLook | undefined } | { failure: string });
