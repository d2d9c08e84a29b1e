/**
 * What it takes to read a project and fight it: an entry of its own for programs that start for one answer and end. The
 * main entry has this and everything else.
 */
export { LIMITS } from './model/limits';
export { type CompileOptions, compile } from './engine/compile';
export { type Run, Runner } from './engine/run';
export type { Compiled } from './engine/tables';
export { type Chain, type Lens, chainSentence } from './model/effective';
export { type EffectiveValue, effectiveValues } from './model/effective-values';
export type { Project } from './model/project';
export { InvalidDocument, sentence } from './model/problem';
export { hasUnit, unitHeads } from './model/variants';
export { parseProject } from './model/validate';
export { Batch, type BatchSummary } from './analysis/batch';
export * from './measures/list';
export { type GoalSubject, type Measure, STATISTICS, type Statistic, measureIn } from './measures/measure';
export { type Clock, unitIn } from './record/clock';
export { sampleOf } from './measures/sample';
export type { Summary } from './measures/summary';
export { csvRow } from './exchange/csv';
export { infinityAsText } from './exchange/json';
export { DUEL_DEFAULTS } from './analysis/duel-setup';
export { usualDistance } from './analysis/duel-clock';
export { type DuelSetup, type Scenario, companyOf, duelScenario } from './analysis/scenario';
export { compileScenario } from './analysis/compile-scenario';
export { reasonSentences } from './trace/reasons';
export { sentenceOf } from './trace/sentences';
export { trace } from './trace/trace';
export { OUTCOME_NAMES, outcomeWords } from './record/outcome';
