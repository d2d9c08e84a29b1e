export * from './model/arena';
export * from './model/attack';
export * from './model/condition';
export * from './model/effective';
export * from './model/encounter';
export { quantityAt, type QuantityInfo } from './model/field';
export * from './model/limits';
export * from './model/planned';
export * from './model/patch';
export * from './model/player';
export * from './model/pointer';
export * from './model/problem';
export * from './model/project';
export * from './model/state';
export * from './model/tweak';
export * from './model/unit';
export * from './model/variant';
export * from './model/variants';
export { parseProject } from './model/validate';
export { type CompileOptions, compile } from './engine/compile';
export type { Compiled } from './engine/tables';
export {
  DOING_NAMES,
  type Doing,
  EVENT,
  EVENT_NAMES,
  MISS,
  MISS_NAMES,
  type Outcome,
  OUTCOME_NAMES,
  VERDICT,
  VERDICT_NAMES,
} from './engine/log';
export { type Run, Runner, run, type Watcher } from './engine/run';
export { ENGINE_VERSION, SECOND } from './engine/tuning';
export { type AttackSummary, type BatchSummary, Batch, type KindSummary, isWon, runBatch, summariseRows } from './measures/batch';
export type { AttackUse } from './measures/attack-use';
export * from './measures/catalogue';
export { type Curve, Curves } from './measures/curves';
export * from './measures/enough';
export { batchIdentity } from './measures/identity';
export { type Lull, type Lulls, lulls } from './measures/pressure';
export { type Change, pairedChange } from './measures/compare';
export { type Interval, wilson } from './measures/intervals';
export { type Pressure, PRESSURE_WINDOW_SECONDS, partyLosses, pressure } from './measures/pressure';
export { quantileInterval, quantileOf } from './measures/quantile';
export { type Row, rowOf } from './measures/row';
export type { Stream } from './measures/stream';
export { type Summary, summarise } from './measures/summary';
export { IDLE_REASONS, PLAYER_USES, type PlayerUse, TIME_USES, type TimeUse } from './measures/time-use';
export { type Approach, type ApproachLine, type ApproachMark, approach } from './analysis/approach';
export { DUEL_DEFAULTS, type DuelOptions, duelOptions } from './analysis/duel';
export { type PaperAttack, type PaperDuel, effectiveHealth, paperAttack, paperDuel, sustainedDamage } from './analysis/paper';
export * from './analysis/simulated-warnings';
export * from './analysis/readout';
export * from './trace/reasons';
export { sentenceOf } from './trace/sentences';
export { type Trace, type TraceEvent, type TraceOptions, type TraceStep, reasonsAt, trace, traceWith } from './trace/trace';
