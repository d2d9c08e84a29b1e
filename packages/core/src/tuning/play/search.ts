/**
 * Ways of playing that win far more cheaply than what is written, and how little a player needs to do: a search over habits
 * (`habits.ts`), level by level. What is sought is the worth of a fight: 0 where it is lost, else one less the share of the
 * party's health that it cost (its dose), at least 0.
 *
 * Every level alone on the same seeds; then generations of plays drawn with the chance of each level, which goes after the best
 * quarter of each generation (the cross-entropy method: Rubinstein 1999, Methodology and Computing in Applied Probability 1); the
 * best run again, stripped of habits that it does as well without, and proved on seeds that nothing has seen, beside what is
 * written on the same seeds. Draws are counter-based: the same answers lead to the same plays.
 */
import { draw } from '../../engine/time/chance';
import { type PairedEffect, effectOf } from '../../analysis/effect';
import type { Scenario } from '../../analysis/scenario';
import { compileScenario } from '../../analysis/compile-scenario';
import { type Estimate, estimate } from '../../measures/verdict';
import type { Project } from '../../model/project';
import type { Turn } from '../../model/turn';
import { type AskedFight, type AskedRuns, type Asking, thereOf } from '../asking';
import { type Habit, type Play, habitsOf, turnsOfPlay } from './habits';

export interface PlayProblem {
  project: Project;
  cell: Scenario;
  /** Runs that it may take. */
  budget: number;
}

/** A play that was proved, beside what is written on the same seeds. */
export interface ProvedPlay {
  play: Play;
  turns: Turn[];
  won: Estimate;
  dose: Estimate;
  /** What it adds to the worth of the fight, and to how often it is won. */
  gain: PairedEffect;
  wins: PairedEffect;
  seeds: { first: number; runs: number };
}

export interface PlayFound {
  habits: Habit[];
  written: { won: Estimate; dose: Estimate; runs: number };
  /** Far cheaper than what is written, the cheapest first. */
  ways: ProvedPlay[];
  /** The least that a player needs to do to win about as often; absent: nothing can be left out. */
  dullest?: ProvedPlay;
  runs: number;
}

export const PLAY_BUDGET = { least: 12_000, usual: 16_000 } as const;

const RUNS = { written: 200, alone: 24, drawn: 24, again: 200, idle: 100, proof: 1500 } as const;
const DRAWN = { plays: 32, elite: 8, generations: 6, further: 3, learns: 0.6, least: 0.02 } as const;
/** By how much of worth a level alone makes itself e times as likely at first. */
const WARMTH = 0.12;
/** Plays that are run again before one is proved. */
const AGAIN = 5;
/** What is given up for one habit less. */
const PLAIN = 0.015;
/** A way counts as far cheaper where its gain is surely above this, and as winning as often where it surely loses no more than this. */
const FAR = 0.1;
const AS_OFTEN = 0.05;
const MOST_WAYS = 3;
/** Runs that it may take from a generation to a proof. */
const CLOSING = (AGAIN + 8) * RUNS.again + RUNS.proof;
const FIRST_SEED = 3_000_001;
const COLUMNS = ['won', 'dose'];

/** Worth of each run. */
export const worthOf = ({ columns }: AskedRuns): number[] =>
  Array.from(columns.won, (won, i) => (won > 0 ? Math.max(0, 1 - (Number.isFinite(columns.dose[i]) ? columns.dose[i] : 1)) : 0));

const meanOf = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / Math.max(1, values.length);

/** @throws Error for a fight without a player, or a budget too small */
export function* playWork({ project, cell, budget }: PlayProblem): Asking<PlayFound> {
  if (!(budget >= PLAY_BUDGET.least)) throw new Error(`the budget must be at least ${PLAY_BUDGET.least} runs, it is ${budget}`);
  const habits = habitsOf(project, compileScenario(project, cell), cell);
  if (!habits.length)
    throw new Error('nobody of this fight is a player with habits: a party member with a simulated player, or one that takes turns');
  const search = new PlaySearch(project, cell, habits, budget);
  return yield* search.work();
}

