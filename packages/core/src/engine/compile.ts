/**
 * From a document, an encounter and a lens to the tables that a run reads. Compile once, run many. The result is plain
 * data and may be sent to a worker.
 */
import { LIMITS } from '../model/limits';
import type { Arena, Corner } from '../model/arena';
import { effectiveEncounter, effectiveUnit, type Lens, traitsAt, tweakApplies, tweakedUnit } from '../model/effective';
import type { CompiledBoost } from '../model/effects/effect';
import type { Consequence, Encounter, PartyMember, Wave, WaveGroup } from '../model/encounter';
import { plannedUnits } from '../model/planned';
import type { Project } from '../model/project';
import { traitsBy, tweaksBy } from '../model/trait';
import type { NumberTweak, Tweak } from '../model/tweak';
import { Unit } from '../model/unit';
import { unitHeads } from '../model/variants';
import { OUTCOME } from '../record/outcome';
import { ENEMY, PARTY } from '../record/sides';
import { microseconds } from '../record/time';
import { cosine, sine } from './body/rotation';
import { compileCondition, type ConditionScope, numberIn } from './compile-condition';
import { compileCounts, compileUnit, type UnitContext } from './compile-unit';
import type {
  Compiled,
  CompiledConsequence,
  CompiledGroup,
  CompiledMember,
  CompiledShape,
  CompiledUnit,
  CompiledWall,
  CompiledWave,
  Names,
} from './tables';
import { textKey } from './time/chance';
import { DEFAULT_STEP_SECONDS, ENGINE_VERSION, MOST_UNITS, SUMMON_ROOM } from './tuning';
import { leaveOut } from './without';

export interface CompileOptions extends Lens {
  /** An encounter of the project, or one made for the occasion (a duel). */
  encounter: string | Encounter;
  /** The arena of an encounter made for the occasion. */
  arena?: Arena;
  /** `wave:ID` or `unit:ID`: the encounter without it. */
  without?: string;
  /** s; movement, senses and transitions advance this often */
  stepSeconds?: number;
}

