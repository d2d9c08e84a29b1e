/**
 * The state of one fight: units in columns, what flies, the queue, the log. Allocated once for a compiled encounter and used
 * again for every seed: loops over all columns put back what a run left. It only holds; each column is
 * written by the one file named above it (a test looks), whoever else wants it changed asks there.
 */
import { Columns } from '../record/columns';
import { EventLog } from '../record/log';
import { Crowd } from './body/crowd';
import { Ground } from './body/ground';
import type { Fight } from './fight';
import { OverTimes } from './harm/over-times';
import { Bursts, Met, Shots } from './harm/pools';
import { NOBODY } from './numbers';
import { Board } from './rounds/board';
import { Cells } from './rounds/cells';
import type { Ill, Jolt, Landing, SlotHold, Threat, WaveProgress } from './records';
import type { Compiled } from './tables';
import { type CompiledUnit, DO } from './unit-tables';
import { PURPOSES } from './time/chance';
import { EventQueue } from './time/queue';
import type { Held } from './waves/holding';

/** An empty board, where there is one. */
function boardOf({ rounds }: Compiled): Board | null {
  if (!rounds?.board) return null;
  const { tiling, columns, rows, blocked, cost } = rounds.board;
  const board = new Board(new Cells(tiling, columns, rows), blocked.length);
  blocked.forEach((cells, ground) => cells.forEach((is, cell) => (board.blocked[ground][cell] = is ? 1 : 0)));
  board.cost.set(cost);
  return board;
}

/** Holds the tables, so that the columns below can ask them for their size. */
class Tables extends Columns {
  constructor(readonly compiled: Compiled) {
    super(compiled.capacity);
  }
}

/** What a run counts and says, at its beginning. */
const AT_FIRST = {
  now: 0,
  stepEnd: 0,
  over: false,
  outcome: 0,
  count: 0,
  standing: 0,
  uses: 0,
  pointLost: false,
  /** Living things of the enemies that must be destroyed. */
  thingsLeft: 0,
  holding: false,
  heldSince: 0,
  heldFor: 0,
  work: 0,
};

export class FightState extends Tables {
  readonly queue = this.cleared(new EventQueue());
  readonly log = this.cleared(new EventLog());
  readonly ground = new Ground(this.compiled);
  /** It goes in turns, not in steps. */
  readonly inTurns = this.compiled.rounds !== null;
  /** What a fight in rounds is fought on; null: without ground, or in seconds. */
  readonly board = this.clearedIf(boardOf(this.compiled));
  /** Somebody may search: where foes were last seen is kept. */
  readonly searches = this.compiled.kinds.some(({ states }) => states.some(({ does }) => does === DO.search));
  seed = 0;
  /** µs: the instant that is being worked out */
  now = AT_FIRST.now;
  /** µs: end of the step under way; segments hold until then */
  stepEnd = AT_FIRST.stepEnd;
  over = AT_FIRST.over;
  outcome = AT_FIRST.outcome;
  /** Units that ever appeared; the next one's number. */
  count = AT_FIRST.count;
  /** Steps that units have lived, all together: what a run has cost. */
  work = AT_FIRST.work;
  /** Numbers of the living, ascending; by side, and all. */
  readonly living: [number[], number[]] = [this.list(), this.list()];
  readonly alive = this.list<number>();
  /** Party members that stand; with none left the party is down. */
  standing = AT_FIRST.standing;
  /** Those who looked for a better target in this step. */
  readonly reconsidered = this.list<number>();

  // by waves/spawns.ts: who it is, where it came from
  readonly kindNumber = this.integers(-1);
  readonly side = this.bytes();
  readonly key = this.integers();
  readonly bornAt = this.numbers();
  readonly summoner = this.integers(NOBODY);
  /** How many it ever summoned. */
  readonly summoned = this.integers();
  readonly homeX = this.numbers();
  readonly homeY = this.numbers();

  // by fight.ts: where it is in the order of turns
  /** µs from where a round begins, where its order is drawn once; 0: not drawn yet. */
  readonly turnAt = this.numbers();

  // by rounds/places.ts: where it is on a board
  readonly onCell = this.integers(NOBODY);
  /** Where it came onto the board. */
  readonly homeCell = this.integers(NOBODY);
  /** cells: of the body with which it came there, which may be another by now */
  readonly homeSize = this.integers(1);

  // by rounds/answering.ts: how often each of its reactions was used in this round
  readonly reacted = this.lists<number>();

