/**
 * Finds values of numbers with which all that is wanted of fights holds. A search goes round by round: what is to be run is asked for
 * (`asks`), by whomever, and what came of it handed back in the same order (`take`). Nothing else comes in, so that the same runs lead
 * to the same bits whoever ran them, and a search that was cut off is gone on with by handing its answers back again.
 *
 * Rounds: which numbers do nothing at all (same digests); points around what is written, folded in pairs; then promises, each run and
 * held against the model that made it, with ever more caution after each that did not come true; what looks right is run again
 * (gate) and at last on seeds that nothing has seen (proof).
 */
import type { Ask, AskedRuns } from '../asking';
import { modelOf, spread } from './model';
import { coinsOf, jittered, offset, sideOf } from './probes';
import { type FindProblem, type DialPoint, cellAtPoint, distanceOf } from './problem';
import { MOST_BLOCKS, PROOF, blockOf, stateOf } from './proof';
import { type Wanted, propose } from './propose';
import { type FindAim, MOST_PROPOSALS, type Proposal, furtherAims, isAnother, proposalOf } from './proposals';
import { outside } from './response';
import { Tries, Z, farness } from './tries';

export type FindPhase = 'still' | 'around' | 'try' | 'gate' | 'prove' | 'done';

/** How far it is. */
export interface FindProgress {
  phase: FindPhase;
  runs: number;
  rounds: number;
  /** Of the best point so far: how far outside of what is wanted, in halves of it; 0: nothing is. */
  best?: { at: number[]; outside: number };
  /** The same after each round, with the runs until then. */
  way: { runs: number; outside: number }[];
}

const RUNS = { still: 20, base: 200, around: 50, far: 100, try: 200, beside: 50, gate: 300, proof: PROOF.block } as const;
/** So far outside that half of the runs tell as much: which way it is, not whether it is there. */
const FAR_OUT = 1;
const RADIUS = { first: 0.3, least: 0.12, most: 1 } as const;
const CAUTION = { first: 0.5, more: 0.35, most: 2 } as const;
/**
 * How many errors of a proof promises keep from the edges, and after each that came too near to them; with how many a point may be
 * proved, for a proof of several blocks sees half of one; and at last, when the budget goes no further.
 */
const ROOM = { first: 1, more: 0.3, most: 2.5, tried: 0.5, gate: 0.65, last: 0.3 } as const;
/** Runs of a point up to which it is run again where luck alone may have kept it outside. */
const MAYBE = 600;
/** Rounds of one preference that come to nothing. */
const MOST_ROUNDS = 100;
/**
 * Rounds without a better point, after which points all around the best are run, and how much wider than at first; how often that may
 * come to nothing before the search begins anew elsewhere, where it is so far outside still, and how far away that is.
 */
const STUCK = { after: 6, wide: 1.6, wider: 1, out: 0.3, away: 0.15 } as const;
/** Rounds that a further proposal is looked for. */
const MOST_FURTHER = 8;
/** What of the least distance so far a closer point may have: less than that is worth another proof. */
const CLOSER = 0.8;
/** Proofs that one point may fail: the first may be bad luck. */
const MOST_REFUSALS = 2;
/** Runs that are left when what is inside goes to a proof, with however little room. */
const LAST = RUNS.gate + MOST_BLOCKS * RUNS.proof;
/** Seeds of a search: none of those that are shown. */
const FIRST_SEED = 2_000_001;

interface Pending {
  asks: Ask[];
  take: (answers: readonly AskedRuns[]) => void;
}