/** @throws Error when the project has no such encounter, tier, skill or style */
export function compile(project: Project, options: CompileOptions): Compiled {
  const wanted = typeof options.encounter === 'string' ? project.encounters.find(({ id }) => id === options.encounter) : options.encounter;
  if (!wanted) throw new Error(`there is no encounter "${String(options.encounter)}" in ${project.name}`);
  mustExist(project.tiers, options.tier, 'tier', project.name);
  mustExist(project.skills, options.skill, 'skill', project.name);
  mustExist(project.styles, options.style, 'style', project.name);
  const { players, stepSeconds = DEFAULT_STEP_SECONDS } = options;
  if (players !== undefined && !(Number.isInteger(players) && players >= 1 && players <= LIMITS.party))
    throw new Error(`players must be a whole number from 1 to ${LIMITS.party}: it is ${players}`);
  if (!(stepSeconds >= 0.001 && stepSeconds <= 1)) throw new Error(`step must be between 0.001 and 1 s: it is ${stepSeconds}`);
  const whole = effectiveEncounter(project, wanted, options).unit;
  const encounter = options.without === undefined ? whole : leaveOut(whole, options.without);
  const arena = options.arena ?? project.arenas.find(({ id }) => id === encounter.arena);
  if (!arena) throw new Error(`there is no arena "${encounter.arena}" in ${project.name}`);

  const kinds = new Kinds(project, options, encounter, arena, stepSeconds);
  const { names } = kinds;
  const members = encounter.party.slice(0, players ?? encounter.party.length);
  const party = kinds.lineUp(members, 'party', arena, 0);
  const allies = kinds.lineUp(encounter.allies, 'allies', arena, 1);
  const scope: ConditionScope = { names, attacks: [], nodes: { count: 0 } };
  const waves = encounter.waves.map((wave, number) => compileWave(wave, number, encounter, arena, kinds, scope));
  const seats = members.length ? party.map(({ kind }) => ({ kind })) : seated(waves);
  const places = arena.points.map((point) => ({
    id: point.id,
    x: point.x,
    y: point.y,
    kind:
      point.health !== undefined && standsIn(encounter, point.id)
        ? kinds.ofPoint(point.id, point.name, point.radius, point.height, point.health)
        : -1,
    defended: encounter.ends.defend.includes(point.id),
    enemies: encounter.ends.destroy.includes(point.id),
  }));
  const events = encounter.events.map(({ id, name, when, then }) => ({
    id,
    name,
    when: compileCondition(when, scope),
    then: then.map((act, i) => compileConsequence(act, `event/${id}/${i}`, kinds)),
  }));
  const zones = arena.zones.map(({ id, corners, flag, by, role }) => ({
    id,
    shape: shapeOf(corners),
    middleX: corners.reduce((sum, { x }) => sum + x, 0) / corners.length,
    middleY: corners.reduce((sum, { y }) => sum + y, 0) / corners.length,
    flag: numberIn(names.flags, flag),
    party: by !== 'enemies',
    enemies: by !== 'party',
    role: role === undefined ? -1 : numberIn(names.roles, role),
  }));
  kinds.finish();
  const summons = kinds.all.some(({ attacks }) => attacks.some(({ summonKind }) => summonKind >= 0));
  const ours = waves
    .flatMap(({ groups }) => groups.filter(({ side }) => side === PARTY).flatMap((group) => group.kinds.flat(2)))
    .map((kind) => ({ kind }));
  const standing = places.filter(({ kind }) => kind >= 0).length;
  return {
    engine: ENGINE_VERSION,
    step: microseconds(stepSeconds),
    limit: microseconds(encounter.limit),
    halfWidth: arena.width / 2,
    halfDepth: arena.depth / 2,
    grid: arena.grid,
    walls: arena.walls.map(compileWall),
    groundRules: kinds.context.groundRules,
    closed: kinds.closedGround(),
    zones,
    points: arena.spawnPoints.map(({ id, x, y, scatter, facing: f }) => ({ id, x, y, scatter, fx: cosine(f), fy: sine(f) })),
    places,
    names,
    kinds: kinds.all,
    kindOfType: names.types.map((type) => kinds.plainKind(type)),
    roleOfType: kinds.context.roleOfType,
    keepSource: kinds.context.keepSource,
    party,
    seats,
    allies,
    waves,
    events,
    counters: encounter.counters.map(({ start }) => start),
    counterNames: encounter.counters.map(({ name }) => name),
    pools: encounter.slots.map(({ id, size, perTarget, gap }) => ({ id, size, perTarget, gap: microseconds(gap) })),
    aliveMost: encounter.alive?.most ?? Infinity,
    aliveMostOfType: names.types.map((type) => encounter.alive?.perType.find(({ unit }) => unit === type)?.most ?? Infinity),
    whenFull: encounter.alive?.full ?? 'wait',
    winsCleared: encounter.ends.cleared,
    winsSurvive: encounter.ends.survive,
    winsDestroyed: places.some(({ kind, enemies }) => enemies && kind >= 0),
    capacity: Math.min(MOST_UNITS, plannedUnits(encounter) + standing + (summons ? SUMMON_ROOM : 0)),
    attackRoom: kinds.all.reduce((most, { attacks }) => Math.max(most, attacks.length), 1),
    hasPlayers: [...party, ...allies, ...ours].some(({ kind }) => kinds.all[kind].player !== null),
  };
}