  // by waves/counts.ts: its wave
  /** Its wave and which coming of it; −1: none. */
  readonly wave = this.integers(NOBODY);
  readonly coming = this.integers();
  readonly group = this.integers();
  /** Counts among the units its wave must lose. */
  readonly counted = this.bytes();

  // by waves/roll.ts: whether it stands
  readonly isAlive = this.bytes();
  /** How many of those it summoned live. */
  readonly helpers = this.integers();
  readonly isMember = this.bytes();
  /** Which of the party's seats it has; −1: none. */
  readonly seat = this.integers(-1);
  readonly revived = this.integers();
  readonly isDown = this.bytes();

  // by waves/beginning.ts: what must be kept; the fight is lost with it
  readonly defended = this.bytes();
  /** What the enemies have standing, and must be destroyed. */
  readonly attacked = this.bytes();

  // by mind/changes.ts: its row, and of row and state what every step asks for
  readonly kinds = this.list<CompiledUnit>();
  readonly radius = this.numbers();
  readonly invulnerable = this.bytes();
  readonly does = this.bytes();
  readonly pace = this.numbers();
  readonly near = this.numbers();
  readonly far = this.numbers();
  readonly leaves = this.bytes();
  readonly mayAttack = this.bytes();
  readonly lose = this.numbers();
  readonly leashed = this.bytes();
  readonly acceleration = this.numbers();
  readonly turnsAtOnce = this.bytes();
  readonly stepCosine = this.numbers();

  // by body/motion.ts: where: a straight segment from (x, y) at segmentStart with velocity (vx, vy) in m/s
  readonly x = this.numbers();
  readonly y = this.numbers();
  readonly vx = this.numbers();
  readonly vy = this.numbers();
  readonly segmentStart = this.numbers();
  readonly speed = this.numbers();
  /** A movement of its attack carries it: to where, from where, until when; how often its contacts were worked out, and whom it has met. */
  readonly dashing = this.bytes();
  readonly dashFromX = this.numbers();
  readonly dashFromY = this.numbers();
  readonly dashToX = this.numbers();
  readonly dashToY = this.numbers();
  readonly dashUntil = this.numbers();
  readonly dashPlan = this.integers();
  readonly dashMet = this.lists<number>();

  // by body/facing.ts: facing, a unit vector, and when it was last turned
  readonly fx = this.numbers();
  readonly fy = this.numbers();
  readonly turnedAt = this.numbers();

  // by body/bearings.ts: the way to its target at the beginning of the step: a unit vector, centre distance, distance between edges
  readonly bearingX = this.numbers();
  readonly bearingY = this.numbers();
  readonly bearingLength = this.numbers();
  readonly bearingGap = this.numbers();

  // by body/route.ts: its way around walls
  readonly wayX = this.numbers();
  readonly wayY = this.numbers();
  readonly wayGoal = this.bytes();
  readonly wayUntil = this.numbers();

  // by harm/vitals.ts: amounts as of an instant; what regenerates runs from another
  readonly health = this.numbers();
  readonly healthAt = this.numbers();
  readonly regenFrom = this.numbers();
  readonly shield = this.numbers();
  readonly shieldAt = this.numbers();
  readonly shieldFrom = this.numbers();
  readonly energy = this.numbers();
  readonly energyAt = this.numbers();

  // by harm/damage.ts: what met it
  /** What opened each of its windows of invulnerability, and when that ends. */
  readonly windows = this.lists<number>();
  readonly windowEnds = this.lists<number>();
  /** One bit a gate that was said to hold. */
  readonly gatesHeld = this.integers();
  readonly hurtAt = this.numbers(-Infinity);
  readonly hurtBy = this.integers(NOBODY);
  readonly dealt = this.numbers();

  // by harm/lasting.ts: what lasts on it
  /** Damage taken lately: time, amount, time, amount … */
  readonly recent = this.lists<number>();
  readonly staggeredUntil = this.numbers();
  readonly steadyUntil = this.numbers();
  /** What lasts on it; empty for most. */
  readonly ills = this.lists<Ill>();
  readonly slowed = this.numbers();
  readonly marked = this.numbers(1);
  readonly lent = this.numbers();