export class FindSearch {
  readonly proposals: Proposal[] = [];
  private pending: Pending;
  private readonly tries: Tries;
  private nextSeed = FIRST_SEED;
  private phase: FindPhase = 'still';
  private runs = 0;
  private rounds = 0;
  private readonly way: FindProgress['way'] = [];
  /** Dials that change no fight. */
  private still = new Set<number>();
  private radius: number = RADIUS.first;
  private caution: number = CAUTION.first;
  private room: number = ROOM.first;
  /** From which promises are made. */
  private best: { at: number[]; outside: number } | undefined;
  /** The best of all, which is told: a search that begins anew elsewhere goes on from a worse one. */
  private told: FindProgress['best'];
  private aims: FindAim[];
  private roundsOfAim = 0;
  private sinceBetter = 0;
  /** How often a point has been to a proof. */
  private readonly refused = new Map<string, number>();
  /** What the last refused proof showed, and up to which seed. */
  private shown: { at: number[]; values: number[][]; endSeed: number } | undefined;

  constructor(readonly problem: FindProblem) {
    this.tries = new Tries(problem, RUNS);
    this.aims = [{ prefer: problem.prefer, kept: new Set() }];
    this.pending = this.stillRound();
  }

  /** What is to be run next; none: it is over. */
  asks(): readonly Ask[] {
    return this.pending.asks;
  }

  /** What came of all that was asked for, in its order. */
  take(answers: readonly AskedRuns[]): void {
    if (answers.length !== this.pending.asks.length) throw new Error(`${answers.length} answers to ${this.pending.asks.length} questions`);
    this.runs += this.pending.asks.reduce((sum, { runs }) => sum + runs, 0);
    this.pending.take(answers);
  }

  get progress(): FindProgress {
    const { phase, runs, rounds, told, way } = this;
    return { phase, runs, rounds, ...(told && { best: { at: [...told.at], outside: told.outside } }), way: [...way] };
  }

  /** What is known of a goal near a point, for who asks why nothing was found; undefined: it never had a value. */
  wantedOf(goal: number, middle: DialPoint, byEdges = false): Wanted[] | undefined {
    const near = this.tries.nearest(middle);
    if (!near) return undefined;
    const all = this.tries.readings(goal, byEdges ? undefined : near).map((reading): Wanted | undefined => {
      const measured = this.tries.measured(reading);
      const model = modelOf(measured, middle);
      if (!model) return undefined;
      const nearest = [...measured].sort((a, b) => spread(a.at, middle) - spread(b.at, middle))[0].response;
      const { low, high } = reading;
      const luck = this.room * Z * nearest.error * Math.sqrt(nearest.runs / RUNS.proof);
      return { model, low, high, luck, most: this.tries.mostRoom(reading, near), scale: this.tries.scaleOf(reading, nearest) };
    });
    return all.every((one) => one !== undefined) ? all : undefined;
  }

  /** Whether some point that was run had a goal by itself. */
  had(goal: number): boolean {
    return this.tries.all().some((tried) => this.tries.has(goal, tried));
  }

  /** Dials that changed no fight in the first runs. */
  get unmoving(): ReadonlySet<number> {
    return this.still;
  }

  private get zero(): number[] {
    return this.problem.dials.map(() => 0);
  }

  // Each dial by itself on a few seeds: one that changes no fight is left as it is.
  private stillRound(): Pending {
    const { dials } = this.problem;
    const points = [this.zero, ...dials.map((knob, i) => this.zero.map((_, k) => (k === i ? sideOf(knob, 1) : 0)))];
    return this.at(points, RUNS.still, (answers) => {
      const cells = this.problem.cells.length;
      dials.forEach((_, i) => {
        const same = this.problem.cells.every((_cell, c) =>
          Array.from(answers[c].digests).every((digest, run) => digest === answers[(i + 1) * cells + c].digests[run]),
        );
        if (same) this.still.add(i);
      });
      if (this.still.size === dials.length) return this.over();
      this.phase = 'around';
      this.pending = this.aroundRound();
    });
  }

