/** The names of all warnings. */

/** Told from the document alone. */
export const INSPECTION_RULES = [
  'stopsOutOfReach',
  'losesWhatItSees',
  'leashInsideSight',
  'reachBeyondSight',
  'eyesAboveFoes',
  'rangeInsideBody',
  'areaShorterThanRange',
  'shotFallsShort',
  'cooldownInsideSwing',
  'repeatBeyondActive',
  'movementCutShort',
  'cueAfterWindup',
  'neverTicks',
  'unaffordable',
  'manyHitsNoWindow',
  'noAnswer',
  'tooQuickToAnswer',
  'neverChosen',
  'neverReached',
  'stateUnreachable',
  'stateWithoutEnd',
  'neverLeaves',
  'flickers',
  'gateNeverOpens',
  'nobodyToTarget',
  'outheals',
  'healthWithoutWeight',
  'tweakOfNothing',
  'tweakVoid',
  'tweakUndone',
  'shieldNotScaled',
  'tiersAlike',
  'tweakOutOfOrder',
  'wavesAllAtOnce',
  'waveNeverStarts',
  'emptyWave',
  'eventNever',
  'nothingToStrike',
] as const;
export type InspectionRule = (typeof INSPECTION_RULES)[number];

export const SIMULATED_RULES = [
  'attackNeverUsed',
  'attackHardlyUsed',
  'stateNeverEntered',
  'flicker',
  'neverStruck',
  'reviveLoop',
  'timesOut',
  'runsAway',
  'stuck',
  'noPlace',
  'gateSkipped',
  'tierOutOfOrder',
  'tiersAlike',
  'friendsHurt',
] as const;
export type SimulatedRule = (typeof SIMULATED_RULES)[number];

export type WarningRule = InspectionRule | SimulatedRule;
