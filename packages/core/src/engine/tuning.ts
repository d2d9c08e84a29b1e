/**
 * The engine's constants: each with its unit, its purpose and what goes wrong when it is changed. A change here
 * changes results, so ENGINE_VERSION must change with it.
 */

/** Part of the identity of every result. Raise it whenever a run of the same document and seed may come out different. */
export const ENGINE_VERSION = 2;

/** µs in a second. Time is a whole number of microseconds; doubles hold an hour of them exactly. */
export const SECOND = 1_000_000;

/** s in a µs, to multiply with where dividing would be slow. */
export const PER_MICROSECOND = 1e-6;

/** s. How often movement, senses and transitions advance. Larger: units overshoot; smaller: slower, same exact results. */
export const DEFAULT_STEP_SECONDS = 0.05;

/** Passes within one instant before it counts as a loop without end. */
export const MOST_PASSES = 1000;

/** Events in one run before it is ended as runaway. A four-minute fight of 30 units has about 20,000. */
export const MOST_EVENTS = 4_000_000;

/** Units in one run, the dead among them. Bounded by the rank of an event in the queue (12 bits). */
export const MOST_UNITS = 4000;

/** Times per step that overlapping bodies are parted. Fewer: crowds overlap; more: slower, hardly visible. */
export const PARTING_ITERATIONS = 4;

/** Share of the longest usable range at which an approach stops unless the state says otherwise. */
export const APPROACH_SHARE = 0.9;

/** Speed while an attack with "slow" movement is under way, as a share of the pace. */
export const SLOW_ATTACK_SHARE = 0.5;

/** Draws for a place on the scatter disc before the nearest free place is looked for. */
export const SCATTER_TRIES = 24;

/** Radii around a spawn point within which a free place is looked for. */
export const PLACE_SEARCH_RADII = 8;

/** µs until a unit that found no place tries again. */
export const PLACE_RETRY = SECOND;

/** Share of full health below which health counts as 0. */
export const DEAD_BELOW = 1e-9;