  private aroundRound(): Pending {
    const { dials } = this.problem;
    const moving = dials.length - this.still.size;
    const points = Array.from({ length: moving + 2 }, (_, pair) => [1, -1].map((side) => this.coins(pair, side as 1 | -1))).flat();
    const base = this.at([this.zero], RUNS.base, () => undefined);
    const around = this.at(points, RUNS.around, () => undefined);
    return {
      asks: [...base.asks, ...around.asks],
      take: (answers) => {
        base.take(answers.slice(0, base.asks.length));
        around.take(answers.slice(base.asks.length));
        this.best = this.bestPromised();
        this.next();
      },
    };
  }

  private coins(pair: number, side: 1 | -1): number[] {
    return coinsOf(this.problem.dials, this.still, pair, side);
  }

  /** All points in all fights on the same new seeds; what came of them is kept with what was known of each. */
  private at(points: readonly DialPoint[], runs: number, then: (answers: readonly AskedRuns[]) => void): Pending {
    const { cells, dials } = this.problem;
    const firstSeed = this.nextSeed;
    this.nextSeed += runs;
    return {
      asks: points.flatMap((point) => cells.map((cell) => ({ cell: cellAtPoint(cell, dials, point), firstSeed, runs }))),
      take: (answers) => {
        points.forEach((point, p) => this.tries.keep(point, answers.slice(p * cells.length, (p + 1) * cells.length)));
        then(answers);
      },
    };
  }

  /** What comes next: a promise to be tried, a further proposal to be looked for, or the end. */
  private next(): void {
    if (this.best && (!this.left.length || this.best.outside < (this.told?.outside ?? Infinity))) this.told = this.best;
    this.way.push({ runs: this.runs, outside: this.told?.outside ?? Infinity });
    const further = this.proposals.length > 0;
    const tired = this.roundsOfAim >= (further ? MOST_FURTHER : MOST_ROUNDS);
    if (!this.enoughFor(RUNS.try + 2 * RUNS.beside)) return this.over();
    if (tired) {
      if (!further) return this.over();
      return this.nextAim();
    }
    if (!further && this.runsLeft < LAST) {
      const last = this.lastChance();
      if (last) {
        this.pending = last;
        return;
      }
    }
    const [aim] = this.aims;
    const middle = this.best?.at ?? this.zero;
    if (this.sinceBetter >= STUCK.after && !further) {
      this.sinceBetter = 0;
      if (this.best && this.best.outside > STUCK.out && this.widened++ >= STUCK.wider) {
        const other = this.elsewhere();
        if (other) {
          this.pending = other;
          return;
        }
      }
      this.phase = 'around';
      this.pending = this.widerRound(middle);
      return;
    }
    const wanted = this.wantedAt(middle);
    if (!wanted) return this.over();
    const kept = new Set([...this.still, ...aim.kept]);
    const { dials } = this.problem;
    // What is inside and can't be proved lies too near to an edge: away from it first, the least change is worth nothing there.
    const prefer = this.refused.size && !further ? 'margin' : aim.prefer;
    const within = { knobs: dials, middle, radius: this.radius, caution: this.caution, prefer, kept };
    let promised = propose(wanted, within, this.starts(aim));
    // What was proved to be none, or is had already, is not tried again as it is: with more caution it is another.
    for (let again = 0; again < 3 && this.isOld(promised.at); again++) {
      this.caution = Math.min(CAUTION.most, this.caution + CAUTION.more);
      promised = propose(wanted, { ...within, caution: this.caution }, this.starts(aim));
    }
    if (aim.closer && !this.isNew(promised.at)) return this.nextAim();
    if (this.isOld(promised.at)) promised = { ...promised, at: jittered(dials, promised.at, kept, this.radius, this.rounds) };
    this.rounds++;
    this.roundsOfAim++;
    this.phase = 'try';
    this.pending = this.tryRound(promised.at, kept);
  }

  /** Points around which nothing better was found. */
  private readonly left: number[][] = [];
  private widened = 0;

  private isLeft(at: DialPoint): boolean {
    return this.left.some((one) => spread(one, at) < STUCK.away);
  }