/** A seat for each unit that groups of the party's side may bring, in the order of waves, comings and groups; the groups are told theirs. */
function seated(waves: CompiledWave[]): Compiled['seats'] {
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

function mustExist(list: { id: string }[], id: string | undefined, what: string, project: string): void {
  if (id !== undefined && !list.some((item) => item.id === id)) throw new Error(`there is no ${what} "${id}" in ${project}`);
}

/** The unit kinds of one encounter: each unit once, and once more for all that traits and growth of waves make of it. */
class Kinds {
  readonly all: CompiledUnit[] = [];
  readonly names: Names;
  private readonly numbers = new Map<string, number>();
  readonly context: UnitContext;

  constructor(
    private readonly project: Project,
    private readonly lens: Lens,
    private readonly encounter: Encounter,
    private readonly arena: Arena,
    stepSeconds: number,
  ) {
    const heads = new Map(unitHeads(project).map((head) => [head.id, head]));
    const types = this.reachable();
    const units = types.map((type) => this.effective(type));
    this.names = {
      flags: [],
      counters: encounter.counters.map(({ id }) => id),
      waves: encounter.waves.map(({ id }) => id),
      pools: encounter.slots.map(({ id }) => id),
      types: [
        ...types,
        ...arena.points.filter(({ id, health }) => health !== undefined && standsIn(encounter, id)).map(({ id }) => `point:${id}`),
      ],
      roles: [...new Set([...types.map((type) => heads.get(type)?.role ?? ''), POINT_ROLE])],
      damageTypes: [],
      points: arena.points.map(({ id }) => id),
      zones: arena.zones.map(({ id }) => id),
      boosts: [],
    };
    const changes = encounter.events.some(({ then }) => then.some(({ does }) => does === 'tweak' || does === 'trait'));
    const boosts = units.some(({ attacks }) => attacks.some(({ effects }) => effects.boost));
    this.context = {
      names: this.names,
      step: microseconds(stepSeconds),
      kindOf: (id) => this.of(id),
      groundRules: [{ only: [], never: [] }],
      roleOfType: this.names.types.map((type) => (type.startsWith('point:') ? POINT_ROLE : (heads.get(type)?.role ?? ''))),
      keepSource: changes || boosts || units.some(({ states }) => states.some(({ tweaks }) => tweaks.length)),
    };
  }

  /** Every unit that may appear: the party, allies, waves, and what they summon. */
  private reachable(): string[] {
    const { party, allies, waves } = this.encounter;
    const members = party.slice(0, this.lens.players ?? party.length);
    const found = new Set([...members, ...allies].map(({ unit }) => unit));
    for (const { groups } of waves) {
      for (const { enemy, pool } of groups)
        for (const id of [enemy, ...pool.map((entry) => entry.enemy)]) if (id !== undefined) found.add(id);
    }
    for (const id of found) for (const { summon } of this.effective(id).attacks) if (summon) found.add(summon.unit);
    return [...found];
  }

  private effective(id: string): Unit {
    return effectiveUnit(this.project, id, this.lens, this.encounter).unit;
  }

  /** The kind of a unit with traits laid over it, and what its wave has grown by. */
  of(id: string, traits: readonly string[] = [], grown: readonly NumberTweak[] = []): number {
    const key = traits.length + grown.length ? `${id} ${JSON.stringify([traits, grown])}` : id;
    const known = this.numbers.get(key);
    if (known !== undefined) return known;
    const number = this.all.length;
    this.numbers.set(key, number);
    // Its place is kept while it is being made: it may summon its own kind.
    this.all.push(undefined as unknown as CompiledUnit);
    const unit = this.effective(id);
    const born = tweakedUnit(unit, tweaksBy(this.project, traits));
    const kind = compileUnit(tweakedUnit(born, grown), this.context);
    const bears = [...traitsAt(this.project, unit, this.lens), ...traitsBy(this.project, traits)].map(({ name }) => name);
    this.all[number] = { ...kind, bears, ...(kind.source && { source: born, grown }) };
    return number;
  }

  /** What stands at a point that can be destroyed. */
  ofPoint(id: string, name: string, radius: number, height: number, health: number): number {
    const unit = Object.assign(new Unit(), { id: `point:${id}`, name, side: 'party', role: POINT_ROLE });
    Object.assign(unit.body, { radius, height, eyeHeight: height, muzzleHeight: height });
    unit.health.max = health;
    unit.temper.manner = 'passive';
    unit.onDeath.worth = 0;
    this.numbers.set(unit.id, this.all.length);
    return this.all.push(compileUnit(unit, this.context)) - 1;
  }

  /** A kind by which a type is known: without what traits and growth make of it, where it comes so. */
  plainKind(type: string): number {
    return this.numbers.get(type) ?? this.all.findIndex(({ id }) => id === type);
  }

  worth(id: string): number {
    return this.effective(id).onDeath.worth;
  }

  /** What a trait of the project changes. */
  changesOf(trait: string): NumberTweak[] {
    return tweaksBy(this.project, [trait]);
  }

  /** Which of the encounter's units a scope speaks of, by type. */
  spokenOf(tweak: Pick<Tweak, 'scope' | 'of'>): boolean[] {
    return this.names.types.map((type) => !type.startsWith('point:') && tweakApplies(tweak, this.effective(type)));
  }

  /** At a point of the arena where one is named; the others side by side across the way the party faces, an average radius between edges; rows behind one another. */
  lineUp(members: PartyMember[], luck: string, arena: Arena, row: number): CompiledMember[] {
    const inLine = this.rowOf(
      members.filter(({ at }) => at === undefined),
      luck,
      arena,
      row,
    );
    return members.map(({ id, unit, at }) => {
      const point = at === undefined ? undefined : arena.points.find((one) => one.id === at);
      if (!point) return inLine.shift()!;
      const { facing } = arena.partyStart;
      const key = textKey(textKey(1, luck), id);
      return { kind: this.of(unit), key, x: point.x, y: point.y, fx: cosine(facing), fy: sine(facing) };
    });
  }

  private rowOf(members: PartyMember[], luck: string, { partyStart }: Arena, row: number): CompiledMember[] {
    const key = textKey(1, luck);
    const [fx, fy] = [cosine(partyStart.facing), sine(partyStart.facing)];
    const kinds = members.map(({ unit }) => this.of(unit));
    const radii = kinds.map((kind) => this.all[kind].radius);
    const apart = radii.reduce((sum, radius) => sum + radius, 0) / Math.max(1, radii.length);
    const width = radii.reduce((sum, radius) => sum + 2 * radius, 0) + (members.length - 1) * apart;
    const back = row * 4 * apart;
    let offset = -width / 2;
    return members.map(({ id }, i) => {
      const centre = members.length === 1 ? 0 : offset + radii[i];
      offset += 2 * radii[i] + apart;
      return {
        kind: kinds[i],
        key: textKey(key, id),
        x: partyStart.x - fy * centre - fx * back,
        y: partyStart.y + fx * centre - fy * back,
        fx,
        fy,
      };
    });
  }

  /** Areas closed to each class: of a kind it may never enter, or not of the kinds it is confined to. */
  closedGround(): CompiledShape[][] {
    return this.context.groundRules.map(({ only, never }) =>
      this.arena.ground
        .filter(({ kind }) => never.includes(kind) || (only.length > 0 && !only.includes(kind)))
        .map(({ corners }) => shapeOf(corners)),
    );
  }

  /** Filters were made while types were still being met: every list of types has its full length now. */
  finish(): void {
    for (const kind of this.all) {
      const { allowed } = kind.targeting;
      while (allowed && allowed.length < this.names.types.length) allowed.push(true);
    }
  }
}

const POINT_ROLE = 'point';

/** Whether something stands at a point that has health. */
function standsIn({ ends: { defend, destroy, also } }: Encounter, point: string): boolean {
  return also.includes(point) || defend.includes(point) || destroy.includes(point);
}

/** Corners counter-clockwise, whichever way they were given. */
function shapeOf(corners: readonly Corner[]): CompiledShape {
  const area = corners.reduce((sum, a, i) => {
    const b = corners[(i + 1) % corners.length];
    return sum + a.x * b.y - b.x * a.y;
  }, 0);
  const ordered = area < 0 ? [...corners].reverse() : corners;
  return { xs: ordered.map(({ x }) => x), ys: ordered.map(({ y }) => y) };
}

/** A wall as lines of sight meet it: corners counter-clockwise, with its bounds. */
export function compileWall({ id, name, height, corners }: Arena['walls'][number]): CompiledWall {
  const { xs, ys } = shapeOf(corners);
  return { id, name, height, xs, ys, left: Math.min(...xs), right: Math.max(...xs), bottom: Math.min(...ys), top: Math.max(...ys) };
}

function compileWave(wave: Wave, number: number, encounter: Encounter, arena: Arena, kinds: Kinds, scope: ConditionScope): CompiledWave {
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
function kindsByTraits(group: WaveGroup, wave: Wave, comings: NumberTweak[][], enemies: readonly string[], kinds: Kinds): number[][][] {
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
function laidBy({ does, tweaks, of, to, whom }: Consequence, kinds: Kinds): { tweak: NumberTweak; on: boolean[] }[] {
  if (does === 'tweak') return tweaks.map((tweak) => ({ tweak, on: kinds.spokenOf(tweak) }));
  if (does !== 'trait' || of === undefined || to === undefined) return [];
  const on = kinds.spokenOf({ scope: to, of: whom });
  return kinds.changesOf(of).map((tweak) => ({ tweak, on }));
}

function compileConsequence(act: Consequence, name: string, kinds: Kinds): CompiledConsequence {
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
