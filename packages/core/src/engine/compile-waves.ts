/** Waves, groups and what events do, as a run reads them; and the seats of a party that comes in groups. */
import type { Arena } from '../model/arena';
import type { CompiledBoost } from '../model/effects/effect';
import type { Consequence, Encounter, Wave, WaveGroup } from '../model/encounter';
import type { FieldTweak } from '../model/tweak';
import { OUTCOME } from '../record/outcome';
import { ENEMY, PARTY } from '../record/sides';
import { microseconds } from '../record/time';
import { compileCondition, type ConditionScope, numberIn } from './compile-condition';
import { compileCounts } from './compile-unit';
import type { Kinds } from './kinds';
import type { Compiled, CompiledConsequence, CompiledGroup, CompiledWave } from './tables';
import { textKey } from './time/chance';

export function compileWave(
  wave: Wave,
  number: number,
  encounter: Encounter,
  arena: Arena,
  kinds: Kinds,
  scope: ConditionScope,
): CompiledWave {
  const key = textKey(2, wave.id);
  const after = wave.after === undefined ? number - 1 : encounter.waves.findIndex(({ id }) => id === wave.after);
  const times = wave.repeat?.times ?? 1;
  return {
    id: wave.id,
    name: wave.name,
    key,
    start: wave.start,
    at: microseconds(wave.at),
    after,
    share: wave.share,
    when: wave.when ? compileCondition(wave.when, scope) : null,
    timeout: microseconds(wave.timeout ?? 0),
    delay: microseconds(wave.delay),
    brings: [wave.groups.some(({ side }) => side === 'ours'), !wave.groups.length || wave.groups.some(({ side }) => side === 'theirs')],
    groups: wave.groups.map((group) => compileGroup(group, key, times, wave, arena, kinds)),
    times,
    every: wave.repeat?.when === 'every' ? Math.max(1, microseconds(wave.repeat.every)) : 0,
    pause: microseconds(wave.repeat?.pause ?? 0),
    againShare: wave.repeat?.share ?? 1,
    holdsBack: wave.holdsBack,
    countsSummoned: wave.countsSummoned,
    countsRevived: wave.countsRevived,
    optional: wave.optional || wave.start === 'called',
  };
}

/** Kinds by which of a group's traits a unit has; none where it can't be: all have one that is certain, and nobody one without a share. */
function kindsByTraits(group: WaveGroup, wave: Wave, comings: FieldTweak[][], enemies: readonly string[], kinds: Kinds): number[][][] {
  const { traits } = group;
  return Array.from({ length: 1 << traits.length }, (_, drawn) => {
    const has = (i: number) => (drawn & (1 << i)) !== 0;
    if (traits.some(({ share }, i) => (has(i) ? share <= 0 : share >= 1))) return [];
    const borne = [...wave.traits, ...traits.filter((_, i) => has(i)).map(({ trait }) => trait)];
    return comings.map((grown) => enemies.map((enemy) => kinds.of(enemy, borne, grown)));
  });
}

function compileGroup(group: WaveGroup, waveKey: number, times: number, wave: Wave, arena: Arena, kinds: Kinds): CompiledGroup {
  const { repeat } = wave;
  const entries = group.pool.length ? group.pool : [{ enemy: group.enemy as string, weight: 1 }];
  const grown = (coming: number) => Array.from({ length: coming }, () => repeat?.tweaks ?? []).flat();
  const comings = Array.from({ length: times }, (_, coming) => coming);
  const factor = (coming: number) => comings.slice(0, coming).reduce((product) => product * (repeat?.count ?? 1), 1);
  const counts = (count: number) => comings.map((coming) => Math.floor(count * factor(coming) + 0.5));
  const { names } = kinds;
  const most = Math.max(group.count.min, group.count.max);
  return {
    id: group.id,
    key: textKey(waveKey, group.id),
    side: group.side === 'ours' ? PARTY : ENEMY,
    seats: comings.map(() => -1),
    kinds: kindsByTraits(
      group,
      wave,
      comings.map(grown),
      entries.map(({ enemy }) => enemy),
      kinds,
    ),
    shares: group.traits.map(({ share }) => share),
    weights: entries.map(({ weight }) => weight),
    draws: group.draws,
    budget: group.budget,
    worths: entries.map(({ enemy }) => kinds.worth(enemy)),
    min: counts(group.count.min),
    max: counts(most),
    points: group.at.map((id) => arena.spawnPoints.findIndex((point) => point.id === id)),
    rule: group.rule,
    leastDistance: group.leastDistance,
    outOfView: group.outOfView,
    spacing: microseconds(group.spacing),
    alerted: group.alerted || group.target !== undefined,
    targetType: group.target === undefined ? -1 : names.types.indexOf(group.target),
    targetRole: group.target === undefined ? -1 : names.roles.indexOf(group.target),
    leavesBeyond: group.leavesBeyond ?? Infinity,
  };
}

/** What a consequence lays over units, and over which of them. */
function laidBy({ does, tweaks, of, to, whom }: Consequence, kinds: Kinds): { tweak: FieldTweak; on: boolean[] }[] {
  if (does === 'tweak') return tweaks.map((tweak) => ({ tweak, on: kinds.spokenOf(tweak) }));
  if (does !== 'trait' || of === undefined || to === undefined) return [];
  const on = kinds.spokenOf({ scope: to, of: whom });
  return kinds.changesOf(of).map((tweak) => ({ tweak, on }));
}

export function compileConsequence(act: Consequence, name: string, kinds: Kinds): CompiledConsequence {
  const { names } = kinds;
  const ofWave = act.does === 'startWave' || act.does === 'stopWave';
  const of = act.of === undefined || act.does === 'trait' ? -1 : ofWave ? names.waves.indexOf(act.of) : numberIn(names.flags, act.of);
  const laid = laidBy(act, kinds);
  const boosts = names.types.map((type, t): CompiledBoost | null => {
    const tweaks = laid.filter(({ on }) => on[t]).map(({ tweak }) => tweak);
    if (!tweaks.length) return null;
    return { id: numberIn(names.boosts, `${name}/${type}`), tweaks, lasts: 0, ...(act.does === 'trait' && { early: true }) };
  });
  return {
    does: act.does,
    of,
    boosts,
    counts: compileCounts(act.counts ? [act.counts] : [], names)[0] ?? null,
    score: act.score ?? 0,
    outcome: OUTCOME[act.as === 'cleared' ? 'cleared' : act.as === 'lost' ? 'lost' : 'ended'],
  };
}

/** A seat for each unit that groups of the party's side may bring, in the order of waves, comings and groups; the groups are told theirs. */
export function seated(waves: CompiledWave[]): Compiled['seats'] {
  const seats: Compiled['seats'] = [];
  for (const { groups, times } of waves)
    for (let coming = 0; coming < times; coming++)
      for (const group of groups) {
        if (group.side !== PARTY) continue;
        const kind = group.kinds.find((kinds) => kinds.length)![coming][0];
        const count = group.max[coming] * (group.rule === 'each' ? group.points.length : 1);
        group.seats[coming] = seats.length;
        for (let i = 0; i < count; i++) seats.push({ kind });
      }
  return seats;
}