  /** Begins anew at the best of the points that lie away from where the search is stuck. */
  private elsewhere(): Pending | undefined {
    this.left.push(this.best!.at);
    const others = this.tries
      .all()
      .filter(({ at }) => !this.isLeft(at))
      .map((tried) => ({ at: tried.at, outside: this.tries.outsideOf(tried) }))
      .sort((a, b) => a.outside - b.outside || distanceOf(a.at) - distanceOf(b.at));
    const [other] = others;
    if (!other) return undefined;
    this.widened = 0;
    this.radius = RADIUS.first;
    this.caution = CAUTION.first;
    this.phase = 'around';
    return this.at([other.at], RUNS.try, () => {
      this.best = this.bestPromised();
      this.next();
    });
  }

  /** Folded pairs around the best point, further than at first: where nothing near it is better. */
  private widerRound(middle: readonly number[]): Pending {
    const { dials } = this.problem;
    const moving = dials.length - this.still.size;
    const points = Array.from({ length: Math.ceil(moving / 2) + 1 }, (_, pair) =>
      ([1, -1] as const).map((side) => offset(dials, middle, this.coins(5000 + 100 * this.rounds + pair, side), STUCK.wide)),
    ).flat();
    this.rounds++;
    return this.at(points, RUNS.around, () => {
      this.radius = RADIUS.first;
      this.caution = CAUTION.first;
      this.next();
    });
  }

  private starts(aim: FindAim): DialPoint[] {
    return aim.kept.size ? [] : this.proposals.map(({ at }) => at);
  }

  private isOld(at: DialPoint): boolean {
    const tried = this.tries.of(at);
    // Run so often that more of it would say no more.
    const known = tried !== undefined && tried.values[0].length >= RUNS.try + RUNS.gate && this.tries.roomOf(tried) < ROOM.gate;
    return known || this.refusals(at) >= MOST_REFUSALS || !this.isNew(at);
  }

  /** Whether a point, were it proved, would be worth telling beside the proposals that there are. */
  private isNew(at: DialPoint): boolean {
    if (!this.proposals.length) return true;
    if (this.aims[0].closer) return distanceOf(at) <= CLOSER * Math.min(...this.proposals.map(({ distance }) => distance));
    return isAnother(this.proposals, at);
  }

  private refusals(at: DialPoint): number {
    return this.refused.get(at.join(' ')) ?? 0;
  }

  /** Where the budget ends soon: the point with most room of those that are inside goes to a proof, first with some more runs. */
  private lastChance(): Pending | undefined {
    const block = blockOf(this.runsLeft);
    if (!block) return undefined;
    const inside = this.tries
      .all()
      .filter((tried) => tried.values[0].length >= RUNS.try && this.tries.outsideOf(tried) === 0 && this.refusals(tried.at) < MOST_REFUSALS)
      .map((tried) => ({ tried, room: this.tries.roomOf(tried) }))
      .filter(({ room }) => room * Math.sqrt(block / RUNS.proof) >= ROOM.last)
      .sort((a, b) => b.room - a.room || distanceOf(a.tried.at) - distanceOf(b.tried.at));
    const [best] = inside;
    if (!best) return undefined;
    const { at, values } = best.tried;
    if (values[0].length >= MAYBE || !this.enoughFor(RUNS.gate + RUNS.proof)) return this.goneOn(at);
    this.phase = 'gate';
    return this.at([at], RUNS.gate, () => this.next());
  }

  /** A proof; one of the same point that ended just now, for want of runs to be sure, is gone on with rather than begun anew. */
  private goneOn(at: number[]): Pending {
    const { shown, nextSeed } = this;
    const same = shown?.endSeed === nextSeed && shown.at.join(' ') === at.join(' ');
    return same ? this.proofRound(at, shown.values, shown.values[0].length) : this.proofRound(at, []);
  }