  // by mind/senses.ts: what it knows
  /** Line from its muzzle to its target: when it was looked up, for whom, and whether it is clear. */
  readonly lineAt = this.numbers(-1);
  readonly lineTo = this.integers(NOBODY);
  readonly lineClear = this.bytes();
  readonly alerted = this.bytes();
  readonly noticing = this.bytes();
  readonly nextLook = this.numbers();
  readonly lastSeen = this.numbers();
  readonly seenFor = this.numbers();
  readonly knownX = this.numbers();
  readonly knownY = this.numbers();

  // by mind/wanted.ts: whom it is after
  readonly target = this.integers(NOBODY);
  readonly nextTarget = this.numbers();
  /** Until when it can't leave its target, whatever else. */
  readonly boundUntil = this.numbers();

  // by mind/states.ts: its state
  /** One bit a gate whose state has come. */
  readonly gatesPassed = this.integers();
  readonly state = this.integers();
  readonly stateSince = this.numbers();
  /** How often the chances of its conditions were drawn: on entering a state, and each time that it decides. */
  readonly chancesDrawn = this.integers();
  /** µs: when its ways out are asked next, where its state decides at intervals. */
  readonly decideAt = this.numbers();

  // by mind/going.ts: its errand
  readonly stop = this.integers();
  readonly stopWay = this.integers();
  readonly waitUntil = this.numbers();
  readonly goalX = this.numbers();
  readonly goalY = this.numbers();
  readonly hasGoal = this.bytes();
  /** The direction it roams in, a unit vector; 0, 0: it stands. */
  readonly headingX = this.numbers();
  readonly headingY = this.numbers();
  /** The friend it follows, and when it looks for a better one. */
  readonly leader = this.integers(NOBODY);
  readonly nextLeader = this.numbers();
  readonly strafeSign = this.numbers();

  // by mind/urges.ts: what keeps it from its state
  readonly urge = this.bytes();
  readonly urgeX = this.numbers();
  readonly urgeY = this.numbers();
  readonly urgeSpeed = this.numbers();
  readonly urgeUntil = this.numbers();

  // by fight.ts: the attack under way and what may follow
  protected readonly draws = this.integers(0, PURPOSES);
  readonly phase = this.bytes();
  readonly attack = this.integers(NOBODY);
  readonly attackTarget = this.integers(NOBODY);
  readonly attackStart = this.numbers();
  /** When its wind-up is over. */
  readonly hitsAt = this.numbers();
  /** Share of its pace that attack, slow and stagger leave it. */
  readonly mobility = this.numbers(1);
  /** The attack under way holds its facing. */
  readonly held = this.bytes();
  /** Rises whenever what the unit had planned no longer holds; an event with an older serial is stale. */
  readonly serial = this.integers();
  readonly pauseUntil = this.numbers();
  /** The instant for which a choice is queued; −1: none. */
  readonly choiceAt = this.numbers(-1);
  readonly comboAttack = this.integers(NOBODY);
  /** What a state had it do on entering, not yet begun. */
  readonly owedAttack = this.integers(NOBODY);
  readonly comboUntil = this.numbers();
  readonly attackedAt = this.numbers(-Infinity);
  readonly doing = this.bytes();
  /** Whom the use under way has struck. */
  readonly struck = this.lists<number>();
  readonly use = this.integers();

  // by harm/attack.ts: where a marked area will burst
  readonly markX = this.numbers();
  readonly markY = this.numbers();

  // by harm/readiness.ts: when its attacks may be begun again
  /** Earliest instant at which some attack of the choice is off cooldown. */
  readonly nextReady = this.numbers(-1);
  readonly readyAt = this.numbers(0, this.compiled.attackRoom);
  /** Charges left as of an instant from which the next one grows back. */
  readonly charges = this.numbers(0, this.compiled.attackRoom);
  readonly chargedAt = this.numbers(0, this.compiled.attackRoom);

  // by player/supplies.ts: what a player has left
  readonly rounds = this.integers();
  readonly doses = this.integers();
  readonly livesLeft = this.integers();
  readonly answerReady = this.lists<number>();

  // by player/task.ts: what it is busy with
  readonly task = this.bytes();
  readonly taskSerial = this.integers();
  readonly taskOf = this.integers(NOBODY);

  // by player/tasks.ts: its cover
  readonly coverUntil = this.numbers();
  readonly nextCover = this.numbers();

  // by player/guard.ts: its dodge and its block
  readonly dodgeFrom = this.numbers();
  readonly dodgeUntil = this.numbers();
  readonly blockUntil = this.numbers();
  readonly blockShare = this.numbers();

  // by player/threats.ts: what it sees coming
  readonly threats = this.lists<Threat>();