class PlaySearch {
  private runs = 0;
  private nextSeed = FIRST_SEED;
  /** Of each play all worths so far. */
  private readonly known = new Map<string, { play: Play; worths: number[] }>();
  private draws = 0;
  private readonly written: Play;

  constructor(
    private readonly project: Project,
    private readonly cell: Scenario,
    private readonly habits: readonly Habit[],
    private readonly budget: number,
  ) {
    this.written = habits.map(() => 0);
  }

  *work(): Asking<PlayFound> {
    const { habits } = this;
    // The singles are few beside the generations, and tell those where to begin.
    const singles = habits.flatMap(({ levels }, h) => levels.slice(1).map((_, l) => this.with(this.written, h, l + 1)));
    const first = this.nextSeed;
    yield* this.run('written', [this.written], RUNS.written, first);
    yield* this.run('alone', singles, RUNS.alone, first);
    const chances = this.chancesAlone();
    const ways: ProvedPlay[] = [];
    const barred = new Set<string>();
    const proof = yield* this.prove('written', [this.written]);
    const before = proof[0];
    let most: number = DRAWN.generations;
    while (ways.length < MOST_WAYS) {
      const generations = Math.min(most, Math.floor((this.left - CLOSING - this.idleRuns) / (DRAWN.plays * RUNS.drawn)));
      if (generations < 1) break;
      yield* this.generationsOf(chances, generations, barred);
      const found = yield* this.stripped(barred);
      if (!found) break;
      const [ran] = yield* this.prove('proved', [found], before.first);
      const way = this.proved(found, before, ran);
      if (way.gain.low < FAR || way.wins.low < -AS_OFTEN) break;
      ways.push(way);
      // Another way is one without the level that this one rests on.
      const key = yield* this.restsOn(found);
      barred.add(key);
      most = DRAWN.further;
    }
    const dullest = yield* this.dullest(before);
    const { won, dose } = estimatesOf(before.ran);
    return {
      habits: [...habits],
      written: { won, dose, runs: RUNS.proof },
      ways: ways.sort((a, b) => b.gain.difference - a.gain.difference),
      ...(dullest && { dullest }),
      runs: this.runs,
    };
  }

  private get left(): number {
    return this.budget - this.runs;
  }

  /** Idle levels: of several of a habit that ask for less the least, the last. */
  private get idle(): { h: number; l: number }[] {
    return this.habits.flatMap(({ levels }, h) => {
      const l = levels.findLastIndex((one) => one.idle);
      return l > 0 ? [{ h, l }] : [];
    });
  }

  /** What it takes to say how little there is to do, where the first promise comes true. */
  private get idleRuns(): number {
    return (2 * this.idle.length + 1) * RUNS.idle + RUNS.proof;
  }

  private with(play: Play, habit: number, level: number): Play {
    return play.map((one, h) => (h === habit ? level : one));
  }

  private fight(play: Play, firstSeed: number, runs: number): AskedFight {
    const turns = turnsOfPlay(this.habits, play);
    const cell = turns.length ? { ...this.cell, turned: [...(this.cell.turned ?? []), ...turns] } : this.cell;
    return { project: this.project, cell, firstSeed, runs, columns: COLUMNS };
  }

  /** Plays on the same seeds; what each comes to is kept with what is known of it. */
  private *run(phase: string, plays: readonly Play[], runs: number, firstSeed = this.nextSeed): Asking<AskedRuns[]> {
    this.nextSeed = Math.max(this.nextSeed, firstSeed + runs);
    this.runs += plays.length * runs;
    const asks = plays.map((play) => this.fight(play, firstSeed, runs));
    const came = (yield { phase, asks, runs: this.runs, of: Math.max(this.budget, this.runs) }).map(thereOf);
    plays.forEach((play, i) => {
      const key = play.join(' ');
      const known = this.known.get(key) ?? { play, worths: [] };
      known.worths.push(...worthOf(came[i]));
      this.known.set(key, known);
    });
    return came;
  }