  /** Models near a point, with how far promises are to keep from the edges; undefined where a goal has never had a value. */
  private wantedAt(middle: DialPoint, byEdges = false): Wanted[] | undefined {
    const found = this.problem.goals.map((_, g) => this.wantedOf(g, middle, byEdges));
    return found.every((one) => one !== undefined) ? found.flat() : undefined;
  }

  private tryRound(at: number[], kept: ReadonlySet<number>): Pending {
    const beside = ([1, -1] as const).map((side) => {
      const coins = this.coins(1000 + this.rounds, side).map((coin, i) => (kept.has(i) ? 0 : coin));
      return offset(this.problem.dials, at, coins, Math.min(1, this.radius / RADIUS.first) * 0.5);
    });
    const far = (this.best?.outside ?? Infinity) > FAR_OUT;
    const center = this.at([at], far ? RUNS.far : RUNS.try, () => undefined);
    const around = this.at(beside, RUNS.beside, () => undefined);
    return {
      asks: [...center.asks, ...around.asks],
      take: (answers) => {
        center.take(answers.slice(0, center.asks.length));
        around.take(answers.slice(center.asks.length));
        this.judged(at);
      },
    };
  }

  /** What a tried point leads to: it is run again where it looks right, else learned from. */
  private judged(at: number[]): void {
    const tried = this.tries.of(at)!;
    // What would not be told is not proved.
    if (!this.isNew(at)) return this.learned(at);
    if (this.tries.roomOf(tried) >= ROOM.tried && this.enoughFor(RUNS.gate + RUNS.proof)) {
      this.phase = 'gate';
      this.pending = this.at([at], RUNS.gate, () => {
        if (this.tries.roomOf(tried) >= ROOM.gate) this.pending = this.proofRound(at, []);
        else this.tooNear(at);
      });
      return;
    }
    // With so few runs it may well be inside all the same: a good point is not given up for bad luck.
    const runs = tried.values[0].length;
    if (runs < MAYBE && this.tries.roomOf(tried) + Math.sqrt(RUNS.proof / runs) / Z >= ROOM.tried && this.enoughFor(RUNS.try)) {
      this.phase = 'gate';
      this.pending = this.at([at], RUNS.try, () => this.judged(at));
      return;
    }
    if (this.tries.outsideOf(tried) === 0) this.tooNear(at);
    else this.learned(at);
  }

  /** Inside, and too near to an edge to be proved: the next promise keeps further away. */
  private tooNear(at: number[]): void {
    this.room = Math.min(ROOM.most, this.room + ROOM.more);
    this.learned(at);
  }

  /** Runs of each fight that the budget still has. */
  private get runsLeft(): number {
    return Math.floor((this.problem.budget - this.runs) / this.problem.cells.length);
  }

  private enoughFor(runs: number): boolean {
    return this.runsLeft >= runs;
  }

  /** What the next promise starts from: the point that all runs together promise most of, for a few runs of one are luck. */
  private learned(at: number[]): void {
    const before = this.best;
    this.best = this.bestPromised();
    const better = this.best !== undefined && (this.best.at === at || this.best.at.join(' ') === at.join(' '));
    if (better && before?.at.join(' ') !== at.join(' ')) {
      this.sinceBetter = 0;
      this.radius = Math.min(RADIUS.most, this.radius * 1.4);
    } else {
      this.sinceBetter++;
      this.radius = Math.max(RADIUS.least, this.radius * 0.75);
      this.caution = Math.min(CAUTION.most, this.caution + CAUTION.more / 2);
    }
    this.next();
  }

