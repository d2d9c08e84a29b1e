export * from './model/arena';
export * from './model/answer-kind';
export * from './model/attack';
export * from './model/blank';
export * from './model/brief';
export { SUBJECT_OF } from './model/brief-relations';
export * from './model/condition';
export { Counter, CounterChange } from './model/counter';
export * from './model/delivery';
export * from './model/edit';
export type { Effect, EventName } from './model/effects/effect';
export * from './model/effects/list';
export * from './model/effective';
export * from './model/effective-values';
export * from './model/encounter';
export {
  type Constructor,
  type FieldKind,
  type RefersTo,
  classAbout,
  classFields,
  fieldAt,
  quantityAt,
  type QuantityInfo,
} from './model/field';
export * from './model/form';
export * from './model/limits';
export * from './model/number-words';
export * from './model/planned';
export * from './model/patch';
export * from './model/player';
export * from './model/pointer';
export * from './model/problem';
export * from './model/project';
export * from './model/state';
export * from './model/tiers';
export * from './model/tier';
export * from './model/trait';
export * from './model/tweak';
export * from './model/targeting';
export * from './model/unit';
export * from './model/variant';
export * from './model/references';
export * from './model/new-ids';
export { newProject, ordinaryOpponent } from './model/new-project';
export { type Beginning, beginningOf } from './model/beginnings/beginning';
export * from './model/beginnings/attacks';
export * from './model/beginnings/units';
export * from './model/beginnings/states';
export * from './model/beginnings/waves';
export * from './model/beginnings/encounters';
export * from './model/variant-edit';
export * from './model/variants';
export * from './model/words';
export { upgraded } from './model/upgrades';
export { parseProject } from './model/validate';
export { type CompileOptions, compile } from './engine/compile';
export { plannedWork } from './engine/work';
export { MOST_WORK } from './engine/tuning';
export type { Compiled } from './engine/tables';
export { EVENT, EVENT_NAMES, MISS, MISS_NAMES, VERDICT, VERDICT_NAMES } from './record/log';
export * from './record/doing';
export * from './record/outcome';
export { SECOND } from './record/time';
export { type Run, Runner, run, type Watcher } from './engine/run';
export { ENGINE_VERSION } from './engine/tuning';
export {
  type AttackSummary,
  type BatchSummary,
  Batch,
  type FairnessSummary,
  type KindSummary,
  runBatch,
  summariseRows,
} from './analysis/batch';
export type { AttackUse } from './measures/attack-use';
export * from './measures/list';
export { type GoalSubject, type Measure, STATISTICS, type Statistic } from './measures/measure';
export { CURVES, CURVE_ABOUT, CURVE_BINS, type Curve, type CurveName, Curves, curveOf, curveTimes } from './measures/curves';
export * from './measures/enough';
export * from './measures/look';
export { DIGEST_COLUMN, type Sample, digestNumber, joinSamples, sampleOf } from './measures/sample';
export * from './measures/verdict';
export { batchIdentity } from './analysis/identity';
export { LULL_LEVEL, type Lull, type Lulls, lulls } from './measures/pressure';
export { type Change, pairedChange } from './analysis/compare';
export { type Interval, wilson } from './measures/intervals';
export { type Pressure, PRESSURE_WINDOW_SECONDS, partyLosses, pressure } from './measures/pressure';
export { quantileInterval, quantileOf } from './measures/quantile';
export { type Row, rowOf } from './measures/row';
export type { Stream } from './measures/stream';
export { type Summary, summarise } from './measures/summary';
export { PLAYER_USES, type PlayerUse } from './measures/time-use';
export * from './analysis/dash-on-paper';
export { hitInstants } from './engine/compile-unit';
export * from './analysis/answers';
export * from './analysis/bearers';
export * from './analysis/board';
export * from './analysis/causes';
export * from './analysis/cells';
export * from './analysis/going-on';
export * from './tuning/along';
export * from './tuning/asking';
export * from './tuning/compare-work';
export * from './tuning/dial';
export * from './analysis/effect';
export * from './tuning/find/problem';
export * from './tuning/find/proposals';
export * from './tuning/find/search';
export * from './tuning/find/why';
export * from './tuning/find/work';
export * from './tuning/questions-asked';
export * from './tuning/play/habits';
export * from './tuning/play/search';
export * from './tuning/play/spots';
export * from './tuning/play/told';
export * from './tuning/flips';
export * from './tuning/asked-text';
export * from './tuning/goal';
export * from './tuning/kept';
export * from './model/question';
export * from './tuning/map';
export * from './tuning/moves';
export * from './tuning/moves-work';
export * from './exchange/tuning-report';
export * from './tuning/pairs';
export * from './tuning/screening';
export * from './model/turn';
export * from './tuning/versions';
export * from './tuning/which-edit';
export * from './tuning/writing';
export * from './analysis/readout-work';
export * from './analysis/scenario';
export * from './analysis/pacing';
export * from './analysis/ranking';
export * from './analysis/rules';
export { attackSentence } from './analysis/attack-sentence';
export { type Approach, type ApproachLine, type ApproachMark, approach } from './analysis/approach';
export { type ChoiceLooks, type EntryLooks, type RuledOut, ruledOut } from './analysis/choice-watch';
export { type Company, DUEL_DEFAULTS, DUEL_MOST, type DuelOptions, duelOptions } from './analysis/duel';
export { type DuelFrom, pointOf } from './analysis/duel-ground';
export { type PaperAttack, type PaperDuel, effectiveHealth, paperAttack, paperDuel, sustainedDamage } from './analysis/paper';
export * from './analysis/encounter-readout';
export * from './analysis/inspection/inspect';
export { SIGHT_RAYS, type SightRay, sightFrom } from './analysis/sight';
export * from './analysis/simulated-warnings';
export * from './analysis/warning';
export { waveSentence } from './analysis/wave-sentence';
export * from './analysis/readout';
export { type ArenaFeatures, GeoJsonError, arenaFromGeoJson, arenaToGeoJson } from './exchange/geojson';
export * from './trace/reason-look';
export * from './trace/reasons';
export * from './trace/replay';
export { type WouldHave, wouldHave } from './trace/would-have';
export { sentenceOf } from './trace/sentences';
export { type Trace, type TraceEvent, type TraceOptions, type TraceStep, reasonsAt, trace, traceWith } from './trace/trace';
export * from './telling/density';
export * from './telling/goal-words';
export * from './telling/numbers';
export * from './telling/scale';
export { type ReportCurves, type ReportOptions, report, reportCells, reportCurves, usualSkill } from './exchange/report';
export { csvCell, csvRow } from './exchange/csv';
export { infinityAsText } from './exchange/json';
export { fileName } from './exchange/file-name';
export { REPORT_TOKENS } from './exchange/report-style';
export * from './telling/board-picture';
export * from './telling/goal-sentences';
export * from './telling/cell-picture';
export * from './telling/pacing-picture';
export { type Shape, escaped, svgAt, svgOf } from './telling/shape';
export * from './telling/verdict-mark';