  /** Seeds that nothing has seen; of what is written the same as of what is proved. */
  private *prove(phase: string, plays: readonly Play[], firstSeed?: number): Asking<{ ran: AskedRuns; first: number }[]> {
    // Proofs are kept apart: what they say counts for nothing else.
    const first = firstSeed ?? 2 * FIRST_SEED;
    this.runs += plays.length * RUNS.proof;
    const asks = plays.map((play) => this.fight(play, first, RUNS.proof));
    const came = yield { phase, asks, runs: this.runs, of: Math.max(this.budget, this.runs) };
    return came.map((one) => ({ ran: thereOf(one), first }));
  }

  private proved(play: Play, before: { ran: AskedRuns; first: number }, { ran, first }: { ran: AskedRuns; first: number }): ProvedPlay {
    const paired = (values: (of: AskedRuns) => number[], statistic: 'mean' | 'share') =>
      effectOf({ digests: before.ran.digests, values: values(before.ran) }, { digests: ran.digests, values: values(ran) }, statistic);
    return {
      play,
      turns: turnsOfPlay(this.habits, play),
      ...estimatesOf(ran),
      gain: paired(worthOf, 'mean'),
      wins: paired(({ columns }) => Array.from(columns.won), 'share'),
      seeds: { first, runs: RUNS.proof },
    };
  }

  private worth(play: Play): number {
    return meanOf(this.known.get(play.join(' '))?.worths ?? []);
  }

  /** Of each habit how likely each level is drawn at first: half as written, the rest by what it does alone. */
  private chancesAlone(): number[][] {
    const base = meanOf(this.known.get(this.written.join(' '))!.worths.slice(0, RUNS.alone));
    return this.habits.map(({ levels }, h) => {
      const weights = levels.map((_, l) => (l === 0 ? 0 : Math.exp((this.worth(this.with(this.written, h, l)) - base) / WARMTH)));
      const sum = weights.reduce((a, b) => a + b, 0);
      // As likely as its best level is better: what only does harm is drawn seldom.
      const best = Math.max(...weights);
      const other = best / (1 + best);
      return weights.map((weight, l) => (l === 0 ? 1 - other : (other * weight) / sum));
    });
  }

  private drawPlay(chances: readonly (readonly number[])[], barred: ReadonlySet<string>): Play {
    const number = this.draws++;
    return chances.map((own, h) => {
      const allowed = own.map((chance, l) => (barred.has(`${h} ${l}`) ? 0 : Math.max(DRAWN.least / own.length, chance)));
      let at = draw(number, h, 77, 0) * allowed.reduce((a, b) => a + b, 0);
      const found = allowed.findIndex((chance) => (at -= chance) < 0);
      return found < 0 ? 0 : found;
    });
  }

  private *generationsOf(chances: number[][], generations: number, barred: ReadonlySet<string>): Asking<void> {
    for (let g = 0; g < generations; g++) {
      const plays = new Map<string, Play>();
      const best = this.ranked(barred).slice(0, 2);
      for (const play of best) plays.set(play.join(' '), play);
      for (let tries = 0; plays.size < DRAWN.plays && tries < 8 * DRAWN.plays; tries++) {
        const play = this.drawPlay(chances, barred);
        plays.set(play.join(' '), play);
      }
      const all = [...plays.values()];
      const came = yield* this.run('drawn', all, RUNS.drawn);
      const elite = all
        .map((play, i) => ({ play, worth: meanOf(worthOf(came[i])) }))
        .sort((a, b) => b.worth - a.worth)
        .slice(0, DRAWN.elite);
      chances.forEach((own, h) =>
        own.forEach((chance, l) => {
          const share = elite.filter(({ play }) => play[h] === l).length / elite.length;
          own[l] = (1 - DRAWN.learns) * chance + DRAWN.learns * share;
        }),
      );
    }
  }

  /** By what is known of each, those of few runs held back: the best first. */
  private ranked(barred: ReadonlySet<string>): Play[] {
    const base = this.worth(this.written);
    const held = RUNS.drawn;
    const score = (worths: readonly number[]) => (meanOf(worths) * worths.length + base * held) / (worths.length + held);
    return [...this.known.values()]
      .filter(({ play }) => !play.some((l, h) => barred.has(`${h} ${l}`)))
      .map(({ play, worths }) => ({ play, score: score(worths) }))
      .sort((a, b) => b.score - a.score)
      .map(({ play }) => play);
  }