  /** Of the points that were run for themselves the one that the models, which know of them and of all others, promise most of. */
  private bestPromised(): { at: number[]; outside: number } | undefined {
    const all = this.tries.all().filter(({ at, values }) => values.some((own) => own.length >= RUNS.far) && !this.isLeft(at));
    const promised = all.map(({ at }) => {
      // All of them in the same way: what is far and what is near are to be held against one another.
      const wanted = this.wantedAt(at, true);
      if (!wanted) return { at, outside: Infinity };
      const far = wanted.reduce((sum, { model, low, high, scale, luck, most }) => {
        const room = Math.min(luck, most);
        return sum + farness(outside({ low: low + room, high: high - room }, model.predict(at).y) / scale);
      }, 0);
      // What its own runs say counts as much as what the models make of all others: they may miss a lump.
      return { at, outside: (far + this.tries.outsideOf(this.tries.of(at)!)) / 2 };
    });
    return promised.sort((a, b) => a.outside - b.outside || distanceOf(a.at) - distanceOf(b.at))[0];
  }

  /**
   * Seeds that nothing has seen: only they count.
   * @param known what the proof has shown so far, by goal @param told how many values of that the search knows already
   */
  private proofRound(at: number[], known: readonly (readonly number[])[], told = 0): Pending {
    this.phase = 'prove';
    const { cells, dials, goals } = this.problem;
    const firstSeed = this.nextSeed;
    const runs = blockOf(this.runsLeft);
    this.nextSeed += runs;
    return {
      asks: cells.map((cell) => ({ cell: cellAtPoint(cell, dials, at), firstSeed, runs })),
      take: (answers) => {
        const values = goals.map((_, g) => [...(known[g] ?? []), ...this.tries.valuesOf(g, answers)]);
        const state = stateOf(this.problem, values, this.runsLeft);
        if (state === 'proved') return this.proved(at, values);
        if (state === 'open') {
          this.pending = this.proofRound(at, values, told);
          return;
        }
        // What it showed is known now, like all else.
        this.tries.keepValues(
          at,
          values.map((own) => own.slice(told)),
        );
        this.shown = { at, values, endSeed: this.nextSeed };
        this.refused.set(at.join(' '), this.refusals(at) + 1);
        this.tooNear(at);
      },
    };
  }

  private proved(at: number[], values: readonly (readonly number[])[]): void {
    const { runs, nextSeed, aims, problem } = this;
    const own = proposalOf(problem, { at, values, prefer: aims[0].prefer, after: runs, endSeed: nextSeed });
    // What is closer takes the place of what it is closer than, where it is the same way.
    const others = aims[0].closer ? this.proposals.filter((one) => isAnother([one], at)) : this.proposals;
    this.proposals.splice(0, this.proposals.length, ...(aims[0].closer ? [own, ...others] : [...others, own]));
    this.best = { at, outside: 0 };
    if (aims[0].closer) return this.next();
    this.nextAim();
  }

  /** Looks for another way: as it was preferred first, then otherwise, then without what the first turned most. */
  private nextAim(): void {
    if (this.proposals.length >= MOST_PROPOSALS) return this.over();
    const aim = furtherAims(this.problem, this.proposals[0])[this.aimsTried++];
    if (!aim) return this.over();
    this.aims = [aim];
    this.roundsOfAim = 0;
    this.radius = RADIUS.first;
    this.caution = CAUTION.first;
    this.room = ROOM.first;
    this.next();
  }

  private aimsTried = 0;

  private over(): void {
    this.phase = 'done';
    // The best of all is told, wherever the search has been since.
    this.left.length = 0;
    if (!this.proposals.length) this.best = this.bestPromised();
    this.told = this.best;
    // As they are told: the least change first.
    this.proposals.sort((a, b) => a.distance - b.distance || a.after - b.after);
    this.pending = { asks: [], take: () => undefined };
  }
}

/** Runs a search to its end, or as long as it is let. @param run what came of an ask @param goOn asked before each round */
export function runSearch(search: FindSearch, run: (ask: Ask) => AskedRuns, goOn: (progress: FindProgress) => boolean = () => true): void {
  for (let asks = search.asks(); asks.length && goOn(search.progress); asks = search.asks()) search.take(asks.map(run));
}
