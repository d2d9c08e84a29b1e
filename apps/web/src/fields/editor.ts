import type { Chain, Constructor, Warning, WordChain } from '@insidia/core';

/** What fields need of whatever they edit: a unit, an encounter, an arena. */
export interface FieldEditor {
  /** The class of what is edited. */
  root: Constructor;
  /** Pointer to it in the project, as warnings name it. */
  place: string;
  /** As it is written. */
  base: object;
  /** Editing through this tier: numbers become its own. */
  throughTier?: string;
  /** Open warnings of it. */
  warnings: readonly Warning[];
  chain: (path: string) => Chain | undefined;
  /** The same of words and yes-or-nos. */
  wordChain: (path: string) => WordChain | undefined;
  baseValue: (path: string) => number | undefined;
  /** Writes a number; undefined takes an optional one away. */
  write: (path: string, value: number | undefined, mark?: string) => void;
  /** Sets anything that is not a number. `what` says the change: "aim: fixed". */
  set: (path: string, value: unknown, what: string) => void;
  /** Gives a value back to where it comes from; undefined where there is nothing to give back. */
  reset: (path: string) => (() => void) | undefined;
}