  // of the whole fight
  /** Those whom a movement of their attack carries, in the order in which they began. */
  readonly dashers = this.list<number>();
  pointLost = AT_FIRST.pointLost;
  thingsLeft = AT_FIRST.thingsLeft;
  /** What stands at each place of the arena; NOBODY: nothing. */
  readonly things = this.list<number>();
  /** Those who came home for good in this step. */
  readonly leaving = this.list<number>();
  /** Units with a simulated player behind them. */
  readonly players = this.list<number>();
  /** What each did to each, where somebody's targeting asks for it: by victim × capacity + attacker. */
  readonly harm = this.cleared(new Map<number, number>());
  /** Uses of attacks ever begun in this run, and µs at which each could be read, by its number. */
  uses = AT_FIRST.uses;
  readonly announced = this.list<number>();
  readonly slots = this.list<SlotHold>();
  /** Last start out of each pool. */
  readonly poolStart = this.list<number>();
  readonly shots = this.cleared(new Shots());
  readonly bursts = this.cleared(new Bursts());
  readonly overTime = this.cleared(new OverTimes());
  readonly crowd = this.cleared(new Crowd(this.compiled.capacity));
  /** Hits that will land at this instant, to be applied once all are settled. */
  readonly landings = this.list<Landing>();
  readonly jolts = this.list<Jolt>();
  /** Those whom the hit being settled meets, in order, and what they are ordered by. */
  readonly met = this.cleared(new Met());
  /** Units at 0 health whose death is to be dealt with at this instant, and who did it with what. */
  readonly dying = this.list<{ unit: number; by: number; attack: number }>();
  /** The fallen who can be revived, and until when. */
  readonly fallen = this.list<{ unit: number; until: number }>();
  readonly waves = this.list<WaveProgress>();
  /** Some wave may hold others back. */
  readonly canHold = this.compiled.waves.some(({ holdsBack }) => holdsBack);
  /** One does now; since when, and µs that it was so before. */
  holding = AT_FIRST.holding;
  heldSince = AT_FIRST.heldSince;
  heldFor = AT_FIRST.heldFor;
  /** Starts and spawns that stand still meanwhile, and when each of all is due on their clock. */
  readonly putAside = this.list<Held>();
  readonly dueOnClock = this.cleared(new Map<number, number>());
  /** Spawns that wait because of the cap on the living: wave, coming, group, ordinal, draw. */
  readonly waiting = this.list<number>();
  /** µs since when each of them has waited, by `waitKey`. */
  readonly waitingSince = this.cleared(new Map<number, number>());
  readonly flags = this.list<boolean>();
  readonly counters = this.list<number>();
  readonly happened = this.list<boolean>();
  /** Deaths of each type. */
  readonly killed = this.list<number>();
  readonly aliveOfType = this.list<number>();
  /** Boosts that an encounter's events laid on each type, for those who come later. */
  readonly standingBoosts = this.list<{ type: number; id: number; tweaks: number }>();
  /** Kinds as boosts and states changed them, by what changed them. Kept between runs. */
  readonly changed = new Map<string, CompiledUnit>();
  /** Is told before and after every choice; for traces. Changes nothing. */
  observer: ((fight: Fight, unit: number) => void) | undefined = undefined;

  /** Ready for a run: whatever the last one left is gone. */
  reset(seed: number): void {
    const { compiled } = this;
    this.resetColumns(this.count);
    Object.assign(this, AT_FIRST);
    this.seed = seed | 0;
    refill(this.poolStart, compiled.pools.length, -Infinity);
    refill(this.flags, compiled.names.flags.length, false);
    this.counters.push(...compiled.counters);
    refill(this.happened, compiled.events.length, false);
    refill(this.killed, compiled.names.types.length, 0);
    refill(this.aliveOfType, compiled.names.types.length, 0);
    for (let wave = 0; wave < compiled.waves.length; wave++) {
      this.waves.push({
        started: false,
        startedAt: 0,
        comings: 0,
        planned: 0,
        plannedOf: [],
        defeated: 0,
        defeatedOf: [],
        reached: 0,
        alive: 0,
        due: false,
        timedOut: false,
        called: false,
        stopped: false,
        toCome: [],
        toComeOf: [0, 0],
        trigger: 'none',
        waited: 0,
        waitedFor: 0,
      });
    }
  }
}

function refill<T>(list: T[], length: number, value: T): void {
  list.length = length;
  list.fill(value);
}
