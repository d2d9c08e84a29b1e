/**
 * The engine's constants: each with its unit, its purpose and what goes wrong when it is changed. A change here
 * changes results, so ENGINE_VERSION must change with it. None but the slack of reach is in metres: what has metres in it
 * is in the document.
 */
import { SECOND } from '../record/time';

/** Part of the identity of every result. Raise it whenever a run of the same document and seed may come out different. */
export const ENGINE_VERSION = 6;

/** s in a µs, to multiply with where dividing would be slow. */
export const PER_MICROSECOND = 1e-6;

/** s. How often movement, senses and transitions advance. Larger: units overshoot; smaller: slower, same exact results. */
export const DEFAULT_STEP_SECONDS = 0.05;

/** Passes within one instant before it counts as a loop without end. */
export const MOST_PASSES = 1000;

/** Events in one run before it is ended as runaway. A four-minute fight of 30 units has about 20,000. */
export const MOST_EVENTS = 2_000_000;

/**
 * Steps that units may live in one run, all together, before it is ended as runaway: an hour of 400 units. More: one run of a
 * careless fight holds a thread for many minutes. Nothing else ends a run early: no clock has a say in a result.
 */
export const MOST_WORK = 30_000_000;

/** Units in one run, the dead among them. Bounded by the rank of an event in the queue (12 bits). */
export const MOST_UNITS = 4000;

/** Units alive at one time; summons beyond it are lost, spawns wait. */
export const MOST_LIVE = 500;

/** Units that summons may add in one run. More: larger buffers; fewer: long boss fights run out of helpers. */
export const SUMMON_ROOM = 900;

/** Shots and effects over time in the air at one time before further ones are dropped; keeps odd documents from eating memory. */
export const MOST_SHOTS = 20_000;

/** Times per step that overlapping bodies are parted. Fewer: crowds overlap; more: slower, hardly visible. */
export const PARTING_ITERATIONS = 4;

/** Share of the square of the distance at which two bodies touch, below which they count as overlapping: 3 % of the distance is let be, unseen. */
export const TOUCHING = 0.94;

/** The same for an overlap so deep that it is parted again in the same step: 20 % of the distance. What is less is parted step by step. */
export const DEEP = 0.64;

/**
 * m that a reach may be overstepped, and a comparison of a condition must be passed by. Smaller: rounding decides who is in
 * reach; larger: it could be seen.
 */
export const REACH_SLACK = 1e-9;

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

/** Times a circle is pushed out of walls before it goes back to where it was. */
export const PUSH_ITERATIONS = 4;

/** Share of a body's radius within which it counts as touching a wall that a straight movement comes to. More: it stops short. */
export const TOUCH_SHARE = 1e-7;

/** Share of its radius that such a movement goes on by along a wall that it touches, and goes back by out of one it may leap. */
export const GRAZE_SHARE = 0.02;

/** Looks ahead of one movement before it stops where it is. Fewer: long ways along walls end early. */
export const MOST_TRACES = 4000;

/** µs for which somebody who hurt a unit hinders it in what it was sent to do. */
export const HINDERED_FOR = 3 * SECOND;

/** Cells by which a body may be too wide for the grid and still be let through. Less: corridors close; more: bodies scrape. */
export const SQUEEZE_CELLS = 0.35;

/** Cells ahead that a way along a distance field is straightened. */
export const LOOK_AHEAD_CELLS = 12;

/** Cells to a side of a block whose goals share a distance field. More: fewer fields, more second looks near walls. */
export const GOAL_BLOCK = 2;

/** µs for which a way point is kept. Longer: detours after a target that moves; shorter: slower. */
export const WAY_LASTS = 400_000;

/** Bytes of clearances and distance fields kept by a thread for all its runs; beyond it what was used longest ago goes. Changes no result. */
export const WAYS_BYTES = 64e6;

/** s of running that a unit looks ahead for walls when it backs away. */
export const RETREAT_SECONDS = 0.5;

/** µs between looks for cover, and between choices of a place to wander to when one can't be reached. */
export const RETHINK = 500_000;

/** Share of a body's radius by which stepping out aims to clear what is coming. */
export const CLEARANCE_SHARE = 0.25;
