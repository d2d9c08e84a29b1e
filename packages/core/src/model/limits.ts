/** The sizes a document may have. Each is a refusal, never a silent cut. */
export const LIMITS = {
  /** Unit kinds in a project. */
  units: 200,
  /** Attacks of one unit. */
  attacks: 64,
  /** States of one unit. */
  states: 64,
  /** Transitions out of one state. */
  leaves: 32,
  /** Priorities of one choice. */
  priorities: 16,
  /** Entries in one priority of a choice. */
  entries: 64,
  /** Units alive at one time in an encounter. */
  liveUnits: 500,
  /** Seconds an encounter may be set to last. */
  encounterSeconds: 3600,
  /** Party members in an encounter. */
  party: 4,
  arenas: 100,
  encounters: 200,
  tiers: 24,
  skills: 24,
  /** Tweaks in one list. */
  tweaks: 500,
  groups: 64,
  spawnPoints: 200,
} as const;