  /** The best of those that are run again, without what it does as well without. */
  private *stripped(barred: ReadonlySet<string>): Asking<Play | undefined> {
    const again = this.ranked(barred).slice(0, AGAIN);
    const came = yield* this.run('again', again, RUNS.again);
    let best = again[0];
    let worth = -Infinity;
    again.forEach((play, i) => {
      const own = meanOf(worthOf(came[i]));
      if (own > worth) [best, worth] = [play, own];
    });
    if (best.every((l) => l === 0)) return undefined;
    const turned = best.flatMap((l, h) => (l === 0 ? [] : [h]));
    const without = turned.map((h) => this.with(best, h, 0));
    const seed = this.nextSeed;
    const [own, ...others] = (yield* this.run('stripped', [best, ...without], RUNS.again, seed)).map((one) => meanOf(worthOf(one)));
    const needless = turned.filter((_, i) => own - others[i] < PLAIN);
    if (needless.length) {
      const plain = best.map((l, h) => (needless.includes(h) ? 0 : l));
      const [left] = yield* this.run('stripped', [plain], RUNS.again, seed);
      if (plain.some((l) => l > 0) && own - meanOf(worthOf(left)) < 2 * PLAIN) return plain;
      // Two that stand in for one another: the less needed of them alone.
      const least = needless.reduce((a, b) => (others[turned.indexOf(a)] >= others[turned.indexOf(b)] ? a : b));
      const one = this.with(best, least, 0);
      return one.some((l) => l > 0) ? one : best;
    }
    return best;
  }

  /** The level without which a way loses most. */
  private *restsOn(play: Play): Asking<string> {
    const turned = play.flatMap((l, h) => (l === 0 ? [] : [h]));
    if (turned.length === 1) return `${turned[0]} ${play[turned[0]]}`;
    const came = yield* this.run(
      'stripped',
      turned.map((h) => this.with(play, h, 0)),
      RUNS.again,
    );
    const worths = came.map((one) => meanOf(worthOf(one)));
    const most = turned[worths.indexOf(Math.min(...worths))];
    return `${most} ${play[most]}`;
  }

  /** Idle levels, the least missed first, as many as it still wins about as often with. */
  private *dullest(before: { ran: AskedRuns; first: number }): Asking<ProvedPlay | undefined> {
    if (!(meanOf(Array.from(before.ran.columns.won)) > 0)) return undefined;
    const { idle } = this;
    if (!idle.length || this.left < this.idleRuns) return undefined;
    const seed = this.nextSeed;
    const alone = yield* this.run(
      'idle',
      idle.map(({ h, l }) => this.with(this.written, h, l)),
      RUNS.idle,
      seed,
    );
    const wins = ({ columns }: AskedRuns) => meanOf(Array.from(columns.won));
    const ordered = idle.map((one, i) => ({ ...one, wins: wins(alone[i]), worth: meanOf(worthOf(alone[i])) }));
    ordered.sort((a, b) => b.wins - a.wins || b.worth - a.worth);
    const prefixes = ordered.map((_, i) => ordered.slice(0, i + 1).reduce((play, { h, l }) => this.with(play, h, l), this.written));
    const came = yield* this.run('idle', prefixes, RUNS.idle, seed);
    const [base] = yield* this.run('idle', [this.written], RUNS.idle, seed);
    for (let i = prefixes.length - 1; i >= 0; i--) {
      if (wins(came[i]) < wins(base) - AS_OFTEN) continue;
      const [ran] = yield* this.prove('proved', [prefixes[i]], before.first);
      const found = this.proved(prefixes[i], before, ran);
      if (found.wins.low >= -2 * AS_OFTEN) return found;
      if (this.left < RUNS.proof) return undefined;
    }
    return undefined;
  }
}

function estimatesOf({ columns }: AskedRuns): { won: Estimate; dose: Estimate } {
  return { won: estimate(columns.won, 'share'), dose: estimate(columns.dose, 'mean') };
}
