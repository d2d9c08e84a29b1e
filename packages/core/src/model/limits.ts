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
  /** Units alive at one time in an encounter that takes turns; cells along one side of its board. */
  unitsInTurns: 100,
  boardSide: 64,
  /** Seconds an encounter may be set to last. */
  encounterSeconds: 3600,
  /** Party members in an encounter. */
  party: 8,
  arenas: 100,
  encounters: 200,
  tiers: 24,
  skills: 24,
  /** Tweaks in one list. */
  tweaks: 500,
  groups: 64,
  spawnPoints: 200,
  variants: 200,
  styles: 24,
  /** Conditions joined in one, and how deep they may be nested. */
  conditions: 16,
  conditionDepth: 6,
  waves: 64,
  /** Times a wave may come. */
  repeats: 50,
  /** Units an encounter may plan over its whole length; each is remembered to the end of a run. */
  plannedUnits: 3000,
  walls: 200,
  /** Corners of a wall, a ground area or a zone. */
  corners: 16,
  zones: 64,
  points: 64,
  /** Traits of a project; changes in one; traits given to one unit, wave or tier; to a group, of each of which a share may have it. */
  traits: 40,
  traitTweaks: 64,
  given: 16,
  groupTraits: 4,
  grounds: 64,
  events: 64,
  /** Counters of an encounter; changes of them on entering one state. */
  counters: 20,
  counts: 8,
  pools: 16,
  patrolPoints: 32,
  muzzles: 8,
  answers: 8,
  gates: 8,
  damageTypes: 16,
  words: 40,
  /** Bands of a brief; intended curves; points of one. */
  bands: 500,
  curves: 100,
  curvePoints: 64,
  /** Questions that are kept; of each: what may turn, what is wanted, tiers and skills at which it is asked. */
  questions: 50,
  questionDials: 200,
  questionGoals: 12,
  questionLenses: 24,
  /** Warnings accepted with a reason. */
  accepted: 500,
  /** Cells of the grid that paths are found on: width × depth ÷ grid². */
  gridCells: 250_000,
  /** Levels of nesting in a document. */
  depth: 40,
} as const;
